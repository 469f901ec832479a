package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.HeldLines;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/**
 * Snapshots in another system, and erasing there. What nobody else would hold is taken into the vault before it goes.
 */
public final class OutsideErasing {

    private final OutsideFiles files;

    /**
     * Erasing in this place.
     *
     * @param who erases; stands in the journal
     * @throws SystemException.Missing when its system is not connected
     */
    public OutsideErasing(OpenVault vault, Place place, SystemRegistry registry, Clock clock, String who)
            throws IOException {
        this.files = new OutsideFiles(vault, place, registry, clock, who);
    }

    /**
     * Erases a version in the system. The vault takes its content first, so that nothing is lost by it.
     *
     * @throws SystemException.Missing when the system does not hold it
     * @throws SystemException.Refused when it is held
     */
    public void erase(Version version, Progress progress) throws IOException {
        files.needs(Capability.ERASING);
        eraseOne(version, progress);
        files.look(Progress.NONE);
        note(ActionKind.ERASED);
    }

    /** How a version is named among failures. */
    static String named(Version version) {
        return Words.of("hold.what.VERSION", version.path(), version.label());
    }

    /**
     * Erases versions in the system; the vault takes the content of each first.
     *
     * @return why some were not erased, by {@link #named}; those that were not reached because it was cancelled too
     */
    public Map<String, String> erase(List<Version> versions, Progress progress) throws IOException {
        files.needs(Capability.ERASING);
        progress.begin(
                Words.of("outside.thinning", files.place.where()),
                versions.size(),
                versions.stream().mapToLong(Version::size).sum());
        Map<String, String> failed = new LinkedHashMap<>();
        String stopped = "";
        for (Version v : versions) {
            if (stopped.isEmpty() && progress.isCancelled()) {
                stopped = Words.of("restore.cancelled");
            }
            if (!stopped.isEmpty()) {
                failed.put(named(v), stopped);
                continue;
            }
            try {
                eraseOne(v, Progress.NONE);
            } catch (SystemException.Unreachable | SystemException.Unplugged e) {
                stopped = e.words();
                failed.put(named(v), stopped);
            } catch (SystemException e) {
                failed.put(named(v), e.words());
            }
            progress.advance(1, v.size());
        }
        if (failed.size() < versions.size()) {
            files.look(Progress.NONE);
            note(ActionKind.ERASED);
        }
        return failed;
    }

    private void eraseOne(Version version, Progress progress) throws IOException {
        List<Holder> points;
        try (Reading reading = files.vault.read()) {
            Line line = reading.line(version.line()).orElseThrow();
            points = reading.outside().holders(line).getOrDefault(version.number(), List.of()).stream()
                    .filter(h -> h.kind() == Holder.Kind.POINT)
                    .toList();
            Instant now = TrustedTime.of(reading, files.clock.instant());
            List<Hold> holds = HoldStore.of(reading).standing().stream()
                    .filter(h -> h.holds(now))
                    .toList();
            Optional<Hold> hold = HeldLines.covering(reading, holds, files.place, line, version.number());
            if (hold.isPresent()) {
                throw new SystemException.Refused(
                        Words.of("outside.held", named(version), hold.get().reason()));
            }
        }
        if (points.isEmpty()) {
            throw new SystemException.Missing(Words.of("outside.notHeld", files.place.where(), version.label()));
        }
        files.fetch.intoVault(version, progress);
        for (Holder h : points) {
            files.system.erase(files.name, version.path(), h.point(), OutsideFiles.key());
        }
    }

    private void note(ActionKind kind) throws IOException {
        try (WriteSession session = files.vault.write()) {
            JournalStore.begin(
                    session,
                    new Action(0, files.clock.instant(), files.who, kind, files.place.id(), 0, false, List.of()));
            session.commit();
        }
    }

    /**
     * Erases a snapshot in the system. Versions that nobody else holds are taken into the vault first.
     *
     * @return how many those were
     * @throws SystemException.Conflict when it holds what is not known here; then it is left alone
     */
    public int eraseSnapshot(RemoteSnapshot cut, Progress progress) throws IOException {
        files.needs(Capability.SNAPSHOTS);
        List<Version> alone = new ArrayList<>();
        List<OutsideSystem.InTree> there = files.system.tree(files.name, cut.key());
        try (Reading reading = files.vault.read()) {
            TreeAt known = reading.folders().treeAt(files.place, "", cut.at());
            requireKnown(there, known.byPath());
            for (Version v : known.files().values()) {
                Line line = reading.line(v.line()).orElseThrow();
                List<Holder> holders = reading.outside().holders(line).getOrDefault(v.number(), List.of());
                if (holders.stream().allMatch(h -> h.point().equals(cut.key()))) {
                    alone.add(line.version(v.number()).orElseThrow());
                }
            }
        }
        progress.begin(
                Words.of("outside.securing", files.place.where()),
                alone.size(),
                alone.stream().mapToLong(Version::size).sum());
        for (Version v : alone) {
            progress.stopIfCancelled();
            files.fetch.intoVault(v, Progress.NONE);
            progress.advance(1, v.size());
        }
        files.system.eraseCut(files.name, cut.key());
        files.look(Progress.NONE);
        note(ActionKind.SNAPSHOT_ERASED);
        return alone.size();
    }

    /** What it holds in truth is compared with what is known of it, since nothing brings it back. */
    private void requireKnown(List<OutsideSystem.InTree> there, Map<String, Version> known) throws SystemException {
        List<String> others = there.stream()
                .filter(f -> !isKnown(f, known.get(f.path())))
                .map(OutsideSystem.InTree::path)
                .toList();
        if (!others.isEmpty()) {
            throw new SystemException.Conflict(
                    Words.of("outside.snapshotUnknown", others.size(), files.place.where(), others.get(0)));
        }
    }

    private static boolean isKnown(OutsideSystem.InTree file, @Nullable Version version) {
        if (version == null || version.size() != file.size()) {
            return false;
        }
        return file.sha256().isEmpty()
                || version.sha256().isEmpty()
                || file.sha256().equals(version.sha256());
    }

    /** Takes a snapshot. */
    public RemoteSnapshot snapshot(String label) throws IOException {
        files.needs(Capability.SNAPSHOTS);
        RemoteSnapshot cut = files.system.snapshot(files.name, label, OutsideFiles.key());
        files.look(Progress.NONE);
        note(ActionKind.SNAPSHOT);
        return cut;
    }
}
