package org.mendedleaf.core.findings;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.HistoryQuery;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RecentChanges;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Finding.Mark;
import org.mendedleaf.core.intake.FeatureKeep;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Rest;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Looks into every version of a vault that was not looked into yet, the latest first, and then has the detectors say what looks
 * wrong. It can be stopped at any moment and goes on where it was.
 */
public final class HealthCheck {

    /** Larger contents are not looked into. Bytes. */
    static final long MOST = 32L << 20;

    /** With so much in common, percent, what was saved later is the file that was there before. */
    private static final int SAME_FILE = 25;

    private static final int CONTENTS = 8;

    /** Lines whose versions are known at once. */
    private static final int AT_ONCE = 500;

    /** So often all of a place is judged, since what is usual there changes. */
    private static final Duration WHOLE = Duration.ofHours(20);

    private final OpenVault vault;
    private final Clock clock;
    private final Rest rest;
    private final Map<Digest, Resemblance.Content> contents = new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Digest, Resemblance.Content> eldest) {
            return size() > CONTENTS;
        }
    };

    /**
     * A check of a vault.
     *
     * @param gently whether it rests as long as it works, for the background
     */
    public HealthCheck(OpenVault vault, Clock clock, boolean gently) {
        this.vault = vault;
        this.clock = clock;
        this.rest = new Rest(gently ? 1 : 0);
    }

    /**
     * What was done.
     *
     * @param looked versions that were looked into
     * @param complete whether all were
     */
    public record Result(long looked, boolean complete) {}

    /** Looks into what is new in all folders of the vault, and says what looks wrong. */
    public Result run(Progress progress) throws IOException {
        long looked = 0;
        try (HealthStore store = HealthStore.open(vault.folder());
                FeatureKeep features = FeatureKeep.of(vault);
                Reading reading = begin(store)) {
            for (Place place : reading.places()) {
                if (place.isOutside()) {
                    continue;
                }
                if (store.isJudged(place.id(), reading.state(place.id()))) {
                    store.stillSo(place.id(), clock.instant());
                    continue;
                }
                Optional<Map<Long, Set<Integer>>> changes = changes(reading, store, place);
                if (changes.isPresent()) {
                    Map<Long, List<HistoryQuery.Row>> some =
                            lines(reading, place, changes.get().keySet());
                    Result part = look(reading, store, features, place, latest(some), progress);
                    looked += part.looked();
                    if (!part.complete()) {
                        return new Result(looked, false);
                    }
                    if (isStillSo(reading, store, place, some, changes.get())) {
                        continue;
                    }
                }
                long[] all = HistoryQuery.of(reading).newestFirst(place);
                Result result = look(reading, store, features, place, all, progress);
                looked += result.looked();
                if (!result.complete()) {
                    return new Result(looked, false);
                }
                judge(reading, store, place);
            }
        }
        return new Result(looked, true);
    }

    /** The files of all places that changed since this one was judged; empty when all of it is to be gone through. */
    private Optional<Map<Long, Set<Integer>>> changes(Reading reading, HealthStore store, Place place)
            throws IOException {
        Optional<Instant> whole = store.judgedWhole(place.id());
        Instant now = clock.instant();
        boolean lately = whole.isPresent()
                && !whole.get().isAfter(now)
                && whole.get().plus(WHOLE).isAfter(now);
        return lately ? RecentChanges.since(reading, store.seen(place.id())) : Optional.empty();
    }

    /** Notes that nothing is found in a place but what was found, when the changes since then can have changed nothing of that. */
    private boolean isStillSo(
            Reading reading,
            HealthStore store,
            Place place,
            Map<Long, List<HistoryQuery.Row>> lines,
            Map<Long, Set<Integer>> changes)
            throws IOException {
        List<NameChange> turns = new ArrayList<>();
        for (long line : lines.keySet()) {
            HistoryQuery.of(reading).turns(place, line, t -> turns.add(NameChange.of(t)));
        }
        History history = history(store, place, lines, turns);
        List<LateEvents.Event> before = store.late(place.id());
        List<LateEvents.Event> fresh = LateEvents.fresh(history, changes);
        if (store.marks(place.id(), lines.keySet())
                || Detectors.findsInOne(history)
                || LateEvents.mayMatter(before, fresh)) {
            return false;
        }
        List<LateEvents.Event> late = new ArrayList<>(before);
        late.addAll(fresh);
        store.stillSo(
                place.id(),
                clock.instant(),
                new HealthStore.Judged(reading.commit(), reading.state(place.id()), LateEvents.last(late)));
        return true;
    }

    private Reading begin(HealthStore store) throws IOException {
        Map<Long, Long> seen = new HashMap<>();
        try (Reading before = vault.read()) {
            for (Place place : before.places()) {
                seen.put(place.id(), store.seen(place.id()));
            }
        }
        Reading reading = vault.read();
        for (Map.Entry<Long, Long> place : seen.entrySet()) {
            if (place.getValue() > reading.commit()) {
                // The vault went back, as when a copy took its place.
                store.forgetSeen(place.getKey());
            }
        }
        return reading;
    }

    /** Those first that were saved last. */
    private static long[] latest(Map<Long, List<HistoryQuery.Row>> lines) {
        return lines.values().stream()
                .sorted(Comparator.comparing((List<HistoryQuery.Row> l) ->
                                l.get(l.size() - 1).saved())
                        .reversed())
                .mapToLong(l -> l.get(0).line())
                .toArray();
    }

    /** Those of these lines that are of the place. */
    private static Map<Long, List<HistoryQuery.Row>> lines(Reading reading, Place place, Set<Long> of)
            throws IOException {
        Map<Long, List<HistoryQuery.Row>> lines = new LinkedHashMap<>();
        HistoryQuery history = HistoryQuery.of(reading);
        for (long line : of) {
            history.versions(place, line, row -> put(lines, row));
        }
        return lines;
    }

    private static void put(Map<Long, List<HistoryQuery.Row>> lines, HistoryQuery.Row row) {
        if (row.file()) {
            lines.computeIfAbsent(row.line(), k -> new ArrayList<>()).add(row);
        }
    }

    private Result look(
            Reading reading, HealthStore store, FeatureKeep features, Place place, long[] lines, Progress progress)
            throws IOException {
        progress.begin(Words.of("health.step"), lines.length, 0);
        HistoryQuery history = HistoryQuery.of(reading);
        long looked = 0;
        for (int from = 0; from < lines.length; from += AT_ONCE) {
            List<Long> some = Arrays.stream(lines, from, Math.min(lines.length, from + AT_ONCE))
                    .boxed()
                    .toList();
            Map<Long, List<HistoryQuery.Row>> versions = new HashMap<>();
            history.versions(place, some, row -> put(versions, row));
            List<List<HistoryQuery.Row>> latest =
                    some.stream().map(versions::get).filter(Objects::nonNull).toList();
            Result part = look(reading, store, features, latest, progress);
            looked += part.looked();
            if (!part.complete()) {
                return new Result(looked, false);
            }
        }
        return new Result(looked, true);
    }

    private Result look(
            Reading reading,
            HealthStore store,
            FeatureKeep features,
            List<List<HistoryQuery.Row>> lines,
            Progress progress)
            throws IOException {
        long looked = 0;
        for (List<HistoryQuery.Row> line : lines) {
            Map<Integer, Resemblance> alike = store.alike(line.get(0).line());
            for (int i = line.size() - 1; i >= 0; i--) {
                if (progress.isCancelled() || Thread.currentThread().isInterrupted()) {
                    return new Result(looked, false);
                }
                HistoryQuery.Row row = line.get(i);
                long began = System.nanoTime();
                boolean fresh =
                        row.here() && store.health(row.digest(), row.path()).isEmpty();
                if (fresh) {
                    store.put(row.digest(), row.path(), health(reading, row));
                }
                boolean compare = i > 0 && !alike.containsKey(row.number()) && row.here();
                if (compare) {
                    compare(reading, store, line, i);
                }
                if (fresh && i == line.size() - 1) {
                    keep(reading, features, row);
                }
                if (fresh || compare) {
                    looked++;
                    rest.after(began);
                }
            }
            progress.advance(1, 0);
        }
        return new Result(looked, true);
    }

    /** The health of a version of a file that is here. */
    private static Health health(Reading reading, HistoryQuery.Row row) throws IOException {
        if (row.size() > MOST) {
            return Health.notRead(Words.of("document.large"));
        }
        Optional<byte[]> bytes = bytes(reading, row.line(), row.number());
        return bytes.isPresent()
                ? DocumentProcess.shared().health(row.path(), bytes.get())
                : Health.notRead(Words.of("health.damaged"));
    }

    private static Optional<byte[]> bytes(Reading reading, long line, int number) throws IOException {
        Optional<Version> version = reading.version(line, number);
        if (version.isEmpty() || version.get().recipe().isElsewhere()) {
            return Optional.empty();
        }
        ByteArrayOutputStream out =
                new ByteArrayOutputStream((int) version.get().size());
        try {
            reading.contents().read(version.get().recipe(), out::write);
            return Optional.of(out.toByteArray());
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            // Damaged in the vault, which a check of the vault says.
            org.slf4j.LoggerFactory.getLogger(HealthCheck.class).info("{}/{} cannot be read", line, number, e);
            return Optional.empty();
        }
    }

    private void compare(Reading reading, HealthStore store, List<HistoryQuery.Row> line, int at) throws IOException {
        HistoryQuery.Row row = line.get(at);
        HistoryQuery.Row before = line.get(at - 1);
        Resemblance found = new Resemblance(-1, false, -1);
        if (row.digest().equals(before.digest())) {
            found = new Resemblance(100, false, -1);
        } else {
            Optional<Resemblance.Content> a = content(reading, before);
            Optional<Resemblance.Content> b = content(reading, row);
            if (a.isPresent() && b.isPresent()) {
                boolean two = at > 1
                        && !row.who().equals(before.who())
                        && Duration.between(before.saved(), row.saved()).compareTo(Crossed.WITHIN) <= 0;
                Optional<Resemblance.Content> older = two ? content(reading, line.get(at - 2)) : Optional.empty();
                found = Resemblance.of(a.get(), b.get(), older);
            }
        }
        store.put(row.line(), row.number(), before.number(), found);
    }

    /** What a file is now is what the guard compares with. */
    private void keep(Reading reading, FeatureKeep features, HistoryQuery.Row row) throws IOException {
        if (row.size() > 0 && features.wants(row.digest())) {
            Optional<Resemblance.Content> content = content(reading, row);
            if (content.isPresent()) {
                content.get().keep(features, row.digest());
            }
        }
    }

    private Optional<Resemblance.Content> content(Reading reading, HistoryQuery.Row row) throws IOException {
        if (!row.here() || row.size() > MOST) {
            return Optional.empty();
        }
        Resemblance.Content known = contents.get(row.digest());
        if (known != null) {
            return Optional.of(known);
        }
        Optional<byte[]> bytes = bytes(reading, row.line(), row.number());
        bytes.ifPresent(b -> contents.put(row.digest(), new Resemblance.Content(row.path(), b)));
        return Optional.ofNullable(contents.get(row.digest()));
    }

    private void judge(Reading reading, HealthStore store, Place place) throws IOException {
        History history = history(reading, store, place);
        Map<Long, List<SavedVersion>> saves = history.byLine();
        List<Found> all = new ArrayList<>();
        for (Finding unsorted : Detectors.find(history)) {
            Finding finding = unsorted.byPath();
            List<Found.OfFile> files = new ArrayList<>();
            for (Mark mark : finding.marks()) {
                List<SavedVersion> line = saves.getOrDefault(mark.line(), List.of());
                String proof = line.stream()
                        .filter(s -> s.number() == mark.good())
                        .flatMap(s -> s.health().stream())
                        .map(Health::proof)
                        .findFirst()
                        .orElse("");
                files.add(new Found.OfFile(mark, fate(reading, store, place, finding, mark, line), proof));
            }
            all.add(new Found(finding, files));
        }
        store.found(
                place.id(),
                all,
                clock.instant(),
                history.saves().size(),
                new HealthStore.Judged(reading.commit(), reading.state(place.id()), LateEvents.last(history)));
    }

    private static List<HistoryQuery.Row> rows(Reading reading, Place place, long line) throws IOException {
        return lines(reading, place, Set.of(line)).getOrDefault(line, List.of());
    }

    /** What happened in a place, with what is known of the health of each version. */
    static History history(Reading reading, HealthStore store, Place place) throws IOException {
        Saves saves = new Saves(store);
        List<HistoryQuery.Row> line = new ArrayList<>();
        // One line at a time: of a million files, their rows would take as much memory again as what becomes of them.
        try {
            HistoryQuery.of(reading).versions(place, row -> {
                if (!line.isEmpty() && line.get(0).line() != row.line()) {
                    saves.add(line);
                    line.clear();
                }
                if (row.file()) {
                    line.add(row);
                }
            });
            saves.add(line);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
        List<NameChange> turns = new ArrayList<>();
        HistoryQuery.of(reading).turns(place, t -> turns.add(saves.withItsPath(NameChange.of(t))));
        return new History(place.id(), saves.all(), turns);
    }

    private static History history(
            HealthStore store, Place place, Map<Long, List<HistoryQuery.Row>> lines, List<NameChange> turns)
            throws IOException {
        Saves saves = new Saves(store);
        for (List<HistoryQuery.Row> line : lines.values()) {
            saves.save(line);
        }
        return new History(place.id(), saves.all(), turns);
    }

    private Found.Fate fate(
            Reading reading, HealthStore store, Place place, Finding finding, Mark mark, List<SavedVersion> line)
            throws IOException {
        boolean removed = !reading.isThere(mark.line());
        Found.Fate still = mark.good() > 0 ? Found.Fate.TO_MEND : Found.Fate.LOST;
        if (finding.kind() == Finding.Kind.REMOVED) {
            // There may be a million of them: nothing else is asked of each.
            return removed ? still : Found.Fate.BACK;
        }
        Optional<Line> now = removed || line.isEmpty() ? Optional.empty() : reading.line(mark.line());
        if (now.isEmpty()) {
            return Found.Fate.REMOVED_SINCE;
        }
        SavedVersion last = line.get(line.size() - 1);
        boolean strange = !mark.path().equals(mark.goodPath())
                && now.get().path().equals(mark.path())
                && finding.kind() != Finding.Kind.SAVED_OVER;
        if (last.number() <= mark.number()) {
            boolean named = finding.kind() == Finding.Kind.ALIKE && last.number() == mark.good();
            return named && !strange ? Found.Fate.BACK : still;
        }
        if (strange) {
            return still;
        }
        boolean earlier = line.stream()
                .anyMatch(
                        s -> s.number() < mark.number() && s.digest().equals(last.digest()) && FileDetector.isSound(s));
        boolean bad = line.stream()
                .anyMatch(s -> s.number() == mark.number() && s.digest().equals(last.digest()));
        if (earlier || bad) {
            return earlier ? Found.Fate.BACK : still;
        }
        return isGoodEdit(reading, store, place, mark, line) ? Found.Fate.EDITED : still;
    }

    /** Whether what is there now is what was good, worked on since. */
    private boolean isGoodEdit(Reading reading, HealthStore store, Place place, Mark mark, List<SavedVersion> line)
            throws IOException {
        SavedVersion last = line.get(line.size() - 1);
        Optional<SavedVersion> good =
                line.stream().filter(s -> s.number() == mark.good()).findFirst();
        if (!FileDetector.isSound(last) || good.isEmpty()) {
            return FileDetector.isSound(last) && good.isEmpty();
        }
        boolean sameKind =
                last.health().map(Health::kind).equals(good.get().health().map(Health::kind));
        if (!sameKind) {
            return false;
        }
        Optional<Resemblance> known = store.alike(mark.line(), last.number(), mark.good());
        if (known.isEmpty()) {
            List<HistoryQuery.Row> rows = rows(reading, place, mark.line());
            Optional<Resemblance.Content> a = content(reading, rows, mark.good());
            Optional<Resemblance.Content> b = content(reading, rows, last.number());
            Resemblance found = a.isPresent() && b.isPresent()
                    ? Resemblance.of(a.get(), b.get(), Optional.empty())
                    : new Resemblance(-1, false, -1);
            known = Optional.of(found);
        }
        return known.get().shared() < 0 || known.get().shared() >= SAME_FILE;
    }

    private Optional<Resemblance.Content> content(Reading reading, List<HistoryQuery.Row> rows, int number)
            throws IOException {
        for (HistoryQuery.Row row : rows) {
            if (row.number() == number) {
                return content(reading, row);
            }
        }
        return Optional.empty();
    }

    /** When a check was last complete. */
    public static Optional<Instant> last(OpenVault vault, Place place) throws IOException {
        Optional<HealthStore> store = HealthStore.openIfThere(vault.folder());
        if (store.isEmpty()) {
            return Optional.empty();
        }
        try (HealthStore open = store.get()) {
            return open.looked(place.id());
        }
    }
}
