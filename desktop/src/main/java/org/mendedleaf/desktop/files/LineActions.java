package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.FolderLines;
import org.mendedleaf.core.intake.LineWork;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.LineReport;
import org.mendedleaf.core.systems.OutsideLines;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.Reports;

/** What can be done with the selected line besides changing its content: publishing, check-out, notes, comments. */
public final class LineActions {

    private final AppContext context;
    private final LineModel line;
    private final Said said;

    /** Says what was done. */
    interface Said {
        void say(String words, boolean undo, boolean failed);
    }

    LineActions(AppContext context, LineModel line, Said said) {
        this.context = context;
        this.line = line;
        this.said = said;
    }

    private interface Work {
        String run(LineWork work, String path) throws IOException;
    }

    private LineWork work(OpenPlace openPlace) throws IOException {
        return openPlace.place().isOutside()
                ? new OutsideLines(
                        openPlace.vault(),
                        openPlace.place(),
                        context.registry(),
                        context.clock(),
                        context.settings().who())
                : new FolderLines(context.workContext(openPlace));
    }

    private void start(String title, boolean undo, Work work) {
        OpenPlace openPlace = line.openPlace();
        String path = line.path();
        if (openPlace == null || path.isEmpty()) {
            return;
        }
        context.jobs()
                .start(
                        Words.of(title, line.name()),
                        progress -> work.run(work(openPlace), path),
                        words -> {
                            if (!words.isEmpty()) {
                                said.say(words, undo, false);
                            }
                            context.changed();
                        },
                        e -> {
                            said.say(Failures.words(e), false, true);
                            context.changed();
                        });
    }

    /** Writes the past of the file into a report. */
    void report(Path to) {
        OpenPlace openPlace = line.openPlace();
        Line of = line.lineProperty().get();
        if (openPlace == null || of == null) {
            return;
        }
        new Reports(context)
                .write(
                        to,
                        () -> {
                            try (Reading reading = openPlace.vault().read()) {
                                Line now = reading.line(of.id()).orElse(of);
                                return LineReport.of(
                                        reading, now, context.clock().instant(), context.calendar());
                            }
                        },
                        (words, trouble) -> said.say(words, false, trouble));
    }

    /** Publishes the newest draft. */
    public void publish(String note) {
        start("job.publish", true, (work, path) -> {
            LineWork.Done done = work.publish(path, note);
            return Words.of("cli.publish.done", RelativePath.name(path), done.label());
        });
    }

    /** Takes the file to work on it alone. */
    public void checkOut() {
        start("job.checkOut", false, (work, path) -> {
            work.checkOut(path);
            return Words.of("files.checkedOut", RelativePath.name(path));
        });
    }

    /** Hands it back. */
    public void checkIn(String note) {
        start("job.checkIn", false, (work, path) -> {
            LineWork.Done done = work.checkIn(path, note, false);
            return Words.of(
                    done.number() == 0 ? "cli.checkin.unchanged" : "cli.checkin.done",
                    RelativePath.name(path),
                    done.label());
        });
    }

    /** Gives the check-out up: what was done stays as drafts. */
    public void giveUp() {
        start("job.checkIn", false, (work, path) -> {
            work.giveUp(path);
            return Words.of("cli.checkin.givenUp", RelativePath.name(path));
        });
    }

    /** Ends what somebody else has. */
    public void endCheckOut() {
        start("job.checkIn", false, (work, path) -> {
            work.endCheckOut(path);
            return Words.of("cli.checkin.ended", RelativePath.name(path));
        });
    }

    /** Changes the note of a version. */
    public void note(Version version, String note) {
        start("job.note", true, (work, path) -> {
            work.note(version, note);
            return Words.of("cli.note.noted", RelativePath.name(path), version.label());
        });
    }

    /** Says something of a version. */
    public void comment(Version version, String words) {
        start("job.note", false, (work, path) -> {
            work.comment(version, words);
            return "";
        });
    }

    /** Says what the file is filed under and who may see it. */
    public void card(FileProperties card) {
        start("job.note", false, (work, path) -> {
            work.card(path, card);
            return "";
        });
    }

    /** Says that somebody saw to a finding. */
    public void settle(StoredFinding finding) {
        start("job.note", false, (work, path) -> {
            work.settle(finding);
            return "";
        });
    }

    String moment(Instant at) {
        return Formats.moment(at, context.clock().instant(), context.zone());
    }
}
