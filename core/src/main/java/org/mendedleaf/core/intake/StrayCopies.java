package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Looks for safety copies that programs left, beside the files they belong to or in folders that somebody names, and finds
 * out by their content what they are. Changes nothing.
 */
public final class StrayCopies {

    /** Without a name that says so, a copy must have so much in common with a file to belong to it. */
    private static final double LEAST = 0.3;

    private static final int SEARCHED_MOST = 200;

    private final OpenVault vault;
    private final Place place;
    private final Evidence evidence;
    private final Clock clock;

    /** Looking for safety copies of files of this place, which must be a folder. */
    public StrayCopies(OpenVault vault, Place place, Evidence evidence, Clock clock) {
        this.vault = vault;
        this.place = place;
        this.evidence = evidence;
        this.clock = clock;
    }

    /**
     * The safety copies in a folder of the place and all below it, and in other folders, by the file they belong to,
     * newest first. What lies in another folder is compared with the files of the folder itself.
     *
     * @param others folders that programs leave such copies in; one that is not there holds none
     */
    public List<Stray> find(String folder, List<Path> others) throws IOException {
        List<Stray> found = new ArrayList<>();
        try (Reading reading = vault.read()) {
            for (String each : StrayCandidates.below(place, folder)) {
                stray(reading, RawNames.resolve(place.root(), each), each, true, found);
            }
            for (Path other : others) {
                stray(reading, other, folder, false, found);
            }
        }
        found.sort(Comparator.comparing(Stray::belongsTo)
                .thenComparing(Comparator.comparing(Stray::modified).reversed()));
        return found;
    }

    /**
     * The safety copies of one file, newest first: beside it and in other folders.
     *
     * @param path of the file in the place, there or gone
     */
    public List<Stray> of(String path, List<Path> others) throws IOException {
        String folder = RelativePath.parent(path);
        List<Stray> found = new ArrayList<>();
        try (Reading reading = vault.read()) {
            stray(reading, RawNames.resolve(place.root(), folder), folder, true, found);
            for (Path other : others) {
                stray(reading, other, folder, false, found);
            }
        }
        found.removeIf(s -> !s.belongsTo().equals(path));
        found.sort(Comparator.comparing(Stray::modified).reversed());
        return found;
    }

    private void stray(Reading reading, Path in, String folder, boolean beside, List<Stray> found) throws IOException {
        List<Path> copies = StrayCandidates.in(in, beside);
        if (!copies.isEmpty()) {
            Map<String, Entry> files = files(reading, folder);
            for (Path file : copies) {
                stray(reading, file, folder, files, beside).ifPresent(found::add);
            }
        }
    }

    /** Files of a folder by name, there or removed; what is there hides what was removed under its name. */
    private Map<String, Entry> files(Reading reading, String folder) throws IOException {
        Map<String, Entry> all = new TreeMap<>();
        for (Entry e : reading.folders().listing(place, folder, Moment.FAR, true)) {
            if (e.kind() == EntryKind.FILE && (e.removed().isEmpty() || !all.containsKey(e.name()))) {
                all.put(e.name(), e);
            }
        }
        return all;
    }

    private Optional<Stray> stray(Reading reading, Path file, String folder, Map<String, Entry> files, boolean beside)
            throws IOException {
        String name = String.valueOf(file.getFileName());
        Optional<String> original = StrayName.original(name);
        Features features = evidence.features(file);
        if (features.kind() == ContentKind.EMPTY || features.kind() == ContentKind.OTHER) {
            return Optional.empty();
        }
        Optional<Entry> named = original.flatMap(o -> named(o, name, files));
        if (named.isPresent()) {
            Optional<Stray> known = known(reading, file, folder, features, named.get(), 0);
            if (known.isPresent()) {
                return known;
            }
        }
        // Nobody knows the file, but its name and its content say the same of it.
        boolean sound = original.isPresent() && ContentKind.byName(original.get()) == features.kind();
        if (!sound || !beside) {
            return alike(reading, file, folder, features, files, name);
        }
        return Optional.of(new Stray(
                file,
                modified(file),
                features.size(),
                features.kind(),
                RelativePath.child(folder, original.get()),
                false,
                -1,
                ""));
    }

    private static Instant modified(Path file) throws IOException {
        return Files.getLastModifiedTime(file).toInstant();
    }

    /** The file of the name that a copy's name speaks of; with its ending cut off, too. */
    private static Optional<Entry> named(String original, String own, Map<String, Entry> files) {
        String wanted = original.toLowerCase(Locale.ROOT);
        for (Map.Entry<String, Entry> e : files.entrySet()) {
            String name = e.getKey().toLowerCase(Locale.ROOT);
            int dot = name.lastIndexOf('.');
            boolean same =
                    name.equals(wanted) || (dot > 0 && name.substring(0, dot).equals(wanted));
            if (same && !e.getKey().equals(own)) {
                return Optional.of(e.getValue());
            }
        }
        return Optional.empty();
    }

    /** A copy as one of a file; empty when their kinds differ. */
    private Optional<Stray> known(
            Reading reading, Path file, String folder, Features features, Entry entry, double least)
            throws IOException {
        Line line = reading.line(entry.line()).orElseThrow();
        Version newest = line.newest().orElseThrow();
        Optional<Features> there = evidence.features(reading, newest);
        boolean otherKind = there.isPresent()
                && there.get().kind() != ContentKind.EMPTY
                && there.get().kind() != features.kind()
                && ContentKind.byName(entry.name()) != features.kind();
        if (otherKind) {
            return Optional.empty();
        }
        OptionalDouble share =
                there.isPresent() ? Likeness.of(features, there.get(), List.of()) : OptionalDouble.empty();
        String same = line.versions().stream()
                .filter(v -> v.digest().equals(features.scan().digest()))
                .map(Version::label)
                .findFirst()
                .orElse("");
        if (share.orElse(same.isEmpty() ? 0 : 1) < least) {
            return Optional.empty();
        }
        return Optional.of(new Stray(
                file,
                modified(file),
                features.size(),
                features.kind(),
                RelativePath.child(folder, entry.name()),
                entry.removed().isEmpty(),
                !same.isEmpty() ? 100 : share.isPresent() ? Likeness.percent(share.getAsDouble(), false) : -1,
                same));
    }

    /** The file that a copy has most in common with, whatever its name. */
    private Optional<Stray> alike(
            Reading reading, Path file, String folder, Features features, Map<String, Entry> files, String own)
            throws IOException {
        Optional<Stray> best = Optional.empty();
        for (Entry e : files.values().stream().limit(SEARCHED_MOST).toList()) {
            boolean stray = e.name().equals(own) || StrayName.original(e.name()).isPresent();
            if (stray || ContentKind.byName(e.name()) != features.kind()) {
                continue;
            }
            Optional<Stray> s = known(reading, file, folder, features, e, LEAST);
            if (s.isPresent()
                    && (best.isEmpty() || s.get().shared() > best.get().shared())) {
                best = s;
            }
        }
        return best;
    }

    /** What is to be put in to take a copy in: as a version of its file, or to bring that back under its right name. */
    public Revision revision(Stray stray, boolean take) {
        String note =
                Words.of("stray.note", stray.file().getFileName(), Formats.full(stray.modified(), clock.getZone()));
        return new Revision(stray.file(), stray.belongsTo(), note, org.mendedleaf.core.line.DraftChoice.BY_RULE, take);
    }
}
