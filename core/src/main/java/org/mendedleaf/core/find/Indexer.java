package org.mendedleaf.core.find;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.FindQuery;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RecentChanges;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Rest;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Fills the index of a vault, the newest lines first: the words of each content, and what each version changed. It can be
 * stopped at any moment and goes on where it was. What is erased is taken out first.
 */
public final class Indexer {

    /** Larger contents are found by their names only. Bytes. */
    private static final long SIZE_MOST = 16L << 20;

    /** So much of a text is put in. Characters. */
    private static final int TEXT_MOST = 4 << 20;

    /** So many versions are put in together, of whatever lines: a commit takes longer than ten small files. */
    private static final int GROUP = 500;

    /** Fewer where they have so much text. Characters. */
    private static final long GROUP_TEXT = 4L << 20;

    /** They wait no longer than that to be put in. */
    private static final long GROUP_NANOS = 500_000_000;

    /** So many names are put in together. */
    private static final int NAMES = 2000;

    /** In what is noted of places: the number of the last change of the whole vault. */
    private static final long WHOLE = 0;

    /** What stands for the ending of a file whose place is left out; no name ends so. */
    private static final String SILENT = "/";

    private final OpenVault vault;
    private final Rest rest;
    private final DocumentCache looks;

    /**
     * An indexer.
     *
     * @param gently whether it rests as long as it works, for the background
     */
    public Indexer(OpenVault vault, boolean gently) {
        this.vault = vault;
        this.rest = new Rest(gently ? 1 : 0);
        this.looks = DocumentCache.shared();
    }

    /**
     * What was done.
     *
     * @param added versions that were put in
     * @param removed versions that were taken out
     * @param complete whether everything is in now
     */
    public record Result(long added, long removed, boolean complete) {}

    private static long commit(Map<Long, String> filled) {
        return Long.parseLong(filled.getOrDefault(WHOLE, "0"));
    }

    /** Whether the index was filled from a later state than the vault has, as when a copy took its place. */
    static boolean isOfLater(FindIndex index, Reading reading) throws IOException {
        return commit(index.filled()) > reading.commit();
    }

    /** Puts in what is not in, and takes out what is gone. */
    public Result run(Progress progress) throws IOException {
        try (FindIndex index = FindIndex.open(vault.folder());
                Reading reading = vault.read()) {
            return new Filling(index, reading, progress).run();
        }
    }

    /**
     * One run: through all lines at first, and when the vault went back as when a copy took its place; afterwards through those
     * of the places in which something happened.
     */
    private final class Filling {
        private final FindIndex index;
        private final Reading reading;
        private final FindQuery query;
        private final Progress progress;
        private final Set<Long> off;
        private final Waiting waiting = new Waiting();
        private long added;
        private long removed;

        Filling(FindIndex index, Reading reading, Progress progress) throws IOException {
            this.index = index;
            this.reading = reading;
            this.query = FindQuery.of(reading);
            this.progress = progress;
            this.off = index.off();
        }

        Result run() throws IOException {
            String wholeState = reading.state();
            Map<Long, String> filled = index.filled();
            long commit = commit(filled);
            boolean later = isOfLater(index, reading);
            boolean all = commit == 0 || later;
            if (!names(later)) {
                return new Result(0, 0, false);
            }
            List<Place> places = new ArrayList<>();
            boolean outside = false;
            for (Place place : reading.places()) {
                outside |= place.isOutside();
                // What is fetched from another system is no event of that place.
                if (all || place.isOutside() || !reading.state(place.id()).equals(filled.get(place.id()))) {
                    places.add(place);
                }
            }
            // A place that was left out is filled anew.
            boolean anew = all
                    || !filled.keySet()
                            .containsAll(places.stream().map(Place::id).toList());
            Optional<Set<Long>> lines = anew
                    ? Optional.empty()
                    : RecentChanges.since(reading, commit).map(Map::keySet);
            boolean whole = lines.isPresent() ? only(lines.get()) : all ? everything() : changed(places);
            waiting.putIn(index, vault, reading);
            if (!whole) {
                return new Result(added, removed, false);
            }
            // A content that came here may be one that only others held.
            boolean left =
                    lines.isPresent() ? awayOf(index, query, lines.get()) : (all || outside) && away(index, query);
            if (removed > 0 || left) {
                index.together(index::sweep);
                index.settle();
            }
            index.together(() -> {
                for (Place place : places) {
                    index.filled(place.id(), reading.state(place.id()));
                }
                index.filled(WHOLE, String.valueOf(reading.commit()));
            });
            index.complete(wholeState);
            return new Result(added, removed, true);
        }

        /** Puts in the names that are not in yet, before all words: they are few. False when it is to be stopped. */
        private boolean names(boolean anew) throws IOException {
            if (anew) {
                index.forgetNames();
            }
            progress.begin(Words.of("find.index.step"), 0, 0);
            while (!progress.isCancelled() && !Thread.currentThread().isInterrupted()) {
                long began = System.nanoTime();
                List<FindQuery.Name> next = query.names(index.named(), NAMES);
                if (next.isEmpty()) {
                    return true;
                }
                index.putNames(next);
                rest.after(began);
            }
            return false;
        }

        private boolean everything() throws IOException {
            Map<Long, FindIndex.State> known = index.states();
            List<FindQuery.LineState> lines = query.states();
            removed += gone(index, query, lines, known);
            progress.begin(Words.of("find.index.step"), lines.size(), 0);
            for (FindQuery.LineState line : lines) {
                if (!line(line, known.get(line.line()))) {
                    return false;
                }
            }
            return true;
        }

        /** Puts in what changed in these lines; false when it is to be stopped. */
        private boolean only(Set<Long> lines) throws IOException {
            progress.begin(Words.of("find.index.step"), lines.size(), 0);
            for (long id : lines) {
                Optional<FindQuery.LineState> now = query.state(id);
                Optional<FindIndex.State> known = index.state(id);
                if (now.isEmpty() && known.isPresent()) {
                    removed += gone(index, query, List.of(), Map.of(id, known.get()));
                }
                if (now.isPresent() && !line(now.get(), known.orElse(null))) {
                    return false;
                }
            }
            return true;
        }

        private boolean changed(List<Place> places) throws IOException {
            for (Place place : places) {
                List<FindQuery.LineState> lines = query.states(place);
                Map<Long, FindIndex.State> known = new HashMap<>();
                for (long id : reading.lines().ids(place)) {
                    Optional<FindIndex.State> state = index.state(id);
                    state.ifPresent(s -> known.put(id, s));
                }
                removed += gone(index, query, lines, known);
                progress.begin(Words.of("find.index.step"), lines.size(), 0);
                for (FindQuery.LineState line : lines) {
                    if (!line(line, known.get(line.line()))) {
                        return false;
                    }
                }
            }
            return true;
        }

        /** Puts one line in; false when it is to be stopped. */
        private boolean line(FindQuery.LineState line, FindIndex.@Nullable State state) throws IOException {
            if (progress.isCancelled() || Thread.currentThread().isInterrupted()) {
                return false;
            }
            boolean same = state != null && state.versions() == line.versions() && state.numbers() == line.numbers();
            if (!same) {
                Counts counts = Indexer.this.line(index, reading, query, line.line(), off, waiting);
                added += counts.added();
                removed += counts.removed();
            }
            progress.advance(1, 0);
            return true;
        }
    }

    /**
     * What only other systems hold is found too, once a content with its SHA-256 has been here.
     *
     * @return whether some are not held any more
     */
    private static boolean away(FindIndex index, FindQuery query) throws IOException {
        Map<Long, FindIndex.State> known = index.statesAway();
        List<FindQuery.LineState> lines = query.statesAway(index.off());
        if (!lines.isEmpty()) {
            Set<Digest> without = index.withoutSha256();
            Map<Digest, Digest> found = new HashMap<>();
            query.sha256((digest, sha256) -> {
                if (without.contains(digest)) {
                    found.put(digest, sha256);
                }
            });
            sha256(index, found);
        }
        return away(index, query, lines, known);
    }

    /** As {@link #away(FindIndex, FindQuery)}, of some lines only. */
    private static boolean awayOf(FindIndex index, FindQuery query, Set<Long> of) throws IOException {
        Map<Long, FindIndex.State> known = new HashMap<>();
        List<FindQuery.LineState> lines = new ArrayList<>();
        Map<Digest, Digest> found = new HashMap<>();
        Set<Long> off = index.off();
        for (long line : of) {
            index.stateAway(line).ifPresent(s -> known.put(line, s));
            query.stateAway(line, off).ifPresent(lines::add);
            query.sha256(line, found::put);
        }
        sha256(index, found);
        return away(index, query, lines, known);
    }

    private static void sha256(FindIndex index, Map<Digest, Digest> found) throws IOException {
        index.together(() -> {
            for (Map.Entry<Digest, Digest> e : found.entrySet()) {
                index.sha256(e.getKey(), e.getValue());
            }
        });
    }

    private static boolean away(
            FindIndex index, FindQuery query, List<FindQuery.LineState> lines, Map<Long, FindIndex.State> known)
            throws IOException {
        Set<Long> gone = new HashSet<>(known.keySet());
        boolean[] left = {false};
        index.together(() -> {
            for (FindQuery.LineState l : lines) {
                gone.remove(l.line());
                FindIndex.State state = known.get(l.line());
                if (state == null || state.versions() != l.versions() || state.numbers() != l.numbers()) {
                    left[0] |= state != null;
                    List<FindIndex.Away> all = new ArrayList<>();
                    for (FindQuery.Away a : query.away(l.line())) {
                        all.add(new FindIndex.Away(a.number(), a.sha256().bytes(), a.saved()));
                    }
                    index.away(l.line(), all);
                }
            }
            for (long line : gone) {
                index.away(line, List.of());
            }
        });
        return left[0] || !gone.isEmpty();
    }

    /** Takes out what was erased, at once; what is new waits for the next run. */
    public static void forget(OpenVault vault) throws IOException {
        Optional<FindIndex> there = FindIndex.openIfThere(vault.folder());
        if (there.isEmpty()) {
            return;
        }
        try (FindIndex index = there.get();
                Reading reading = vault.read()) {
            FindQuery query = FindQuery.of(reading);
            List<FindQuery.LineState> lines = query.states();
            long removed = gone(index, query, lines, index.states());
            Map<Long, FindIndex.State> known = index.states();
            for (FindQuery.LineState line : lines) {
                FindIndex.State state = known.get(line.line());
                if (state != null && (state.versions() != line.versions() || state.numbers() != line.numbers())) {
                    Optional<Line> found = reading.line(line.line());
                    removed += found.isEmpty() ? 0 : takeOut(index, query, found.get());
                }
            }
            if (removed > 0) {
                away(index, query);
                index.together(index::sweep);
                index.settle();
            }
        }
    }

    /** Lines of which nothing is here any more. */
    private static long gone(
            FindIndex index, FindQuery query, List<FindQuery.LineState> lines, Map<Long, FindIndex.State> known)
            throws IOException {
        Set<Long> there = new HashSet<>();
        lines.forEach(l -> there.add(l.line()));
        long removed = 0;
        for (Map.Entry<Long, FindIndex.State> k : known.entrySet()) {
            if (!there.contains(k.getKey())) {
                if (query.isGone(k.getKey())) {
                    index.forget(k.getKey());
                }
                for (Digest content : query.erasedContents(k.getKey())) {
                    index.forget(content);
                }
                index.remove(k.getKey());
                removed += k.getValue().versions();
            }
        }
        return removed;
    }

    private record Counts(long added, long removed) {}

    private static long takeOut(FindIndex index, FindQuery query, Line line) throws IOException {
        Set<Integer> erased = query.erased(line.id());
        Set<Integer> here = new HashSet<>();
        for (Version v : line.versions()) {
            if (!v.recipe().isElsewhere() && !erased.contains(v.number())) {
                here.add(v.number());
            }
        }
        for (Digest content : query.erasedContents(line.id())) {
            index.forget(content);
        }
        long removed = 0;
        for (int number : index.numbers(line.id())) {
            if (!here.contains(number)) {
                index.remove(line.id(), number);
                removed++;
            }
        }
        return removed;
    }

    private Counts line(FindIndex index, Reading reading, FindQuery query, long id, Set<Long> off, Waiting waiting)
            throws IOException {
        Optional<Line> found = reading.line(id);
        if (found.isEmpty()) {
            return new Counts(0, 0);
        }
        Line line = found.get();
        long removed = takeOut(index, query, line);
        Set<Integer> in = index.numbers(id);
        Set<Integer> erased = query.erased(id);
        long added = 0;
        List<Version> versions = line.versions();
        for (int i = 0; i < versions.size(); i++) {
            Version v = versions.get(i);
            boolean wanted = v.kind() == org.mendedleaf.core.line.EntryKind.FILE
                    && !v.recipe().isElsewhere()
                    && !erased.contains(v.number())
                    && !in.contains(v.number());
            if (!wanted) {
                continue;
            }
            if (Thread.currentThread().isInterrupted()) {
                break;
            }
            long began = System.nanoTime();
            Version before = i + 1 < versions.size() ? versions.get(i + 1) : null;
            boolean silent = off.contains(line.place().id());
            waiting.add(new Put(id, look(index, reading, v, before, silent)));
            added++;
            if (waiting.isDue()) {
                waiting.putIn(index, vault, reading);
            }
            rest.after(began);
        }
        return new Counts(added, removed);
    }

    /** What is to be put in of a version. */
    private record Seen(
            Version version,
            String ending,
            @Nullable String text,
            @Nullable String words) {

        void putIn(FindIndex index, long line) throws IOException {
            boolean silent = ending.equals(SILENT);
            long content = silent ? 0 : index.content(version.digest(), ending);
            if (content == 0 && !silent) {
                content = index.put(version.digest(), ending, text == null ? "" : text);
            }
            index.put(line, version.number(), content, Moment.micros(version.saved()), words);
        }
    }

    private Seen look(FindIndex index, Reading reading, Version v, @Nullable Version before, boolean silent)
            throws IOException {
        if (silent) {
            return new Seen(v, SILENT, null, null);
        }
        String ending = ending(v.path());
        String text = null;
        if (index.content(v.digest(), ending) == 0) {
            text = v.size() > SIZE_MOST ? "" : text(reading, v);
        }
        return new Seen(v, ending, text, words(reading, v, before));
    }

    private String text(Reading reading, Version v) throws IOException {
        try {
            Document document = looks.document(reading, v);
            String text = String.join("\n", Document.words(document));
            return text.length() <= TEXT_MOST ? text : text.substring(0, TEXT_MOST);
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            // Damaged in the vault, most likely, which is told elsewhere; it is found by its name.
            org.slf4j.LoggerFactory.getLogger(Indexer.class).info("{} is not put in", v.path(), e);
            return "";
        }
    }

    private @Nullable String words(Reading reading, Version v, @Nullable Version before) throws IOException {
        if (before == null
                || !DocumentCache.canCompare(v)
                || !DocumentCache.canCompare(before)
                || Math.max(v.size(), before.size()) > SIZE_MOST) {
            return null;
        }
        try {
            Comparison compared = looks.between(reading, before, v);
            return Words.inAll(compared::words);
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            return null;
        }
    }

    /** Versions that were looked into and are not in the index yet: they are put in together, whatever lines they are of. */
    private static final class Waiting {
        private final List<Put> puts = new ArrayList<>();
        private long text;
        private long since;

        void add(Put put) {
            since = puts.isEmpty() ? System.nanoTime() : since;
            puts.add(put);
            text += length(put.of().text()) + length(put.of().words());
        }

        private static long length(@Nullable String s) {
            return s == null ? 0 : s.length();
        }

        boolean isDue() {
            return puts.size() >= GROUP || text >= GROUP_TEXT || System.nanoTime() - since > GROUP_NANOS;
        }

        /** Nothing that was erased since it was looked into: whoever takes that out has done so, or waits until this is through. */
        void putIn(FindIndex index, OpenVault vault, Reading seen) throws IOException {
            if (puts.isEmpty()) {
                return;
            }
            index.together(() -> {
                try (Reading now = vault.read()) {
                    boolean changed = now.commit() != seen.commit();
                    FindQuery query = FindQuery.of(now);
                    for (Put put : puts) {
                        if (!changed || isStillHere(query, put)) {
                            put.of().putIn(index, put.line());
                        }
                    }
                }
            });
            puts.clear();
            text = 0;
        }
    }

    private static boolean isStillHere(FindQuery query, Put put) throws IOException {
        return !query.isGone(put.line())
                && !query.erased(put.line()).contains(put.of().version().number());
    }

    private record Put(long line, Seen of) {}

    private static String ending(String path) {
        String name = RelativePath.name(path).toLowerCase(Locale.ROOT);
        return name.substring(Math.max(0, name.lastIndexOf('.')));
    }
}
