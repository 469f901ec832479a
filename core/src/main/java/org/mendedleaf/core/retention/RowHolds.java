package org.mendedleaf.core.retention;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.line.Hold;

/** Which hold each version is under: one of its own, its file's, its folder's, or that of a snapshot that shows it. */
final class RowHolds {

    /** Stands for no hold. */
    static final int NONE = -1;

    private final VersionTable table;
    private final List<Hold> holds;
    /** Empty where there are no holds. */
    private final int[] holdOf;

    private RowHolds(VersionTable table, List<Hold> holds) {
        this.table = table;
        this.holds = holds;
        this.holdOf = new int[holds.isEmpty() ? 0 : table.size()];
        Arrays.fill(holdOf, NONE);
    }

    /** Those of all versions. */
    static RowHolds of(VersionTable table, List<Hold> holds) {
        RowHolds all = new RowHolds(table, holds);
        if (!holds.isEmpty()) {
            all.mark();
        }
        return all;
    }

    /** Index of the hold of a version; {@link #NONE} for none. */
    int of(int row) {
        return holdOf.length == 0 ? NONE : holdOf[row];
    }

    private void mark() {
        Map<Long, Integer> lines = new HashMap<>();
        List<Integer> folderHolds = new ArrayList<>();
        Map<Integer, Integer> snapshots = new HashMap<>();
        for (int i = 0; i < holds.size(); i++) {
            Hold h = holds.get(i);
            switch (h.kind()) {
                case VERSION -> {
                    int row = table.row(h.line(), h.number());
                    if (row >= 0) {
                        holdOf[row] = i;
                    }
                }
                case LINE -> lines.put(h.line(), i);
                case FOLDER -> folderHolds.add(i);
                case SNAPSHOT -> {
                    for (int s = 0; s < table.snapshots().size(); s++) {
                        if (table.snapshots().get(s).id() == h.snapshot()) {
                            snapshots.put(s, i);
                        }
                    }
                }
            }
        }
        Map<Long, Integer> folders = new HashMap<>();
        for (int line = 0; line < table.lines(); line++) {
            Integer hold = lines.get(table.lineId(line));
            if (hold == null && !folderHolds.isEmpty()) {
                VersionColumns.Folder folder = table.folder(line);
                hold = folders.computeIfAbsent(folder.id(), f -> holdOfFolder(folder, folderHolds));
                hold = hold == NONE ? takenHoldOf(line, folderHolds) : hold;
            }
            for (int row = table.first(line); row < table.first(line + 1); row++) {
                if (hold != null && hold != NONE) {
                    holdOf[row] = hold;
                } else if (holdOf[row] == NONE && table.snapshot(row) >= 0) {
                    holdOf[row] = snapshots.getOrDefault(table.snapshot(row), NONE);
                }
            }
        }
    }

    /** The hold of a folder that a file was in, and that it has left since. */
    private int takenHoldOf(int line, List<Integer> folderHolds) {
        for (int i : folderHolds) {
            if (table.isHeldBy(holds.get(i).id(), line)) {
                return i;
            }
        }
        return NONE;
    }

    private int holdOfFolder(VersionColumns.Folder folder, List<Integer> folderHolds) {
        for (int i : folderHolds) {
            Hold h = holds.get(i);
            boolean inside = h.path().isEmpty()
                    || folder.path().equals(h.path())
                    || folder.path().startsWith(h.path() + "/");
            if (h.place() == folder.place() && inside) {
                return i;
            }
        }
        return NONE;
    }
}
