package org.mendedleaf.core.intake;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.vault.Digest;

/** The files of a place as revisions are matched to them: by path, by name, by stem, by content. */
public final class LineIndex {

    private final Map<String, Entry> byPath = new HashMap<>();
    private final Map<String, List<Entry>> byName = new HashMap<>();
    private final Map<String, List<Entry>> byStem = new HashMap<>();
    private final Map<Digest, List<Entry>> byDigest = new HashMap<>();
    private final Map<String, List<Entry>> byFolder = new HashMap<>();

    /**
     * A file that is there.
     *
     * @param line its line
     * @param path from the place's root
     * @param number of its current version
     * @param size bytes
     * @param digest of its content; of what only another system holds, its plain SHA-256
     * @param saved when that version was saved
     */
    public record Entry(long line, String path, int number, long size, Digest digest, Instant saved) {}

    /** An index of these. */
    public LineIndex(List<Entry> entries) {
        for (Entry e : entries) {
            String name = RelativePath.name(e.path());
            byPath.put(e.path(), e);
            byName.computeIfAbsent(name.toLowerCase(Locale.ROOT), k -> new ArrayList<>(1))
                    .add(e);
            byStem.computeIfAbsent(key(NameStem.of(name)), k -> new ArrayList<>(1))
                    .add(e);
            byDigest.computeIfAbsent(e.digest(), k -> new ArrayList<>(1)).add(e);
            byFolder.computeIfAbsent(RelativePath.parent(e.path()), k -> new ArrayList<>())
                    .add(e);
        }
    }

    /** An index of all files that are there in a place. */
    public static LineIndex of(Reading reading, Place place) throws IOException {
        return new LineIndex(reading.folders().liveFiles(place).stream()
                .map(f -> new Entry(f.line(), f.path(), f.number(), f.size(), f.digest(), f.saved()))
                .toList());
    }

    private static String key(NameStem stem) {
        return stem.base() + "\n" + stem.ending();
    }

    /** Number of files. */
    public int size() {
        return byPath.size();
    }

    /** The file at a path. */
    public Optional<Entry> at(String path) {
        return Optional.ofNullable(byPath.get(path));
    }

    /** Files of this name, in a folder or below it, whatever the case of its letters. */
    List<Entry> named(String name, String folder) {
        return within(byName.getOrDefault(name.toLowerCase(Locale.ROOT), List.of()), folder);
    }

    /** Files whose names differ from this in decorations only, in a folder or below it. */
    List<Entry> stemmed(String name, String folder) {
        return within(byStem.getOrDefault(key(NameStem.of(name)), List.of()), folder);
    }

    /** Files with this content, wherever they are in the place; those in the folder first. */
    List<Entry> holding(Digest digest, String folder) {
        List<Entry> all = new ArrayList<>(byDigest.getOrDefault(digest, List.of()));
        all.sort(Comparator.comparing((Entry e) -> !isWithin(e.path(), folder)).thenComparing(Entry::path));
        return all;
    }

    /** Files in a folder, not below it. */
    List<Entry> in(String folder) {
        return byFolder.getOrDefault(folder, List.of()).stream()
                .sorted(Comparator.comparing(Entry::path))
                .toList();
    }

    private static List<Entry> within(List<Entry> all, String folder) {
        return all.stream()
                .filter(e -> isWithin(e.path(), folder))
                .sorted(Comparator.comparing(Entry::path))
                .toList();
    }

    private static boolean isWithin(String path, String folder) {
        return folder.isEmpty() || path.startsWith(folder + "/");
    }
}
