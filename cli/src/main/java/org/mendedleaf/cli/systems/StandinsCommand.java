package org.mendedleaf.cli.systems;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Group;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.standins.StandIn;
import org.mendedleaf.standins.StandIns;
import org.mendedleaf.standins.TlsFront;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** The stand-ins for outside systems, for trying and for tests. */
@Command(name = "standins", description = "${bundle:cli.standins}", subcommands = StandinsCommand.Run.class)
public final class StandinsCommand extends Group {

    /** Runs all four in the foreground. */
    @Command(name = "run", description = "${bundle:cli.standins.run}")
    public static final class Run extends Base {

        @Option(names = "--dir", paramLabel = "DIR", descriptionKey = "cli.standins.dir")
        @Nullable
        Path dir;

        @Option(names = "--tls", descriptionKey = "cli.standins.tls")
        boolean tls;

        public Run(Surroundings surroundings) {
            super(surroundings);
        }

        @Override
        public Integer call() throws Exception {
            Path named = dir;
            Path folder = named == null ? Files.createTempDirectory("stand-ins") : named;
            try (StandIns all = new StandIns(folder, who())) {
                List<List<String>> rows = new ArrayList<>();
                List<Object> list = new ArrayList<>();
                for (StandIn s : all.all()) {
                    String token = s.token(who());
                    if (tls) {
                        // It listens until this process ends.
                        TlsFront front = new TlsFront(s.address(), "localhost", 0);
                        rows.add(List.of(s.kind(), front.address(), token, front.fingerprint()));
                        list.add(Map.of(
                                "kind",
                                s.kind(),
                                "address",
                                front.address(),
                                "token",
                                token,
                                "certificate",
                                front.fingerprint()));
                        continue;
                    }
                    rows.add(List.of(s.kind(), s.address(), token));
                    list.add(Map.of("kind", s.kind(), "address", s.address(), "token", token));
                }
                if (json) {
                    printJson(list);
                } else {
                    table(rows, tls ? "llll" : "lll");
                    say("cli.standins.running", folder);
                }
                surroundings.out().flush();
                new CountDownLatch(1).await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            return ExitCodes.DONE;
        }
    }
}
