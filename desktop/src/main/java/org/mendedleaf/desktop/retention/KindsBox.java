package org.mendedleaf.desktop.retention;

import java.util.EnumSet;
import java.util.Set;
import java.util.function.Consumer;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.MenuButton;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.words.Words;

/** A menu in which kinds are ticked; none ticked means all. */
final class KindsBox {

    private KindsBox() {}

    /** One with these ticked; {@code changed} is told of each change. */
    static MenuButton of(String id, Set<ContentKind> ticked, Consumer<Set<ContentKind>> changed) {
        MenuButton box = new MenuButton();
        box.setId(id);
        box.setMaxWidth(Double.MAX_VALUE);
        Set<ContentKind> chosen = EnumSet.noneOf(ContentKind.class);
        chosen.addAll(ticked);
        for (ContentKind kind : ContentKind.values()) {
            CheckMenuItem item = new CheckMenuItem(Words.of("kinds." + kind));
            item.setId(id + "-" + kind);
            item.setSelected(chosen.contains(kind));
            item.setOnAction(e -> {
                if (item.isSelected()) {
                    chosen.add(kind);
                } else {
                    chosen.remove(kind);
                }
                box.setText(words(chosen));
                changed.accept(Set.copyOf(chosen));
            });
            box.getItems().add(item);
        }
        box.setText(words(chosen));
        return box;
    }

    private static String words(Set<ContentKind> chosen) {
        return chosen.isEmpty()
                ? Words.of("rule.form.allKinds")
                : String.join(
                        ", ", chosen.stream().map(k -> Words.of("kinds." + k)).toList());
    }
}
