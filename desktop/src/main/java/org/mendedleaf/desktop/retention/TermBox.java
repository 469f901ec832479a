package org.mendedleaf.desktop.retention;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.ComboBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.retention.Term;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;

/** A box in which a time is chosen, or none. A time that is not among the usual ones is added to them. */
final class TermBox {

    private static final List<String> USUAL = List.of(
            "P1D", "P2D", "P3D", "P7D", "P14D", "P30D", "P60D", "P90D", "P6M", "P1Y", "P2Y", "P5Y", "P10Y", "forever");

    private TermBox() {}

    /** A box with this value; {@code changed} is told of another one. */
    static ComboBox<Optional<Term>> of(
            String id, Optional<Term> value, @Nullable String noneKey, Consumer<Optional<Term>> changed) {
        List<Optional<Term>> values = new ArrayList<>();
        if (noneKey != null) {
            values.add(Optional.empty());
        }
        for (String text : USUAL) {
            boolean end = noneKey != null || !text.equals("forever");
            if (end) {
                values.add(Optional.of(Term.parse(text)));
            }
        }
        if (!values.contains(value)) {
            values.add(value);
        }
        ComboBox<Optional<Term>> box = Choices.of(
                values, v -> v.map(Term::words).orElseGet(() -> Words.of(noneKey == null ? "term.none" : noneKey)));
        box.setId(id);
        box.setValue(value);
        box.setMaxWidth(Double.MAX_VALUE);
        box.valueProperty().addListener((o, a, v) -> {
            if (v != null && !v.equals(a)) {
                changed.accept(v);
            }
        });
        return box;
    }
}
