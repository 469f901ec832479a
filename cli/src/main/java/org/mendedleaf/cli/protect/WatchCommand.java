package org.mendedleaf.cli.protect;

import com.fasterxml.jackson.core.JsonProcessingException;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
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
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.ActivityLog;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.retention.RetentionKeeper;
import org.mendedleaf.core.retention.StandingRules;
import org.mendedleaf.core.service.IdleMemory;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.core.service.VaultDuties;
import org.mendedleaf.core.service.WatchLock;
import org.mendedleaf.core.snapshots.SnapshotKeeper;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.systems.SystemWatch;
import org.mendedleaf.core.unfold.UnfoldKeeper;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Captures at each place's rhythm until it is stopped. */
@Command(name = "watch", description = "${bundle:cli.watch}")
public class WatchCommand extends RetentionBase {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT);

    /** How often is looked for vaults that came, or whose drive is there again. Seconds. */
    private static final long LOOK_SECONDS = 10;

    private final Map<Path, List<AutoCloseable>> kept = new LinkedHashMap<>();
    private final Map<Path, String> waiting = new LinkedHashMap<>();
    private final Map<Path, Map<String, String>> failing = new HashMap<>();
    private final IdleMemory memory = new IdleMemory();
    private volatile boolean started;
    private volatile @Nullable ActivityLog activity;

    public WatchCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        activity = activity(program());
        CountDownLatch end = new CountDownLatch(1);
        Thread hook = new Thread(this::end, "watch-end");
        try (AutoCloseable channel = channel(end)) {
            boolean others = look();
            if (kept.isEmpty() && !goesOnWithNothing()) {
                return others ? ExitCodes.SOME_FAILED : ExitCodes.DONE;
            }
            Runtime.getRuntime().addShutdownHook(hook);
            started = true;
            event("started", Words.of(startedWords()), Map.of());
            while (!end.await(LOOK_SECONDS, TimeUnit.SECONDS)) {
                if (goesOnWithNothing()) {
                    look();
                    memory.giveBack();
                }
            }
            return ExitCodes.DONE;
        } catch (InterruptedException e) {
            // That is how it ends.
            return ExitCodes.DONE;
        } finally {
            end();
        }
    }

    /** What is written into the log as the program that did it. */
    String program() {
        return "watch";
    }

    /** Whether it waits for vaults that are not there yet, and for others that come to the settings. */
    boolean goesOnWithNothing() {
        return false;
    }

    String startedWords() {
        return "cli.watch.started";
    }

    /** How others reach it while it runs; {@code end} is counted down to end it. */
    AutoCloseable channel(CountDownLatch end) throws IOException {
        return () -> {};
    }

    /** Which vaults are kept and what fails there, and what keeps it from others. */
    final synchronized Map<Path, ServiceControl.VaultState> state() {
        Map<Path, ServiceControl.VaultState> all = new LinkedHashMap<>();
        kept.keySet()
                .forEach(folder -> all.put(
                        folder,
                        new ServiceControl.VaultState(
                                "",
                                false,
                                List.copyOf(
                                        failing.getOrDefault(folder, Map.of()).values()))));
        waiting.forEach((folder, why) -> all.put(
                folder,
                new ServiceControl.VaultState(why, why.equals(Words.of("cli.watch.other", folder)), List.of())));
        return all;
    }

    /**
     * Begins with the vaults that are not kept yet.
     *
     * @return whether another program keeps one of them
     */
    private synchronized boolean look() throws IOException {
        boolean others = false;
        List<Path> wanted = wanted();
        for (Path gone : List.copyOf(kept.keySet())) {
            if (!wanted.contains(gone)) {
                close(kept.remove(gone));
                failing.remove(gone);
            }
        }
        waiting.keySet().retainAll(wanted);
        for (Path folder : wanted) {
            if (kept.containsKey(folder)) {
                continue;
            }
            try {
                String why = keep(folder);
                others |= why.equals(Words.of("cli.watch.other", folder));
                waits(folder, why);
            } catch (VaultException e) {
                if (!goesOnWithNothing()) {
                    throw e;
                }
                // Its drive is away, or it is damaged; it is tried again.
                waits(folder, e.words());
            }
        }
        return others;
    }

    /** Says once what keeps it from a vault. */
    private void waits(Path folder, String why) {
        if (why.isEmpty()) {
            waiting.remove(folder);
        } else if (!why.equals(waiting.put(folder, why))) {
            if (started) {
                event("waits", why, Map.of("vault", folder.toString()));
            } else {
                complain(why);
            }
        }
    }

    /** The vaults that are to be kept, by the settings as they are now. */
    List<Path> wanted() throws IOException {
        return vaults();
    }

    /**
     * Begins to keep a vault.
     *
     * @return empty, or why it is not kept, as a message
     */
    private String keep(Path folder) throws IOException {
        OpenVault vault = open(folder);
        if (vault.folder().isCopy()) {
            vault.close();
            return Words.of("vault.isCopy", folder);
        }
        Optional<WatchLock> lock = WatchLock.take(vault.folder());
        if (lock.isEmpty()) {
            vault.close();
            return Words.of("cli.watch.other", folder);
        }
        Supervisor duties = VaultDuties.start(
                vault,
                new VaultDuties.Around(settings(), registry(), clock(), authors(), who(), calendar()),
                new VaultDuties.Listeners(
                        new Teller(),
                        new SystemTeller(),
                        new SnapshotTeller(),
                        UnfoldKeeper.Listener.NONE,
                        this::checked,
                        new RetentionTeller(),
                        c -> c.forEach(this::came),
                        () -> {},
                        duty -> told(folder, duty)));
        kept.put(folder, List.of(lock.get(), duties, vault));
        return "";
    }

    /** Ends it, once, whether it was stopped or came to its end. */
    private synchronized void end() {
        kept.values().forEach(WatchCommand::close);
        kept.clear();
        if (started) {
            started = false;
            event("ended", Words.of("cli.watch.ended"), Map.of());
        }
    }

    private static void close(List<AutoCloseable> all) {
        for (AutoCloseable each : all) {
            try {
                each.close();
            } catch (Exception e) {
                org.slf4j.LoggerFactory.getLogger(WatchCommand.class).debug("closing", e);
            }
        }
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
                    Words.of("cli.watch.failed", place.where(), Failures.named(why)),
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

    private synchronized void told(Path folder, Duties.Failing duty) {
        Map<String, String> here = failing.computeIfAbsent(folder, k -> new LinkedHashMap<>());
        if (duty.trouble().isEmpty()) {
            here.remove(duty.name());
            event("recovered", Words.of("cli.watch.recovered", duty.name()), Map.of());
        } else {
            String words = Words.of("cli.watch.failed", duty.name(), duty.trouble());
            here.put(duty.name(), words);
            event("failed", words, Map.of());
        }
    }
}
