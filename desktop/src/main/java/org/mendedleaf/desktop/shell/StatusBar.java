package org.mendedleaf.desktop.shell;

import java.time.Duration;
import java.time.Instant;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.shape.Circle;
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
    private final JobRow work = new JobRow();
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
        work.setId("status-job");
        HBox state = new HBox(8, dot, folders);
        state.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(message, Priority.SOMETIMES);
        getChildren().addAll(state, message, last, space, trouble, Ui.spacer(), work);
        this.message = message;
        message.visibleProperty().addListener((o, a, is) -> giveWay());
        widthProperty().addListener((o, a, b) -> giveWay());
        context.overviewProperty().addListener((o, a, s) -> stand());
        context.troubleProperty().addListener((o, a, s) -> stand());
        context.keptByOthersProperty().addListener((o, a, s) -> stand());
        context.jobs().allProperty().addListener((o, a, all) -> work.show(all.isEmpty() ? null : all.get(0)));
        // "2 min ago" grows older by itself.
        context.background().every(GROWS_OLDER, this::stand);
        stand();
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
        String watched = Words.of(all ? "status.watched" : "status.folders", s.folders(), s.watched());
        boolean others = context.keptByOthersProperty().get() && s.folders() > 0;
        folders.setText(others ? Words.of("status.inBackground", watched) : watched);
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
        Ui.tooltip(trouble, shown.isEmpty() ? null : Words.of("status.cause", shown));
        giveWay();
        Ui.style(dot, "status-trouble", !shown.isEmpty());
        Ui.style(dot, "status-none", s.folders() == 0);
    }
}
