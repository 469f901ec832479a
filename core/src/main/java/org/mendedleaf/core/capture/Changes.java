package org.mendedleaf.core.capture;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;

/** Decides for each name of a changed folder what became of it: the same, changed, new, moved, gone, or not kept. */
final class Changes {

    private final WriteSession session;
    private final Place place;
    private final PointWriter points;
    private final LineWriter writer;
    private final GoneFiles gone;
    private final List<LiveEntry> goneFolders = new ArrayList<>();
    private final List<ReadTask> toRead = new ArrayList<>();
    private final Map<Long, Map<String, SeenName>> seenBefore = new HashMap<>();

    Changes(WriteSession session, Place place, PointWriter points) {
        this.session = session;
        this.place = place;
        this.points = points;
        this.writer = points.lines();
        this.gone = new GoneFiles(writer);
        points.setGone(gone);
    }

    /** What has to be read, known names and new ones. */
    List<ReadTask> toRead() {
        return toRead;
    }

    /** What is gone and not found again so far. */
    PointWriter.Gone gone() {
        return new PointWriter.Gone(gone, goneFolders);
    }

    /** Decides about the names of one folder. */
    void decide(FolderScan look, TreeScanner looker) throws IOException {
        long id = writer.folder(place, look.path());
        byte[] blob = look.known();
        Map<String, SeenName> before = blob == null ? Map.of() : ScanBlob.decode(blob);
        seenBefore.put(id, before);
        Map<String, LiveEntry> live = new HashMap<>();
        for (LiveEntry entry : writer.live(id)) {
            live.put(entry.name(), entry);
        }
        FolderWork work = new FolderWork(look.path(), id, look.sorted());
        points.register(work);
        List<Skipped> skipped = new ArrayList<>();
        for (SeenName seen : look.sorted()) {
            LiveEntry known = live.remove(seen.name());
            if (!seen.isKept()) {
                skip(work, seen, known, skipped);
            } else if (seen.entry().type() == DiskEntry.Type.FOLDER) {
                folder(work, seen, known);
            } else {
                file(work, seen, known, before.get(seen.name()));
            }
        }
        for (LiveEntry known : live.values()) {
            gone(work, known);
        }
        ScanStore.skipped(session, place, id, skipped, points.now());
    }

    private void skip(
            FolderWork work, SeenName seen, @org.jspecify.annotations.Nullable LiveEntry known, List<Skipped> into)
            throws IOException {
        Skipped.Reason reason = Skipped.Reason.of(seen.skip().code());
        Skipped skipped = new Skipped(
                RelativePath.child(work.path(), seen.name()),
                reason,
                seen.skip().detail(),
                points.now());
        into.add(skipped);
        points.trouble(skipped);
        if (known != null && reason == Skipped.Reason.LEFT_OUT) {
            leftOut(known);
        }
    }

    private void leftOut(LiveEntry top) throws IOException {
        List<LiveEntry> all = below(top);
        // What is in a folder ends before the folder does.
        for (int i = all.size() - 1; i >= 0; i--) {
            if (all.get(i).kind() == EntryKind.FOLDER) {
                ScanStore.forget(session, all.get(i).child());
            }
            writer.ended(place, all.get(i), EventKind.LEFT_OUT, "", points.now());
        }
    }

    private void folder(FolderWork work, SeenName seen, @org.jspecify.annotations.Nullable LiveEntry known)
            throws IOException {
        if (known != null && known.kind() == EntryKind.FOLDER) {
            if (known.mode() != seen.entry().mode()) {
                writer.attributes(known, points.facts(seen.entry(), ""), points.now());
            }
            return;
        }
        if (known != null) {
            gone(work, known);
        }
        Instant at = points.clamp(seen.entry().mtimeNanos());
        writer.folderAppears(place, work.id(), work.path(), seen.name(), points.facts(seen.entry(), ""), at);
    }

    private void file(
            FolderWork work,
            SeenName seen,
            @org.jspecify.annotations.Nullable LiveEntry known,
            @org.jspecify.annotations.Nullable SeenName before)
            throws IOException {
        if (known != null && known.kind() == EntryKind.FOLDER) {
            gone(work, known);
            known = null;
        }
        boolean same = known != null
                && before != null
                && before.isKept()
                && before.entry().isUntouched(seen.entry());
        if (same && known != null) {
            if (known.mode() != seen.entry().mode()) {
                writer.attributes(known, points.facts(seen.entry(), ""), points.now());
            }
            return;
        }
        work.willRead();
        toRead.add(new ReadTask(work, seen, known));
    }

    private void gone(FolderWork work, LiveEntry known) throws IOException {
        work.waitForEnd();
        goneBelow(known);
    }

    private void goneBelow(LiveEntry top) throws IOException {
        for (LiveEntry known : below(top)) {
            if (known.kind() != EntryKind.FOLDER) {
                Map<String, SeenName> before = seenBefore.get(known.folder());
                gone.add(known, before == null ? null : before.get(known.name()));
                continue;
            }
            goneFolders.add(known);
            seenBefore.computeIfAbsent(known.child(), c -> points.seenBefore(c));
            ScanStore.forget(session, known.child());
        }
    }

    /** What is known of it and of all that is in it, each folder before what it holds; folders may be nested deeply. */
    private List<LiveEntry> below(LiveEntry top) throws IOException {
        List<LiveEntry> all = new ArrayList<>(List.of(top));
        for (int i = 0; i < all.size(); i++) {
            if (all.get(i).kind() == EntryKind.FOLDER) {
                all.addAll(writer.live(all.get(i).child()));
            }
        }
        return all;
    }

    /** Finds moved files without reading them: the same file of the same size and time under a new name. */
    void matchMoves() throws IOException {
        if (gone.isEmpty()) {
            return;
        }
        List<ReadTask> rest = new ArrayList<>();
        for (ReadTask task : toRead) {
            Optional<LiveEntry> from =
                    task.live() == null ? gone.takeSame(task.seen().entry()) : Optional.empty();
            if (from.isPresent()) {
                points.moved(task, from.get(), task.seen().entry());
                task.folder().wasRead(task.seen().name(), true);
            } else {
                rest.add(task);
            }
        }
        toRead.clear();
        toRead.addAll(rest);
    }
}
