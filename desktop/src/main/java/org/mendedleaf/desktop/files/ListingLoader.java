package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.text.Collator;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Totals;
import org.mendedleaf.core.time.Moment;

/** Puts listings together from the catalogue. Without a scene; off the screen's thread. */
final class ListingLoader {

    private final Reading reading;
    private final Place place;
    private final Instant at;
    private final boolean removed;
    private final boolean added;
    private FolderMarks marks = FolderMarks.NONE;

    /**
     * A loader.
     *
     * @param at the moment; {@link Moment#FAR} for now
     * @param removed whether removed files are listed
     * @param added whether files are listed that were not there then
     */
    ListingLoader(Reading reading, Place place, Instant at, boolean removed, boolean added) {
        this.reading = reading;
        this.place = place;
        this.at = at;
        this.removed = removed;
        this.added = added;
    }

    /** The listing, without a word on how it stands to now. */
    Listing load(String folder, Set<String> unfolded) throws IOException {
        List<Entry> all = reading.folders().listing(place, folder, at, true);
        long gone = all.stream().filter(e -> e.removed().isPresent()).count();
        long folders = all.stream()
                .filter(e -> e.removed().isEmpty() && e.kind() == EntryKind.FOLDER)
                .count();
        Map<String, List<FileRow>> rows = new HashMap<>();
        put(folder, all, unfolded, rows);
        return new Listing(
                folder,
                rows,
                all.size() - gone - folders,
                folders,
                gone,
                marks.countAdded(folder),
                marks.since(folder));
    }

    /** The listing of a past moment, each row marked against now. */
    Listing loadMarked(String folder, Set<String> unfolded) throws IOException {
        marks = FolderMarks.of(reading, place, folder, at);
        return load(folder, unfolded);
    }

    private void put(String folder, List<Entry> entries, Set<String> unfolded, Map<String, List<FileRow>> into)
            throws IOException {
        List<FileRow> rows = new ArrayList<>();
        for (Entry e : entries) {
            if (removed || e.removed().isEmpty()) {
                rows.add(row(folder, e, at));
            }
        }
        Set<String> names = marks.added(folder, added);
        if (!names.isEmpty()) {
            for (Entry e : reading.folders().listing(place, folder, Moment.FAR, false)) {
                if (names.contains(e.name())) {
                    FileRow row = row(folder, e, Moment.FAR);
                    rows.add(new FileRow(e, row.path(), row.totals(), FileRow.Change.ADDED, ChangesSince.NOTHING));
                }
            }
        }
        rows.sort(order());
        into.put(folder, rows);
        for (FileRow row : rows) {
            if (row.isFolder() && unfolded.contains(row.path())) {
                put(row.path(), reading.folders().listing(place, row.path(), at, true), unfolded, into);
            }
        }
    }

    private static Comparator<FileRow> order() {
        Collator names = Collator.getInstance();
        return Comparator.comparing((FileRow r) -> !r.isFolder())
                .thenComparing(r -> r.entry().name(), names::compare);
    }

    private FileRow row(String folder, Entry e, Instant moment) throws IOException {
        String path = RelativePath.child(folder, e.name());
        boolean isFolder = e.kind() == EntryKind.FOLDER;
        Optional<Totals> totals =
                isFolder ? Optional.of(reading.folders().totals(place, path, moment)) : Optional.empty();
        boolean gone = e.removed().isPresent();
        return new FileRow(
                e,
                path,
                totals,
                gone ? FileRow.Change.SAME : marks.against(path),
                isFolder ? marks.since(path) : ChangesSince.NOTHING);
    }

    /** The moment for queries: now is later than anything that was captured. */
    static Instant moment(@Nullable Instant past) {
        return past == null ? Moment.FAR : past;
    }
}
