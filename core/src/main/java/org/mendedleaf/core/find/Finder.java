package org.mendedleaf.core.find;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.FindQuery;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.Visibility;

/**
 * Answers what is looked for in one vault, file by file, the latest first; only what who asks may see.
 *
 * <pre>{@code
 * Finder.Found found = new Finder(vault, "Ada").find(Wanted.parse("orchard gate", false, Wanted.Narrow.NOT), 20);
 * found.files().forEach(hit -> System.out.println(hit.line().path()));
 * }</pre>
 */
public final class Finder {

    private static final int MATCHES_MOST = 50_000;

    /** Where names and notes of more lines hold the words, all of them are gone through at once. */
    private static final int SAID_MOST = 300;

    private final OpenVault vault;
    private final String who;

    /** Finds for somebody. */
    public Finder(OpenVault vault, String who) {
        this.vault = vault;
        this.who = who;
    }

    /**
     * A run of versions in a row that hold the words.
     *
     * @param first of them, in which the words came
     * @param last of them
     * @param gone the version in which they were gone again; empty while they are there
     */
    public record Span(Version first, Version last, Optional<Version> gone) {}

    /**
     * A file.
     *
     * @param said where else its catalogue holds the words: names, notes, comments, people
     * @param spans of its versions whose text holds them, the latest first
     * @param snippet of the latest of them; the words stand between the signs 2 and 3
     */
    public record FileHit(Line line, List<FindQuery.Said> said, List<Span> spans, String snippet) {
        /** Copies the lists. */
        public FileHit {
            said = List.copyOf(said);
            spans = List.copyOf(spans);
        }

        /** The version to look at: the latest that holds the words, or of which something is said. */
        public Optional<Version> version() {
            if (!spans.isEmpty()) {
                return Optional.of(spans.get(0).last());
            }
            return said.stream()
                    .filter(s -> s.number() > 0)
                    .map(s -> line.version(s.number()))
                    .flatMap(Optional::stream)
                    .findFirst()
                    .or(line::newest);
        }
    }

    /** A snapshot whose label holds the words. */
    public record SnapshotHit(Place place, FindQuery.Labelled snapshot) {}

    /**
     * What was found.
     *
     * @param more whether there are more files than are given
     * @param complete whether all versions were searched by their text; where not, see {@link Finder#share()}
     */
    public record Found(List<FileHit> files, List<SnapshotHit> snapshots, boolean more, boolean complete) {
        /** Copies the lists. */
        public Found {
            files = List.copyOf(files);
            snapshots = List.copyOf(snapshots);
        }
    }

    /** By the folder of a vault. */
    private static final Map<Path, Counted> COUNTED = new ConcurrentHashMap<>();

    private static final class Collected {
        private final List<FindQuery.Said> said = new ArrayList<>();
        private final TreeSet<Integer> numbers = new TreeSet<>(Comparator.reverseOrder());
        private long content;
        private int newest;
        private long saved;
    }

    /** Finds at most so many files. */
    public Found find(Wanted wanted, int most) throws IOException {
        try (Reading reading = vault.read()) {
            FindQuery query = FindQuery.of(reading);
            Optional<FindIndex> index = FindIndex.openIfThere(vault.folder());
            try {
                return find(reading, query, index.orElse(null), wanted, most);
            } finally {
                if (index.isPresent()) {
                    index.get().close();
                }
            }
        }
    }

    private Found find(Reading reading, FindQuery query, @Nullable FindIndex index, Wanted wanted, int most)
            throws IOException {
        Map<Long, Collected> said = new LinkedHashMap<>();
        if (wanted.narrow().field() != Wanted.Field.TEXT) {
            for (FindQuery.Said s : query.said(wanted.words(), wanted.unwanted(), named(reading, index, wanted))) {
                said.computeIfAbsent(s.line(), k -> new Collected()).said.add(s);
            }
        }
        Optional<Hits> hits = Optional.empty();
        if (index != null && wanted.narrow().field() != Wanted.Field.NAMES) {
            if (said.size() <= SAID_MOST) {
                Optional<List<FindIndex.Match>> latest = index.latest(wanted, most + 1, said.keySet());
                if (latest.isPresent()) {
                    hits = Optional.of(hits(reading, query, index, wanted, most, collect(said, latest.get())))
                            .filter(h -> h.files().size() == most);
                }
            }
            if (hits.isEmpty()) {
                // Not all of the latest are for who asks, or what is wanted is rare.
                List<FindIndex.Match> all = index.matches(wanted, MATCHES_MOST);
                hits = Optional.of(hits(reading, query, index, wanted, most, collect(said, all)));
            }
        }
        Hits found =
                hits.isPresent() ? hits.get() : hits(reading, query, index, wanted, most, collect(said, List.of()));
        boolean complete = index != null && index.isComplete(reading.state());
        return new Found(found.files(), snapshots(reading, query, wanted), found.more(), complete);
    }

    /** What the index knows of the names, unless it is of a later state than this one. */
    private static FindQuery.Named named(Reading reading, @Nullable FindIndex index, Wanted wanted) throws IOException {
        Optional<FindQuery.Named> named =
                index == null || Indexer.isOfLater(index, reading) ? Optional.empty() : index.named(wanted.words());
        return named.orElse(new FindQuery.Named(0, List.of()));
    }

    /**
     * How many versions can be searched by their text.
     *
     * @param all how many there are, links too
     */
    public record Share(long indexed, long all) {}

    /** What can be searched now. All versions of a large vault are counted once for each of its states. */
    public Share share() throws IOException {
        try (Reading reading = vault.read()) {
            Counted before = COUNTED.get(vault.folder().root());
            Counted now = before != null && before.state().equals(reading.state())
                    ? before
                    : new Counted(reading.state(), FindQuery.of(reading).versions());
            COUNTED.put(vault.folder().root(), now);
            Optional<FindIndex> index = FindIndex.openIfThere(vault.folder());
            if (index.isEmpty()) {
                return new Share(0, now.versions());
            }
            try (FindIndex open = index.get()) {
                return new Share(Math.min(open.versions(), now.versions()), now.versions());
            }
        }
    }

    private record Counted(String state, long versions) {}

    private record Hits(List<FileHit> files, boolean more) {}

    /** What was found by line: what the catalogue says, and the versions that hold the words. */
    private static Map<Long, Collected> collect(Map<Long, Collected> said, List<FindIndex.Match> matches) {
        Map<Long, Collected> lines = new LinkedHashMap<>();
        said.forEach((line, c) -> {
            Collected own = new Collected();
            own.said.addAll(c.said);
            lines.put(line, own);
        });
        for (FindIndex.Match match : matches) {
            Collected c = lines.computeIfAbsent(match.line(), k -> new Collected());
            c.numbers.add(match.number());
            c.saved = Math.max(c.saved, match.saved());
            if (match.number() >= c.newest) {
                c.newest = match.number();
                c.content = match.content();
            }
        }
        return lines;
    }

    private Hits hits(
            Reading reading,
            FindQuery query,
            @Nullable FindIndex index,
            Wanted wanted,
            int most,
            Map<Long, Collected> lines)
            throws IOException {
        List<FileHit> hits = new ArrayList<>();
        // The latest first, so that no more lines are read than are shown.
        for (Map.Entry<Long, Collected> e : latestFirst(query, lines)) {
            if (hits.size() == most) {
                return new Hits(hits, true);
            }
            FileHit hit = hit(reading, query, index, wanted, e.getKey(), e.getValue());
            if (hit != null) {
                hits.add(hit);
            }
        }
        return new Hits(hits, false);
    }

    private static List<Map.Entry<Long, Collected>> latestFirst(FindQuery query, Map<Long, Collected> lines)
            throws IOException {
        for (Map.Entry<Long, Collected> e : lines.entrySet()) {
            Collected c = e.getValue();
            if (!c.said.isEmpty()) {
                FindQuery.Said last = Collections.max(c.said, Comparator.comparingInt(FindQuery.Said::number));
                long saved = last.saved() > 0 ? last.saved() : query.saved(e.getKey(), last.number());
                c.saved = Math.max(c.saved, saved);
            }
        }
        List<Map.Entry<Long, Collected>> sorted = new ArrayList<>(lines.entrySet());
        sorted.sort(Comparator.comparing((Map.Entry<Long, Collected> e) -> e.getValue().saved)
                .reversed());
        return sorted;
    }

    private List<SnapshotHit> snapshots(Reading reading, FindQuery query, Wanted wanted) throws IOException {
        List<SnapshotHit> found = new ArrayList<>();
        if (wanted.narrow().field() == Wanted.Field.TEXT) {
            return found;
        }
        List<Place> places = reading.places();
        for (FindQuery.Labelled l : query.labels(wanted.words(), wanted.unwanted())) {
            places.stream()
                    .filter(p -> p.id() == l.place()
                            && wanted.narrow().place().map(w -> w == p.id()).orElse(true))
                    .forEach(p -> found.add(new SnapshotHit(p, l)));
        }
        return found;
    }

    private @Nullable FileHit hit(
            Reading reading, FindQuery query, @Nullable FindIndex index, Wanted wanted, long id, Collected collected)
            throws IOException {
        Optional<Line> found = reading.line(id);
        found = found.isEmpty() ? found : Visibility.see(reading, found.get(), who);
        if (found.isEmpty() || !fits(found.get(), wanted.narrow())) {
            return null;
        }
        Line line = found.get();
        java.util.Set<Integer> erased = collected.numbers.isEmpty() ? java.util.Set.of() : query.erased(id);
        collected.numbers.removeIf(n -> erased.contains(n)
                || line.version(n).filter(v -> fits(v, wanted.narrow())).isEmpty());
        // A name belongs to all versions of its file: one of them has to be wanted.
        boolean anyFits = line.versions().isEmpty() || line.versions().stream().anyMatch(v -> fits(v, wanted.narrow()));
        collected.said.removeIf(s -> s.number() > 0
                ? line.version(s.number()).filter(v -> fits(v, wanted.narrow())).isEmpty()
                : !anyFits);
        if (collected.numbers.isEmpty() && collected.said.isEmpty()) {
            return null;
        }
        String snippet = index == null || collected.numbers.isEmpty() ? "" : index.snippet(wanted, collected.content);
        return new FileHit(line, collected.said, spans(line, collected.numbers), snippet);
    }

    private static boolean fits(Line line, Wanted.Narrow narrow) {
        boolean removed = line.removed().isPresent();
        return narrow.place().map(p -> p == line.place().id()).orElse(true)
                && RelativePath.isWithin(line.path(), narrow.folder())
                && (narrow.ending().isEmpty()
                        || line.path()
                                .toLowerCase(Locale.ROOT)
                                .endsWith("." + narrow.ending().toLowerCase(Locale.ROOT)))
                && (narrow.presence() == Wanted.Presence.ALL
                        || removed == (narrow.presence() == Wanted.Presence.REMOVED));
    }

    private static boolean fits(Version v, Wanted.Narrow narrow) {
        return narrow.from().map(f -> !v.saved().isBefore(f)).orElse(true)
                && narrow.to().map(t -> v.saved().isBefore(t)).orElse(true)
                && (narrow.who().isEmpty() || v.who().equalsIgnoreCase(narrow.who()));
    }

    /** Runs of versions, the latest first. */
    private static List<Span> spans(Line line, java.util.Set<Integer> numbers) {
        List<Span> spans = new ArrayList<>();
        List<Version> versions = line.versions();
        Version last = null;
        Version first = null;
        Version after = null;
        for (int i = 0; i < versions.size(); i++) {
            Version v = versions.get(i);
            if (numbers.contains(v.number())) {
                if (last == null) {
                    last = v;
                    after = i == 0 ? null : versions.get(i - 1);
                }
                first = v;
            } else if (last != null && first != null) {
                spans.add(new Span(first, last, Optional.ofNullable(after)));
                last = null;
            }
        }
        if (last != null && first != null) {
            spans.add(new Span(first, last, Optional.ofNullable(after)));
        }
        return spans;
    }
}
