package org.mendedleaf.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.CompareWords;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.compare.TwoMomentsReport;
import org.mendedleaf.core.line.Labels;
import org.mendedleaf.core.line.Moment;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Compares two moments of a folder. */
@Command(name = "compare", description = "${bundle:cli.compare}", mixinStandardHelpOptions = true)
final class CompareCommand extends Base {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.list.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Option(names = "--from", required = true, paramLabel = "MOMENT", descriptionKey = "cli.compare.from")
    @SuppressWarnings("NullAway.Init")
    String from;

    @Option(names = "--to", paramLabel = "MOMENT", descriptionKey = "cli.compare.to")
    String to = "now";

    @Option(names = "--csv", paramLabel = "FILE", descriptionKey = "cli.compare.csv")
    @Nullable
    Path csv;

    CompareCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder);
                Reading reading = located.vault().read()) {
            if (!reading.isFolder(located.place(), located.path())) {
                throw new IllegalArgumentException(Words.of("cli.list.noFolder", located.file()));
            }
            Instant first = moment(from, located);
            Instant second = moment(to, located);
            if (second.isBefore(first)) {
                throw new IllegalArgumentException(Words.of("cli.compare.order", from, to));
            }
            TwoMoments all = TwoMoments.of(reading.difference(located.place(), located.path(), first, second));
            Labels labels = Labels.of(reading, located.place());
            Path file = csv;
            if (file != null) {
                Files.writeString(
                        file, TwoMomentsReport.csv(all.changes(), labels), java.nio.file.StandardOpenOption.CREATE_NEW);
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
            return Main.DONE;
        }
    }

    private void print(TwoMoments all, Instant first, Instant second) throws java.io.IOException {
        say(
                "cli.compare.title",
                Say.full(first, zone()),
                second.equals(Moment.FAR) ? Words.of("when.now") : Say.full(second, zone()));
        List<List<String>> rows = new ArrayList<>();
        for (TwoMoments.Change c : all.changes()) {
            boolean moved = c.kind() == TwoMoments.Kind.MOVED || c.kind() == TwoMoments.Kind.MOVED_AND_CHANGED;
            String from = moved
                    ? " " + Words.of("compare.from", c.before().orElseThrow().path())
                    : "";
            rows.add(List.of(
                    Words.of("compare.kind." + c.kind()),
                    Say.size(c.sizeAfter()),
                    Say.sizeChange(c.sizeAfter() - c.sizeBefore()),
                    c.path() + from));
        }
        table(rows, "lrrl");
        line(CompareWords.sum(all));
    }
}
