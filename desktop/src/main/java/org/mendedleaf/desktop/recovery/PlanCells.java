package org.mendedleaf.desktop.recovery;

import java.util.List;
import java.util.function.BiConsumer;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Tables;

/** What stands in the cells of a plan: what is to be done, or what was done. */
final class PlanCells {

    private static final List<Collision> CHOICES = List.of(Collision.values());

    private PlanCells() {}

    /** The step, and after it was done what came of it. */
    static Node step(PlanTable.Row r) {
        if (r.outcome() != null) {
            RestoreResult.Outcome o = r.outcome().outcome();
            String style = o == RestoreResult.Outcome.FAILED
                    ? "badge-clay"
                    : o == RestoreResult.Outcome.DONE ? "badge-moss" : "badge-slate";
            String words = o == RestoreResult.Outcome.DONE
                    ? Words.of("plan.did." + r.item().step())
                    : Words.of("plan.outcome." + o);
            return Tables.badge(words, style);
        }
        String style = switch (r.item().step()) {
            case CREATE, MOVE_BACK -> "badge-moss";
            case REPLACE, KEEP_BOTH, KEEP_BOTH_RENAME_OTHER -> "badge-gold";
            case REMOVE, REFUSE -> "badge-clay";
            default -> "badge-slate";
        };
        return Tables.badge(Words.of("plan.step." + r.item().step()), style);
    }

    /** Why. */
    static String why(PlanTable.Row r) {
        RestoreResult.Item o = r.outcome();
        return o != null && !o.why().isEmpty() ? o.why() : r.item().reason();
    }

    /** Where something has the name, this one file can be treated in another way than the others. */
    static @Nullable Node choice(PlanTable.Row r, BiConsumer<String, Collision> collide) {
        boolean collides = switch (r.item().step()) {
            case REPLACE, KEEP_BOTH, KEEP_BOTH_RENAME_OTHER, SKIP -> true;
            default -> false;
        };
        if (!collides || r.outcome() != null) {
            return null;
        }
        ComboBox<Collision> box = Choices.of(CHOICES, c -> Words.of("collision.short." + c));
        box.setValue(
                switch (r.item().step()) {
                    case REPLACE -> Collision.REPLACE;
                    case KEEP_BOTH -> Collision.KEEP_BOTH;
                    case KEEP_BOTH_RENAME_OTHER -> Collision.KEEP_BOTH_RENAME_OTHER;
                    default -> Collision.SKIP;
                });
        box.getStyleClass().add("small-box");
        box.setAccessibleText(Words.of("plan.collision"));
        box.valueProperty().addListener((o, a, v) -> collide.accept(r.item().wanted(), v));
        return box;
    }
}
