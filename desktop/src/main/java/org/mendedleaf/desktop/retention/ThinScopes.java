package org.mendedleaf.desktop.retention;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.words.Words;

/** Where a thinning can be limited to. */
record ThinScopes(RetentionModel.Picture picture, Optional<Place> system) {
    /** Where it can be limited to: everything, each place of this vault, and where it was opened for. */
    List<ThinPlan.Limits> all(ThinPlan.Limits now) {
        List<ThinPlan.Limits> all = new ArrayList<>();
        if (system.isPresent()) {
            all.add(now.in(system.get().id(), ""));
        } else {
            all.add(now.in(0, ""));
            picture.table().places().stream().filter(p -> !p.isOutside()).forEach(p -> all.add(now.in(p.id(), "")));
        }
        if (!now.path().isEmpty()) {
            all.add(now);
        }
        return all;
    }

    /** Where limits lead to, as a message. */
    String words(ThinPlan.Limits of) {
        if (of.place() == 0) {
            return Words.of("thin.everywhere");
        }
        String place = picture.place(of.place());
        return of.path().isEmpty() ? place : Words.of("thin.within", place, of.path());
    }
}
