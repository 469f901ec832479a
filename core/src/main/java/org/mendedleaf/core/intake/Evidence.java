package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.preview.DocumentText;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.ContentScan;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/** Gathers what the guard has to know of a file that comes in and of the file it would become a version of. */
public final class Evidence {

    /** Neighbours are looked at up to so many. */
    private static final int NEIGHBOURS_MOST = 10;

    /** Of contents larger than this only the first bytes are read, besides their chunks. */
    private static final int HEAD = 64 * 1024;

    private static final int REMEMBERED = 400;

    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final VersionBytes elsewhere;
    private volatile @Nullable Near near;
    private @Nullable FeatureStore store;
    private int users;
    private final Map<String, Features> known = Collections.synchronizedMap(new LinkedHashMap<>(64, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Features> eldest) {
            return size() > REMEMBERED;
        }
    });

    /** Evidence on files of this place; {@code elsewhere} is asked for contents that are not in the vault. */
    public Evidence(OpenVault vault, Place place, Clock clock, VersionBytes elsewhere) {
        this.vault = vault;
        this.place = place;
        this.clock = clock;
        this.elsewhere = elsewhere;
    }

    /** Work for which what is kept of versions stays open. */
    interface Work<T> {
        /** Does it. */
        T run() throws IOException;
    }

    /** Does work that asks for features of many versions. */
    <T> T together(Work<T> work) throws IOException {
        begin();
        try {
            return work.run();
        } finally {
            end();
        }
    }

    private synchronized void begin() {
        if (users++ == 0) {
            store = FeatureStore.open(vault).orElse(null);
        }
    }

    private synchronized void end() throws IOException {
        FeatureStore open = store;
        if (--users == 0 && open != null) {
            store = null;
            open.close();
        }
    }

    private synchronized @Nullable FeatureStore store() {
        return store;
    }

    /**
     * What the guard thinks of a file as the next version at a path.
     *
     * @throws IOException with a message for the user, when the file cannot be read
     */
    public Judgement judge(Path file, String path) throws IOException {
        Features incoming = features(file);
        Instant modified = Files.getLastModifiedTime(file).toInstant();
        Guard.Target target = together(() -> target(path, incoming, file));
        return Guard.judge(
                new Guard.Question(name(file), incoming, modified, target), clock.instant(), clock.getZone());
    }

    private static String name(Path file) {
        return String.valueOf(file.getFileName());
    }

    /** Features of a file on this computer. */
    Features features(Path file) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new IOException(Words.of("put.noFile", file));
        }
        String key = file + "\n" + Files.size(file) + "\n" + Files.getLastModifiedTime(file);
        Features before = known.get(key);
        if (before != null) {
            return before;
        }
        ContentScan scan;
        try (FileChannel in = FileChannel.open(file)) {
            scan = ContentScan.of(in);
        }
        byte[] bytes;
        try (var in = Files.newInputStream(file)) {
            bytes = scan.length() <= DocumentText.MOST ? in.readAllBytes() : in.readNBytes(HEAD);
        }
        Features found = Features.of(name(file), bytes, scan);
        known.put(key, found);
        return found;
    }

    /** Features of a version; empty when nobody can give its content now. */
    Optional<Features> features(Reading reading, Version v) throws IOException {
        String key = v.digest().hex() + "\n" + v.path();
        Features before = known.get(key);
        if (before != null) {
            return Optional.of(before);
        }
        Optional<Features> found =
                FeatureStore.ask(store(), s -> s.get(v.digest(), v.path()).orElse(null));
        if (found.isPresent()) {
            known.put(key, found.get());
            return found;
        }
        if (v.recipe().isElsewhere()) {
            found = elsewhere.of(v).map(b -> Features.of(v.path(), b).kept());
        } else {
            boolean whole = v.size() <= DocumentText.MOST;
            byte[] bytes = reading.contents().head(v.recipe(), whole ? DocumentText.MOST : HEAD);
            ContentScan scan = scan(reading, v, bytes, whole);
            Optional<String> type =
                    FeatureStore.ask(store(), s -> s.mediaType(v.digest()).orElse(null));
            Features made = Features.of(v.path(), bytes, scan, type.orElseGet(() -> ContentKind.mediaType(bytes)))
                    .kept();
            if (type.isEmpty()) {
                FeatureStore.ask(store(), s -> {
                    s.put(v.digest(), made);
                    return made;
                });
            }
            found = Optional.of(made);
        }
        found.ifPresent(f -> known.put(key, f));
        return found;
    }

    /** A version as if it were cut now; of a large one of which something is unfolded, only the chunks stored as they are tell. */
    private static ContentScan scan(Reading reading, Version v, byte[] bytes, boolean whole) throws IOException {
        if (whole && v.recipe().unfolded().isPresent()) {
            return ContentScan.of(new SeekableInMemoryByteChannel(bytes));
        }
        List<ContentScan.Chunk> chunks = reading.contents().places(v.recipe()).stream()
                .map(c -> new ContentScan.Chunk(Digest.of(c.digest()), c.length()))
                .toList();
        return new ContentScan(v.size(), v.digest(), chunks);
    }

    private Guard.Target target(String path, Features incoming, Path file) throws IOException {
        try (Reading reading = vault.read()) {
            Optional<Line> line = reading.line(place, path).filter(l -> l.path().equals(path));
            Optional<Version> current = line.filter(l -> l.removed().isEmpty())
                    .flatMap(Line::newest)
                    .filter(v -> v.kind() == EntryKind.FILE);
            Map<Digest, Guard.Earlier> older = older(line, current, incoming, file);
            Optional<String> newestOf = newestOf(reading, path, incoming, file);
            Optional<Features> was = Optional.empty();
            if (current.isPresent()) {
                was = features(reading, current.get());
            }
            return new Guard.Target(
                    path,
                    was,
                    current.map(Version::number).orElse(0),
                    current.map(Version::label).orElse(""),
                    current.map(v -> Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)))
                            .orElse(Instant.EPOCH),
                    older,
                    was.isEmpty() ? Map.of() : neighbours(reading, path, was.get()),
                    newestOf);
        }
    }

    /** Other versions by their digests; a content that only another system holds has its plain one. */
    private Map<Digest, Guard.Earlier> older(
            Optional<Line> line, Optional<Version> current, Features incoming, Path file) throws IOException {
        Map<Digest, Guard.Earlier> older = new HashMap<>();
        Digest plain = null;
        for (Version v : line.map(Line::versions).orElse(List.of())) {
            if (current.isPresent() && v.number() == current.get().number()) {
                continue;
            }
            Guard.Earlier one = new Guard.Earlier(v.number(), v.label());
            older.putIfAbsent(v.digest(), one);
            if (v.recipe().isElsewhere() && v.size() == incoming.size()) {
                plain = plain == null ? sha256(file) : plain;
                if (plain.equals(v.digest())) {
                    older.putIfAbsent(incoming.scan().digest(), one);
                }
            }
        }
        return older;
    }

    private Optional<String> newestOf(Reading reading, String path, Features incoming, Path file) throws IOException {
        Digest digest = place.isOutside() ? sha256(file) : incoming.scan().digest();
        return incoming.size() == 0
                ? Optional.empty()
                : reading.content().paths(place, digest, incoming.size()).stream()
                        .filter(p -> !p.equals(path))
                        .sorted()
                        .findFirst();
    }

    static Digest sha256(Path file) throws IOException {
        try (var in = Files.newInputStream(file)) {
            return Digest.of(in);
        }
    }

    /**
     * The files of a folder that can be neighbours, as they were with the last of all changes; two thousand files may come into a
     * folder of a hundred thousand.
     */
    private record Near(String folder, String state, Map<String, List<Entry>> byEnding) {}

    private List<Entry> near(Reading reading, String folder, String ending) throws IOException {
        String state = reading.state();
        Near now = near;
        if (now == null || !now.folder().equals(folder) || !now.state().equals(state)) {
            Map<String, List<Entry>> byEnding = reading.folders().listing(place, folder, Moment.FAR, false).stream()
                    .filter(e -> e.kind() == EntryKind.FILE && e.size() <= DocumentText.MOST / 8)
                    .collect(Collectors.groupingBy(e -> NameStem.endingOf(e.name())));
            now = new Near(folder, state, byEnding);
            near = now;
        }
        return now.byEnding().getOrDefault(ending, List.of());
    }

    /** Other files of the same kind in the folder, those with the nearest names first. */
    private Map<String, Features> neighbours(Reading reading, String path, Features current) throws IOException {
        String folder = RelativePath.parent(path);
        String name = RelativePath.name(path);
        TreeSet<Entry> nearest = new TreeSet<>(
                Comparator.comparingInt((Entry e) -> -prefix(e.name(), name)).thenComparing(Entry::name));
        for (Entry e : near(reading, folder, NameStem.endingOf(name))) {
            if (!e.name().equals(name)) {
                nearest.add(e);
                if (nearest.size() > NEIGHBOURS_MOST) {
                    nearest.pollLast();
                }
            }
        }
        Map<String, Features> found = new LinkedHashMap<>();
        for (Entry e : nearest) {
            Version v = reading.version(e.line(), e.number()).orElseThrow();
            if (!v.recipe().isElsewhere()) {
                features(reading, v)
                        .filter(f -> f.kind() == current.kind())
                        .ifPresent(f -> found.put(RelativePath.child(folder, e.name()), f));
            }
        }
        return found;
    }

    private static int prefix(String a, String b) {
        int n = 0;
        while (n < Math.min(a.length(), b.length()) && a.charAt(n) == b.charAt(n)) {
            n++;
        }
        return n;
    }
}
