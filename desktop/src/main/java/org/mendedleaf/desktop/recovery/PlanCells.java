package org.mendedleaf.desktop.recovery;

import javafx.scene.Node;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Tables;

/** What stands in the cells of a plan: what is to be done, or what was done. */
final class PlanCells {

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
}
