package org.mendedleaf.cli.revise;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Family;
import org.mendedleaf.core.intake.ScatteredCopies;
import org.mendedleaf.core.recovery.FoldResult;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Makes scattered copies the versions of one file each. */
@Command(name = "fold", description = "${bundle:cli.fold}")
public final class FoldCommand extends Base {

    @Parameters(paramLabel = "DIR", descriptionKey = "cli.fold.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Option(names = "--plan", descriptionKey = "cli.fold.plan")
    boolean plan;

    @Option(names = "--only", paramLabel = "NAME", descriptionKey = "cli.fold.only")
    @Nullable
    String only;

    public FoldCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder);
                TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            List<Family> families = new ScatteredCopies(located.vault(), located.place(), evidence(located))
                    .find(located.path(), progress);
            String wanted = only;
            if (wanted != null) {
                families = families.stream()
                        .filter(f -> RelativePath.name(f.keep()).equals(wanted))
                        .toList();
                if (families.isEmpty()) {
                    throw new IllegalArgumentException(Words.of("cli.fold.noSuch", wanted, located.file()));
                }
            }
            if (families.isEmpty()) {
                if (json) {
                    printJson(List.of());
                } else {
                    say("cli.fold.none", located.file());
                }
                return ExitCodes.DONE;
            }
            if (plan) {
                print(families);
                return ExitCodes.DONE;
            }
            FoldResult result =
                    work(located).fold(families.stream().map(Family::folding).toList(), progress);
            result.failed().forEach((path, why) -> complain(path + ": " + why));
            if (json) {
                printJson(
                        Map.of("versions", result.versions(), "removed", result.removed(), "failed", result.failed()));
            } else {
                result.versions().forEach((path, n) -> say("cli.fold.done", path, n));
                result.removed().forEach(path -> say("cli.fold.removed", path));
            }
            return result.failed().isEmpty() && !result.cancelled() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
    }

    private void print(List<Family> families) throws IOException {
        List<Object> all = new ArrayList<>();
        for (Family f : families) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("keep", f.keep());
            map.put(
                    "order",
                    f.members().stream()
                            .map(m -> {
                                Map<String, Object> row = new LinkedHashMap<>();
                                row.put("path", m.path());
                                row.put("modified", m.modified().toString());
                                row.put("size", m.size());
                                row.put("sharedPercent", m.shared());
                                row.put("sameAsBefore", m.same());
                                return row;
                            })
                            .toList());
            map.put("leftOut", f.leftOut());
            all.add(map);
            if (json) {
                continue;
            }
            say("cli.fold.family", f.keep(), f.versions());
            List<List<String>> rows = new ArrayList<>();
            for (Family.Member m : f.members()) {
                rows.add(List.of(
                        "  " + RelativePath.name(m.path()),
                        Formats.moment(m.modified(), now(), zone()),
                        Formats.size(m.size()),
                        m.same()
                                ? Words.of("fold.same")
                                : m.shared() < 0 ? "" : Words.of("intake.common", m.shared())));
            }
            table(rows, "llrl");
            f.leftOut().forEach(p -> say("cli.fold.leftOut", RelativePath.name(p)));
        }
        if (json) {
            printJson(all);
        }
    }
}
