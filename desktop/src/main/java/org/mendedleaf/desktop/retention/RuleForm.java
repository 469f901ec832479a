package org.mendedleaf.desktop.retention;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.Spinner;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import org.mendedleaf.core.retention.Level;
import org.mendedleaf.core.retention.Rule;
import org.mendedleaf.core.retention.RuleScope;
import org.mendedleaf.core.retention.Term;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** The settings of one rule; each change is told at once. */
final class RuleForm extends GridPane {

    private static final int MOST = 999;
    private static final long MEGABYTE = 1_000_000;

    private final Consumer<Rule> changed;
    private final Label problem = Ui.label("", "error-text");
    private Rule rule;
    private int row;

    RuleForm(Rule rule, Consumer<Rule> changed) {
        this.rule = rule;
        this.changed = changed;
        getStyleClass().addAll("form", "rule-form");
        setId("rule-form");
        javafx.scene.layout.ColumnConstraints names = new javafx.scene.layout.ColumnConstraints();
        names.setMinWidth(USE_PREF_SIZE);
        javafx.scene.layout.ColumnConstraints fields = new javafx.scene.layout.ColumnConstraints();
        fields.setHgrow(Priority.ALWAYS);
        fields.setFillWidth(true);
        getColumnConstraints().setAll(List.of(names, fields));
        text("rule.form.name", "rule-name", rule.name(), t -> now(r -> r.withScope(t, r.scope())));
        text(
                "rule.form.folders",
                "rule-folders",
                String.join(", ", rule.scope().folders()),
                t -> scope(s -> new RuleScope(s.places(), list(t), s.names(), s.kinds())));
        text(
                "rule.form.names",
                "rule-names",
                String.join(", ", rule.scope().names()),
                t -> scope(s -> new RuleScope(s.places(), s.folders(), list(t), s.kinds())));
        kinds();
        term("rule.form.everything", "rule-everything", rule.everything(), t -> now(r -> r.withEverything(t)));
        for (Level level : Level.values()) {
            term(
                    "rule.form." + level,
                    "rule-" + level.text(),
                    Optional.ofNullable(rule.last().get(level)),
                    t -> now(r -> r.withLast(level, t)));
        }
        number("rule.form.atLeast", "rule-atLeast", rule.atLeast(), n -> now(r -> r.withCounts(n, r.atMost())));
        number("rule.form.atMost", "rule-atMost", rule.atMost(), n -> now(r -> r.withCounts(r.atLeast(), n)));
        term("rule.form.dropAfter", "rule-dropAfter", rule.dropAfter(), t -> now(r -> r.withEnds(t, r.removed())));
        term("rule.form.removed", "rule-removed", rule.removed(), t -> now(r -> r.withEnds(r.dropAfter(), t)));
        number(
                "rule.form.cap",
                "rule-cap",
                (int) Math.min(Integer.MAX_VALUE, rule.capBytes() / MEGABYTE),
                n -> now(r -> r.withSpace(n * MEGABYTE, r.whenNeeded())));
        CheckBox needed = new CheckBox(Words.of("rule.form.whenNeeded"));
        needed.setId("rule-whenNeeded");
        needed.setWrapText(true);
        needed.setSelected(rule.whenNeeded());
        needed.setOnAction(e -> now(r -> r.withSpace(r.capBytes(), needed.isSelected())));
        add(needed, 0, row++, 2, 1);
        problem.setId("rule-problem");
        problem.setWrapText(true);
        Ui.visible(problem, false);
        add(problem, 0, row++, 2, 1);
    }

    private static List<String> list(String text) {
        return Arrays.stream(text.split(",", -1))
                .map(String::strip)
                .filter(t -> !t.isEmpty())
                .toList();
    }

    private interface Change {
        Rule of(Rule rule);
    }

    private interface ScopeChange {
        RuleScope of(RuleScope scope);
    }

    private void scope(ScopeChange change) {
        now(r -> r.withScope(r.name(), change.of(r.scope())));
    }

    private void now(Change change) {
        Rule before = rule;
        try {
            rule = change.of(rule);
            Ui.visible(problem, false);
            changed.accept(rule);
        } catch (IllegalArgumentException e) {
            rule = before;
            problem.setText(e.getMessage());
            Ui.visible(problem, true);
        }
    }

    private void row(String key, Node field) {
        Label name = Ui.label(Words.of(key), "form-name");
        name.setLabelFor(field);
        name.setWrapText(true);
        addRow(row++, name, field);
    }

    private void text(String key, String id, String value, Consumer<String> told) {
        TextField field = new TextField(value);
        field.setId(id);
        field.setPromptText(Words.of(key + ".prompt"));
        field.setOnAction(e -> told.accept(field.getText()));
        field.focusedProperty().addListener((o, a, has) -> {
            if (!has && !field.getText().equals(value)) {
                told.accept(field.getText());
            }
        });
        row(key, field);
    }

    private void term(String key, String id, Optional<Term> value, Consumer<Optional<Term>> told) {
        row(key, TermBox.of(id, value, "term.none", told));
    }

    private void number(String key, String id, int value, java.util.function.IntConsumer told) {
        Spinner<Integer> spinner = new Spinner<>(0, key.endsWith("cap") ? Integer.MAX_VALUE : MOST, value);
        spinner.setId(id);
        spinner.setEditable(true);
        spinner.setMaxWidth(Double.MAX_VALUE);
        // The field in it has the keys, and so needs the name.
        spinner.setAccessibleText(Words.of(key));
        spinner.getEditor().setAccessibleText(Words.of(key));
        spinner.valueProperty().addListener((o, a, n) -> told.accept(n));
        row(key, spinner);
    }

    private void kinds() {
        row(
                "rule.form.kinds",
                KindsBox.of(
                        "rule-kinds",
                        rule.scope().kinds(),
                        kinds -> scope(s -> new RuleScope(s.places(), s.folders(), s.names(), kinds))));
    }
}
