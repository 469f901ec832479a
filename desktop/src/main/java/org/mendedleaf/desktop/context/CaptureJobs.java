package org.mendedleaf.desktop.context;

import java.util.function.Consumer;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.systems.BackupRun;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;

/** Looking at a place now, as a job: captures of folders, scans of other systems, backups. */
public final class CaptureJobs {

    private final AppContext context;

    CaptureJobs(AppContext context) {
        this.context = context;
    }

    /** Looks at a place in another system now, or backs up to it, as a job. */
    public void look(OpenPlace openPlace, Runnable done) {
        boolean drive = context.registry()
                .kind(openPlace.place())
                .filter(k -> k == SystemKind.BACKUP_DRIVE)
                .isPresent();
        context.jobs()
                .start(
                        Words.of(
                                drive ? "job.backup" : "job.look",
                                openPlace.place().where()),
                        progress -> {
                            OutsideSystem system = context.registry().system(openPlace.place());
                            if (drive) {
                                new BackupRun(openPlace.vault(), openPlace.place(), system, context.clock())
                                        .run(progress);
                            } else {
                                new Mirror(openPlace.vault(), openPlace.place(), system, context.clock()).run(progress);
                            }
                            return true;
                        },
                        ok -> {
                            context.say("");
                            context.changed();
                            done.run();
                        },
                        e -> {
                            context.say(Failures.named(e));
                            context.changed();
                            done.run();
                        });
    }

    /** Looks at a folder now, as a job; a place in another system likewise. One that is paused or ended is not looked at. */
    public void capture(OpenPlace openPlace, Consumer<CaptureResult> done) {
        if (openPlace.place().isOutside()) {
            look(openPlace, () -> {});
            return;
        }
        // Screens may hold a place as it was before somebody paused it.
        Versioning versioning = context.places().stream()
                .filter(h -> h.vault() == openPlace.vault()
                        && h.place().id() == openPlace.place().id())
                .findFirst()
                .orElse(openPlace)
                .place()
                .versioning();
        if (versioning != Versioning.ON) {
            context.tell(Words.of(
                    "desktop.capture." + versioning.text(), openPlace.place().name()));
            return;
        }
        capture(openPlace, new Capture(openPlace.vault(), openPlace.place(), context.clock(), context.authors()), done);
    }

    /** Looks at a folder that goes on being captured, as a job. */
    public void captureAgain(OpenPlace openPlace, Consumer<CaptureResult> done) {
        capture(openPlace, new Capture(openPlace.vault(), openPlace.place(), context.clock(), context.authors()), done);
    }

    /** Captures a folder as empty that somebody emptied on purpose. */
    public void captureEmptied(OpenPlace openPlace) {
        capture(
                openPlace,
                new Capture(openPlace.vault(), openPlace.place(), context.clock(), context.authors())
                        .emptiedOnPurpose(),
                r -> {});
    }

    private void capture(OpenPlace openPlace, Capture capture, Consumer<CaptureResult> done) {
        context.jobs()
                .start(
                        Words.of("job.capture", openPlace.place().name()),
                        progress -> capture.run(CaptureScope.WHOLE, progress),
                        result -> {
                            context.changed();
                            done.accept(result);
                        },
                        e -> {
                            context.say(Failures.words(e));
                            context.changed();
                        });
    }
}
