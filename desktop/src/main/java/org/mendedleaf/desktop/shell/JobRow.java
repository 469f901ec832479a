package org.mendedleaf.desktop.shell;

import java.time.Duration;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.Jobs;
import org.mendedleaf.desktop.widgets.Ui;

/** One job: how far it is, and the ways to pause and to cancel it. */
final class JobRow extends HBox {

    private final Label words = Ui.label("", "status-words");
    private final ProgressBar progress = new ProgressBar(0);
    private final Button pause = Ui.button("job.pause", this::pause, "flat", "small");
    private Jobs.@Nullable Shown shown;

    JobRow() {
        super(10);
        words.setMinWidth(USE_PREF_SIZE);
        words.getStyleClass().add("job-words");
        progress.setPrefWidth(120);
        progress.setMinWidth(USE_PREF_SIZE);
        pause.setMinWidth(USE_PREF_SIZE);
        pause.getStyleClass().add("job-pause");
        Button cancel = Ui.iconButton(Feather.X, "job.cancel", this::cancel);
        cancel.getStyleClass().add("job-cancel");
        getStyleClass().add("job-row");
        getChildren().addAll(words, progress, pause, cancel);
        setAlignment(Pos.CENTER_RIGHT);
        show(null);
    }

    /** Shows a job; null shows none. */
    void show(Jobs.@Nullable Shown next) {
        shown = next;
        Ui.visible(this, next != null);
        if (next == null) {
            // A bar that runs to and fro would go on unseen.
            progress.setProgress(0);
            return;
        }
        Job.Snapshot s = next.now();
        boolean waits = s.state() == Job.State.WAITING;
        Duration left = s.left();
        String done = s.allBytes() > 0
                ? Words.of("job.bytes", Formats.size(s.bytes()), Formats.size(s.allBytes()))
                : s.allFiles() > 0
                        ? Words.of("job.files", Formats.number(s.files()), Formats.number(s.allFiles()))
                        : "";
        words.setText(String.join(
                " · ",
                Stream.of(
                                s.title(),
                                waits ? Words.of("job.waits") : done,
                                s.bytes() > 0 ? Words.of("job.rate", Formats.size(s.rate())) : "",
                                left == null ? "" : Words.of("job.left", Formats.duration(left)))
                        .filter(t -> !t.isEmpty())
                        .toList()));
        progress.setProgress(waits ? 0 : s.share() < 0 ? ProgressBar.INDETERMINATE_PROGRESS : s.share());
        // Its space stays, so that the bars of all rows stand one under the other.
        pause.setVisible(!waits);
        pause.setText(Words.of(s.state() == Job.State.PAUSED ? "job.resume" : "job.pause"));
    }

    private void pause() {
        Jobs.Shown now = shown;
        if (now != null) {
            now.job().pause(now.now().state() != Job.State.PAUSED);
        }
    }

    private void cancel() {
        Jobs.Shown now = shown;
        if (now != null) {
            now.job().cancel();
        }
    }
}
