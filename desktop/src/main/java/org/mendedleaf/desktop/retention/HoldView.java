package org.mendedleaf.desktop.retention;

import java.time.LocalDate;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.DatePicker;
import javafx.scene.control.Label;
import javafx.scene.control.RadioButton;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Days;
import org.mendedleaf.desktop.widgets.Ui;

/** What is held, why and until when; below it what that keeps. */
public final class HoldView extends BorderPane {

    private static final int USUAL_MONTHS = 12;

    private final HoldModel model;
    private final Label effect = Ui.label("", "outlook-words");
    private final Label problem = Ui.label("", "error-text");
    private final RadioButton through = new RadioButton(Words.of("hold.through"));
    private final DatePicker day;
    private final Button hold;
    private boolean running;

    /**
     * The view.
     *
     * @param leave goes back to where it came from
     * @param done is told in words what was done
     */
    public HoldView(HoldModel model, Runnable leave, Consumer<String> done) {
        this.model = model;
        setId("hold");
        getStyleClass().addAll("files", "plan");
        Label title = Ui.label(model.heading(), "big-title");
        HBox head = new HBox(12, title, Ui.spacer(), Ui.iconButton(Feather.X, "hold.leave", leave));
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("plan-top");
        setTop(head);
        ComboBox<Hold> what = Choices.of(model.choices(), model::words);
        what.setId("hold-what");
        what.setAccessibleText(Words.of("hold.what"));
        what.valueProperty().bindBidirectional(model.whatProperty());
        what.setMaxWidth(Double.MAX_VALUE);
        TextField why = new TextField();
        why.setId("hold-reason");
        why.setAccessibleText(Words.of("hold.why"));
        why.setPromptText(Words.of("hold.whyPrompt"));
        why.textProperty().bindBidirectional(model.reasonProperty());
        RadioButton lifted = new RadioButton(Words.of("hold.untilLifted"));
        lifted.setId("hold-lifted");
        through.setId("hold-through");
        ToggleGroup until = new ToggleGroup();
        lifted.setToggleGroup(until);
        through.setToggleGroup(until);
        lifted.setSelected(true);
        day = Days.picker("hold-day", Words.of("hold.through"), model.today().plusMonths(USUAL_MONTHS), model.today());
        day.disableProperty().bind(through.selectedProperty().not());
        HBox dated = new HBox(8, through, day);
        dated.setAlignment(Pos.CENTER_LEFT);
        GridPane fields = new GridPane();
        fields.getStyleClass().add("form");
        row(fields, 0, "hold.what", what);
        row(fields, 1, "hold.why", why);
        row(fields, 2, "hold.untilName", new VBox(8, lifted, dated));
        effect.setId("hold-effect-words");
        effect.setWrapText(true);
        VBox outlook = new VBox(6, effect, wrapped("hold.means"));
        outlook.getStyleClass().add("outlook");
        problem.setId("hold-problem");
        problem.setWrapText(true);
        model.problemProperty().addListener((o, a, p) -> problem(p));
        problem("");
        hold = Ui.button("hold.go", () -> hold(leave, done), "accent");
        hold.setId("hold-go");
        hold.setDefaultButton(true);
        Button stay = Ui.button("hold.leave", leave, "flat");
        stay.setId("hold-leave");
        VBox body = new VBox(14, fields, outlook, problem, new HBox(8, hold, stay));
        setCenter(Ui.narrow(body));
        model.effectProperty().addListener((o, a, e) -> effect());
        effect();
        javafx.application.Platform.runLater(why::requestFocus);
    }

    private static void row(GridPane fields, int index, String key, Node field) {
        Label name = Ui.label(Words.of(key), "form-name");
        name.setMinWidth(USE_PREF_SIZE);
        GridPane.setHgrow(field, Priority.ALWAYS);
        fields.addRow(index, name, field);
    }

    private static Label wrapped(String key) {
        Label label = Ui.label(Words.of(key), "dim");
        label.setWrapText(true);
        return label;
    }

    private void problem(String words) {
        problem.setText(words);
        Ui.visible(problem, !words.isEmpty());
        if (!words.isEmpty()) {
            running = false;
            effect();
        }
    }

    private void effect() {
        String words = model.effectWords();
        effect.setText(words.isEmpty() ? Words.of("space.reading") : words);
        hold.setDisable(running);
    }

    private void hold(Runnable leave, Consumer<String> done) {
        try {
            Optional<LocalDate> last = through.isSelected() ? Days.in(day) : Optional.empty();
            if (through.isSelected() && last.isEmpty()) {
                problem(Words.of("hold.noDay"));
                return;
            }
            model.lastDayProperty().set(last.orElse(null));
        } catch (IllegalArgumentException e) {
            problem(Failures.words(e));
            return;
        }
        running = true;
        hold.setDisable(true);
        model.hold(words -> {
            leave.run();
            done.accept(words);
        });
    }
}
