package org.mendedleaf.desktop.widgets;

import java.time.Duration;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OwnJob;

/** How far the job of a screen is, large, and the buttons to pause and to cancel it, which the screen puts among its own. */
public final class TransferBar extends VBox {

    private final ProgressBar bar = new ProgressBar(0);
    private final Label words = Ui.label("");
    private final Button pause;
    private final HBox buttons;

    /**
     * The bar of a job.
     *
     * @param id what the ids of its parts begin with
     */
    public TransferBar(OwnJob job, String id) {
        super(8);
        bar.setMaxWidth(Double.MAX_VALUE);
        bar.getStyleClass().add("plan-bar");
        words.setId(id + "-progress");
        getChildren().addAll(bar, words);
        pause = Ui.button("job.pause", job::pauseOrGoOn);
        pause.setId(id + "-pause");
        Button cancel = Ui.button("plan.cancel", job::cancel);
        cancel.setId(id + "-cancel");
        buttons = new HBox(8, pause, cancel);
        job.progressProperty().addListener((o, a, s) -> show(s));
        show(job.progressProperty().get());
    }

    /** Pause and cancel. */
    public HBox buttons() {
        return buttons;
    }

    /** Shows the bar and its buttons, or neither. */
    public void showing(boolean works) {
        Ui.visible(this, works);
        Ui.visible(buttons, works);
        if (!works) {
            // A bar that runs to and fro would go on unseen.
            bar.setProgress(0);
        }
    }

    /** How far it is; only what is known, and what this step is about. */
    static String words(Job.Snapshot s) {
        Duration left = s.left();
        String files = s.allFiles() > 0
                ? Words.of("job.files", Formats.number(s.files()), Formats.number(s.allFiles()))
                : s.files() > 0 ? Words.of("job.filesSoFar", Formats.number(s.files())) : "";
        return Stream.of(
                        s.step().isEmpty() ? s.title() : s.step(),
                        files,
                        s.allBytes() > 0
                                ? Words.of("job.bytes", Formats.size(s.bytes()), Formats.size(s.allBytes()))
                                : "",
                        s.bytes() > 0 ? Words.of("job.rate", Formats.size(s.rate())) : "",
                        left == null ? "" : Words.of("job.left", Formats.duration(left)))
                .filter(t -> !t.isEmpty())
                .collect(Collectors.joining(" · "));
    }

    private void show(Job.@Nullable Snapshot s) {
        if (s == null || !isVisible()) {
            return;
        }
        bar.setProgress(s.share() < 0 ? ProgressBar.INDETERMINATE_PROGRESS : s.share());
        words.setText(words(s));
        pause.setText(Words.of(s.state() == Job.State.PAUSED ? "job.resume" : "job.pause"));
    }
}
