package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.time.Moment;

/** Takes over what a system says that keeps snapshots or runs of a whole place, each with the tree of its files. */
final class SnapshotMirror extends MirrorPart {

    SnapshotMirror(Mirror mirror, OpenVault vault, Place place, OutsideSystem system) {
        super(mirror, vault, place, system);
    }

    Mirror.Result run(Instant now, Duration shift, Progress progress) throws IOException {
        List<RemoteSnapshot> known;
        try (Reading reading = vault.read()) {
            known = reading.outside().cuts(place);
        }
        List<RemoteSnapshot> told = system.cuts(name);
        Map<String, List<OutsideSystem.InTree>> trees = new HashMap<>();
        for (RemoteSnapshot cut : told) {
            if (known.stream().noneMatch(k -> k.key().equals(cut.key()))) {
                trees.put(cut.key(), mirror.tree(cut.key()));
                progress.advance(1, 0);
            }
        }
        if (!told.isEmpty()) {
            mirror.notTaken(system.skipped(name, told.get(told.size() - 1).key()));
        }
        boolean hasLive = system.kind().can(Capability.WRITING);
        List<OutsideSystem.InTree> live = hasLive ? mirror.tree(RemoteSnapshot.LIVE) : List.of();
        try (WriteSession session = mirror.write()) {
            OutsideWriter writer = new OutsideWriter(session, place);
            TreeMirror lines =
                    new TreeMirror(writer, shift, hasLive ? Origin.SERVED : Origin.BACKED_UP, mirror::originOf);
            long forgotten = 0;
            for (RemoteSnapshot k : known) {
                if (!k.isLive() && told.stream().noneMatch(c -> c.key().equals(k.key()))) {
                    writer.cutEnds(k.key());
                    forgotten++;
                }
            }
            Map<String, Instant> dated = new HashMap<>();
            known.forEach(k -> dated.put(k.key(), k.at()));
            Instant previous = Instant.EPOCH;
            for (RemoteSnapshot cut : told) {
                // What it holds is what is current at its moment: once it has one it keeps it, however the clocks are
                // set later.
                Instant at = dated.containsKey(cut.key())
                        ? dated.get(cut.key())
                        : after(
                                previous,
                                Present.moment(session, place, cut.at().minus(shift)));
                List<OutsideSystem.InTree> tree = trees.get(cut.key());
                if (tree != null) {
                    lines.take(tree, previous, at);
                }
                RemoteSnapshot ours = new RemoteSnapshot(
                        cut.key(), at, cut.label(), cut.expires().map(e -> e.minus(shift)));
                if (!known.contains(ours)) {
                    writer.cut(ours);
                }
                previous = at.isAfter(previous) ? at : previous;
                session.commit();
            }
            if (hasLive) {
                lines.take(live, previous, after(previous, Present.moment(session, place, now)));
                RemoteSnapshot cut = new RemoteSnapshot(RemoteSnapshot.LIVE, Moment.FAR, "", Optional.empty());
                if (!known.contains(cut)) {
                    writer.cut(cut);
                }
            }
            session.commit();
            long files = hasLive ? live.size() : writer.live().size();
            return new Mirror.Result(files, lines.points(), forgotten);
        }
    }

    /** A moment, but after another. */
    private static Instant after(Instant previous, Instant at) {
        return at.isAfter(previous) ? at : previous.plusNanos(1000);
    }
}
