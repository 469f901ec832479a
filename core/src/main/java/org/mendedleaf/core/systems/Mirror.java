package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.PlaceWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Looks at a place in another system and puts what it says on lines: new versions and removals, renames, snapshots and
 * runs, and what it forgot. Contents stay there, but for a plain server that keeps no versions: from that the vault takes
 * what changed.
 *
 * <p>The system is asked before the vault is locked; who writes elsewhere meanwhile never waits for a slow connection.
 *
 * <pre>{@code
 * new Mirror(vault, place, registry.system(place), clock).run(Progress.NONE);
 * }</pre>
 */
public final class Mirror {

    /** Clocks that are closer than this are taken for the same. */
    private static final Duration SAME_CLOCK = Duration.ofSeconds(5);

    private static final int GROUP = 200;

    /** Characters of a path that is told as a gap. */
    private static final int LONGEST_TOLD = 200;

    /** Two looks at one place at once would put the same points down twice. */
    private static final Map<String, ReentrantLock> LOOKS = new ConcurrentHashMap<>();

    private static final int TRIES = 3;

    private final OpenVault vault;
    private final Place place;
    private final OutsideSystem system;
    private final Clock clock;
    private final String name;
    private final Map<String, Expected> expected = new ConcurrentHashMap<>();
    private final List<String> unkept = new ArrayList<>();
    private final List<String> tooDeep = new ArrayList<>();
    private Map<String, String> notTaken = Map.of();

    /** A look at this place. */
    public Mirror(OpenVault vault, Place place, OutsideSystem system, Clock clock) {
        this.vault = vault;
        this.place = place;
        this.system = system;
        this.clock = clock;
        this.name = place.outside().orElseThrow().place();
    }

    private Optional<Instant> before = Optional.empty();

    private record Expected(Digest sha256, int source) {}

    /** Says that a content that will turn up at a path was restored from this version, 0 for one of another line. */
    void expect(String path, Digest sha256, int source) {
        expected.put(path, new Expected(sha256, source));
    }

    /**
     * What a scan found.
     *
     * @param files that are there
     * @param points that came onto lines
     * @param forgotten versions, snapshots and runs that the system no longer holds
     */
    public record Result(long files, long points, long forgotten) {}

    /**
     * Looks.
     *
     * @throws SystemException when the system could not be asked; that is noted, and what was known stays
     */
    public Result run(Progress progress) throws IOException {
        ReentrantLock lock = LOOKS.computeIfAbsent(vault.folder().root() + "|" + place.id(), k -> new ReentrantLock());
        lock.lock();
        try {
            for (int i = 1; ; i++) {
                try {
                    return look(progress);
                } catch (OvertakenException e) {
                    if (i == TRIES) {
                        throw new IOException(Words.of("mirror.overtaken", place.where()), e);
                    }
                }
            }
        } finally {
            lock.unlock();
        }
    }

    /** Another process looked at the place while the system was asked: what was told may be older than what is known. */
    private static final class OvertakenException extends IOException {
        private static final long serialVersionUID = 1;
    }

    private Result look(Progress progress) throws IOException {
        progress.begin(Words.of("mirror.step", place.where()), 0, 0);
        Instant now = clock.instant();
        unkept.clear();
        tooDeep.clear();
        notTaken = Map.of();
        try (Reading reading = vault.read()) {
            before = reading.state(place).lastLook();
        }
        try {
            OutsideSystem.State state = system.state();
            Duration ahead = Duration.between(now, state.clock());
            Duration shift = ahead.abs().compareTo(SAME_CLOCK) > 0 ? ahead : Duration.ZERO;
            OutsideSystem.OutsidePlace told = system.places().stream()
                    .filter(p -> p.name().equals(name))
                    .findFirst()
                    .orElseThrow(() -> new SystemException.Missing(Words.of("system.noPlace", place.where())));
            Result result = system.kind().keepsCuts() ? cuts(now, shift, progress) : plainOrFiles(now, shift, progress);
            if (!progress.isCancelled()) {
                noteGood(now, facts(state, told, shift));
            }
            return result;
        } catch (SystemException e) {
            noteTrouble(now, e);
            throw e;
        }
    }

    /** A session, unless another process looked at the place meanwhile. */
    WriteSession write() throws IOException {
        WriteSession session = vault.write();
        ScanStore.Looked looked = ScanStore.looked(session, place);
        if (!looked.last().equals(before.orElse(Instant.EPOCH))) {
            session.close();
            throw new OvertakenException();
        }
        return session;
    }

    /** Whether a path can stand on a line; what cannot is named among the gaps. */
    private boolean keepable(String told) {
        // A folder that was not followed is told with a slash at its end.
        String path = told.endsWith("/") ? told.substring(0, told.length() - 1) : told;
        try {
            RelativePath.requirePath(path);
            if (path.length() < told.length()) {
                tooDeep.add(path);
                return false;
            }
            return true;
        } catch (IllegalArgumentException e) {
            unkept.add(path);
            return false;
        }
    }

    /** The files of a cut that can stand on lines. */
    List<OutsideSystem.InTree> tree(String cut) throws IOException {
        return system.tree(name, cut).stream().filter(f -> keepable(f.path())).toList();
    }

    private Result plainOrFiles(Instant now, Duration shift, Progress progress) throws IOException {
        return system.kind().can(Capability.VERSIONS)
                ? files(now, shift, progress)
                : new PlainMirror(this, vault, place, system).run(now, progress);
    }

    private OutsidePlaceState facts(OutsideSystem.State state, OutsideSystem.OutsidePlace told, Duration shift) {
        boolean own = told.usedBytes() >= 0;
        return new OutsidePlaceState(
                system.kind(),
                told.settings(),
                told.role(),
                own ? told.usedBytes() : state.usedBytes(),
                own ? told.totalBytes() : state.totalBytes(),
                told.unfinished().map(u -> u.minus(shift)),
                shift.toSeconds(),
                Optional.empty());
    }

    private void noteGood(Instant now, OutsidePlaceState facts) throws IOException {
        try (WriteSession session = vault.write()) {
            OutsideWriter writer = new OutsideWriter(session, place);
            writer.facts(facts.json());
            if (writer.begins().isEmpty()) {
                Instant from = writer.oldest().filter(o -> o.isBefore(now)).orElse(now);
                new PlaceWriter(session).capture(place, 0, new CaptureRecord(from, now, true, 0, 0));
            }
            List<Skipped> gaps = new ArrayList<>(gaps(unkept, Skipped.Reason.NAME, now));
            gaps.addAll(gaps(tooDeep, Skipped.Reason.TOO_DEEP, now));
            notTaken.forEach(
                    (path, why) -> gaps.add(new Skipped(asName(path), Skipped.Reason.NOT_TAKEN, shortened(why), now)));
            ScanStore.skipped(session, place, new LineWriter(session).folder(place, ""), gaps, now);
            ScanStore.looked(session, place, new ScanStore.Looked(now, now), "");
            session.commit();
        }
    }

    /** A path that cannot stand on a line is one name here, and not longer than anybody reads. */
    private static List<Skipped> gaps(List<String> paths, Skipped.Reason reason, Instant now) {
        return paths.stream()
                .map(Mirror::asName)
                .distinct()
                .map(p -> new Skipped(p, reason, "", now))
                .toList();
    }

    private static String asName(String path) {
        return shortened(path.replace('/', '\u2215'));
    }

    private static String shortened(String told) {
        return told.length() <= LONGEST_TOLD ? told : told.substring(0, LONGEST_TOLD) + "\u2026";
    }

    private void noteTrouble(Instant now, SystemException why) throws IOException {
        Optional<OutsidePlaceState> before;
        try (Reading reading = vault.read()) {
            before = OutsidePlaceState.of(reading, place);
        }
        try (WriteSession session = vault.write()) {
            boolean away = why instanceof SystemException.Unplugged || why instanceof SystemException.Unreachable;
            OutsidePlaceState facts = before.orElseGet(() -> new OutsidePlaceState(
                    system.kind(),
                    system.kind().standardSettings(),
                    Role.OWNER,
                    -1,
                    -1,
                    Optional.empty(),
                    0,
                    Optional.empty()));
            new OutsideWriter(session, place).facts((away ? facts.away(now) : facts).json());
            ScanStore.Looked looked = ScanStore.looked(session, place);
            ScanStore.looked(session, place, new ScanStore.Looked(now, looked.good()), why.words());
            session.commit();
        }
    }

    /** Notes what is wrong with a place, apart from a scan. */
    static void trouble(OpenVault vault, Place place, Instant now, SystemException why) throws IOException {
        Optional<OutsidePlaceState> before;
        try (Reading reading = vault.read()) {
            before = OutsidePlaceState.of(reading, place);
        }
        try (WriteSession session = vault.write()) {
            if (why instanceof SystemException.Full && before.isPresent()) {
                new OutsideWriter(session, place).facts(before.get().filled().json());
            }
            ScanStore.Looked looked = ScanStore.looked(session, place);
            ScanStore.looked(session, place, new ScanStore.Looked(now, looked.good()), why.words());
            session.commit();
        }
    }

    // Systems that keep versions file by file.

    private Result files(Instant now, Duration shift, Progress progress) throws IOException {
        Map<String, OutsideWriter.Known> known;
        try (Reading reading = vault.read()) {
            known = reading.outside().files(place);
        }
        Map<String, String> tags = new HashMap<>();
        known.forEach((k, v) -> tags.put(k, v.tag()));
        List<OutsideSystem.File> changed = new ArrayList<>();
        Map<String, OutsideWriter.Known> unseen = new LinkedHashMap<>(known);
        Map<String, OutsideSystem.Out> outs = new HashMap<>();
        long[] files = {0};
        system.files(name, tags, f -> {
            if (!keepable(f.path())) {
                return;
            }
            files[0]++;
            unseen.remove(f.key());
            f.out().ifPresent(o -> outs.put(f.key(), o));
            if (f.points().isPresent()) {
                changed.add(f);
            }
            progress.advance(1, 0);
        });
        boolean sameOuts = sameOuts(known, outs, shift);
        if (changed.isEmpty()
                && sameOuts
                && unseen.values().stream().allMatch(k -> k.tag().isEmpty())) {
            return new Result(files[0], 0, 0);
        }
        // What was removed leaves its name first, so that another file can have it.
        changed.sort(Comparator.comparing(f -> !endsRemoved(f)));
        try (WriteSession session = write()) {
            OutsideWriter writer = new OutsideWriter(session, place);
            FileMirror mirror = new FileMirror(writer, now, shift, this::originOf);
            int n = 0;
            for (OutsideSystem.File f : changed) {
                mirror.take(f, writer.lineOf(f.key()).orElse(null));
                if (++n % GROUP == 0) {
                    session.commit();
                }
            }
            for (Map.Entry<String, OutsideWriter.Known> gone : unseen.entrySet()) {
                if (!gone.getValue().tag().isEmpty()) {
                    mirror.gone(gone.getKey(), gone.getValue().line());
                }
            }
            if (!sameOuts) {
                outs(session, writer, outs, shift);
            }
            session.commit();
            return new Result(files[0], mirror.points(), mirror.forgotten());
        }
    }

    private boolean sameOuts(
            Map<String, OutsideWriter.Known> known, Map<String, OutsideSystem.Out> told, Duration shift)
            throws IOException {
        Map<Long, String> before = new HashMap<>();
        try (Reading reading = vault.read()) {
            CheckOutStore.of(reading).all(place).forEach(c -> before.put(c.line(), c.who() + c.since()));
        }
        Map<Long, String> now = new HashMap<>();
        for (Map.Entry<String, OutsideSystem.Out> e : told.entrySet()) {
            OutsideWriter.Known k = known.get(e.getKey());
            now.put(k == null ? -1 : k.line(), e.getValue().who() + ours(e.getValue(), shift));
        }
        return before.equals(now);
    }

    private static Instant ours(OutsideSystem.Out out, Duration shift) {
        return Moment.instant(Moment.micros(out.since().minus(shift)));
    }

    /** Who has which file checked out is what the system says of it. */
    private void outs(WriteSession session, OutsideWriter writer, Map<String, OutsideSystem.Out> told, Duration shift)
            throws IOException {
        Map<Long, OutsideSystem.Out> byLine = new HashMap<>();
        for (Map.Entry<String, OutsideSystem.Out> e : told.entrySet()) {
            writer.lineOf(e.getKey()).ifPresent(line -> byLine.put(line, e.getValue()));
        }
        for (CheckOut c : CheckOutStore.of(session).all(place)) {
            if (!byLine.containsKey(c.line())) {
                CheckOutStore.end(session, c.line());
            }
        }
        for (Map.Entry<Long, OutsideSystem.Out> e : byLine.entrySet()) {
            int number = writer.live(e.getKey()).map(l -> l.number()).orElse(0);
            CheckOutStore.put(session, e.getKey(), e.getValue().who(), ours(e.getValue(), shift), number);
        }
    }

    private static boolean endsRemoved(OutsideSystem.File file) {
        List<OutsideSystem.Point> points = file.points().orElseThrow();
        return points.isEmpty() || points.get(points.size() - 1).removal();
    }

    /** What was restored by us turns up like anything that was put in; here it gets its right name. */
    FileMirror.Coming originOf(String path, Digest sha256) {
        Expected e = expected.get(path);
        return e != null && e.sha256().equals(sha256)
                ? new FileMirror.Coming(Origin.RESTORED, e.source())
                : new FileMirror.Coming(Origin.UPLOADED, 0);
    }

    // Systems that keep cuts of the whole place.

    private Result cuts(Instant now, Duration shift, Progress progress) throws IOException {
        List<RemoteSnapshot> known;
        try (Reading reading = vault.read()) {
            known = reading.outside().cuts(place);
        }
        List<RemoteSnapshot> told = system.cuts(name);
        Map<String, List<OutsideSystem.InTree>> trees = new HashMap<>();
        for (RemoteSnapshot cut : told) {
            if (known.stream().noneMatch(k -> k.key().equals(cut.key()))) {
                trees.put(cut.key(), tree(cut.key()));
                progress.advance(1, 0);
            }
        }
        if (!told.isEmpty()) {
            notTaken = system.skipped(name, told.get(told.size() - 1).key());
        }
        boolean hasLive = system.kind().can(Capability.WRITING);
        List<OutsideSystem.InTree> live = hasLive ? tree(RemoteSnapshot.LIVE) : List.of();
        try (WriteSession session = write()) {
            OutsideWriter writer = new OutsideWriter(session, place);
            TreeMirror mirror =
                    new TreeMirror(writer, shift, hasLive ? Origin.SERVED : Origin.BACKED_UP, this::originOf);
            long forgotten = 0;
            for (RemoteSnapshot k : known) {
                if (!k.isLive() && told.stream().noneMatch(c -> c.key().equals(k.key()))) {
                    writer.cutEnds(k.key());
                    forgotten++;
                }
            }
            Instant previous = Instant.EPOCH;
            for (RemoteSnapshot cut : told) {
                Instant at = cut.at().minus(shift);
                List<OutsideSystem.InTree> tree = trees.get(cut.key());
                if (tree != null) {
                    mirror.take(tree, previous, at);
                }
                RemoteSnapshot ours = new RemoteSnapshot(
                        cut.key(), at, cut.label(), cut.expires().map(e -> e.minus(shift)));
                if (!known.contains(ours)) {
                    writer.cut(ours);
                }
                previous = at;
                session.commit();
            }
            if (hasLive) {
                mirror.take(live, previous, now);
                RemoteSnapshot cut = new RemoteSnapshot(RemoteSnapshot.LIVE, Moment.FAR, "", Optional.empty());
                if (!known.contains(cut)) {
                    writer.cut(cut);
                }
            }
            session.commit();
            long files = hasLive ? live.size() : writer.live().size();
            return new Result(files, mirror.points(), forgotten);
        }
    }
}
