package org.mendedleaf.desktop.retention;

import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SplitPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.Rule;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.Term;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.ActionRow;
import org.mendedleaf.desktop.widgets.Ui;

/** The rules as sentences, the chosen one with its settings, and beside them what they would do to the real history. */
final class RulesPane extends BorderPane {

    private final RetentionModel model;
    private final VBox list = new VBox(8);
    private final VBox form = new VBox(10);
    private final Label effect = Ui.label("");
    private final Button use;
    private final Button revert;
    private final Button thin;
    private final MenuButton systems = new MenuButton(Words.of("rules.thinSystem"));
    private final BiConsumer<Optional<Place>, ThinPlan.Limits> preview;
    private String chosen = "";
    private boolean filling;

    RulesPane(RetentionModel model, BiConsumer<Optional<Place>, ThinPlan.Limits> preview) {
        this.model = model;
        this.preview = preview;
        Button add = Ui.button("rules.add", this::add);
        add.setId("rule-add");
        HBox head = new HBox(8, Ui.label(Words.of("retention.part.rules"), "small-title"), Ui.spacer(), add);
        head.setAlignment(Pos.CENTER_LEFT);
        list.setId("rules");
        VBox body = new VBox(14, head, list, form);
        body.getStyleClass().add("place-body");
        ScrollPane scroll = new ScrollPane(body);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("place-scroll");
        effect.setId("rules-effect");
        effect.setWrapText(true);
        use = Ui.button("rules.use", model.proposal()::use, "accent");
        use.setId("rules-use");
        revert = Ui.button("rules.revert", model.proposal()::revert, "flat");
        revert.setId("rules-revert");
        thin = Ui.button("rules.thin", () -> preview.accept(Optional.empty(), ThinPlan.Limits.RULES));
        thin.setId("rules-thin");
        systems.setId("rules-thin-system");
        ActionRow buttons = new ActionRow(use, revert).right(thin);
        systems.setMinWidth(Region.USE_PREF_SIZE);
        effect.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(effect, Priority.ALWAYS);
        HBox what = new HBox(8, effect, systems);
        what.setAlignment(Pos.CENTER_LEFT);
        VBox foot = new VBox(8, what, buttons);
        foot.getStyleClass().add("sheet-footer");
        BorderPane left = new BorderPane(scroll);
        left.setBottom(foot);
        left.getStyleClass().add("sheet");
        WhatIfPane right = new WhatIfPane(model);
        SplitPane split = new SplitPane(left, right);
        split.setDividerPositions(0.46);
        split.getStyleClass().add("files-split");
        setCenter(split);
        model.proposal().proposedProperty().addListener((o, a, rules) -> fill());
        model.pictureProperty().addListener((o, a, p) -> {
            fill();
            systems();
        });
        model.proposal().effectProperty().addListener((o, a, e) -> effect());
        fill();
        systems();
        effect();
    }

    /** The places in other systems that can be thinned, where there are any. */
    private void systems() {
        systems.getItems().clear();
        for (Place place : model.thinnable()) {
            MenuItem item = new MenuItem(place.where());
            item.setOnAction(e -> preview.accept(Optional.of(place), ThinPlan.Limits.RULES.in(place.id(), "")));
            systems.getItems().add(item);
        }
        systems.setVisible(!systems.getItems().isEmpty());
        systems.setManaged(!systems.getItems().isEmpty());
    }

    private void add() {
        chosen = model.proposal().add();
        fill();
    }

    private static boolean has(RuleSet rules, String name) {
        return rules.rules().stream().anyMatch(r -> r.name().equals(name));
    }

    private void fill() {
        if (filling) {
            return;
        }
        RuleSet rules = model.proposal().proposedProperty().get();
        if (!has(rules, chosen)) {
            chosen = rules.rules().isEmpty() ? "" : rules.rules().get(0).name();
        }
        list.getChildren().clear();
        for (Rule r : rules.rules()) {
            list.getChildren().add(card(r));
        }
        if (rules.rules().isEmpty()) {
            Label none = Ui.label(Words.of("rules.none"), "dim");
            none.setWrapText(true);
            list.getChildren().add(none);
        }
        form(rules);
        boolean changed = model.proposal().isChanged();
        use.setDisable(!changed);
        revert.setDisable(!changed);
    }

    private Node card(Rule r) {
        Label name = Ui.label(r.name(), "small-title");
        Label sentence = Ui.label(r.sentence(), "dim");
        sentence.setWrapText(true);
        VBox words = new VBox(2, name, sentence);
        HBox.setHgrow(words, Priority.ALWAYS);
        Button remove = Ui.iconButton(
                org.kordamp.ikonli.feather.Feather.TRASH_2,
                "rules.remove",
                () -> model.proposal()
                        .propose(model.proposal().proposedProperty().get().without(r.name())));
        HBox card = new HBox(8, words, remove);
        card.getStyleClass().add("rule-card");
        Ui.style(card, "rule-chosen", r.name().equals(chosen));
        card.setFocusTraversable(true);
        card.setAccessibleRole(javafx.scene.AccessibleRole.BUTTON);
        card.setAccessibleText(r.name() + ". " + r.sentence());
        card.setOnMouseClicked(e -> choose(r.name()));
        card.setOnKeyPressed(e -> {
            if (e.getCode() == javafx.scene.input.KeyCode.ENTER || e.getCode() == javafx.scene.input.KeyCode.SPACE) {
                choose(r.name());
                e.consume();
            }
        });
        return card;
    }

    private void choose(String name) {
        chosen = name;
        fill();
    }

    private void form(RuleSet rules) {
        form.getChildren().clear();
        rules.rules().stream()
                .filter(r -> r.name().equals(chosen))
                .map(rule -> new RuleForm(rule, changed -> replace(rule.name(), changed)))
                .forEach(form.getChildren()::add);
        ComboBox<Optional<Term>> grace = TermBox.of(
                "rules-grace",
                Optional.of(rules.grace()),
                null,
                t -> t.ifPresent(g -> model.proposal()
                        .propose(model.proposal().proposedProperty().get().with(g, rules.standing()))));
        CheckBox standing = new CheckBox(Words.of("rules.standing"));
        standing.setId("rules-standing");
        standing.setSelected(rules.standing());
        standing.setWrapText(true);
        standing.setOnAction(e -> model.proposal()
                .propose(model.proposal().proposedProperty().get().with(rules.grace(), standing.isSelected())));
        grace.setAccessibleText(Words.of("rules.grace"));
        Label words = Ui.label(Words.of("rules.grace"), "form-name");
        words.setMinWidth(USE_PREF_SIZE);
        HBox graceRow = new HBox(10, words, grace);
        graceRow.setAlignment(Pos.CENTER_LEFT);
        VBox whole = new VBox(10, standing, graceRow);
        whole.getStyleClass().add("schedule-form");
        form.getChildren().add(whole);
    }

    private void replace(String name, Rule changed) {
        // The fields that are being used stay; only the sentences are made anew.
        filling = true;
        try {
            model.proposal().replace(name, changed);
        } finally {
            filling = false;
        }
        chosen = changed.name();
        RuleSet rules = model.proposal().proposedProperty().get();
        list.getChildren().setAll(rules.rules().stream().map(this::card).toList());
        if (!changed.name().equals(name)) {
            form(rules);
        }
        use.setDisable(!model.proposal().isChanged());
        revert.setDisable(!model.proposal().isChanged());
    }

    private void effect() {
        RuleProposal.Effect e = model.proposal().effectProperty().get();
        if (e == null) {
            effect.setText(Words.of("space.reading"));
            thin.setDisable(true);
            return;
        }
        ThinPlan plan = e.plan();
        effect.setText(plan.mayGoWords());
        thin.setDisable(false);
        use.setDisable(!model.proposal().isChanged());
        revert.setDisable(!model.proposal().isChanged());
    }
}
