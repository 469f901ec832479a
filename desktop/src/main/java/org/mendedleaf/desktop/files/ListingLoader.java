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
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.Totals;

/** Puts listings together from the catalogue. Without a scene; off the screen's thread. */
final class ListingLoader {

    private final Reading reading;
    private final Place place;
    private final @Nullable Instant past;
    private final Instant at;
    private final boolean removed;

    ListingLoader(Reading reading, Place place, @Nullable Instant past, Instant now, boolean removed) {
        this.reading = reading;
        this.place = place;
        this.past = past;
        this.at = past == null ? now : past;
        this.removed = removed;
    }

    Listing load(String folder, Set<String> unfolded) throws IOException {
        List<Entry> all = reading.listing(place, folder, at, true);
        long gone = all.stream().filter(e -> e.removed().isPresent()).count();
        long folders = all.stream()
                .filter(e -> e.removed().isEmpty() && e.kind() == EntryKind.FOLDER)
                .count();
        Map<String, List<FileRow>> rows = new HashMap<>();
        put(folder, all, unfolded, rows);
        return new Listing(folder, rows, all.size() - gone - folders, folders, gone);
    }

    private void put(String folder, List<Entry> entries, Set<String> unfolded, Map<String, List<FileRow>> into)
            throws IOException {
        Map<String, Entry> nowByName = new HashMap<>();
        if (past != null) {
            for (Entry e : reading.listing(place, folder, far(), true)) {
                nowByName.put(e.name(), e);
            }
        }
        Collator order = Collator.getInstance();
        List<FileRow> rows = new ArrayList<>();
        for (Entry e : entries) {
            if (removed || e.removed().isEmpty()) {
                String path = RelativePath.child(folder, e.name());
                Optional<Totals> totals =
                        e.kind() == EntryKind.FOLDER ? Optional.of(reading.totals(place, path, at)) : Optional.empty();
                rows.add(new FileRow(e, path, totals, against(e, nowByName)));
            }
        }
        rows.sort(Comparator.comparing((FileRow r) -> !r.isFolder())
                .thenComparing(r -> r.entry().name(), order::compare));
        into.put(folder, rows);
        for (FileRow row : rows) {
            if (row.isFolder() && unfolded.contains(row.path())) {
                put(row.path(), reading.listing(place, row.path(), at, true), unfolded, into);
            }
        }
    }

    /** Later than anything that was captured. */
    private static Instant far() {
        return Instant.parse("9999-01-01T00:00:00Z");
    }

    private FileRow.Against against(Entry then, Map<String, Entry> nowByName) {
        if (past == null || then.removed().isPresent()) {
            return FileRow.Against.SAME;
        }
        Entry now = nowByName.get(then.name());
        if (now == null || (now.line() != then.line() && then.kind() != EntryKind.FOLDER)) {
            return FileRow.Against.MOVED;
        }
        if (now.removed().isPresent()) {
            return FileRow.Against.REMOVED;
        }
        return now.number() == then.number() ? FileRow.Against.SAME : FileRow.Against.CHANGED;
    }
}
