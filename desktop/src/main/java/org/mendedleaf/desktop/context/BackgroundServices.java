package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Guardian;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.ActivityLog;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.retention.RetentionKeeper;
import org.mendedleaf.core.service.VaultDuties;
import org.mendedleaf.core.service.WatchLock;
import org.mendedleaf.core.snapshots.SnapshotKeeper;
import org.mendedleaf.core.systems.SystemWatch;
import org.mendedleaf.core.unfold.UnfoldKeeper;
import org.mendedleaf.core.words.Words;

/** What goes on by itself while the window is open, for each vault: captures, snapshots, retention, copies, checks, notices. */
final class BackgroundServices implements AutoCloseable {

    /** That a system was found as it was before is said so often, and never as something new. */
    private static final Duration SAID_AGAIN = Duration.ofMinutes(2);

    private static final Duration NEVER_AGAIN = Duration.ofDays(3_650);

    /** How often is looked whether another program that keeps a vault did something, or has ended. */
    private static final long LOOK_MILLIS = 3_000;

    /** After so many looks is tried whether nobody keeps them any more. */
    private static final int PATIENCE = 5;

    private final AppContext context;
    private final Map<Path, List<AutoCloseable>> kept = new HashMap<>();
    private final Map<Path, Object> keptByOthers = new HashMap<>();
    private final ActivityLog activity;
    private @Nullable Thread looking;
    private int looks;
    private boolean closed;

    BackgroundServices(AppContext context, ActivityLog activity) {
        this.context = context;
        this.activity = activity;
    }

    /** Keeps all vaults that are open, unless they are kept already, here or by another program such as the service. */
    synchronized void start() {
        if (closed) {
            return;
        }
        for (Map.Entry<Path, OpenVault> e : context.vaults().entrySet()) {
            // Its folders and their settings are seen by itself; a copy can only be read.
            if (!kept.containsKey(e.getKey()) && !e.getValue().folder().isCopy()) {
                keep(e.getKey(), e.getValue());
            }
        }
        tell();
    }

    private void keep(Path folder, OpenVault vault) {
        Optional<WatchLock> lock = WatchLock.take(vault.folder());
        if (lock.isEmpty()) {
            keptByOthers.putIfAbsent(folder, stamp(vault));
            look();
            return;
        }
        keptByOthers.remove(folder);
        Supervisor duties = VaultDuties.start(
                vault,
                new VaultDuties.Around(
                        context.settings(),
                        context.registry(),
                        context.clock(),
                        context.authors(),
                        context.settings().who(),
                        context.calendar()),
                new VaultDuties.Listeners(
                        new Listener(),
                        new SystemListener(),
                        new SnapshotListener(),
                        new UnfoldListener(),
                        result -> {
                            result.words().forEach(activity::add);
                            context.background().onScreen(context::changed);
                        },
                        new RetentionListener(),
                        came -> {
                            came.forEach(c -> activity.add(c.words()));
                            context.background().onScreen(() -> context.noticed(came));
                        },
                        () -> context.background().onScreen(context::changed),
                        this::dutyWent));
        kept.put(folder, List.of(duties, lock.get()));
    }

    /** Leaves the vaults to another program, which takes them when it looks next. */
    synchronized void release() {
        kept.values().forEach(BackgroundServices::end);
        for (Path folder : kept.keySet()) {
            OpenVault vault = context.vaults().get(folder);
            keptByOthers.put(folder, vault == null ? "" : stamp(vault));
        }
        kept.clear();
        look();
        tell();
    }

    private void tell() {
        boolean others = !keptByOthers.isEmpty();
        context.background().onScreen(() -> context.keptByOthers(others));
    }

    private void look() {
        if (looking == null) {
            Thread thread = new Thread(this::lookOn, "seeing what others do");
            thread.setDaemon(true);
            looking = thread;
            thread.start();
        }
    }

    private void lookOn() {
        try {
            while (seeOthers()) {
                Thread.sleep(LOOK_MILLIS);
            }
        } catch (InterruptedException e) {
            // The window closes.
        }
    }

    /** Whether there is anything to look at any more. */
    private synchronized boolean seeOthers() {
        boolean changed = false;
        for (Map.Entry<Path, Object> e : Map.copyOf(keptByOthers).entrySet()) {
            OpenVault vault = context.vaults().get(e.getKey());
            if (vault == null) {
                keptByOthers.remove(e.getKey());
                continue;
            }
            Object now = stamp(vault);
            changed |= !now.equals(e.getValue());
            keptByOthers.put(e.getKey(), now);
        }
        if (changed) {
            context.background().onScreen(context::changed);
        }
        // Whoever kept them may have ended; it has had a while to take them.
        if (!closed && ++looks % PATIENCE == 0) {
            start();
        }
        if (closed || keptByOthers.isEmpty()) {
            looking = null;
            return false;
        }
        return true;
    }

    private static Object stamp(OpenVault vault) {
        try {
            return vault.stamp();
        } catch (IOException e) {
            return "";
        }
    }

    private void dutyWent(Duties.Failing duty) {
        activity.add(
                duty.trouble().isEmpty()
                        ? Words.of("cli.watch.recovered", duty.name())
                        : Words.of("cli.watch.failed", duty.name(), duty.trouble()));
        context.background().onScreen(() -> {
            context.say(duty.trouble().isEmpty() ? "" : Words.of("cli.watch.failed", duty.name(), duty.trouble()));
            context.changed();
        });
    }

    /** What is looked at by itself is a job only when it moves bytes; what fails stands with its place. */
    private final class SystemListener implements SystemWatch.Listener {
        private final Map<Long, Job> running = new HashMap<>();
        private final Repeats words = new Repeats(NEVER_AGAIN);
        private final Repeats looks = new Repeats(SAID_AGAIN);

        @Override
        public synchronized Progress begins(Place place, boolean backup) {
            if (!backup) {
                return Progress.NONE;
            }
            Job job = context.jobs().begin(Words.of("job.backup", place.where()));
            running.put(place.id(), job);
            return job;
        }

        private synchronized void end(Place place, Job.State state) {
            Job job = running.remove(place.id());
            if (job != null) {
                context.jobs().end(job, state);
            }
        }

        @Override
        public void ended(Place place, boolean changed) {
            end(place, Job.State.DONE);
            if (changed) {
                activity.add(Words.of("cli.watch.looked", place.where()));
            }
            tell(place, words.isNews(place.id(), "") || changed);
        }

        @Override
        public void failed(Place place, IOException why) {
            end(place, Job.State.FAILED);
            boolean news = words.isNews(place.id(), Failures.named(why));
            if (news) {
                activity.add(Words.of("cli.watch.failed", place.where(), Failures.named(why)));
            }
            tell(place, news);
        }

        /** A system that is away is asked again and again; the window looks at everything anew when there is something new. */
        private void tell(Place place, boolean news) {
            if (news) {
                context.background().onScreen(context::changed);
            } else if (looks.isNews(place.id(), "")) {
                context.background().onScreen(context::looked);
            }
        }
    }

    /** Much of it is a job that can be paused; a few documents are not worth a word. */
    private final class UnfoldListener implements UnfoldKeeper.Listener {
        @Override
        public Progress begins() {
            return context.jobs().begin(Words.of("job.unfold"));
        }

        @Override
        public void ended(Progress begun) {
            if (begun instanceof Job job) {
                context.jobs().end(job, Job.State.DONE);
            }
        }
    }

    private final class RetentionListener implements RetentionKeeper.Listener {
        @Override
        public void kept(org.mendedleaf.core.retention.StandingRules.Done done) {
            done.words().forEach(activity::add);
            context.background().onScreen(() -> {
                if (!done.trouble().isEmpty()) {
                    context.say(String.join(" ", done.trouble()));
                }
                context.changed();
            });
        }
    }

    private final class SnapshotListener implements SnapshotKeeper.Listener {
        @Override
        public void taken(Place place, Snapshot snapshot) {
            String label = snapshot.label().isEmpty() ? "" : " (" + snapshot.label() + ")";
            activity.add(Words.of("cli.watch.snapshot", place.name(), label));
            context.background().onScreen(context::changed);
        }

        @Override
        public void failed(Place place, IOException why) {
            context.background()
                    .onScreen(() -> context.say(Words.of("status.snapshot", place.name(), Failures.named(why))));
        }
    }

    private final class Listener implements Guardian.Listener {
        private final Map<Long, Job> running = new HashMap<>();

        @Override
        public synchronized Progress capturing(Place place, CaptureScope scope) {
            Job job = context.jobs().begin(Words.of("job.capture", place.name()));
            running.put(place.id(), job);
            return job;
        }

        private synchronized void end(Place place, Job.State state) {
            Job job = running.remove(place.id());
            if (job != null) {
                context.jobs().end(job, state);
            }
        }

        @Override
        public void captured(Place place, CaptureResult result) {
            end(place, Job.State.DONE);
            if (result.points() > 0) {
                activity.add(result.words(place));
                result.troubles().forEach(s -> activity.add(Words.of("cli.capture.skipped", s.path(), s.words())));
            }
            context.background().onScreen(() -> {
                context.say("");
                context.changed();
            });
        }

        @Override
        public void failed(Place place, IOException why) {
            end(place, Job.State.FAILED);
            context.background().onScreen(() -> context.say(Failures.named(why)));
        }
    }

    private static void end(List<AutoCloseable> all) {
        for (AutoCloseable each : all) {
            try {
                each.close();
            } catch (Exception e) {
                org.slf4j.LoggerFactory.getLogger(BackgroundServices.class).debug("closing", e);
            }
        }
    }

    @Override
    public synchronized void close() {
        closed = true;
        kept.values().forEach(BackgroundServices::end);
        kept.clear();
        if (looking != null) {
            looking.interrupt();
        }
    }
}
