package org.mendedleaf.core.retention;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Deque;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.line.Place;

/** Counts what versions take, and whose alone it is, from a table of all of them. */
final class SpaceTreeBuilder {
    private final VersionTable table;
    private final long now;
    private final SpaceTree.Node root = new SpaceTree.Node("", null, -1, null);
    private final Map<Long, SpaceTree.Node> places = new HashMap<>();
    private final Map<Long, SpaceTree.Node> folders = new HashMap<>();
    private final Map<ContentKind, SpaceShare> kinds = new EnumMap<>(ContentKind.class);
    private final Map<SpaceAge, SpaceShare> ages = new EnumMap<>(SpaceAge.class);

    SpaceTreeBuilder(VersionTable table, long now) {
        this.table = table;
        this.now = now;
        for (Place p : table.places()) {
            places.put(p.id(), new SpaceTree.Node(p.label(), root, -1, p));
        }
    }

    private SpaceTree.Node folder(VersionColumns.Folder f) {
        // Up to one that is known, and down again.
        Deque<VersionColumns.Folder> unknown = new ArrayDeque<>();
        VersionColumns.Folder at = f;
        while (!folders.containsKey(at.id()) && !at.path().isEmpty()) {
            unknown.addFirst(at);
            at = table.folderById(at.parent());
        }
        long place = at.place();
        SpaceTree.Node node = folders.computeIfAbsent(at.id(), k -> place(place));
        for (VersionColumns.Folder each : unknown) {
            String name = each.path().substring(each.path().lastIndexOf('/') + 1);
            node = new SpaceTree.Node(name, node, -1, node.place);
            folders.put(each.id(), node);
        }
        return node;
    }

    private SpaceTree.Node place(long id) {
        SpaceTree.Node made = places.get(id);
        if (made == null) {
            throw new IllegalStateException("expected the place " + id);
        }
        return made;
    }

    SpaceTree build() {
        for (int line = 0; line < table.lines(); line++) {
            SpaceTree.Node above = folder(table.folder(line));
            new SpaceTree.Node(table.name(line), above, line, above.place);
        }
        Shared shared = new Shared(table);
        // Lines in the order of the tree, so that neighbouring uses of a chunk are near each other in it.
        for (SpaceTree.Node node : SpaceTree.inOrder(root)) {
            if (node.isFile()) {
                count(node, shared);
            }
        }
        shared.finish(this);
        sum(root);
        return new SpaceTree(root, kinds, ages);
    }

    /**
     * Chunks that several versions have. Of all others, which are most, it is known at once what they count for: for them
     * nothing is kept.
     */
    private static final class Shared {
        private final VersionTable table;

        /** Ascending ids, and for each its place here. */
        private final int[] chunks;

        private final SpaceTree.Node[] before;
        private final SpaceTree.Node[] common;

        /** A bit for each kind and age: there are eleven and six of them. */
        private final short[] kindsOf;

        private final byte[] agesOf;

        Shared(VersionTable table) {
            this.table = table;
            BitSet once = new BitSet(table.chunks() + 1);
            BitSet twice = new BitSet(table.chunks() + 1);
            for (int row = 0; row < table.size(); row++) {
                if (table.stays(row)) {
                    table.distinctChunks(row, chunk -> (once.get(chunk) ? twice : once).set(chunk));
                }
            }
            chunks = twice.stream().toArray();
            before = new SpaceTree.Node[chunks.length];
            common = new SpaceTree.Node[chunks.length];
            kindsOf = new short[chunks.length];
            agesOf = new byte[chunks.length];
        }

        /** The place of a chunk here; negative when only one version has it. */
        int of(int chunk) {
            return Arrays.binarySearch(chunks, chunk);
        }

        void finish(SpaceTreeBuilder builder) {
            for (int i = 0; i < chunks.length; i++) {
                if (common[i] != null) {
                    int bytes = table.chunkBytes(chunks[i]);
                    common[i].share.onlyBytes += bytes;
                    builder.take(kindsOf[i], agesOf[i], bytes);
                }
            }
        }
    }

    /** Counts a chunk for the kinds and ages that have it. */
    private void take(int kindsOf, int agesOf, int bytes) {
        for (int bits = kindsOf; bits != 0; bits &= bits - 1) {
            SpaceShare s = kinds.computeIfAbsent(
                    ContentKind.values()[Integer.numberOfTrailingZeros(bits)], x -> new SpaceShare());
            s.takenBytes += bytes;
            s.onlyBytes += Integer.bitCount(kindsOf) == 1 ? bytes : 0;
        }
        for (int bits = agesOf; bits != 0; bits &= bits - 1) {
            SpaceShare s =
                    ages.computeIfAbsent(SpaceAge.values()[Integer.numberOfTrailingZeros(bits)], x -> new SpaceShare());
            s.takenBytes += bytes;
            s.onlyBytes += Integer.bitCount(agesOf) == 1 ? bytes : 0;
        }
    }

    private void count(SpaceTree.Node node, Shared shared) {
        int line = node.line;
        ContentKind kind = ContentKind.byName(node.name);
        node.files = 1;
        int last = table.first(line + 1) - 1;
        if (table.removed(line) == 0 && last >= table.first(line)) {
            node.liveBytes = table.bytes(last);
        }
        for (int row = table.first(line); row <= last; row++) {
            if (!table.stays(row)) {
                continue;
            }
            SpaceAge age = SpaceAge.of(table.saved(row), now);
            count(node.share, row);
            count(kinds.computeIfAbsent(kind, x -> new SpaceShare()), row);
            count(ages.computeIfAbsent(age, x -> new SpaceShare()), row);
            int kindBit = 1 << kind.ordinal();
            int ageBit = 1 << age.ordinal();
            table.distinctChunks(row, chunk -> {
                int bytes = table.chunkBytes(chunk);
                int i = shared.of(chunk);
                if (i < 0) {
                    node.share.takenBytes += bytes;
                    node.share.onlyBytes += bytes;
                    take(kindBit, ageBit, bytes);
                    return;
                }
                shared.kindsOf[i] |= (short) kindBit;
                shared.agesOf[i] |= (byte) ageBit;
                SpaceTree.Node earlier = shared.before[i];
                if (earlier == node) {
                    return;
                }
                node.share.takenBytes += bytes;
                if (earlier != null) {
                    meet(earlier, node).share.takenBytes -= bytes;
                    shared.common[i] = meet(shared.common[i], node);
                } else {
                    shared.common[i] = node;
                }
                shared.before[i] = node;
            });
        }
    }

    private void count(SpaceShare share, int row) {
        share.versions++;
        share.versionBytes += table.bytes(row);
    }

    private static SpaceTree.Node meet(SpaceTree.Node a, SpaceTree.Node b) {
        SpaceTree.Node x = a;
        SpaceTree.Node y = b;
        while (x != y) {
            if (x.depth >= y.depth) {
                x = above(x);
            } else {
                y = above(y);
            }
        }
        return x;
    }

    private static SpaceTree.Node above(SpaceTree.Node node) {
        SpaceTree.Node parent = node.parent;
        if (parent == null) {
            throw new IllegalStateException("expected two nodes of one tree");
        }
        return parent;
    }

    private static void sum(SpaceTree.Node root) {
        List<SpaceTree.Node> all = SpaceTree.inOrder(root);
        // From the leaves up.
        for (int i = all.size() - 1; i > 0; i--) {
            SpaceTree.Node c = all.get(i);
            SpaceTree.Node node = above(c);
            node.share.versions += c.share.versions;
            node.share.versionBytes += c.share.versionBytes;
            node.share.takenBytes += c.share.takenBytes;
            node.share.onlyBytes += c.share.onlyBytes;
            node.liveBytes += c.liveBytes;
            node.files += c.files;
        }
    }
}
