package org.mendedleaf.core.line;

import java.util.Optional;

/**
 * A declaration that a folder and another are the same files: this one is backed up, shared or filed there.
 *
 * @param place id of the one place
 * @param path of the folder in it, from its root
 * @param other id of the other place
 * @param otherPath of the folder in that, from its root
 */
public record Relation(long place, String path, long other, String otherPath) {

    /** The path in the other place for a path in this one, if it lies in the folder. */
    public Optional<String> there(long from, String file) {
        if (from == place) {
            return moved(file, path, otherPath);
        }
        return from == other ? moved(file, otherPath, path) : Optional.empty();
    }

    /** The other end. */
    public long end(long from) {
        return from == place ? other : place;
    }

    private static Optional<String> moved(String file, String from, String to) {
        if (from.isEmpty()) {
            return Optional.of(to.isEmpty() ? file : to + "/" + file);
        }
        if (!file.startsWith(from + "/")) {
            return Optional.empty();
        }
        String rest = file.substring(from.length() + 1);
        return Optional.of(to.isEmpty() ? rest : to + "/" + rest);
    }
}
