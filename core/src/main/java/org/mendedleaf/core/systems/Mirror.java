package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
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

    /** Two looks at one place at once would put the same points down twice. */
    private static final Map<String, ReentrantLock> LOOKS = new ConcurrentHashMap<>();

    private static final int TRIES = 3;

    private final OpenVault vault;
    private final Place place;
    private final OutsideSystem system;
    private final Clock clock;
    private final String name;
    private final MirrorNotes notes;
    private Optional<Instant> before = Optional.empty();
    private final Map<String, Expected> expected = new ConcurrentHashMap<>();
    /** A look at this place. */
    public Mirror(OpenVault vault, Place place, OutsideSystem system, Clock clock) {
        this.vault = vault;
        this.place = place;
        this.system = system;
        this.clock = clock;
        this.notes = new MirrorNotes(vault, place);
        this.name = place.outside().orElseThrow().place();
    }

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
        notes.begin();
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
            Result result = take(now, shift, progress);
            if (!progress.isCancelled()) {
                notes.good(now, facts(state, told, shift));
            }
            return result;
        } catch (SystemException e) {
            notes.trouble(now, e, system.kind());
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
    boolean keepable(String path) {
        return notes.keepable(path);
    }

    /** Names files that the system did not take, each with its reason. */
    void notTaken(Map<String, String> files) {
        notes.notTaken(files);
    }

    /** The files of a cut that can stand on lines. */
    List<OutsideSystem.InTree> tree(String cut) throws IOException {
        return system.tree(name, cut).stream()
                .filter(f -> notes.keepable(f.path()))
                .toList();
    }

    private Result take(Instant now, Duration shift, Progress progress) throws IOException {
        if (system.kind().keepsCuts()) {
            return new SnapshotMirror(this, vault, place, system).run(now, shift, progress);
        }
        return system.kind().can(Capability.VERSIONS)
                ? new VersionMirror(this, vault, place, system).run(now, shift, progress)
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

    /** What was restored by us turns up like anything that was put in; here it gets its right name. */
    FileMirror.Coming originOf(String path, Digest sha256) {
        Expected e = expected.get(path);
        return e != null && e.sha256().equals(sha256)
                ? new FileMirror.Coming(Origin.RESTORED, e.source())
                : new FileMirror.Coming(Origin.UPLOADED, 0);
    }
}
