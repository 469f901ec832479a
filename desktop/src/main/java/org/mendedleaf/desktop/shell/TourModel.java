package org.mendedleaf.desktop.shell;

import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Space;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.files.FilesModel;

/** The first minutes, by doing: a file is saved, its line is looked at, an earlier version is brought back. Each step waits for that. */
final class TourModel {

    private static final String REMEMBERED = "tour";

    private final AppContext context;
    private final FilesModel files;
    private final ReadOnlyObjectWrapper<Step> step = new ReadOnlyObjectWrapper<>(Step.NONE);
    private @Nullable Space before;
    /** The line of which an earlier version is to be restored, and its newest version then. */
    private @Nullable Long seen;

    private int seenNewest;

    /** What is to be done next. */
    enum Step {
        /** There is no tour. */
        NONE,
        /** Save a file with another program. */
        SAVE,
        /** Choose it. */
        LOOK,
        /** Restore an earlier version. */
        RESTORE,
        /** All of it was done. */
        DONE
    }

    TourModel(AppContext context, FilesModel files) {
        this.context = context;
        this.files = files;
        context.overviewProperty().addListener((o, a, b) -> saved(b.space()));
        files.line().lineProperty().addListener((o, a, line) -> seen(line));
    }

    /** What is to be done next. */
    ReadOnlyObjectProperty<Step> stepProperty() {
        return step.getReadOnlyProperty();
    }

    /** Begins, unless somebody has been through it, or did not want to. */
    void begin() {
        if (context.settings().remembered(REMEMBERED).isEmpty()) {
            before = null;
            step.set(Step.SAVE);
        }
    }

    /** Begins once more, also for somebody who has been through it. */
    void again() {
        before = null;
        step.set(Step.SAVE);
        // What there is now is the beginning: nothing tells of it until something is captured.
        saved(context.overviewProperty().get().space());
    }

    /** Ends it for good. */
    void end() {
        step.set(Step.NONE);
        context.settings().remember(REMEMBERED, "seen");
    }

    private void saved(Space now) {
        if (step.get() != Step.SAVE) {
            return;
        }
        Space then = before;
        // What there is when the tour begins is the beginning; the first capture may end after that.
        boolean more = then != null && now.lines() <= then.lines() && now.versions() > then.versions();
        before = now;
        if (more) {
            step.set(Step.LOOK);
            seen(files.line().lineProperty().get());
        }
    }

    private void seen(@Nullable Line line) {
        if (line == null || line.versionsHere() < 2) {
            return;
        }
        Version newest = line.newest().orElseThrow();
        boolean same = step.get() == Step.RESTORE && seen != null && seen.equals(line.id());
        if (step.get() == Step.SAVE || step.get() == Step.LOOK) {
            step.set(Step.RESTORE);
        }
        if (step.get() != Step.RESTORE) {
            return;
        }
        // What was restored before the tour is none of it.
        if (same && newest.number() > seenNewest && newest.origin() == Origin.RESTORED) {
            step.set(Step.DONE);
            context.settings().remember(REMEMBERED, "seen");
        } else if (!same) {
            seen = line.id();
            seenNewest = newest.number();
        }
    }
}
