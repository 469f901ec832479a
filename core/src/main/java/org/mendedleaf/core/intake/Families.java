package org.mendedleaf.core.intake;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import org.mendedleaf.core.disk.RelativePath;

/**
 * Finds among the files of a folder those that are copies of one another in all but name, and proposes an order and the
 * name to keep. Pure.
 */
final class Families {

    /** A copy that has less in common with all others than this is not proposed, when that can be told. */
    private static final double LEAST = 0.25;

    private Families() {}

    /**
     * A file of a folder.
     *
     * @param path from the place's root
     * @param modified when it was last changed
     * @param features of its content
     */
    record Copy(String path, Instant modified, Features features) {
        private String name() {
            return RelativePath.name(path);
        }

        private NameStem stem() {
            return NameStem.of(name());
        }
    }

    /** The families among these, by folder and name; each file is in one at most. */
    static List<Family> find(List<Copy> copies) {
        Map<String, List<Copy>> byStem = new TreeMap<>();
        for (Copy c : copies) {
            String key = RelativePath.parent(c.path()) + "\n" + c.stem().base() + "\n"
                    + c.stem().ending();
            byStem.computeIfAbsent(key, k -> new ArrayList<>()).add(c);
        }
        List<Family> families = new ArrayList<>();
        for (List<Copy> alike : byStem.values()) {
            if (alike.size() > 1 && alike.stream().anyMatch(c -> c.stem().decorated())) {
                List<Copy> members = alike.stream()
                        .filter(c -> belongs(c, alike))
                        .sorted(byAge())
                        .toList();
                if (members.size() > 1) {
                    List<String> leftOut = alike.stream()
                            .filter(c -> !members.contains(c))
                            .map(Copy::path)
                            .sorted()
                            .toList();
                    families.add(new Family(keep(members), members(members), leftOut));
                }
            }
        }
        return families;
    }

    private static Comparator<Copy> byAge() {
        return Comparator.comparing(Copy::modified)
                .thenComparing(c -> c.stem().rank())
                .thenComparing(Copy::path);
    }

    /** Names that are alike are not enough, as with minutes of different days; there must be something in common. */
    private static boolean belongs(Copy c, List<Copy> alike) {
        boolean compared = false;
        for (Copy other : alike) {
            if (!other.path().equals(c.path())) {
                OptionalDouble share = Likeness.of(c.features(), other.features(), List.of());
                compared |= share.isPresent();
                if (share.orElse(0) >= LEAST) {
                    return true;
                }
            }
        }
        return !compared;
    }

    /** The name without decorations: that of a member when one has it, else the newest one's without them. */
    private static String keep(List<Copy> members) {
        for (Copy c : members) {
            if (!c.stem().decorated()) {
                return c.path();
            }
        }
        Copy newest = members.get(members.size() - 1);
        String name = newest.name();
        NameStem stem = newest.stem();
        // In the letters of the name where its stem stands in it, else as the stem is.
        int at = name.toLowerCase(java.util.Locale.ROOT).indexOf(stem.base());
        String base = at < 0 ? stem.base() : name.substring(at, at + stem.base().length());
        String ending = stem.ending().isEmpty()
                ? ""
                : name.substring(name.length() - stem.ending().length());
        return RelativePath.child(RelativePath.parent(newest.path()), base + ending);
    }

    private static List<Family.Member> members(List<Copy> order) {
        List<Family.Member> members = new ArrayList<>();
        Copy before = null;
        for (Copy c : order) {
            int shared = -1;
            boolean same = false;
            if (before != null) {
                OptionalDouble share = Likeness.of(c.features(), before.features(), List.of());
                same = c.features().sameContent(before.features());
                shared = share.isPresent() ? Likeness.percent(share.getAsDouble(), same) : -1;
            }
            members.add(new Family.Member(c.path(), c.modified(), c.features().size(), same ? 100 : shared, same));
            before = c;
        }
        return members;
    }
}
