package org.mendedleaf.core.line;

import java.util.List;
import java.util.Map;
import java.util.SortedMap;

/**
 * A folder with all below it as it was at a moment.
 *
 * @param files versions by path from the place's root, with the modified time and permissions that they had then
 * @param folders by path, those below the folder, parents before their children
 */
public record TreeAt(SortedMap<String, Version> files, List<Folder> folders) {

    /** Copies the list. */
    public TreeAt {
        folders = List.copyOf(folders);
    }

    /**
     * A folder.
     *
     * @param path from the place's root
     * @param mtimeNanos modified time, nanoseconds since 1970
     * @param mode permission bits
     */
    public record Folder(String path, long mtimeNanos, int mode) {}

    /** Bytes of all files together. */
    public long bytes() {
        return files.values().stream().mapToLong(Version::size).sum();
    }

    /** The files only. */
    public Map<String, Version> byPath() {
        return files;
    }
}
