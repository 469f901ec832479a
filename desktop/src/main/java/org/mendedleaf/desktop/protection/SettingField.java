package org.mendedleaf.desktop.protection;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;

/** The control for one setting: a choice among words, or a number. */
final class SettingField {

    private SettingField() {}

    static Node of(SystemKind kind, Setting setting, String value, Consumer<String> changed) {
        return of(kind.choices(setting), setting, value, changed);
    }

    /** One whose choices are not those of a system. */
    static Node of(List<String> choices, Setting setting, String value, Consumer<String> changed) {
        String name = Words.of("setting." + setting.text());
        if (setting.isNumber()) {
            TextField field = new TextField(value);
            field.setId("setting-" + setting.text());
            field.setPrefColumnCount(5);
            field.setMaxWidth(90);
            field.setAccessibleText(name);
            field.textProperty().addListener((o, a, text) -> changed.accept(text.strip()));
            return field;
        }
        ComboBox<String> box = new ComboBox<>();
        box.setId("setting-" + setting.text());
        box.getItems().setAll(choices);
        box.setValue(value);
        box.setAccessibleText(name);
        box.setConverter(Choices.said(c -> Words.of("setting." + setting.text() + "." + c), ""));
        box.valueProperty().addListener((o, a, choice) -> changed.accept(choice));
        return box;
    }
}
