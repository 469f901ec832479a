package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.vault.Digest;

/**
 * Brings a line up to what a system says of its file: points that are new are added, points that are gone there are
 * noted as forgotten, and when something else is current there than here, that becomes current again. Applied twice to
 * the same points, it changes nothing the second time.
 */
final class FileMirror {

    private final OutsideWriter writer;
    private final Instant now;
    private final Duration shift;
    private final BiFunction<String, Digest, Coming> origins;
    private long points;
    private long forgotten;

    /**
     * A mirror of files.
     *
     * @param shift how far the system's clock is ahead of ours
     * @param origins how a content that turns up at a path came there
     */
    FileMirror(OutsideWriter writer, Instant now, Duration shift, BiFunction<String, Digest, Coming> origins) {
        this.writer = writer;
        this.now = now;
        this.shift = shift;
        this.origins = origins;
    }

    /** How a content came. */
    record Coming(Origin origin, int source) {}

    long points() {
        return points;
    }

    long forgotten() {
        return forgotten;
    }

    /** Takes over what is said of a file. */
    void take(OutsideSystem.File file, @Nullable Long knownLine) throws IOException {
        List<OutsideSystem.Point> told = file.points().orElseThrow();
        Map<String, OutsideWriter.Held> held = new HashMap<>();
        if (knownLine != null) {
            for (OutsideWriter.Held h : writer.held(knownLine)) {
                held.put(h.point(), h);
            }
        }
        Long line = knownLine;
        if (line != null) {
            followName(file, line);
        }
        Set<String> there = new HashSet<>();
        for (OutsideSystem.Point p : told) {
            there.add(p.id());
            OutsideWriter.Held h = held.get(p.id());
            if (h != null) {
                refresh(java.util.Objects.requireNonNull(line), h, p);
            } else if (!p.removal()) {
                line = arrived(file, line, p);
            } else if (line != null) {
                removed(line, p);
            }
        }
        if (line == null) {
            return;
        }
        for (OutsideWriter.Held h : held.values()) {
            if (!there.contains(h.point())) {
                forget(line, h);
            }
        }
        settle(file, line, told);
        writer.remember(file.key(), line, file.tag());
    }

    private void followName(OutsideSystem.File file, long line) throws IOException {
        Optional<LiveEntry> live = writer.live(line);
        if (live.isPresent() && !writer.path(live.get()).equals(file.path())) {
            writer.moved(live.get(), file.path(), now, "");
            points++;
        }
    }

    private Instant ours(Instant theirs) {
        return theirs.minus(shift);
    }

    private void refresh(long line, OutsideWriter.Held h, OutsideSystem.Point p) throws IOException {
        Optional<Instant> expires = p.expires().map(this::ours);
        boolean same = h.label().equals(p.label()) && h.expires().equals(expires);
        if (!same) {
            writer.hold(line, h.number(), p.id(), p.label(), expires);
        }
        if (!p.removal()) {
            writer.note(line, h.number(), p.note());
        }
    }

    private long arrived(OutsideSystem.File file, @Nullable Long line, OutsideSystem.Point p) throws IOException {
        Coming coming = origins.apply(file.path(), p.sha256());
        OutsideWriter.Arrived content = new OutsideWriter.Arrived(
                file.path(),
                ours(p.at()),
                p.who(),
                nanos(p.modified()),
                coming.origin(),
                coming.source(),
                p.note(),
                OutsideWriter.elsewhere(p.size(), p.sha256()));
        // A file with a key of its own has a line of its own, also where another had the name before.
        OutsideWriter.Stood stood = line == null ? writer.begins(content) : writer.arrives(line, content);
        writer.hold(stood.line(), stood.number(), p.id(), p.label(), p.expires().map(this::ours));
        points++;
        return stood.line();
    }

    static long nanos(Instant at) {
        return Math.addExact(Math.multiplyExact(at.getEpochSecond(), 1_000_000_000L), at.getNano());
    }

    /** A removal is remembered as number 0, so that it is not put down twice. */
    private void removed(long line, OutsideSystem.Point p) throws IOException {
        Optional<LiveEntry> live = writer.live(line);
        if (live.isPresent()) {
            writer.removed(live.get(), ours(p.at()), p.who());
            points++;
        }
        writer.hold(line, 0, p.id(), p.label(), p.expires().map(this::ours));
    }

    private void forget(long line, OutsideWriter.Held h) throws IOException {
        writer.forgot(line, h.number(), h.point());
        forgotten += h.number() > 0 ? 1 : 0;
    }

    /** What is current there becomes current here, when it is not what came last. */
    private void settle(OutsideSystem.File file, long line, List<OutsideSystem.Point> told) throws IOException {
        Optional<LiveEntry> live = writer.live(line);
        OutsideSystem.Point last = told.isEmpty() ? null : told.get(told.size() - 1);
        if (last == null || last.removal()) {
            if (live.isPresent()) {
                writer.removed(live.get(), last == null ? now : ours(last.at()), last == null ? "" : last.who());
                points++;
            }
            return;
        }
        OutsideWriter.Held current = null;
        for (OutsideWriter.Held h : writer.held(line)) {
            boolean newest = current == null || h.number() > current.number();
            current = h.point().equals(last.id()) && newest ? h : current;
        }
        if (current == null || (live.isPresent() && live.get().number() == current.number())) {
            return;
        }
        var content = writer.content(line, current.number());
        OutsideWriter.Stood stood = writer.arrives(
                line,
                new OutsideWriter.Arrived(
                        file.path(),
                        now,
                        "",
                        nanos(last.modified()),
                        live.isPresent() ? Origin.RESTORED : Origin.RETURNED,
                        current.number(),
                        last.note(),
                        new org.mendedleaf.core.vault.StoredContent(
                                content.recipe(),
                                last.size(),
                                content.digest(),
                                content.sha256().orElse(last.sha256()))));
        writer.hold(
                line, stood.number(), last.id(), last.label(), last.expires().map(this::ours));
        points++;
    }

    /** The system says nothing of a file any more. */
    void gone(String key, long line) throws IOException {
        Optional<LiveEntry> live = writer.live(line);
        if (live.isPresent()) {
            writer.removed(live.get(), now, "");
            points++;
        }
        for (OutsideWriter.Held h : writer.held(line)) {
            forget(line, h);
        }
        writer.remember(key, line, "");
    }
}
