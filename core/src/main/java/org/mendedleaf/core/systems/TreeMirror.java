package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.StoredContent;

/** Brings the lines of a place up to what the whole of it held at a moment; moments come in their order. */
final class TreeMirror {

    private final OutsideWriter writer;
    private final Duration shift;
    private final Origin origin;
    private final BiFunction<String, Digest, FileMirror.Coming> origins;
    private long points;

    TreeMirror(
            OutsideWriter writer,
            Duration shift,
            Origin origin,
            BiFunction<String, Digest, FileMirror.Coming> origins) {
        this.writer = writer;
        this.shift = shift;
        this.origin = origin;
        this.origins = origins;
    }

    long points() {
        return points;
    }

    /**
     * Takes over what was there at a moment.
     *
     * @param previous the moment before this one; what changed did so after it
     * @param at the moment
     */
    void take(List<OutsideSystem.InTree> tree, Instant previous, Instant at) throws IOException {
        Map<String, LiveEntry> live = writer.live();
        for (OutsideSystem.InTree f : tree) {
            LiveEntry there = live.get(f.path());
            long modified = FileMirror.nanos(f.modified());
            Digest sha = f.sha256().orElseThrow();
            if (there != null
                    && there.size() == f.size()
                    && sha(there).map(sha::equals).orElse(false)) {
                continue;
            }
            arrive(f, clamp(f.modified().minus(shift), previous, at), modified, OutsideWriter.elsewhere(f.size(), sha));
        }
        points += remove(writer, tree, at, false);
    }

    private Optional<Digest> sha(LiveEntry there) throws IOException {
        LineWriter.Content content = writer.content(there.line(), there.number());
        return content.sha256();
    }

    private void arrive(OutsideSystem.InTree f, Instant saved, long modified, StoredContent content)
            throws IOException {
        FileMirror.Coming coming =
                content.sha256() == null ? new FileMirror.Coming(origin, 0) : origins.apply(f.path(), content.sha256());
        boolean ours = coming.origin() == Origin.RESTORED;
        writer.arrives(
                null,
                new OutsideWriter.Arrived(
                        f.path(),
                        saved,
                        f.who(),
                        modified,
                        ours ? Origin.RESTORED : origin,
                        ours ? coming.source() : 0,
                        "",
                        content));
        points++;
    }

    /** When it was saved: its modified time, but after the moment before and not after this one. */
    static Instant clamp(Instant modified, Instant previous, Instant at) {
        if (modified.isAfter(at)) {
            return at;
        }
        return modified.isAfter(previous)
                ? modified
                : previous.plusNanos(1000).isAfter(at) ? at : previous.plusNanos(1000);
    }

    /** Takes over a content that came into the vault; returns whether it is new. */
    boolean stored(OutsideSystem.InTree f, StoredContent content, Instant now) throws IOException {
        LiveEntry there = writer.at(f.path()).orElse(null);
        long modified = FileMirror.nanos(f.modified());
        long line;
        boolean fresh = there == null
                || !writer.content(there.line(), there.number()).digest().equals(content.digest());
        if (fresh) {
            Instant known = f.modified().equals(Instant.EPOCH) ? now : f.modified();
            Instant previous = there == null ? Instant.EPOCH : org.mendedleaf.core.time.Moment.instant(there.from());
            arrive(f, clamp(known, previous, now), modified, content);
            line = writer.at(f.path()).orElseThrow().line();
        } else {
            line = java.util.Objects.requireNonNull(there).line();
        }
        writer.remember(f.path(), line, f.tag());
        return fresh;
    }

    /** Ends the lines of what is not there; returns how many. Where files are known by tags, theirs are forgotten. */
    static long remove(OutsideWriter writer, List<OutsideSystem.InTree> tree, Instant at, boolean tagged)
            throws IOException {
        Set<String> paths = new HashSet<>();
        tree.forEach(f -> paths.add(f.path()));
        long n = 0;
        for (Map.Entry<String, LiveEntry> e : writer.live().entrySet()) {
            if (!paths.contains(e.getKey())) {
                writer.removed(e.getValue(), at, "");
                if (tagged) {
                    writer.remember(e.getKey(), e.getValue().line(), "");
                }
                n++;
            }
        }
        return n;
    }
}
