package org.mendedleaf.core.retention;

import java.util.ArrayDeque;
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
    private final SpaceTree.Node root = new SpaceTree.Node("", "", null, -1, null);
    private final Map<Long, SpaceTree.Node> places = new HashMap<>();
    private final Map<Long, SpaceTree.Node> folders = new HashMap<>();

    SpaceTreeBuilder(VersionTable table, long now) {
        this.table = table;
        this.now = now;
        for (Place p : table.places()) {
            places.put(p.id(), new SpaceTree.Node(p.label(), "", root, -1, p));
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
            node = new SpaceTree.Node(name, each.path(), node, -1, node.place);
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
            new SpaceTree.Node(table.name(line), table.path(line), above, line, above.place);
        }
        int chunks = table.chunks() + 1;
        SpaceTree.Node[] before = new SpaceTree.Node[chunks];
        SpaceTree.Node[] common = new SpaceTree.Node[chunks];
        int[] kindsOf = new int[chunks];
        int[] agesOf = new int[chunks];
        Map<ContentKind, SpaceShare> kinds = new EnumMap<>(ContentKind.class);
        Map<SpaceAge, SpaceShare> ages = new EnumMap<>(SpaceAge.class);
        // Lines in the order of the tree, so that neighbouring uses of a chunk are near each other in it.
        for (SpaceTree.Node node : SpaceTree.inOrder(root)) {
            if (node.isFile()) {
                count(node, before, common, kindsOf, agesOf, kinds, ages);
            }
        }
        ContentKind[] allKinds = ContentKind.values();
        SpaceAge[] allAges = SpaceAge.values();
        for (int chunk = 1; chunk < chunks; chunk++) {
            SpaceTree.Node top = common[chunk];
            int bytes = table.chunkBytes(chunk);
            if (top == null) {
                continue;
            }
            top.share.onlyBytes += bytes;
            for (ContentKind k : allKinds) {
                int bit = 1 << k.ordinal();
                if ((kindsOf[chunk] & bit) != 0) {
                    SpaceShare s = kinds.computeIfAbsent(k, x -> new SpaceShare());
                    s.takenBytes += bytes;
                    s.onlyBytes += kindsOf[chunk] == bit ? bytes : 0;
                }
            }
            for (SpaceAge a : allAges) {
                int bit = 1 << a.ordinal();
                if ((agesOf[chunk] & bit) != 0) {
                    SpaceShare s = ages.computeIfAbsent(a, x -> new SpaceShare());
                    s.takenBytes += bytes;
                    s.onlyBytes += agesOf[chunk] == bit ? bytes : 0;
                }
            }
        }
        sum(root);
        return new SpaceTree(root, kinds, ages);
    }

    private void count(
            SpaceTree.Node node,
            SpaceTree.Node[] before,
            SpaceTree.Node[] common,
            int[] kindsOf,
            int[] agesOf,
            Map<ContentKind, SpaceShare> kinds,
            Map<SpaceAge, SpaceShare> ages) {
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
            node.share.versions++;
            node.share.versionBytes += table.bytes(row);
            SpaceShare ofKind = kinds.computeIfAbsent(kind, x -> new SpaceShare());
            ofKind.versions++;
            ofKind.versionBytes += table.bytes(row);
            SpaceShare ofAge = ages.computeIfAbsent(age, x -> new SpaceShare());
            ofAge.versions++;
            ofAge.versionBytes += table.bytes(row);
            table.chunks(row, chunk -> {
                kindsOf[chunk] |= 1 << kind.ordinal();
                agesOf[chunk] |= 1 << age.ordinal();
                SpaceTree.Node earlier = before[chunk];
                if (earlier == node) {
                    return;
                }
                int bytes = table.chunkBytes(chunk);
                node.share.takenBytes += bytes;
                if (earlier != null) {
                    meet(earlier, node).share.takenBytes -= bytes;
                    common[chunk] = meet(common[chunk], node);
                } else {
                    common[chunk] = node;
                }
                before[chunk] = node;
            });
        }
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
