package org.mendedleaf.core.retention;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
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
    private final Map<ContentKind, SpaceShare> kinds;
    private final Map<SpaceAge, SpaceShare> ages;

    /** A vault, a place, a folder or a file. */
    public static final class Node {
        final String name;
        final @Nullable Node parent;
        final int depth;
        final int line;
        final @Nullable Place place;
        private @Nullable List<Node> children;
        final SpaceShare share = new SpaceShare();
        long liveBytes;
        long files;

        Node(String name, @Nullable Node parent, int line, @Nullable Place place) {
            this.name = name;
            this.parent = parent;
            this.line = line;
            this.place = place;
            this.depth = parent == null ? 0 : parent.depth + 1;
            if (parent != null) {
                parent.add(this);
            }
        }

        private void add(Node child) {
            List<Node> mine = children == null ? new ArrayList<>() : children;
            mine.add(child);
            children = mine;
        }

        /** What people call it. */
        public String name() {
            return name;
        }

        /** From the place's root; empty for a place. */
        public String path() {
            // Folders may be nested deeper than a stack is.
            Deque<String> names = new ArrayDeque<>();
            for (Node at = this; at.parent != null && at.parent.parent != null; at = at.parent) {
                names.addFirst(at.name);
            }
            return String.join("/", names);
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
            return children == null ? List.of() : java.util.Collections.unmodifiableList(children);
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
        public SpaceShare share() {
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

    SpaceTree(Node root, Map<ContentKind, SpaceShare> kinds, Map<SpaceAge, SpaceShare> ages) {
        this.root = root;
        this.kinds = kinds;
        this.ages = ages;
    }

    /** The whole vault. */
    public Node root() {
        return root;
    }

    /** By kind of file. What several kinds share counts in each of them. */
    public Map<ContentKind, SpaceShare> kinds() {
        return kinds;
    }

    /** By age. What several ages share counts in each of them. */
    public Map<SpaceAge, SpaceShare> ages() {
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
    static List<Node> inOrder(Node top) {
        List<Node> all = new ArrayList<>();
        Deque<Node> next = new ArrayDeque<>(List.of(top));
        while (!next.isEmpty()) {
            Node node = next.removeFirst();
            all.add(node);
            List<Node> children = node.children();
            for (int i = children.size() - 1; i >= 0; i--) {
                next.addFirst(children.get(i));
            }
        }
        return all;
    }

    /** The node of a path in a place: a folder, else a file, else nothing. */
    public java.util.Optional<Node> find(long place, String path) {
        for (Node p : root.children()) {
            Place of = p.place;
            if (of != null && of.id() == place) {
                return path.isEmpty() ? java.util.Optional.of(p) : find(p, path);
            }
        }
        return java.util.Optional.empty();
    }

    private static java.util.Optional<Node> find(Node top, String path) {
        Node in = top;
        for (String name : path.split("/")) {
            Node next = null;
            Node file = null;
            for (Node c : in.children()) {
                if (c.name.equals(name)) {
                    file = c.isFile() ? c : file;
                    next = c.isFile() ? next : c;
                }
            }
            if (next == null) {
                return java.util.Optional.ofNullable(file).filter(f -> f.path().equals(path));
            }
            in = next;
        }
        return java.util.Optional.of(in);
    }

    /** Counts what all versions take that were not let go. */
    public static SpaceTree of(VersionTable table, java.time.Instant now) {
        return new SpaceTreeBuilder(table, Moment.micros(now)).build();
    }

    /** The sums of all ages, also of those that hold nothing. */
    public SpaceShare age(SpaceAge age) {
        return ages.getOrDefault(age, new SpaceShare());
    }

    /** All ages in order. */
    public static List<SpaceAge> allAges() {
        return Arrays.asList(SpaceAge.values());
    }
}
