package org.mendedleaf.core.capture;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.PlaceWriter;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.vault.StoredContent;

/** Puts the points of a capture on their lines, and commits them in groups. */
final class PointWriter {

    private static final int GROUP_FILES = 1000;
    private static final long GROUP_BYTES = 64L << 20;
    private static final Duration GROUP_TIME = Duration.ofSeconds(1);

    private final WriteSession session;
    private final Place place;
    private final Clock clock;
    private final Authors authors;
    private final Instant lastLook;
    private final boolean first;
    private final Instant started;
    private final LineWriter lines;
    private final List<FolderWork> open = new ArrayList<>();
    private final List<Skipped> troubles = new ArrayList<>();
    private Function<Long, Map<String, SeenName>> before = f -> Map.of();
    private @Nullable GoneFiles gone;
    private long captureId;
    private final List<String> names = new ArrayList<>();
    private long added;
    private long changed;
    private long moved;
    private long removed;
    private long bytes;
    private int groupFiles;
    private long groupBytes;
    private long groupStart = System.nanoTime();

    PointWriter(
            WriteSession session,
            Place place,
            Clock clock,
            Authors authors,
            Instant lastLook,
            boolean first,
            Instant started)
            throws IOException {
        this.session = session;
        this.place = place;
        this.clock = clock;
        this.authors = authors;
        // What a snapshot saw stays what was there at its moment, as with a scan.
        Instant cut = SnapshotStore.of(session).newest(place).orElse(Instant.EPOCH);
        // A scan while the clock stood in the future must not date all that comes behind it.
        Instant look = lastLook.isAfter(started) ? Instant.EPOCH : lastLook;
        this.lastLook = cut.isAfter(look) ? cut : look;
        this.first = first;
        this.started = started;
        this.lines = new LineWriter(session);
        if (first) {
            // Noted at once: from here on the place has a past, even if this capture is interrupted.
            captureId = new PlaceWriter(session).capture(place, 0, new CaptureRecord(started, started, true, 0, 0));
        }
        this.before = folder -> seenBefore(session, folder);
    }

    private static Map<String, SeenName> seenBefore(WriteSession session, long folder) {
        try {
            return ScanStore.entries(session, folder).map(ScanBlob::decode).orElse(Map.of());
        } catch (IOException e) {
            return Map.of();
        }
    }

    LineWriter lines() {
        return lines;
    }

    void setGone(GoneFiles files) {
        gone = files;
    }

    /** What the scan before saw in a folder. */
    Map<String, SeenName> seenBefore(long folder) {
        return before.apply(folder);
    }

    void register(FolderWork work) {
        open.add(work);
    }

    Instant now() {
        return clock.instant();
    }

    void trouble(Skipped skipped) {
        if (skipped.reason().isTrouble()) {
            troubles.add(skipped);
        }
    }

    /** When a file was saved: its modified time, but after the scan that came before, and not in the future. */
    Instant clamp(long mtimeNanos) {
        Instant now = clock.instant();
        Instant saved = Instant.ofEpochSecond(
                Math.floorDiv(mtimeNanos, 1_000_000_000L), Math.floorMod(mtimeNanos, 1_000_000_000L));
        if (saved.isAfter(now)) {
            return now;
        }
        // What that scan saw stays what was there at its moment, unless the clock was wrong then.
        boolean before = !first && !saved.isAfter(lastLook) && !lastLook.isAfter(now);
        return before ? lastLook.plusNanos(1000) : saved;
    }

    FileAttributes facts(DiskEntry e, String who) {
        EntryKind kind = switch (e.type()) {
            case LINK -> EntryKind.LINK;
            case FOLDER -> EntryKind.FOLDER;
            default -> EntryKind.FILE;
        };
        return new FileAttributes(kind, e.size(), e.mtimeNanos(), e.mode(), who);
    }

    private void named(String path) {
        if (names.size() < CaptureResult.NAMED) {
            names.add(path);
        }
    }

    /** A file under another name. */
    void moved(ReadTask task, LiveEntry from, DiskEntry entry) throws IOException {
        FileAttributes facts = facts(entry, authors.remover(task.path()));
        lines.moved(place, from, task.folder().id(), task.seen().name(), facts, now());
        moved++;
        named(task.path());
        groupFiles++;
    }

    /** A file whose content was read, or could not be. */
    void take(ReadTask.Result result) throws IOException {
        ReadTask task = result.task();
        String name = task.seen().name();
        Optional<StoredContent> content = result.stored();
        if (content.isPresent()) {
            put(task, content.get(), result);
            bytes += content.get().length();
            groupBytes += content.get().length();
        } else {
            refused(result);
        }
        boolean settled = result.outcome() == ReadTask.Outcome.STORED && result.settled();
        // What cannot be kept as it is stays so until it is changed.
        task.folder().wasRead(name, settled || result.outcome() == ReadTask.Outcome.NO_TEXT);
        groupFiles++;
        boolean due = groupFiles >= GROUP_FILES
                || groupBytes >= GROUP_BYTES
                || System.nanoTime() - groupStart > GROUP_TIME.toNanos();
        if (due) {
            commitGroup();
        }
    }

    private void put(ReadTask task, StoredContent content, ReadTask.Result result) throws IOException {
        DiskEntry entry = result.entry();
        FileAttributes facts = facts(entry, authors.author(task.path(), result.owner()));
        LiveEntry live = task.live();
        if (live != null) {
            boolean same = live.kind() == facts.kind()
                    && lines.content(live.line(), live.number()).digest().equals(content.digest());
            if (same) {
                lines.storedAgain(live.line(), content);
            }
            if (!same) {
                lines.changed(place, live, content, arrival(facts, Origin.SAVED));
                changed++;
                named(task.path());
            } else if (live.mtimeNanos() != facts.mtimeNanos() || live.mode() != facts.mode()) {
                lines.attributes(live, facts, clamp(facts.mtimeNanos()));
            }
            return;
        }
        long folder = task.folder().id();
        String name = task.seen().name();
        GoneFiles files = gone;
        Optional<LiveEntry> from = files == null || entry.type() != DiskEntry.Type.FILE
                ? Optional.empty()
                : files.takeEqual(folder, name, content);
        if (from.isPresent()) {
            lines.storedAgain(from.get().line(), content);
            moved(task, from.get(), entry);
            return;
        }
        // During the first capture no name was there before.
        Optional<LineWriter.Gone> ended = first ? Optional.empty() : lines.gone(folder, name);
        if (ended.isPresent()) {
            lines.returned(place, folder, ended.get(), content, arrival(facts, Origin.RETURNED));
        } else {
            lines.newLine(place, folder, name, content, arrival(facts, first ? Origin.FOUND : Origin.SAVED));
        }
        added++;
        named(RelativePath.child(lines.path(folder), name));
    }

    private LineWriter.Arrival arrival(FileAttributes facts, Origin origin) {
        return new LineWriter.Arrival(facts, origin, 0, clamp(facts.mtimeNanos()), now(), "");
    }

    private void refused(ReadTask.Result result) throws IOException {
        Skipped.Reason reason = switch (result.outcome()) {
            case BUSY -> Skipped.Reason.BUSY;
            case NO_PERMISSION -> Skipped.Reason.NO_PERMISSION;
            case UNREADABLE -> Skipped.Reason.UNREADABLE;
            case NO_TEXT -> Skipped.Reason.NAME;
            default -> null;
        };
        if (reason == null) {
            return;
        }
        IOException error = result.error();
        String detail = error == null ? "" : String.valueOf(error.getMessage());
        Skipped skipped = new Skipped(result.task().path(), reason, detail, now());
        ScanStore.addSkipped(session, place, result.task().folder().id(), skipped);
        trouble(skipped);
    }

    private void commitGroup() throws IOException {
        remember(false);
        session.commit();
        groupFiles = 0;
        groupBytes = 0;
        groupStart = System.nanoTime();
    }

    /** Remembers folders that are through; at the end, also those that waited for it. */
    private void remember(boolean atEnd) throws IOException {
        List<FolderWork> still = new ArrayList<>();
        for (FolderWork work : open) {
            if (atEnd ? work.isRead() : work.isThrough()) {
                ScanStore.put(session, work.id(), started, work.blob());
            } else {
                still.add(work);
            }
        }
        open.clear();
        open.addAll(still);
    }

    /** What is gone: files, and folders. */
    record Gone(GoneFiles files, List<LiveEntry> folders) {}

    /** Ends the lines of what is gone and turned up nowhere. */
    void end(Gone what) throws IOException {
        StillThere there = new StillThere(place.root());
        // What one scan finds gone went at one moment.
        Instant at = now();
        for (LiveEntry file : what.files().rest()) {
            if (there.is(lines.path(file.folder()), file.name(), file.kind())) {
                continue;
            }
            lines.ended(
                    place, file, EventKind.REMOVED, authors.remover(what.files().pathOf(file)), at);
            removed++;
            named(what.files().pathOf(file));
        }
        for (LiveEntry folder : what.folders()) {
            if (there.is(lines.path(folder.folder()), folder.name(), folder.kind())) {
                continue;
            }
            lines.ended(place, folder, EventKind.REMOVED, "", at);
        }
        there.close();
        open.removeIf(w -> there.folders().contains(w.path()));
        remember(true);
    }

    CaptureResult result(long seen, boolean cancelled) {
        return new CaptureResult(added, changed, moved, removed, seen, bytes, troubles, cancelled, names);
    }

    /** Commits the rest. */
    void finish(CaptureResult result) throws IOException {
        remember(false);
        TrustedTime.of(session, now());
        if (first || result.points() > 0) {
            new PlaceWriter(session)
                    .capture(
                            place,
                            captureId,
                            new CaptureRecord(started, now(), first, result.points(), result.bytes()));
        }
        session.commit();
    }
}
