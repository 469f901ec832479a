package org.mendedleaf.desktop.widgets;

import java.util.List;
import java.util.function.Function;
import javafx.scene.control.ComboBox;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;

/** Boxes to choose one of some values from, each said in words. */
public final class Choices {

    private Choices() {}

    /** A box with these values. */
    public static <T> ComboBox<T> of(List<T> values, Function<T, String> words) {
        ComboBox<T> box = new ComboBox<>();
        box.getItems().setAll(values);
        box.setConverter(new StringConverter<>() {
            @Override
            public String toString(@Nullable T value) {
                return value == null ? "" : words.apply(value);
            }

            @Override
            public @Nullable T fromString(String text) {
                return values.stream()
                        .filter(v -> words.apply(v).equals(text))
                        .findFirst()
                        .orElse(null);
            }
        });
        return box;
    }

    /**
     * Says values in words, for a box into which nobody types.
     *
     * @param none the words where none is chosen
     */
    public static <T> StringConverter<T> said(Function<T, String> words, String none) {
        return new StringConverter<>() {
            @Override
            public String toString(@Nullable T value) {
                return value == null ? none : words.apply(value);
            }

            @Override
            public @Nullable T fromString(String text) {
                return null;
            }
        };
    }
}
