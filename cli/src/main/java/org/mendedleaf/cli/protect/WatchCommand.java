package org.mendedleaf.cli.protect;

import com.fasterxml.jackson.core.JsonProcessingException;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.JsonMapping;
import org.mendedleaf.cli.base.Outcomes;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.Guardian;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyKeeper;
import org.mendedleaf.core.find.FindKeeper;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.HealthKeeper;
import org.mendedleaf.core.jobs.ActivityLog;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.notices.DesktopNotice;
import org.mendedleaf.core.notices.NoticeKeeper;
import org.mendedleaf.core.retention.RetentionKeeper;
import org.mendedleaf.core.retention.StandingRules;
import org.mendedleaf.core.snapshots.SnapshotKeeper;
import org.mendedleaf.core.systems.CheckKeeper;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.systems.SystemWatch;
import org.mendedleaf.core.unfold.UnfoldKeeper;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Captures at each place's rhythm until it is stopped. */
@Command(name = "watch", description = "${bundle:cli.watch}")
public final class WatchCommand extends RetentionBase {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT);

    private volatile boolean started;
    private volatile @Nullable ActivityLog activity;

    public WatchCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        activity = activity("watch");
        List<OpenVault> open = new ArrayList<>();
        List<AutoCloseable> guardians = new ArrayList<>();
        CountDownLatch end = new CountDownLatch(1);
        boolean others = false;
        Thread hook = new Thread(() -> end(guardians, open), "watch-end");
        try {
            for (Path folder : vaults()) {
                OpenVault vaultHere = open(folder);
                open.add(vaultHere);
                if (vaultHere.folder().isCopy()) {
                    complain(Words.of("vault.isCopy", folder));
                    continue;
                }
                Optional<WatchLock> lock = WatchLock.take(vaultHere.folder());
                if (lock.isEmpty()) {
                    others = true;
                    complain(Words.of("cli.watch.other", folder));
                    continue;
                }
                guardians.add(lock.get());
                Supervisor supervisor =
                        new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(vaultHere, clock(), this::told));
                guardians.add(supervisor);
                supervisor.add(new Guardian(supervisor, vaultHere, clock(), authors(), new Teller()));
                supervisor.add(new SystemWatch(vaultHere, registry(), clock(), new SystemTeller()));
                supervisor.add(new SnapshotKeeper(vaultHere, clock(), authors(), who(), new SnapshotTeller()));
                supervisor.add(new FindKeeper(vaultHere));
                supervisor.add(new UnfoldKeeper(vaultHere, clock(), UnfoldKeeper.Listener.NONE));
                supervisor.add(new HealthKeeper(vaultHere, clock(), () -> {}));
                Copies copies = new Copies(vaultHere, clock(), who());
                supervisor.add(new CopyKeeper(copies, clock(), () -> {}));
                supervisor.add(new CheckKeeper(
                        vaultHere,
                        new Healing(vaultHere, registry(), clock(), authors()),
                        copies,
                        clock(),
                        false,
                        this::checked));
                supervisor.add(new NoticeKeeper(
                        vaultHere, settings(), clock(), DesktopNotice::tell, c -> c.forEach(this::came)));
                supervisor.add(new RetentionKeeper(
                        vaultHere,
                        clock(),
                        who(),
                        calendar(),
                        () -> new Findings(vaultHere, who()).pausing(now()).isPresent(),
                        new RetentionTeller()));
            }
            if (guardians.isEmpty()) {
                return others ? ExitCodes.SOME_FAILED : ExitCodes.DONE;
            }
            Runtime.getRuntime().addShutdownHook(hook);
            started = true;
            event("started", Words.of("cli.watch.started"), Map.of());
            end.await();
            return ExitCodes.DONE;
        } catch (InterruptedException e) {
            // That is how it ends.
            return ExitCodes.DONE;
        } finally {
            end(guardians, open);
        }
    }

    /** Ends it, once, whether it was stopped or came to its end. */
    private void end(List<AutoCloseable> guardians, List<OpenVault> open) {
        close(guardians, open);
        if (started) {
            started = false;
            event("ended", Words.of("cli.watch.ended"), Map.of());
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

    /** One event: a line with its time, or with {@code --json} an object in a line (JSON Lines). */
    private synchronized void event(String kind, String words, Map<String, Object> more) {
        note(words);
        Instant at = surroundings.clock().instant();
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("at", at.toString());
            map.put("event", kind);
            map.put("words", words);
            map.putAll(more);
            try {
                surroundings.out().println(JsonMapping.JSON.writeValueAsString(map));
            } catch (JsonProcessingException e) {
                throw new IllegalStateException(e);
            }
        } else {
            String time = TIME.format(at.atZone(surroundings.clock().getZone()));
            surroundings.out().println(time + "  " + printable(words));
        }
        surroundings.out().flush();
    }

    /** What was done stands in the log too, for whoever asks later. */
    private void note(String words) {
        ActivityLog to = activity;
        if (to != null) {
            to.add(words);
        }
    }

    private void came(Concern concern) {
        event("notice", concern.words(), Map.of());
    }

    private void checked(Healing.Result result) {
        note(result.words().get(0));
        result.healed()
                .forEach(h -> event(
                        "healed",
                        Words.of(
                                "cli.check.healed",
                                h.version().path(),
                                h.version().label(),
                                h.from()),
                        Map.of("path", h.version().path())));
        result.after()
                .lost()
                .forEach(l -> event("lost", Words.of("copies.lost", l.path(), l.label()), Map.of("path", l.path())));
    }

    private final class RetentionTeller implements RetentionKeeper.Listener {
        @Override
        public void kept(StandingRules.Done done) {
            done.letGo()
                    .ifPresent(d -> event(
                            "letGo", Words.of("cli.watch.letGo", d.versions()), Map.of("versions", d.versions())));
            done.reclaimed()
                    .ifPresent(r -> event(
                            "reclaimed",
                            Words.of("cli.watch.reclaimed", Formats.size(r.freedBytes())),
                            Map.of("freedBytes", r.freedBytes())));
            done.trouble().forEach(t -> event("failed", t, Map.of()));
        }
    }

    /** What came in, with the files by name. */
    private static String words(Place place, CaptureResult result) {
        String counts = result.words(place);
        long more = result.points() - result.names().size();
        return result.names().isEmpty()
                ? counts
                : Words.of("cli.watch.captured", counts, String.join(", ", result.names()), more);
    }

    private static Map<String, Object> map(Place place, CaptureResult result) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("place", place.where());
        map.putAll(Outcomes.json(result));
        map.put("files", result.names());
        return map;
    }

    private final class SystemTeller implements SystemWatch.Listener {
        @Override
        public Progress begins(Place place, boolean backup) {
            return Progress.NONE;
        }

        @Override
        public void ended(Place place, boolean changed) {
            if (changed) {
                event("looked", Words.of("cli.watch.looked", place.where()), Map.of("place", place.where()));
            }
        }

        @Override
        public void failed(Place place, IOException why) {
            event(
                    "failed",
                    Words.of("cli.watch.failed", place.where(), String.valueOf(why.getMessage())),
                    Map.of("place", place.where()));
        }
    }

    private final class SnapshotTeller implements SnapshotKeeper.Listener {
        @Override
        public void taken(Place place, Snapshot snapshot) {
            event(
                    "snapshot",
                    Words.of(
                            "cli.watch.snapshot",
                            place.name(),
                            snapshot.label().isEmpty() ? "" : " (" + snapshot.label() + ")"),
                    Map.of("place", place.where()));
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
                event("captured", words(place, result), map(place, result));
                for (Skipped skipped : result.troubles()) {
                    event(
                            "notKept",
                            Words.of("cli.capture.skipped", skipped.path(), skipped.words()),
                            Map.of("path", skipped.path()));
                }
            }
        }

        @Override
        public void failed(Place place, IOException why) {
            // Told as the failure of the duty.
        }
    }

    private synchronized void told(Duties.Failing duty) {
        if (duty.trouble().isEmpty()) {
            event("recovered", Words.of("cli.watch.recovered", duty.name()), Map.of());
        } else {
            event("failed", Words.of("cli.watch.failed", duty.name(), duty.trouble()), Map.of());
        }
    }
}
