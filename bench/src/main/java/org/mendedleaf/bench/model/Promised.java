package org.mendedleaf.bench.model;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/** What must still come back, by a book-keeping of its own: contents as text, nothing of how the vault keeps them. */
final class Promised {

    /** A version: the line of its file, and its number there. */
    record Key(long line, int number) {}

    /** What the files hold, by path. */
    final Map<String, String> disk = new TreeMap<>();

    /** Versions that must come back. */
    final Map<Key, String> kept = new HashMap<>();

    /** Versions that were let go; until their grace ends, undoing brings them back. */
    final Map<Key, String> waiting = new HashMap<>();

    /** Versions that need a byte that was damaged: they come back right, or not at all. */
    final Map<Key, String> hurt = new HashMap<>();

    /** What each action let go. */
    final Map<Long, Set<Key>> letGo = new HashMap<>();

    /** How the files were before an action that can be undone, and after it. */
    final Map<Long, Change> changes = new HashMap<>();

    /** What is held, by hold: lines whole, or single versions. */
    final Map<Long, Held> holds = new HashMap<>();

    /** What stands in each snapshot. */
    final Map<Long, Set<Key>> snapshots = new HashMap<>();

    record Change(Map<String, String> before, Map<String, String> after) {}

    /**
     * A hold.
     *
     * @param folder whose files it takes hold of, with a slash at the end; empty when it is on one line or version
     */
    record Held(String folder, Set<Long> lines, Set<Key> versions) {
        static Held of(String folder) {
            return new Held(folder, new HashSet<>(), new HashSet<>());
        }
    }

    /** Whether something says that a version may not go. */
    boolean isProtected(Key key) {
        return holds.values().stream()
                        .anyMatch(h ->
                                h.lines().contains(key.line()) || h.versions().contains(key))
                || snapshots.values().stream().anyMatch(s -> s.contains(key));
    }

    /** Which holds and snapshots say so, for a story. */
    String protects(Key key) {
        StringBuilder words = new StringBuilder(key.toString());
        holds.forEach((id, h) -> {
            if (h.lines().contains(key.line()) || h.versions().contains(key)) {
                words.append(" by the hold ").append(id).append(' ').append(h.folder());
            }
        });
        snapshots.forEach((id, s) -> {
            if (s.contains(key)) {
                words.append(" in the snapshot ").append(id);
            }
        });
        return words.toString();
    }

    /** A file with this line is, or was put, at this path: holds of folders take hold of it. */
    void isAt(String path, long line) {
        for (Held h : holds.values()) {
            if (!h.folder().isEmpty() && path.startsWith(h.folder())) {
                h.lines().add(line);
            }
        }
    }

    void goes(long action, Set<Key> keys) {
        letGo.computeIfAbsent(action, a -> new HashSet<>()).addAll(keys);
        for (Key key : keys) {
            String content = kept.remove(key);
            if (content != null) {
                waiting.put(key, content);
            }
        }
    }

    void comesBack(long action) {
        for (Key key : letGo.getOrDefault(action, Set.of())) {
            String content = waiting.remove(key);
            if (content != null) {
                kept.put(key, content);
            }
        }
    }

    void goesAgain(long action) {
        goes(action, Set.copyOf(letGo.getOrDefault(action, Set.of())));
    }
}
