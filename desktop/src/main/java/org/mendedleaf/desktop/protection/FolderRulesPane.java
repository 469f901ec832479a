package org.mendedleaf.desktop.protection;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;

/** How a protected folder is worked with, each setting beside its effect, and who its members are. */
final class FolderRulesPane extends VBox {

    private final FolderRulesModel model;
    private final Label problem = Ui.label("", "error-text");

    FolderRulesPane(AppContext context, OpenPlace openPlace) {
        super(10);
        setId("folder-rules");
        this.model = new FolderRulesModel(context, openPlace);
        problem.setWrapText(true);
        model.rulesProperty().addListener((o, a, r) -> show());
        model.problemProperty().addListener((o, a, words) -> {
            problem.setText(words);
            Ui.visible(problem, !words.isEmpty());
        });
        Ui.visible(problem, false);
        show();
    }

    private void show() {
        getChildren().clear();
        PlaceRules rules = model.rulesProperty().get();
        if (rules == null) {
            return;
        }
        GridPane form = new GridPane();
        form.getStyleClass().add("form");
        int i = 0;
        for (Setting s : PlaceRules.SETTINGS) {
            if (!Outlook.matters(s, rules.settings())) {
                continue;
            }
            Label label = Ui.label(Words.of("setting." + s.text()), "form-name");
            label.setMinWidth(USE_PREF_SIZE);
            Node field = field(s, rules);
            ((Region) field).setMinWidth(PlacePane.FIELD_LEAST);
            Label effect = Ui.label(Outlook.folderEffect(s, rules.settings()), "dim", "small-words");
            effect.setWrapText(true);
            effect.setId("effect-" + s.text());
            GridPane.setHgrow(effect, Priority.ALWAYS);
            form.addRow(i++, label, field, effect);
        }
        form.setDisable(!model.mayChange());
        getChildren()
                .addAll(
                        Ui.label(Words.of("protection.working"), "small-title"),
                        form,
                        problem,
                        Ui.label(Words.of("protection.members"), "small-title"),
                        members(rules));
    }

    private Node field(Setting s, PlaceRules rules) {
        String value = rules.settings().get(s);
        if (!s.isNumber()) {
            return SettingField.of(s.choices(), s, value, v -> model.change(s, v));
        }
        // A number holds once it is typed whole.
        Node field = SettingField.of(List.of(), s, value, v -> {});
        if (field instanceof TextField text) {
            text.setOnAction(e -> model.change(s, text.getText().strip()));
            text.focusedProperty().addListener((o, was, is) -> {
                if (!is) {
                    model.change(s, text.getText().strip());
                }
            });
        }
        return field;
    }

    private VBox members(PlaceRules rules) {
        VBox list = new VBox(4);
        list.setId("members");
        list.setDisable(!model.mayChange());
        Label who = Ui.label(
                rules.owner().isEmpty() ? Words.of("members.none") : Words.of("members.owner", rules.owner()),
                "dim",
                "small-words");
        who.setWrapText(true);
        list.getChildren().add(who);
        for (Member m : rules.settings().members()) {
            ComboBox<Role> role = roles(m.role());
            role.valueProperty().addListener((o, a, r) -> model.member(m.who(), r));
            Button out = Ui.iconButton(Feather.X, "protection.removeMember", () -> model.member(m.who(), null));
            HBox line = new HBox(8, Ui.label(m.who()), Ui.spacer(), role, out);
            line.setAlignment(Pos.CENTER_LEFT);
            list.getChildren().add(line);
        }
        TextField name = new TextField();
        name.setId("member-name");
        name.setPromptText(Words.of("protection.memberPrompt"));
        name.setAccessibleText(Words.of("protection.memberPrompt"));
        ComboBox<Role> role = roles(Role.EDITOR);
        Button add = Ui.button("protection.addMember", () -> model.member(name.getText(), role.getValue()));
        add.setId("member-add");
        name.setOnAction(e -> add.fire());
        HBox line = new HBox(8, name, role, add);
        line.setAlignment(Pos.CENTER_LEFT);
        list.getChildren().add(line);
        return list;
    }

    private static ComboBox<Role> roles(Role now) {
        ComboBox<Role> box = Choices.of(List.of(Role.values()), r -> Words.of("role." + r.text()));
        box.setValue(now);
        box.setAccessibleText(Words.of("protection.role"));
        return box;
    }
}
