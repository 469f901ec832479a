package org.mendedleaf.cli.past;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.CellsOption;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.FileComparison;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Labels;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.CompareWords;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.compare.TwoMomentsReport;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Compares two moments of a folder, two versions of a file, or two files. */
@Command(name = "compare", description = "${bundle:cli.compare}")
public final class CompareCommand extends Base {

    @Parameters(paramLabel = "PATH", index = "0", descriptionKey = "cli.compare.path")
    @SuppressWarnings("NullAway.Init")
    Path path;

    @Parameters(paramLabel = "FILE", index = "1", arity = "0..1", descriptionKey = "cli.compare.other")
    @Nullable
    Path other;

    @Mixin
    private final CellsOption cells = new CellsOption();

    @Option(names = "--from", paramLabel = "MOMENT|N", descriptionKey = "cli.compare.from")
    @Nullable
    String from;

    @Option(names = "--to", paramLabel = "MOMENT|N", descriptionKey = "cli.compare.to")
    @Nullable
    String to;

    @Option(names = "--html", paramLabel = "FILE", descriptionKey = "cli.compare.html")
    @Nullable
    Path html;

    @Option(names = "--patch", paramLabel = "FILE", descriptionKey = "cli.compare.patch")
    @Nullable
    Path patch;

    @Option(names = "--csv", paramLabel = "FILE", descriptionKey = "cli.compare.csv")
    @Nullable
    Path csv;

    @Option(names = "--member", paramLabel = "PATH", descriptionKey = "cli.compare.member")
    @Nullable
    String member;

    public CompareCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Path second = other;
        if (second != null) {
            if (from != null || to != null) {
                throw new IllegalArgumentException(Words.of("cli.compare.two"));
            }
            Side before = Side.disk(path);
            return compared(before.name(), before, Side.disk(second));
        }
        String begin = from;
        try (Located located = locate(path);
                Reading reading = located.vault().read()) {
            if (begin == null) {
                throw new IllegalArgumentException(Words.of("cli.compare.noFrom"));
            }
            return reading.folders().isFolder(located.place(), located.path())
                    ? folder(located, reading, begin)
                    : file(located, reading, begin);
        }
    }

    private FileComparison.Files3 files() throws IOException {
        return new FileComparison.Files3(html, patch, csv, cells.cells(settings()));
    }

    private int file(Located located, Reading reading, String begin) throws IOException {
        Line line = line(located, reading);
        Side before = Side.version(reading, inVault(located.vault(), version(line, begin)));
        String end = to;
        Side after;
        if (end == null || end.equals("now")) {
            Optional<Side> live =
                    line.removed().isPresent() ? Optional.empty() : Side.live(located.place(), line.path());
            after = live.isPresent()
                    ? live.get()
                    : Side.version(
                            reading, inVault(located.vault(), line.newest().orElseThrow()));
        } else {
            after = Side.version(reading, inVault(located.vault(), version(line, end)));
        }
        return compared(line.path(), before, after);
    }

    private int compared(String title, Side before, Side after) throws IOException {
        String inside = member;
        if (inside == null) {
            new FileComparison(this).say(title, before, after, files());
            return ExitCodes.DONE;
        }
        Pair pair = new Pair(Optional.of(before), Optional.of(after)).member(inside);
        if (pair.before().isEmpty() || pair.after().isEmpty()) {
            Side without = pair.before().isEmpty() ? before : after;
            throw new IllegalArgumentException(Words.of("cli.compare.noMember", inside, without.said()));
        }
        new FileComparison(this)
                .say(
                        Words.of("cli.compare.inside", inside, title),
                        pair.before().orElseThrow(),
                        pair.after().orElseThrow(),
                        files());
        return ExitCodes.DONE;
    }

    private int folder(Located located, Reading reading, String begin) throws IOException {
        if (html != null || patch != null || member != null) {
            throw new IllegalArgumentException(Words.of("cli.compare.onlyFiles"));
        }
        String end = to == null ? "now" : to;
        Instant first = moment(begin, located);
        Instant second = moment(end, located);
        if (second.isBefore(first)) {
            throw new IllegalArgumentException(Words.of("cli.compare.order", begin, end));
        }
        TwoMoments all = TwoMoments.of(reading.folders().difference(located.place(), located.path(), first, second));
        Labels labels = Labels.of(reading, located.place());
        Path file = csv;
        if (file != null) {
            Files.writeString(
                    file,
                    TwoMomentsReport.csv(all.changes(), labels, cells.cells(settings())),
                    java.nio.file.StandardOpenOption.CREATE_NEW);
        }
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("folder", located.file().toString());
            map.put("from", first.toString());
            map.put("to", second.equals(Moment.FAR) ? now().toString() : second.toString());
            map.put("growth", all.growth());
            map.put(
                    "changes",
                    all.changes().stream()
                            .map(c -> TwoMomentsReport.item(c, labels))
                            .toList());
            printJson(map);
        } else {
            print(all, first, second);
        }
        return ExitCodes.DONE;
    }

    private void print(TwoMoments all, Instant first, Instant second) throws IOException {
        say(
                "cli.compare.title",
                Formats.full(first, zone()),
                second.equals(Moment.FAR) ? Words.of("when.now") : Formats.full(second, zone()));
        List<List<String>> rows = new ArrayList<>();
        for (TwoMoments.Change c : all.changes()) {
            boolean moved = c.kind() == TwoMoments.Kind.MOVED || c.kind() == TwoMoments.Kind.MOVED_AND_CHANGED;
            String from = moved
                    ? " " + Words.of("compare.from", c.before().orElseThrow().path())
                    : "";
            rows.add(List.of(
                    Words.of("compare.kind." + c.kind()),
                    Formats.size(c.sizeAfter()),
                    Formats.sizeChange(c.sizeAfter() - c.sizeBefore()),
                    c.path() + from));
        }
        table(rows, "lrrl");
        line(CompareWords.sum(all));
    }
}
