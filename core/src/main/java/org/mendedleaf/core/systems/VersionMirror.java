package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;

/** Takes over what a system says that keeps versions file by file: their points, and who has which file checked out. */
final class VersionMirror extends MirrorPart {

    private static final int GROUP = 200;

    VersionMirror(Mirror mirror, OpenVault vault, Place place, OutsideSystem system) {
        super(mirror, vault, place, system);
    }

    Mirror.Result run(Instant now, Duration shift, Progress progress) throws IOException {
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
            if (!mirror.keepable(f.path())) {
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
            return new Mirror.Result(files[0], 0, 0);
        }
        // What was removed leaves its name first, so that another file can have it.
        changed.sort(Comparator.comparing(f -> !endsRemoved(f)));
        try (WriteSession session = mirror.write()) {
            OutsideWriter writer = new OutsideWriter(session, place);
            FileMirror lines = new FileMirror(writer, now, shift, mirror::originOf);
            int n = 0;
            for (OutsideSystem.File f : changed) {
                lines.take(f, writer.lineOf(f.key()).orElse(null));
                if (++n % GROUP == 0) {
                    session.commit();
                }
            }
            for (Map.Entry<String, OutsideWriter.Known> gone : unseen.entrySet()) {
                if (!gone.getValue().tag().isEmpty()) {
                    lines.gone(gone.getKey(), gone.getValue().line());
                }
            }
            if (!sameOuts) {
                outs(session, writer, outs, shift);
            }
            session.commit();
            return new Mirror.Result(files[0], lines.points(), lines.forgotten());
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
}
