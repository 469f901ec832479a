package org.mendedleaf.desktop.shell;

import java.time.Duration;
import java.time.Instant;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.shape.Circle;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Overview;
import org.mendedleaf.desktop.widgets.Ui;

/** How everything stands, and the work that goes on. */
final class StatusBar extends HBox {

    private static final Duration GROWS_OLDER = Duration.ofSeconds(20);

    private final AppContext context;
    private final Circle dot = new Circle(4);
    private final Label folders = Ui.label("", "status-words");
    private final Label last = Ui.label("", "status-words", "dim");
    private final Label space = Ui.label("", "status-words", "dim");
    private final Button trouble;
    private final Label job = Ui.label("", "status-words");
    private final ProgressBar progress = new ProgressBar();
    private final Button pause;
    private final HBox work;
    private final Node message;

    /** Where the last save and the space stand beside what is wrong, and where both stand when nothing is. Pixels. */
    private static final double WIDE = 1240;

    private static final double MIDDLING = 900;

    /**
     * The bar.
     *
     * @param toCause leads to where what is wrong stands, with what can be done
     * @param message what was done; while it says something the bar leaves it the space
     */
    StatusBar(AppContext context, Runnable toCause, Node message) {
        super(18);
        this.context = context;
        this.trouble = Ui.plainButton("", toCause, "status-words", "clay-text", "status-cause");
        getStyleClass().add("status-bar");
        setAlignment(Pos.CENTER_LEFT);
        dot.getStyleClass().add("status-dot");
        folders.setId("status-folders");
        last.setId("status-last");
        trouble.setId("status-trouble");
        trouble.setMinWidth(0);
        folders.setMinWidth(USE_PREF_SIZE);
        last.setMinWidth(USE_PREF_SIZE);
        space.setMinWidth(0);
        job.setMinWidth(USE_PREF_SIZE);
        job.setId("status-job");
        progress.setPrefWidth(120);
        pause = Ui.button("job.pause", this::pause, "flat", "small");
        pause.setMinWidth(USE_PREF_SIZE);
        Button cancel =
                Ui.iconButton(Feather.X, "job.cancel", () -> context.jobs().cancel());
        cancel.setId("job-cancel");
        work = new HBox(10, job, progress, pause, cancel);
        work.setAlignment(Pos.CENTER_RIGHT);
        HBox state = new HBox(8, dot, folders);
        state.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(message, Priority.SOMETIMES);
        getChildren().addAll(state, message, last, space, trouble, Ui.spacer(), work);
        this.message = message;
        message.visibleProperty().addListener((o, a, is) -> giveWay());
        widthProperty().addListener((o, a, b) -> giveWay());
        context.overviewProperty().addListener((o, a, s) -> stand());
        context.troubleProperty().addListener((o, a, s) -> stand());
        context.jobs().currentProperty().addListener((o, a, s) -> work(s));
        // "2 min ago" grows older by itself.
        context.background().every(GROWS_OLDER, this::stand);
        stand();
        work(null);
    }

    /** What matters less gives way, so that nothing is cut in the middle of a word. */
    private void giveWay() {
        boolean quiet = !message.isVisible();
        boolean wide = getWidth() >= WIDE;
        boolean wrong = !trouble.getText().isEmpty();
        Ui.visible(trouble, wrong && quiet);
        Ui.visible(last, quiet && !last.getText().isEmpty() && (wide || !wrong));
        Ui.visible(space, quiet && (wide || !wrong) && getWidth() >= MIDDLING);
    }

    private void stand() {
        Overview s = context.overviewProperty().get();
        boolean all = s.watched() == s.folders();
        folders.setText(Words.of(all ? "status.watched" : "status.folders", s.folders(), s.watched()));
        Instant now = context.clock().instant();
        boolean never = s.lastSave().equals(Instant.EPOCH);
        last.setText(never ? "" : Words.of("status.lastSave", Formats.ago(s.lastSave(), now, context.zone())));
        space.setText(
                s.folders() == 0
                        ? ""
                        : Words.of(
                                "status.space",
                                Formats.size(s.space().storedBytes()),
                                Formats.number(s.space().versions()),
                                Formats.size(s.space().versionBytes())));
        String words = context.troubleProperty().get();
        // What a program hears at once is noted too, and is then among the others, said shorter.
        boolean noted = s.troubles().stream().anyMatch(words::contains);
        String shown = words.isEmpty() || noted ? String.join("  ·  ", s.troubles()) : words;
        trouble.setText(shown);
        trouble.setTooltip(shown.isEmpty() ? null : Ui.tooltip(Words.of("status.cause", shown)));
        giveWay();
        Ui.style(dot, "status-trouble", !shown.isEmpty());
        Ui.style(dot, "status-none", s.folders() == 0);
    }

    private void work(Job.@Nullable Snapshot s) {
        Ui.visible(work, s != null);
        if (s == null) {
            // A bar that runs to and fro would go on unseen.
            progress.setProgress(0);
            return;
        }
        Duration left = s.left();
        String done = s.allBytes() > 0
                ? Words.of("job.bytes", Formats.size(s.bytes()), Formats.size(s.allBytes()))
                : s.allFiles() > 0
                        ? Words.of("job.files", Formats.number(s.files()), Formats.number(s.allFiles()))
                        : "";
        job.setText(String.join(
                " · ",
                java.util.stream.Stream.of(
                                s.title(),
                                done,
                                s.bytes() > 0 ? Words.of("job.rate", Formats.size(s.rate())) : "",
                                left == null ? "" : Words.of("job.left", Formats.duration(left)))
                        .filter(t -> !t.isEmpty())
                        .toList()));
        progress.setProgress(s.share() < 0 ? ProgressBar.INDETERMINATE_PROGRESS : s.share());
        pause.setText(Words.of(s.state() == Job.State.PAUSED ? "job.resume" : "job.pause"));
    }

    private void pause() {
        Job.Snapshot s = context.jobs().currentProperty().get();
        if (s != null) {
            context.jobs().pause(s.state() != Job.State.PAUSED);
        }
    }
}
