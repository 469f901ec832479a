package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.Guardian;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyKeeper;
import org.mendedleaf.core.find.FindKeeper;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.HealthKeeper;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Duties;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.notices.DesktopNotice;
import org.mendedleaf.core.notices.NoticeKeeper;
import org.mendedleaf.core.retention.RetentionKeeper;
import org.mendedleaf.core.retention.Standing;
import org.mendedleaf.core.snapshots.SnapshotKeeper;
import org.mendedleaf.core.systems.CheckKeeper;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Captures at each place's rhythm until it is stopped. */
@Command(name = "watch", description = "${bundle:cli.watch}")
final class WatchCommand extends RetentionBase {

    WatchCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<OpenVault> open = new ArrayList<>();
        List<AutoCloseable> guardians = new ArrayList<>();
        CountDownLatch end = new CountDownLatch(1);
        Thread hook = new Thread(() -> close(guardians, open), "watch-end");
        try {
            for (Path folder : vaults()) {
                OpenVault vaultHere = open(folder);
                open.add(vaultHere);
                if (vaultHere.folder().isCopy()) {
                    complain(Words.of("vault.isCopy", folder));
                    continue;
                }
                Supervisor supervisor =
                        new Supervisor(Supervisor.Backoff.STANDARD, new Duties(vaultHere, clock(), this::told));
                guardians.add(supervisor);
                supervisor.add(new Guardian(supervisor, vaultHere, clock(), authors(), new Teller()));
                supervisor.add(new SnapshotKeeper(vaultHere, clock(), authors(), who(), new SnapshotTeller()));
                supervisor.add(new FindKeeper(vaultHere));
                supervisor.add(new HealthKeeper(vaultHere, clock(), () -> {}));
                Copies copies = new Copies(vaultHere, clock(), who());
                supervisor.add(new CopyKeeper(copies, clock(), () -> {}));
                supervisor.add(new CheckKeeper(
                        vaultHere,
                        new Healing(vaultHere, book(), clock(), authors()),
                        copies,
                        clock(),
                        false,
                        this::checked));
                supervisor.add(
                        new NoticeKeeper(vaultHere, home(), clock(), DesktopNotice::tell, c -> c.forEach(this::came)));
                supervisor.add(new RetentionKeeper(
                        vaultHere,
                        clock(),
                        who(),
                        calendar(),
                        () -> new Findings(vaultHere, who()).pausing(now()).isPresent(),
                        new RetentionTeller()));
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

    private static synchronized void close(List<AutoCloseable> guardians, List<OpenVault> open) {
        List<AutoCloseable> all = new ArrayList<>(guardians);
        all.addAll(open);
        for (AutoCloseable each : all) {
            try {
                each.close();
            } catch (Exception e) {
                org.slf4j.LoggerFactory.getLogger(WatchCommand.class).debug("closing", e);
            }
        }
        guardians.clear();
        open.clear();
    }

    private void came(Concern concern) {
        line(concern.words());
        surroundings.out().flush();
    }

    private void checked(Healing.Result result) {
        result.healed()
                .forEach(h -> line(Words.of(
                        "cli.check.healed", h.version().path(), h.version().label(), h.from())));
        result.after().lost().forEach(l -> complain(Words.of("copies.lost", l.path(), l.label())));
        surroundings.out().flush();
    }

    private final class RetentionTeller implements RetentionKeeper.Listener {
        @Override
        public void kept(Standing.Done done) {
            done.letGo().ifPresent(d -> line(Words.of("cli.watch.letGo", d.versions())));
            done.reclaimed().ifPresent(r -> line(Words.of("cli.watch.reclaimed", Say.size(r.freedBytes()))));
            done.trouble().forEach(WatchCommand.this::complain);
            surroundings.out().flush();
        }
    }

    private final class SnapshotTeller implements SnapshotKeeper.Listener {
        @Override
        public void taken(Place place, Snapshot snapshot) {
            line(Words.of(
                    "cli.watch.snapshot",
                    place.name(),
                    snapshot.label().isEmpty() ? "" : " (" + snapshot.label() + ")"));
            surroundings.out().flush();
        }

        @Override
        public void failed(Place place, IOException why) {
            // Told as the failure of the duty.
        }
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
            // Told as the failure of the duty.
        }
    }

    private synchronized void told(Duties.Failing duty) {
        if (duty.trouble().isEmpty()) {
            line(Words.of("cli.watch.recovered", duty.name()));
            surroundings.out().flush();
        } else {
            complain(Words.of("cli.watch.failed", duty.name(), duty.trouble()));
        }
    }
}
