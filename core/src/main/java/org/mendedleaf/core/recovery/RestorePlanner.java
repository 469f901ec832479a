package org.mendedleaf.core.recovery;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.words.Words;

/** Decides what a restore will do. Pure: it sees what is there through a function, and changes nothing. */
public final class RestorePlanner {

    private RestorePlanner() {}

    /**
     * A plan.
     *
     * @param wishes what is wanted where
     * @param existing what is at a path now
     * @param rule what to do where something has the name already
     */
    public static RestorePlan plan(List<Wish> wishes, Function<String, Optional<Existing>> existing, Collision rule) {
        List<RestorePlan.Item> items = new ArrayList<>();
        Set<String> promised = new HashSet<>();
        for (Wish wish : wishes) {
            RestorePlan.Item item = decide(wish, existing, rule, promised);
            if (item.writes()) {
                promised.add(item.target());
            }
            items.add(item);
        }
        return new RestorePlan(items);
    }

    private static RestorePlan.Item decide(
            Wish wish, Function<String, Optional<Existing>> existing, Collision rule, Set<String> promised) {
        if (promised.contains(wish.target())) {
            return keepBoth(wish, existing, promised);
        }
        Optional<Existing> there = existing.apply(wish.target());
        if (there.isEmpty()) {
            return item(wish, wish.target(), RestorePlan.Step.CREATE, "");
        }
        Existing e = there.get();
        boolean same = e.kind() == wish.version().kind()
                && e.digest().map(d -> d.equals(wish.version().digest())).orElse(false);
        if (same) {
            return item(wish, wish.target(), RestorePlan.Step.UNCHANGED, "");
        }
        return switch (rule) {
            case SKIP -> item(wish, wish.target(), RestorePlan.Step.SKIP, "");
            case KEEP_BOTH -> keepBoth(wish, existing, promised);
            case REPLACE -> replace(wish, e);
        };
    }

    private static RestorePlan.Item replace(Wish wish, Existing there) {
        if (there.kind() == EntryKind.FOLDER) {
            return item(wish, wish.target(), RestorePlan.Step.REFUSE, Words.of("plan.folderInTheWay"));
        }
        if (there.digest().isEmpty()) {
            return item(wish, wish.target(), RestorePlan.Step.REFUSE, Words.of("plan.notKept"));
        }
        return item(wish, wish.target(), RestorePlan.Step.REPLACE, "");
    }

    private static RestorePlan.Item keepBoth(
            Wish wish, Function<String, Optional<Existing>> existing, Set<String> promised) {
        String folder = RelativePath.parent(wish.target());
        String name = RelativePath.name(wish.target());
        for (int i = 2; ; i++) {
            String other = RelativePath.child(folder, FileNames.numbered(name, i));
            if (!promised.contains(other) && existing.apply(other).isEmpty()) {
                return item(wish, other, RestorePlan.Step.KEEP_BOTH, "");
            }
        }
    }

    private static RestorePlan.Item item(Wish wish, String target, RestorePlan.Step step, String why) {
        return new RestorePlan.Item(wish.version(), wish.target(), target, step, why);
    }
}
