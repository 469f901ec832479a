package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Guardian;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyKeeper;
import org.mendedleaf.core.find.FindKeeper;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.HealthKeeper;
import org.mendedleaf.core.jobs.ActivityLog;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.notices.DesktopNotice;
import org.mendedleaf.core.notices.NoticeKeeper;
import org.mendedleaf.core.retention.RetentionKeeper;
import org.mendedleaf.core.snapshots.SnapshotKeeper;
import org.mendedleaf.core.systems.CheckKeeper;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.systems.SystemWatch;
import org.mendedleaf.core.unfold.UnfoldKeeper;
import org.mendedleaf.core.words.Words;

/** What goes on by itself while the window is open, for each vault: captures, snapshots, retention, copies, checks, notices. */
final class BackgroundServices implements AutoCloseable {

    /** That a system was found as it was before is said so often, and never as something new. */
    private static final Duration SAID_AGAIN = Duration.ofMinutes(2);

    private static final Duration NEVER_AGAIN = Duration.ofDays(3_650);

    private final AppContext context;
    private final Map<Path, Supervisor> supervisors = new HashMap<>();
    private final ActivityLog activity;
    private volatile boolean closed;

    BackgroundServices(AppContext context, ActivityLog activity) {
        this.context = context;
        this.activity = activity;
    }

    /** Keeps all vaults that are open, and that are not kept already. */
    void start() {
        if (closed) {
            return;
        }
        for (Map.Entry<Path, OpenVault> e : context.vaults().entrySet()) {
            if (supervisors.containsKey(e.getKey())) {
                // Its folders and their settings are seen by itself.
                continue;
            }
            OpenVault vault = e.getValue();
            if (vault.folder().isCopy()) {
                // It can only be read.
                continue;
            }
            Supervisor supervisor =
                    new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(vault, context.clock(), this::dutyWent));
            supervisors.put(e.getKey(), supervisor);
            supervisor.add(new Guardian(supervisor, vault, context.clock(), context.authors(), new Listener()));
            supervisor.add(new SystemWatch(vault, context.registry(), context.clock(), new SystemListener()));
            supervisor.add(new SnapshotKeeper(
                    vault,
                    context.clock(),
                    context.authors(),
                    context.settings().who(),
                    new SnapshotListener()));
            supervisor.add(new FindKeeper(vault));
            supervisor.add(new UnfoldKeeper(vault, context.clock(), new UnfoldListener()));
            supervisor.add(new HealthKeeper(
                    vault, context.clock(), () -> context.background().onScreen(context::changed)));
            Copies copies =
                    new Copies(vault, context.clock(), context.settings().who());
            supervisor.add(new CopyKeeper(
                    copies, context.clock(), () -> context.background().onScreen(context::changed)));
            supervisor.add(new CheckKeeper(
                    vault,
                    new Healing(vault, context.registry(), context.clock(), context.authors()),
                    copies,
                    context.clock(),
                    false,
                    result -> {
                        result.words().forEach(activity::add);
                        context.background().onScreen(context::changed);
                    }));
            supervisor.add(new NoticeKeeper(vault, context.settings(), context.clock(), DesktopNotice::tell, came -> {
                came.forEach(c -> activity.add(c.words()));
                context.background().onScreen(() -> context.noticed(came));
            }));
            supervisor.add(new RetentionKeeper(
                    vault,
                    context.clock(),
                    context.settings().who(),
                    context.calendar(),
                    () -> new Findings(vault, context.settings().who())
                            .pausing(context.clock().instant())
                            .isPresent(),
                    new RetentionListener()));
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
            boolean news = words.isNews(place.id(), String.valueOf(why.getMessage()));
            if (news) {
                activity.add(Words.of("cli.watch.failed", place.where(), String.valueOf(why.getMessage())));
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
                    .onScreen(() ->
                            context.say(Words.of("status.snapshot", place.name(), String.valueOf(why.getMessage()))));
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
            context.background().onScreen(() -> context.say(String.valueOf(why.getMessage())));
        }
    }

    @Override
    public void close() {
        closed = true;
        supervisors.values().forEach(Supervisor::close);
    }
}
