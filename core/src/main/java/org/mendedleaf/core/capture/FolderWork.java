package org.mendedleaf.core.capture;

import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** One changed folder during a capture: what is still to be read in it, and what to remember of it afterwards. */
final class FolderWork {

    private final String path;
    private final long id;
    private final List<SeenName> sorted;
    private final Set<String> unsettled = new HashSet<>();
    private int toRead;
    private boolean waitsForEnd;

    FolderWork(String path, long id, List<SeenName> sorted) {
        this.path = path;
        this.id = id;
        this.sorted = List.copyOf(sorted);
    }

    String path() {
        return path;
    }

    long id() {
        return id;
    }

    List<SeenName> sorted() {
        return sorted;
    }

    void willRead() {
        toRead++;
    }

    /** One file is read; {@code settled} says whether the next scan may trust what this one saw. */
    void wasRead(String name, boolean settled) {
        toRead--;
        if (!settled) {
            unsettled.add(name);
        }
    }

    /** Something of this folder is only decided at the end of the capture. */
    void waitForEnd() {
        waitsForEnd = true;
    }

    /** Whether what was seen may be remembered already. */
    boolean isThrough() {
        return toRead == 0 && !waitsForEnd;
    }

    boolean isRead() {
        return toRead == 0;
    }

    byte[] blob() {
        return ScanBlob.encode(sorted, unsettled);
    }
}
