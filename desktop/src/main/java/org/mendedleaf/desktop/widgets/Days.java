package org.mendedleaf.desktop.widgets;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Optional;
import javafx.scene.control.DateCell;
import javafx.scene.control.DatePicker;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/** Fields for days, which are picked or typed: in the form of the user's language, or as {@code 2027-05-04}. */
public final class Days {

    /** Where a field keeps what was typed into it and is no day. */
    private static final Object BAD = new Object();

    private Days() {}

    /**
     * A field for a day.
     *
     * @param value to begin with; null for none
     * @param first the first day that can be picked; null for any
     */
    public static DatePicker picker(String id, String name, @Nullable LocalDate value, @Nullable LocalDate first) {
        DatePicker picker = new DatePicker(value);
        picker.setId(id);
        picker.setAccessibleText(name);
        picker.setPrefWidth(160);
        picker.setConverter(new Lenient(picker, picker.getConverter()));
        picker.valueProperty().addListener((o, a, day) -> {
            if (day != null) {
                picker.getProperties().remove(BAD);
            }
        });
        picker.setDayCellFactory(p -> new DateCell() {
            @Override
            public void updateItem(@Nullable LocalDate day, boolean empty) {
                super.updateItem(day, empty);
                setDisable(empty || (first != null && day != null && day.isBefore(first)));
            }
        });
        return picker;
    }

    /**
     * The day that stands in the field, also when it was typed and nothing was pressed since.
     *
     * @return empty when the field is
     * @throws IllegalArgumentException with a message for the user, when what was typed is no day
     */
    public static Optional<LocalDate> in(DatePicker picker) {
        String text = picker.getEditor().getText().strip();
        Optional<LocalDate> day = Optional.ofNullable(picker.getConverter().fromString(text));
        Object bad = picker.getProperties().remove(BAD);
        if (bad != null) {
            throw new IllegalArgumentException(Words.of("days.none", bad));
        }
        return day;
    }

    /** The field takes over what was typed when it loses the keys, and must not fail then. */
    private static final class Lenient extends StringConverter<LocalDate> {

        private final DatePicker picker;
        private final StringConverter<LocalDate> usual;

        Lenient(DatePicker picker, StringConverter<LocalDate> usual) {
            this.picker = picker;
            this.usual = usual;
        }

        @Override
        public String toString(@Nullable LocalDate day) {
            return day == null ? "" : usual.toString(day);
        }

        @Override
        public @Nullable LocalDate fromString(@Nullable String typed) {
            String text = typed == null ? "" : typed.strip();
            if (text.isEmpty()) {
                return null;
            }
            picker.getProperties().remove(BAD);
            try {
                return text.matches("\\d{4}-\\d\\d-\\d\\d") ? LocalDate.parse(text) : usual.fromString(text);
            } catch (DateTimeException e) {
                picker.getProperties().put(BAD, text);
                return null;
            }
        }
    }
}
