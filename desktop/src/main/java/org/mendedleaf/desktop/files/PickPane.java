package org.mendedleaf.desktop.files;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** Changes to tick, and what comes of taking them back. */
final class PickPane extends HBox {

    /** More changes than anybody ticks one by one. */
    private static final int SHOWN_MOST = 200;

    private static final int LONGEST = 90;

    private final PickModel model;
    private final VBox changes = new VBox(6);
    private final Label outcome = Ui.label("", "dim");
    private final Button make;

    PickPane(PickModel model) {
        super(24);
        this.model = model;
        setId("pick");
        getStyleClass().add("pick");
        changes.setId("pick-changes");
        ScrollPane scroll = new ScrollPane(changes);
        scroll.setFitToWidth(true);
        scroll.setPrefViewportHeight(110);
        HBox.setHgrow(scroll, Priority.ALWAYS);
        make = Ui.button("pick.make", model::take, "accent");
        make.setId("pick-make");
        outcome.setId("pick-outcome");
        outcome.setWrapText(true);
        outcome.setMaxWidth(320);
        VBox side = new VBox(8, Ui.label(Words.of("pick.heading"), "section-title"), outcome, make);
        side.setAlignment(Pos.TOP_LEFT);
        side.setMinWidth(300);
        getChildren().addAll(scroll, side);
        model.offerProperty().addListener((o, a, offer) -> fill(offer));
        model.planProperty().addListener((o, a, plan) -> said());
        fill(model.offerProperty().get());
    }

    private void fill(PickModel.Offer offer) {
        changes.getChildren().clear();
        for (Change change : offer.changes().stream().limit(SHOWN_MOST).toList()) {
            CheckBox box = new CheckBox(words(change));
            box.setId("pick-" + change.number());
            String refused = offer.refused().getOrDefault(change.number(), "");
            if (!refused.isEmpty()) {
                box.setText(words(change) + "  ·  " + refused);
                box.setDisable(true);
            }
            box.setOnAction(e -> {
                model.tick(change.number(), box.isSelected());
                said();
            });
            changes.getChildren().add(box);
        }
        if (!offer.why().isEmpty()) {
            Label why = Ui.label(offer.why(), "dim");
            why.setWrapText(true);
            changes.getChildren().add(why);
        }
        said();
    }

    private void said() {
        int ticks = model.ticks();
        PickModel.Plan plan = model.planProperty().get();
        make.setDisable(ticks == 0 || !plan.known() || !plan.refused().isEmpty());
        if (ticks == 0) {
            outcome.setText(Words.of("pick.none"));
        } else if (!plan.refused().isEmpty()) {
            outcome.setText(plan.refused());
        } else {
            List<String> words = new ArrayList<>(plan.also());
            words.add(0, Words.of(plan.known() && plan.also().isEmpty() ? "pick.outcome" : "pick.outcomeAlso", ticks));
            outcome.setText(String.join(" ", words));
        }
    }

    private static String words(Change change) {
        String what = switch (change.mark()) {
            case ADDED -> Words.of("pick.out", brief(change.after()));
            case REMOVED -> Words.of("pick.in", brief(change.before()));
            case MOVED -> Words.of("pick.move", brief(change.after()));
            default -> Words.of("pick.cell", brief(change.after()), brief(change.before()));
        };
        return change.where().isEmpty() ? what : change.where() + ": " + what;
    }

    private static String brief(String text) {
        String line = text.replace('\n', ' ').replace('\t', ' ');
        return line.length() <= LONGEST ? line : line.substring(0, LONGEST) + "…";
    }
}
