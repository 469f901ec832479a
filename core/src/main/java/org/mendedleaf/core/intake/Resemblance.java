package org.mendedleaf.core.intake;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.vault.Digest;

/**
 * How much a version is like the one before it. Pure.
 *
 * @param shared percent of what they say, show or are made of that both have; -1 when nobody can tell
 * @param beginning whether it is the beginning of the one before it, broken off within a line
 * @param kept percent of what the one before it had added that is still there; -1 when nobody can tell, or was not asked
 */
public record Resemblance(int shared, boolean beginning, int kept) {

    /** Fewer runs of words than this that were added say nothing. */
    private static final int ADDED_LEAST = 3;

    /** A content with its features. */
    public static final class Content {
        private final byte[] bytes;
        private final Features features;

        /** A content of a file with this name. */
        public Content(String name, byte[] bytes) {
            this.bytes = bytes;
            this.features = Features.of(name, bytes);
        }

        /** Keeps its features for the guard, under the digest of the version it is. */
        public void keep(FeatureKeep in, Digest digest) {
            in.put(digest, features.kept());
        }
    }

    /**
     * Compares.
     *
     * @param older the version before the one before it; what was added to it is looked for
     */
    public static Resemblance of(Content before, Content after, Optional<Content> older) {
        var share = Likeness.of(after.features, before.features, List.of());
        boolean same = after.features.sameContent(before.features);
        int shared = share.isPresent() ? Likeness.percent(share.getAsDouble(), same) : -1;
        int kept = older.map(o -> kept(o.features, before.features, after.features))
                .orElse(-1);
        return new Resemblance(shared, isBeginning(before.bytes, after.bytes), kept);
    }

    /** Of an archive, which has no words, so many parts that were added say something. */
    private static final int PARTS_LEAST = 2;

    /** So much closer to the older one, of 1. */
    private static final double CLEARLY = 0.005;

    private static int kept(Features older, Features before, Features after) {
        if (before.words() == 0) {
            int parts = keptParts(older, before, after);
            return parts >= 0 ? parts : builtOn(older, before, after);
        }
        Shingles added = before.near().without(older.near());
        if (added.size() < ADDED_LEAST || after.words() == 0) {
            Shingles gone = older.near().without(before.near());
            boolean back = gone.size() > 0 && gone.without(after.near()).size() == 0;
            boolean lost = added.without(after.near()).size() == added.size();
            return back && lost ? 0 : before.kind() == ContentKind.SLIDES ? builtOn(older, before, after) : -1;
        }
        int left = added.size() - added.without(after.near()).size();
        return (int) Math.round(100.0 * left / added.size());
    }

    private static int keptParts(Features older, Features before, Features after) {
        Set<Digest> added = parts(before);
        added.removeAll(parts(older));
        if (added.size() < PARTS_LEAST || parts(before).size() <= added.size()) {
            return -1;
        }
        int all = added.size();
        added.retainAll(parts(after));
        return (int) Math.round(100.0 * added.size() / all);
    }

    /** Nothing is left of it where a content is clearly made from the older of the two; else nobody can tell. */
    private static int builtOn(Features older, Features before, Features after) {
        double onOlder = closeness(after, older);
        boolean changed = closeness(before, older) < 1;
        return changed && onOlder < 1 && onOlder > closeness(after, before) + CLEARLY ? 0 : -1;
    }

    private static double closeness(Features one, Features other) {
        return one.look().isPresent() && other.look().isPresent()
                ? one.look().get().alike(other.look().get())
                : one.sharedBytes(other);
    }

    private static Set<Digest> parts(Features features) {
        Set<Digest> parts = new HashSet<>();
        features.scan().chunks().forEach(c -> parts.add(c.digest()));
        return parts;
    }

    private static boolean isBeginning(byte[] before, byte[] after) {
        int length = after.length;
        if (length == 0 || length >= before.length || !Arrays.equals(before, 0, length, after, 0, length)) {
            return false;
        }
        boolean withinLine = before[length] != '\n' && before[length] != '\r';
        return after[length - 1] != '\n' && (withinLine || before[before.length - 1] == '\n');
    }
}
