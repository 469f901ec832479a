package org.mendedleaf.cli.revise;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Takes contents that only other systems hold into the vault. */
@Command(name = "take", description = "${bundle:cli.take}")
public final class TakeCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.take.version")
    @Nullable
    String version;

    @Option(names = "--soon", descriptionKey = "cli.take.soon")
    boolean soon;

    public TakeCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file)) {
            Line line;
            try (Reading reading = located.vault().read()) {
                line = reading.line(located.place(), located.path())
                        .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", located.file())));
            }
            MergedLine merged = MergedLine.of(located.vault(), line, registry(), true);
            String named = version;
            int only = named == null ? 0 : version(line, named).number();
            List<String> taken = new ArrayList<>();
            List<String> failed = new ArrayList<>();
            for (MergedPoint p : merged.points()) {
                boolean wanted = p.version().isPresent()
                        && !p.inVault()
                        && (only == 0
                                || (p.line().id() == line.id()
                                        && p.version().get().number() == only))
                        && (!soon || p.forgottenSoon(now()));
                if (wanted) {
                    Version v = p.version().get();
                    try {
                        inVault(located.vault(), v);
                        taken.add(Words.of(
                                "cli.take.one",
                                v.path(),
                                v.label(),
                                p.line().place().where()));
                    } catch (org.mendedleaf.core.systems.SystemException e) {
                        failed.add(e.words());
                    }
                }
            }
            failed.forEach(this::complain);
            if (json) {
                printJson(Map.of("taken", taken, "failed", failed));
            } else if (taken.isEmpty() && failed.isEmpty()) {
                say("cli.take.nothing");
            } else {
                taken.forEach(this::line);
            }
            return failed.isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
    }
}
