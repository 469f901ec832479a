package org.mendedleaf.core.retention;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;

/**
 * Where the space goes: what each place, folder and file really takes, each chunk counted once in everything that holds it.
 * One pass over the versions in the order of the tree: a chunk counts at each node that uses it, and is taken off where the
 * ways of two neighbouring uses meet; so each folder has it once. (The number of distinct values in subtrees, as in A. Aho,
 * J. Hopcroft, J. Ullman, "On finding lowest common ancestors in trees", 1973.)
 */
public final class SpaceTree {

    private final Node root;
    private final Map<ContentKind, Share> kinds;
    private final Map<Age, Share> ages;

    /** Spans of age, counted from when a version was saved. */
    public enum Age {
        /** The last 24 hours. */
        DAY(1),
        /** The last 7 days. */
        WEEK(7),
        /** The last 30 days. */
        MONTH(30),
        /** The last 91 days. */
        QUARTER(91),
        /** The last 365 days. */
        YEAR(365),
        /** Before. */
        OLDER(Long.MAX_VALUE / 100_000_000_000L);

        private final long days;

        Age(long days) {
            this.days = days;
        }

        /** Into which a moment falls. */
        public static Age of(long saved, long now) {
            for (Age a : values()) {
                if (now - saved < a.days * 86_400_000_000L) {
                    return a;
                }
            }
            return OLDER;
        }
    }

    /** Sums over some versions. */
    public static final class Share {
        private long versions;
        private long versionBytes;
        private long takenBytes;
        private long onlyBytes;

        /** How many. */
        public long versions() {
            return versions;
        }

        /** Bytes of their contents, each counted whole. */
        public long versionBytes() {
            return versionBytes;
        }

        /** What they really take, shared chunks counted once. */
        public long takenBytes() {
            return takenBytes;
        }

        /** What nothing else needs. */
        public long onlyBytes() {
            return onlyBytes;
        }
    }

    /** A vault, a place, a folder or a file. */
    public static final class Node {
        private final String name;
        private final String path;
        private final @Nullable Node parent;
        private final int depth;
        private final int line;
        private final @Nullable Place place;
        private final List<Node> children = new ArrayList<>();
        private final Share share = new Share();
        private long liveBytes;
        private long files;

        private Node(String name, String path, @Nullable Node parent, int line, @Nullable Place place) {
            this.name = name;
            this.path = path;
            this.parent = parent;
            this.line = line;
            this.place = place;
            this.depth = parent == null ? 0 : parent.depth + 1;
            if (parent != null) {
                parent.children.add(this);
            }
        }

        /** What people call it. */
        public String name() {
            return name;
        }

        /** From the place's root; empty for a place. */
        public String path() {
            return path;
        }

        /** The place it is or belongs to; null for the whole vault. */
        public @Nullable Place place() {
            return place;
        }

        /** What it is in; null for the whole vault. */
        public @Nullable Node parent() {
            return parent;
        }

        /** What is in it, in no order. */
        public List<Node> children() {
            return java.util.Collections.unmodifiableList(children);
        }

        /** Whether it is a file. */
        public boolean isFile() {
            return line >= 0;
        }

        /** Row of its line; -1 when it is no file. */
        public int line() {
            return line;
        }

        /** Sums over its versions. */
        public Share share() {
            return share;
        }

        /** Bytes of what is there now. */
        public long liveBytes() {
            return liveBytes;
        }

        /** Files with a past, there or removed. */
        public long files() {
            return files;
        }

        /** Its share of what its parent takes, from 0 to 1; shares of neighbours may be more than 1 together. */
        public double ofParent() {
            Node above = parent;
            long all = above == null ? share.takenBytes : above.share.takenBytes;
            return all == 0 ? 0 : (double) share.takenBytes / all;
        }
    }

    private SpaceTree(Node root, Map<ContentKind, Share> kinds, Map<Age, Share> ages) {
        this.root = root;
        this.kinds = kinds;
        this.ages = ages;
    }

    /** The whole vault. */
    public Node root() {
        return root;
    }

    /** By kind of file. What several kinds share counts in each of them. */
    public Map<ContentKind, Share> kinds() {
        return kinds;
    }

    /** By age. What several ages share counts in each of them. */
    public Map<Age, Share> ages() {
        return ages;
    }

    /** The files whose versions take most, the largest first. */
    public List<Node> largest(int most) {
        List<Node> files = new ArrayList<>();
        for (Node node : inOrder(root)) {
            if (node.isFile()) {
                files.add(node);
            }
        }
        files.sort((a, b) -> Long.compare(b.share.takenBytes, a.share.takenBytes));
        return files.size() > most ? files.subList(0, most) : files;
    }

    /** A node and all below it, in the order of the tree; folders may be nested deeper than a stack is. */
    private static List<Node> inOrder(Node top) {
        List<Node> all = new ArrayList<>();
        Deque<Node> next = new ArrayDeque<>(List.of(top));
        while (!next.isEmpty()) {
            Node node = next.removeFirst();
            all.add(node);
            for (int i = node.children.size() - 1; i >= 0; i--) {
                next.addFirst(node.children.get(i));
            }
        }
        return all;
    }

    /** The node of a path in a place: a folder, else a file, else nothing. */
    public java.util.Optional<Node> find(long place, String path) {
        for (Node p : root.children) {
            Place of = p.place;
            if (of != null && of.id() == place) {
                return path.isEmpty() ? java.util.Optional.of(p) : find(p, path);
            }
        }
        return java.util.Optional.empty();
    }

    private static java.util.Optional<Node> find(Node top, String path) {
        Node in = top;
        Node file = null;
        while (in != null) {
            Node next = null;
            for (Node c : in.children) {
                if (c.path.equals(path)) {
                    if (!c.isFile()) {
                        return java.util.Optional.of(c);
                    }
                    file = c;
                } else if (!c.isFile() && path.startsWith(c.path + "/")) {
                    next = c;
                }
            }
            in = file == null ? next : null;
        }
        return java.util.Optional.ofNullable(file);
    }

    /** Counts what all versions take that were not let go. */
    public static SpaceTree of(VersionTable table, java.time.Instant now) {
        return new Builder(table, Moment.micros(now)).build();
    }

    private static final class Builder {
        private final VersionTable table;
        private final long now;
        private final Node root = new Node("", "", null, -1, null);
        private final Map<Long, Node> places = new HashMap<>();
        private final Map<Long, Node> folders = new HashMap<>();

        Builder(VersionTable table, long now) {
            this.table = table;
            this.now = now;
            for (Place p : table.places()) {
                places.put(p.id(), new Node(p.label(), "", root, -1, p));
            }
        }

        private Node folder(VersionColumns.Folder f) {
            // Up to one that is known, and down again.
            Deque<VersionColumns.Folder> unknown = new ArrayDeque<>();
            VersionColumns.Folder at = f;
            while (!folders.containsKey(at.id()) && !at.path().isEmpty()) {
                unknown.addFirst(at);
                at = table.folderById(at.parent());
            }
            long place = at.place();
            Node node = folders.computeIfAbsent(at.id(), k -> place(place));
            for (VersionColumns.Folder each : unknown) {
                String name = each.path().substring(each.path().lastIndexOf('/') + 1);
                node = new Node(name, each.path(), node, -1, node.place);
                folders.put(each.id(), node);
            }
            return node;
        }

        private Node place(long id) {
            Node made = places.get(id);
            if (made == null) {
                throw new IllegalStateException("expected the place " + id);
            }
            return made;
        }

        SpaceTree build() {
            for (int line = 0; line < table.lines(); line++) {
                Node above = folder(table.folder(line));
                new Node(table.name(line), table.path(line), above, line, above.place);
            }
            int chunks = table.chunks() + 1;
            Node[] before = new Node[chunks];
            Node[] common = new Node[chunks];
            int[] kindsOf = new int[chunks];
            int[] agesOf = new int[chunks];
            Map<ContentKind, Share> kinds = new EnumMap<>(ContentKind.class);
            Map<Age, Share> ages = new EnumMap<>(Age.class);
            // Lines in the order of the tree, so that neighbouring uses of a chunk are near each other in it.
            for (Node node : inOrder(root)) {
                if (node.isFile()) {
                    count(node, before, common, kindsOf, agesOf, kinds, ages);
                }
            }
            ContentKind[] allKinds = ContentKind.values();
            Age[] allAges = Age.values();
            for (int chunk = 1; chunk < chunks; chunk++) {
                Node top = common[chunk];
                int bytes = table.chunkBytes(chunk);
                if (top == null) {
                    continue;
                }
                top.share.onlyBytes += bytes;
                for (ContentKind k : allKinds) {
                    int bit = 1 << k.ordinal();
                    if ((kindsOf[chunk] & bit) != 0) {
                        Share s = kinds.computeIfAbsent(k, x -> new Share());
                        s.takenBytes += bytes;
                        s.onlyBytes += kindsOf[chunk] == bit ? bytes : 0;
                    }
                }
                for (Age a : allAges) {
                    int bit = 1 << a.ordinal();
                    if ((agesOf[chunk] & bit) != 0) {
                        Share s = ages.computeIfAbsent(a, x -> new Share());
                        s.takenBytes += bytes;
                        s.onlyBytes += agesOf[chunk] == bit ? bytes : 0;
                    }
                }
            }
            sum(root);
            return new SpaceTree(root, kinds, ages);
        }

        private void count(
                Node node,
                Node[] before,
                Node[] common,
                int[] kindsOf,
                int[] agesOf,
                Map<ContentKind, Share> kinds,
                Map<Age, Share> ages) {
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
                Age age = Age.of(table.saved(row), now);
                node.share.versions++;
                node.share.versionBytes += table.bytes(row);
                Share ofKind = kinds.computeIfAbsent(kind, x -> new Share());
                ofKind.versions++;
                ofKind.versionBytes += table.bytes(row);
                Share ofAge = ages.computeIfAbsent(age, x -> new Share());
                ofAge.versions++;
                ofAge.versionBytes += table.bytes(row);
                table.chunks(row, chunk -> {
                    kindsOf[chunk] |= 1 << kind.ordinal();
                    agesOf[chunk] |= 1 << age.ordinal();
                    Node earlier = before[chunk];
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

        private static Node meet(Node a, Node b) {
            Node x = a;
            Node y = b;
            while (x != y) {
                if (x.depth >= y.depth) {
                    x = above(x);
                } else {
                    y = above(y);
                }
            }
            return x;
        }

        private static Node above(Node node) {
            Node parent = node.parent;
            if (parent == null) {
                throw new IllegalStateException("expected two nodes of one tree");
            }
            return parent;
        }

        private static void sum(Node root) {
            List<Node> all = inOrder(root);
            // From the leaves up.
            for (int i = all.size() - 1; i > 0; i--) {
                Node c = all.get(i);
                Node node = above(c);
                node.share.versions += c.share.versions;
                node.share.versionBytes += c.share.versionBytes;
                node.share.takenBytes += c.share.takenBytes;
                node.share.onlyBytes += c.share.onlyBytes;
                node.liveBytes += c.liveBytes;
                node.files += c.files;
            }
        }
    }

    /** The sums of all ages, also of those that hold nothing. */
    public Share age(Age age) {
        return ages.getOrDefault(age, new Share());
    }

    /** All ages in order. */
    public static List<Age> allAges() {
        return Arrays.asList(Age.values());
    }
}
