package org.mendedleaf.desktop.files;

import java.util.List;
import java.util.Map;

/**
 * What is listed.
 *
 * @param folder that is looked into, from the place's root
 * @param rows of this folder and of each folder below it that is unfolded, by path
 * @param files number of files in the folder itself
 * @param folders number of folders in it
 * @param removed number of removed files and folders in it, shown or not
 * @param added number of files and folders in it that were not there then, shown or not
 * @param since what became since of all files in it and below it
 */
public record Listing(
        String folder,
        Map<String, List<FileRow>> rows,
        long files,
        long folders,
        long removed,
        long added,
        ChangesSince since) {

    static final Listing EMPTY = new Listing("", Map.of(), 0, 0, 0, 0, ChangesSince.NOTHING);

    /** Copies the map. */
    public Listing {
        rows = Map.copyOf(rows);
    }

    /** The rows of the folder itself. */
    public List<FileRow> top() {
        return rows.getOrDefault(folder, List.of());
    }
}
