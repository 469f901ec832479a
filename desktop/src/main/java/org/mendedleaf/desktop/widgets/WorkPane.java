package org.mendedleaf.desktop.widgets;

import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.PlannedWork;

/**
 * The frame of a screen on which work is planned, carried out and looked back upon: a heading, choices, how far it is, its sum, a
 * table, and below it what can be done next. Who extends it says when which part is there.
 */
public abstract class WorkPane extends BorderPane {

    /** Shown while it is planned. */
    protected final VBox choices = new VBox(8);

    /** How far it is, while it is carried out. */
    protected final TransferBar running;

    /** What it comes to, or came to. */
    protected final Label sum = Ui.label("", "small-title");

    /** Carries it out. */
    protected final Button go = new Button();

    /** Tries again what failed. */
    protected final Button retry;

    /** Takes it back. */
    protected final Button undo;

    /** Leaves the screen once it has been carried out. */
    protected final Button done;

    /** Leaves the screen before. */
    protected final Button leave;

    private final String id;

    /**
     * The frame.
     *
     * @param id what the ids of its parts begin with
     * @param undoKey the message key of the button that takes it back
     * @param back goes back to the files
     * @param said says in the message bar what was done
     */
    protected WorkPane(String id, PlannedWork work, String undoKey, Runnable back, Consumer<String> said) {
        this.id = id;
        getStyleClass().addAll("files", "plan");
        running = new TransferBar(work.job(), id);
        sum.setId(id + "-sum");
        go.setId(id + "-go");
        go.getStyleClass().add("accent");
        go.setOnAction(e -> work.run());
        retry = button("plan.retry", "-retry", work::retry);
        undo = button(
                undoKey,
                "-undo",
                () -> work.undo(() -> {
                    said.accept(Words.of("plan.undone"));
                    back.run();
                }));
        done = button("plan.done", "-done", back, "accent");
        leave = Ui.button("protect.back", back, "flat");
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.isControlDown() && e.getCode() == KeyCode.ENTER && maySeeWhatRuns()) {
                work.run();
                e.consume();
            }
        });
    }

    /** Whether all that would be carried out can be seen now: by keys, nothing else is. */
    protected boolean maySeeWhatRuns() {
        return true;
    }

    /** A button of this screen; the end of its id. */
    protected final Button button(String key, String idEnd, Runnable action, String... styles) {
        Button button = Ui.button(key, action, styles);
        button.setId(id + idEnd);
        return button;
    }

    /** Puts the parts into their places: what is wrong under the choices, the table in the middle. */
    protected final void arrange(String heading, Runnable back, Node problems, Node table) {
        Label title = Ui.label(heading, "big-title");
        title.setId(id + "-title");
        title.setMinWidth(0);
        HBox head = new HBox(12, title, Ui.spacer(), Ui.iconButton(Feather.X, "plan.close", back));
        head.setAlignment(Pos.CENTER_LEFT);
        VBox top = new VBox(12, head, choices, running, problems, sum);
        top.getStyleClass().add("plan-top");
        setTop(top);
        VBox sheet = new VBox(table);
        VBox.setVgrow(table, Priority.ALWAYS);
        sheet.getStyleClass().add("sheet");
        BorderPane middle = new BorderPane(sheet);
        middle.getStyleClass().add("plan-middle");
        setCenter(middle);
    }

    /** Puts these into the row below, from the left. */
    protected final void arrangeButtons(Node... buttons) {
        HBox row = new HBox(8, buttons);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("plan-buttons");
        setBottom(row);
    }

    /** A choice with its name before it. */
    protected static HBox line(String name, Node... controls) {
        Label label = Ui.label(name, "form-name");
        label.setMinWidth(190);
        HBox line = new HBox(12, label);
        line.getChildren().addAll(controls);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }
}
