package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.Guardian;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Captures at each place's rhythm until it is stopped. */
@Command(name = "watch", description = "${bundle:cli.watch}", mixinStandardHelpOptions = true)
final class WatchCommand extends Base {

    WatchCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<OpenVault> open = new ArrayList<>();
        List<Guardian> guardians = new ArrayList<>();
        CountDownLatch end = new CountDownLatch(1);
        Thread hook = new Thread(() -> close(guardians, open), "watch-end");
        try {
            for (Path folder : vaults()) {
                OpenVault vaultHere = open(folder);
                open.add(vaultHere);
                guardians.add(Guardian.start(vaultHere, clock(), authors(), new Teller()));
            }
            Runtime.getRuntime().addShutdownHook(hook);
            say("cli.watch.started");
            surroundings.out().flush();
            end.await();
            return Main.DONE;
        } finally {
            close(guardians, open);
        }
    }

    private static synchronized void close(List<Guardian> guardians, List<OpenVault> open) {
        guardians.forEach(Guardian::close);
        guardians.clear();
        for (OpenVault each : open) {
            try {
                each.close();
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(WatchCommand.class).debug("closing", e);
            }
        }
        open.clear();
    }

    private final class Teller implements Guardian.Listener {
        @Override
        public void captured(Place place, CaptureResult result) {
            if (result.points() > 0 || !result.troubles().isEmpty()) {
                Outcomes.print(WatchCommand.this, place, result);
                surroundings.out().flush();
            }
        }

        @Override
        public void failed(Place place, IOException why) {
            complain(Words.of("cli.watch.failed", place.name(), why.getMessage()));
        }
    }
}
