package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/**
 * A plan as tasks in an order in which each finds space: files that have the name of a folder to come go first; then files
 * go where no folder is, and away from where they were; then folders go that have the name of a file to come, and that file
 * comes last, also when it comes out of such a folder. All that goes is in the vault before.
 *
 * @param tasks in their order
 * @param items for each task the item of the plan that it is for; -1 for none
 */
record TaskOrder(List<Task> tasks, List<Integer> items) {

    static TaskOrder of(InPlace files, Reading reading, RestoreRequest request, RestorePlan plan) throws IOException {
        TaskOrder steps = new TaskOrder(new ArrayList<>(), new ArrayList<>());
        List<RestorePlan.Item> items = plan.items();
        Set<String> inTheWay = new HashSet<>();
        for (RestorePlan.Item i : items) {
            for (String at = RelativePath.parent(i.target()); i.writes() && !at.isEmpty(); ) {
                inTheWay.add(at);
                at = RelativePath.parent(at);
            }
        }
        Set<String> gone = new HashSet<>();
        for (int i = 0; i < items.size(); i++) {
            RestorePlan.Item item = items.get(i);
            boolean late = item.step() == RestorePlan.Step.REMOVE;
            String leaves = late ? item.target() : item.step() == RestorePlan.Step.MOVE_BACK ? item.other() : "";
            if (!leaves.isEmpty() && inTheWay.contains(leaves) && gone.add(leaves)) {
                steps.add(new Task.Remove(leaves), late ? i : -1);
            }
        }
        Set<String> folders = new HashSet<>();
        for (RestorePlan.Item item : items) {
            if (item.writes()
                    && files.live(item.target())
                            .filter(l -> l.kind() == EntryKind.FOLDER)
                            .isPresent()) {
                folders.add(item.target());
            }
        }
        for (int i = 0; i < items.size(); i++) {
            if (items.get(i).writes() && !folders.contains(items.get(i).target())) {
                steps.write(files, reading, items.get(i), i, gone);
            }
        }
        for (RestorePlan.Item item : items) {
            boolean comesOut = item.step() == RestorePlan.Step.MOVE_BACK
                    && folders.contains(item.target())
                    && folders.stream().anyMatch(f -> RelativePath.isWithin(item.other(), f));
            if (comesOut && gone.add(item.other())) {
                steps.add(new Task.Remove(item.other()), -1);
            }
        }
        for (int i = 0; i < items.size(); i++) {
            if (items.get(i).step() == RestorePlan.Step.REMOVE
                    && gone.add(items.get(i).target())) {
                steps.add(new Task.Remove(items.get(i).target()), i);
            }
        }
        for (String late : request.lateFolders()) {
            if (folders.stream().anyMatch(f -> RelativePath.isWithin(late, f))) {
                steps.add(new Task.RemoveFolder(late), -1);
            }
        }
        for (int i = 0; i < items.size(); i++) {
            if (folders.contains(items.get(i).target()) && items.get(i).writes()) {
                steps.write(files, reading, items.get(i), i, gone);
            }
        }
        request.folders().forEach(f -> steps.add(new Task.MakeFolder(f), -1));
        request.lateFolders().forEach(f -> steps.add(new Task.RemoveFolder(f), -1));
        return steps;
    }

    private void add(Task task, int item) {
        tasks.add(task);
        items.add(item);
    }

    private void write(InPlace files, Reading reading, RestorePlan.Item item, int i, Set<String> gone)
            throws IOException {
        Version version = item.version();
        switch (item.step()) {
            case MOVE_BACK ->
                add(new Task.Put(version, item.target(), true, gone.contains(item.other()) ? "" : item.other()), i);
            case REPLACE -> add(new Task.Put(version, item.target(), true, ""), i);
            case CREATE, KEEP_BOTH -> add(new Task.Put(version, item.target(), false, ""), i);
            case KEEP_BOTH_RENAME_OTHER -> {
                LiveEntry live = files.live(item.target()).orElseThrow();
                Version there = reading.version(live.line(), live.number())
                        .orElseThrow()
                        .looking(live.mtimeNanos(), live.mode());
                // The line stays with its name; what was there begins one of its own beside it.
                String note = Words.of("restore.besideNote", RelativePath.name(item.target()), there.label());
                add(new Task.Put(there.borrowed(0, note), item.other(), false, ""), -1);
                add(new Task.Put(version, item.target(), true, ""), i);
            }
            default -> throw new IllegalArgumentException("expected a step that writes, got " + item.step());
        }
    }
}
