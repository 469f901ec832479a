package org.mendedleaf.cli.base;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.ComparisonHtml;
import org.mendedleaf.core.compare.ComparisonReport;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.compare.UnifiedDiff;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.words.Words;

/** Says what changed from one content to another, and writes it into files. */
public final class FileComparison {

    private static final int SHOWN = 100;
    private static final int LONGEST = 160;

    private final Base command;

    public FileComparison(Base command) {
        this.command = command;
    }

    /** Where it is written besides; each is a new file. */
    public record Files3(
            @Nullable Path html,
            @Nullable Path patch,
            @Nullable Path csv,
            CsvTable.Cells cells) {}

    public void say(String title, Side before, Side after, Files3 to) throws IOException {
        Comparison comparison = Compare.compare(before.name(), before.content(), after.name(), after.content());
        Path html = to.html();
        if (html != null) {
            write(
                    html,
                    ComparisonHtml.page(title, before.said(), after.said(), comparison)
                            .getBytes(java.nio.charset.StandardCharsets.UTF_8));
        }
        Path patch = to.patch();
        if (patch != null) {
            write(patch, UnifiedDiff.of(before.name(), before.content(), after.name(), after.content()));
        }
        Path csv = to.csv();
        if (csv != null) {
            write(csv, ComparisonReport.csv(comparison, to.cells()).getBytes(java.nio.charset.StandardCharsets.UTF_8));
        }
        if (command.json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("file", title);
            map.put("from", before.said());
            map.put("to", after.said());
            map.putAll(ComparisonReport.json(comparison));
            command.printJson(map);
            return;
        }
        command.say("cli.compare.what", title, before.said(), after.said());
        command.line(comparison.words());
        List<Comparison.Change> changes = comparison.changes();
        changes.stream().limit(SHOWN).forEach(c -> command.line(words(c)));
        if (changes.size() > SHOWN) {
            command.say("cli.compare.more", changes.size() - SHOWN);
        }
    }

    private static void write(Path file, byte[] bytes) throws IOException {
        Files.write(file, bytes, StandardOpenOption.CREATE_NEW);
    }

    /** A change in one line. */
    static String words(Comparison.Change change) {
        String what = switch (change.mark()) {
            case ADDED -> Words.of("cli.compare.added", brief(change.after()));
            case REMOVED -> Words.of("cli.compare.removed", brief(change.before()));
            case MOVED -> Words.of("cli.compare.moved", brief(change.after()));
            default -> Words.of("cli.compare.changed", brief(change.before()), brief(change.after()));
        };
        String number = String.valueOf(change.number());
        return change.where().isEmpty()
                ? Words.of("cli.compare.change", number, what)
                : Words.of("cli.compare.changeAt", number, change.where(), what);
    }

    private static String brief(String text) {
        String line = text.replace('\n', ' ').replace('\t', ' ');
        return line.length() <= LONGEST ? line : line.substring(0, LONGEST) + "…";
    }
}
