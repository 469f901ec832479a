package org.mendedleaf.cli.recover;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.FileComparison;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.pick.Picking;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Takes single changes back. */
@Command(name = "pick", description = "${bundle:cli.pick}")
public final class PickCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--from", paramLabel = "N", required = true, descriptionKey = "cli.pick.from")
    @SuppressWarnings("NullAway.Init")
    String from;

    @Option(names = "--change", paramLabel = "K,...", required = true, descriptionKey = "cli.pick.change")
    @SuppressWarnings("NullAway.Init")
    String change;

    @Option(names = "--plan", descriptionKey = "cli.pick.plan")
    boolean plan;

    public PickCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Set<Integer> numbers = numbers();
        try (Located located = locate(file)) {
            folderOnly(located);
            Side before;
            Side after;
            try (Reading reading = located.vault().read()) {
                Line line = line(located, reading);
                before = Side.version(reading, inVault(located.vault(), version(line, from)));
                after = Side.live(located.place(), line.path())
                        .filter(s -> line.removed().isEmpty())
                        .orElseThrow(() -> new IllegalArgumentException(Words.of("pick.live", line.path())));
            }
            Comparison comparison = Compare.compare(before.name(), before.content(), after.name(), after.content());
            Picking.Outcome outcome =
                    Picking.back(after.name(), before.content(), after.content(), comparison, numbers);
            if (plan) {
                if (!json) {
                    outcome.also().forEach(this::line);
                }
                Side made = new Side(after.name(), Words.of("cli.pick.made"), outcome.content());
                new FileComparison(this)
                        .say(
                                located.path(),
                                after,
                                made,
                                new FileComparison.Files3(
                                        null, null, null, settings().cells()));
                return ExitCodes.DONE;
            }
            return put(located, outcome, before.said());
        }
    }

    private Set<Integer> numbers() {
        Set<Integer> numbers = new TreeSet<>();
        for (String part : change.split(",")) {
            try {
                numbers.add(Integer.parseInt(part.strip()));
            } catch (NumberFormatException e) {
                throw new IllegalArgumentException(Words.of("cli.pick.numbers", change), e);
            }
        }
        return numbers;
    }

    private int put(Located located, Picking.Outcome outcome, String said) throws IOException {
        Path made = TemporaryFiles.file("");
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            Files.write(made, outcome.content());
            String note = Picking.note(said, outcome.taken());
            PutResult result = work(located).put(List.of(new Revision(made, located.path(), note)), progress);
            result.failed().forEach((path, why) -> complain(path + ": " + why));
            if (!result.failed().isEmpty()) {
                return ExitCodes.SOME_FAILED;
            }
            String label = result.labels().getOrDefault(located.path(), "");
            if (json) {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("path", located.path());
                map.put("version", label);
                map.put("note", note);
                map.put(
                        "taken",
                        outcome.taken().stream().map(Comparison.Change::number).toList());
                map.put("also", outcome.also());
                printJson(map);
            } else {
                say(
                        "pick.done",
                        located.path(),
                        Words.of("pick.changes", outcome.taken().size()),
                        said,
                        label);
                outcome.also().forEach(this::line);
            }
            return ExitCodes.DONE;
        } finally {
            Files.deleteIfExists(made);
        }
    }
}
