package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.util.List;
import java.util.NavigableSet;
import java.util.TreeSet;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.recovery.Selection;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** Files and folders that are ticked, across folders, with their number and bytes. Without a scene. */
public final class TicksModel {

    private final Background.Newest question;
    private final NavigableSet<String> paths = new TreeSet<>();
    private final ReadOnlyObjectWrapper<Sum> sum = new ReadOnlyObjectWrapper<>(Sum.NOTHING);

    TicksModel(AppContext context) {
        this.question = context.background().new Newest();
    }

    /**
     * What is ticked.
     *
     * @param ticks how many rows
     * @param files how many files those are, with all below ticked folders; negative while they are counted
     * @param bytes of them
     */
    public record Sum(int ticks, long files, long bytes) {
        static final Sum NOTHING = new Sum(0, 0, 0);
    }

    /** Number and bytes of what is ticked. */
    public ReadOnlyObjectProperty<Sum> sumProperty() {
        return sum.getReadOnlyProperty();
    }

    /** The ticked paths; nothing below a ticked folder is among them. */
    public List<String> paths() {
        return List.copyOf(paths);
    }

    /** Whether a path is ticked, or within a ticked folder. */
    boolean isTicked(String path) {
        return paths.contains(path) || isWithin(path);
    }

    /** Whether a folder above is ticked. */
    boolean isWithin(String path) {
        for (int slash = path.lastIndexOf('/'); slash > 0; slash = path.lastIndexOf('/', slash - 1)) {
            if (paths.contains(path.substring(0, slash))) {
                return true;
            }
        }
        return false;
    }

    /** Whether something below a folder is ticked, and not the folder itself. */
    boolean isPartly(String folder) {
        return !isTicked(folder) && !below(folder).isEmpty();
    }

    /** What is ticked below a folder; they stand behind one another, in the order of their letters. */
    private NavigableSet<String> below(String folder) {
        return paths.subSet(folder + "/", true, folder + (char) ('/' + 1), false);
    }

    /** Ticks paths, or takes their ticks away; a ticked folder has all below it. There may be a hundred thousand of them. */
    void tick(OpenPlace openPlace, Instant at, List<String> some, boolean on) {
        boolean changed = false;
        for (String path : some) {
            if (isWithin(path)) {
                continue;
            }
            if (on) {
                below(path).clear();
                changed |= paths.add(path);
            } else {
                changed |= paths.remove(path);
            }
        }
        if (changed) {
            count(openPlace, at);
        }
    }

    private void count(OpenPlace openPlace, Instant at) {
        List<String> now = paths();
        if (now.isEmpty()) {
            clear();
            return;
        }
        sum.set(new Sum(now.size(), -1, 0));
        question.ask(
                () -> {
                    try (Reading reading = openPlace.vault().read()) {
                        Selection.Sum all = new Selection(now, at).sum(reading, openPlace.place());
                        return new Sum(now.size(), all.files(), all.bytes());
                    }
                },
                sum::set,
                e -> clear());
    }

    /** Takes all ticks away. */
    public void clear() {
        question.drop();
        paths.clear();
        sum.set(Sum.NOTHING);
    }
}
