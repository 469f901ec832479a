package org.mendedleaf.core.disk;

import java.util.List;
import org.mendedleaf.core.words.Words;

/** Paths from a place's root: names joined by slashes; the root itself is the empty text. */
public final class RelativePath {

    private RelativePath() {}

    /** The name at the end. */
    public static String name(String path) {
        return path.substring(path.lastIndexOf('/') + 1);
    }

    /** The path without its last name. */
    public static String parent(String path) {
        int slash = path.lastIndexOf('/');
        return slash < 0 ? "" : path.substring(0, slash);
    }

    /** The path of a name in a folder. */
    public static String child(String folder, String name) {
        return folder.isEmpty() ? name : folder + "/" + name;
    }

    /** The names of a path, first to last. */
    public static List<String> names(String path) {
        return path.isEmpty() ? List.of() : List.of(path.split("/", -1));
    }

    /** Whether a path is this folder or lies in it. */
    public static boolean isWithin(String path, String folder) {
        return folder.isEmpty() || path.equals(folder) || path.startsWith(folder + "/");
    }

    /**
     * Refuses a name that is none: empty, a dot or two, or with a slash or a zero byte in it.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static String requireName(String name) {
        if (name.isEmpty() || name.equals(".") || name.equals("..") || name.indexOf('/') >= 0 || name.indexOf(0) >= 0) {
            throw new IllegalArgumentException(Words.of("path.badName", name));
        }
        return name;
    }

    /**
     * Refuses a path that is empty or has a name in it that is none.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static String requirePath(String path) {
        if (path.isEmpty()) {
            requireName(path);
        }
        names(path).forEach(RelativePath::requireName);
        return path;
    }
}
