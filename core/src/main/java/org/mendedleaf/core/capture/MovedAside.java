package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.mendedleaf.core.catalogue.AsideStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.StoredContent;

/**
 * Files that have to make space are moved aside, under a name of ours, and looked at once more before they go: what somebody
 * saved into one in that very moment becomes a version. A program that still has it open for writing is waited for; one
 * that keeps it open is not, and the file stays aside until a later scan. Which files are aside stands in the catalogue
 * before they are moved, so that after a kill none goes that was not looked at.
 */
public final class MovedAside {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(MovedAside.class);

    /** So long it is waited for a program that writes. */
    private static final Duration PATIENCE = Duration.ofSeconds(2);

    private static final Duration STEP = Duration.ofMillis(5);

    /** So long after it was moved aside a file is looked at once more. */
    private static final long AGAIN_NANOS = TimeUnit.MILLISECONDS.toNanos(300);

    private final List<Aside> lookAgain = new ArrayList<>();

    /** What was saved this shortly ago may have been saved twice with the same time and size. */
    private static final long FRESH_NANOS = TimeUnit.SECONDS.toNanos(3);

    private final WriteSession session;
    private final Place place;
    private final LineWriter lines;
    private final Authors authors;
    private final Clock clock;
    private final Set<String> staying = new HashSet<>();
    private long waitUntil;

    /** Files of a place that are moved aside within a session. */
    public MovedAside(WriteSession session, Place place, LineWriter lines, Authors authors, Clock clock) {
        this.session = session;
        this.place = place;
        this.lines = lines;
        this.authors = authors;
        this.clock = clock;
    }

    /**
     * A content that somebody saved and nobody had captured.
     *
     * @param content that is in the vault
     * @param facts of the file
     * @param saved when
     */
    public record Save(StoredContent content, FileAttributes facts, Instant saved) {}

    /** Notes that a file may be moved aside to this name. To be committed before it is. */
    public void willMove(String name, String path) throws IOException {
        AsideStore.put(session, place, new AsideStore.Aside(name, path));
    }

    /**
     * What was saved into a file after its last capture and before it was moved aside, or is being saved.
     *
     * @param name that it has now
     * @param captured what the catalogue holds as present under the path that it had
     * @return empty when it is as it was captured
     */
    public Optional<Save> saved(SafeFolder folder, String name, LiveEntry captured) throws IOException {
        waitForWriters(folder, name);
        Optional<DiskEntry> entry = folder.look(name);
        if (entry.isEmpty() || isAsCaptured(entry.get(), captured)) {
            return Optional.empty();
        }
        String path = RelativePath.child(lines.path(captured.folder()), captured.name());
        Optional<Save> save = read(folder, name, entry.get(), path);
        return save.filter(s -> !isContentOf(captured, s));
    }

    private boolean isContentOf(LiveEntry captured, Save save) {
        try {
            return captured.kind() == save.facts().kind()
                    && lines.content(captured.line(), captured.number())
                            .digest()
                            .equals(save.content().digest());
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private static boolean isAsCaptured(DiskEntry entry, LiveEntry captured) {
        boolean link = entry.type() == DiskEntry.Type.LINK;
        return link == (captured.kind() == EntryKind.LINK)
                && entry.size() == captured.size()
                && entry.mtimeNanos() == captured.mtimeNanos()
                && !isFresh(entry);
    }

    private static boolean isFresh(DiskEntry entry) {
        long now = TimeUnit.MILLISECONDS.toNanos(System.currentTimeMillis());
        return Math.abs(now - entry.mtimeNanos()) < FRESH_NANOS;
    }

    /**
     * Whether a program may still write to a file: it has it open, or, where that cannot be asked, wrote to it a moment ago.
     */
    public static boolean isInUse(SafeFolder folder, String name) throws IOException {
        Optional<Boolean> written = folder.isBeingWritten(name);
        return written.isPresent()
                ? written.get()
                : folder.find(name).filter(MovedAside::isFresh).isPresent();
    }

    private void waitForWriters(SafeFolder folder, String name) throws IOException {
        if (waitUntil == 0) {
            waitUntil = System.nanoTime() + PATIENCE.toNanos();
        }
        while (folder.isBeingWritten(name).orElse(false)) {
            if (System.nanoTime() - waitUntil > 0) {
                log.info("{} is still being written and stays aside", name);
                staying.add(name);
                return;
            }
            LockSupport.parkNanos(STEP.toNanos());
        }
    }

    private Optional<Save> read(SafeFolder folder, String name, DiskEntry entry, String path) throws IOException {
        try (ContentWorker worker = new ContentWorker(session.chunks())) {
            Optional<StableRead.Whole> whole = StableRead.read(folder, name, entry.type(), worker, n -> {});
            if (whole.isEmpty()) {
                staying.add(name);
                return Optional.empty();
            }
            DiskEntry now = whole.get().entry();
            EntryKind kind = now.type() == DiskEntry.Type.LINK ? EntryKind.LINK : EntryKind.FILE;
            String who = authors.author(path, whole.get().owner());
            FileAttributes facts = new FileAttributes(kind, now.size(), now.mtimeNanos(), now.mode(), who);
            Instant saved = Instant.EPOCH.plusNanos(now.mtimeNanos());
            Instant moment = clock.instant();
            return Optional.of(new Save(whole.get().content(), facts, saved.isAfter(moment) ? moment : saved));
        }
    }

    /** Puts a save down as the next version of a file that is present; returns its number. */
    public int putDown(LiveEntry live, Save save) throws IOException {
        return lines.changed(place, live, save.content(), arrival(save));
    }

    private LineWriter.Arrival arrival(Save save) {
        return new LineWriter.Arrival(save.facts(), Origin.SAVED, 0, save.saved(), clock.instant(), "");
    }

    /** Removes a file that was moved aside and looked at, unless some program may still write to it. */
    public void remove(SafeFolder folder, String name) throws IOException {
        if (staying.contains(name)) {
            return;
        }
        Optional<DiskEntry> entry = folder.find(name);
        if (entry.isPresent()) {
            if (isInUse(folder, name)) {
                return;
            }
            if (folder.isBeingWritten(name).isEmpty()) {
                lookAgain.add(new Aside(folder.path(), name, entry.get(), System.nanoTime()));
                return;
            }
            folder.delete(name);
        }
        AsideStore.forget(session, name);
    }

    /** A file as it was when it was to be removed. */
    private record Aside(String folder, String name, DiskEntry entry, long since) {}

    /**
     * Where a system does not say who has a file open, somebody may just have been opening it when it was moved: such files are
     * looked at once more a moment later. What was written to by then stays aside, for a later scan.
     */
    public void finish() throws IOException {
        for (Aside a : lookAgain) {
            long left = AGAIN_NANOS - (System.nanoTime() - a.since());
            if (left > 0) {
                LockSupport.parkNanos(left);
            }
            try (SafeFolder folder = SafeFolder.open(place.root(), a.folder())) {
                Optional<DiskEntry> now = folder.find(a.name());
                if (now.isPresent() && now.get().looksSame(a.entry())) {
                    folder.delete(a.name());
                    AsideStore.forget(session, a.name());
                }
            } catch (NoSuchFileException | NotDirectoryException e) {
                log.debug("{} is gone with its folder", a, e);
            }
        }
        lookAgain.clear();
    }

    /** Looks at what earlier runs left aside. What cannot be looked at now is left for the next time. */
    public void settle() throws IOException {
        for (AsideStore.Aside aside : AsideStore.of(session, place)) {
            try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(aside.path()))) {
                Optional<DiskEntry> entry = folder.look(aside.name());
                if (entry.isEmpty()) {
                    AsideStore.forget(session, aside.name());
                } else if (!isInUse(folder, aside.name())) {
                    settle(folder, aside, entry.get());
                }
            } catch (NoSuchFileException | NotDirectoryException e) {
                AsideStore.forget(session, aside.name());
            } catch (org.mendedleaf.core.vault.VaultException e) {
                throw e;
            } catch (IOException e) {
                log.warn("{} stays aside", aside, e);
            }
        }
        finish();
    }

    private void settle(SafeFolder folder, AsideStore.Aside aside, DiskEntry entry) throws IOException {
        Optional<Save> save = read(folder, aside.name(), entry, aside.path());
        if (save.isEmpty()) {
            return;
        }
        long id = lines.folder(place, RelativePath.parent(aside.path()));
        String name = RelativePath.name(aside.path());
        Optional<LiveEntry> live = lines.live(id, name).filter(l -> l.kind() != EntryKind.FOLDER);
        Optional<LineWriter.Gone> gone = live.isPresent() ? Optional.empty() : lines.gone(id, name);
        long line =
                live.map(LiveEntry::line).orElse(gone.map(LineWriter.Gone::line).orElse(0L));
        if (!lines.holds(line, save.get().content().digest())) {
            log.info("{} was saved while it was replaced: kept as a version", aside.path());
            if (live.isPresent()) {
                putBehind(live.get(), save.get());
            } else {
                putBehindItsEnd(id, name, gone, save.get());
            }
            session.commit();
        }
        remove(folder, aside.name());
    }

    /** A version that is not what the file holds now: that follows it once more. */
    private void putBehind(LiveEntry live, Save save) throws IOException {
        LineWriter.Content now = lines.content(live.line(), live.number());
        putDown(live, save);
        LiveEntry there = lines.live(live.folder(), live.name()).orElseThrow();
        String who = lines.who(live.line(), live.number());
        FileAttributes facts = new FileAttributes(live.kind(), live.size(), live.mtimeNanos(), live.mode(), who);
        StoredContent content = new StoredContent(
                now.recipe(), live.size(), now.digest(), now.sha256().orElse(null));
        Instant at = clock.instant();
        lines.changed(place, there, content, new LineWriter.Arrival(facts, Origin.RESTORED, live.number(), at, at, ""));
    }

    /** A version of a file that is removed and stays so. */
    private void putBehindItsEnd(long folder, String name, Optional<LineWriter.Gone> gone, Save save)
            throws IOException {
        if (gone.isPresent()) {
            lines.returned(place, folder, gone.get(), save.content(), arrival(save));
        } else {
            lines.newLine(place, folder, name, save.content(), arrival(save));
        }
        LiveEntry live = lines.live(folder, name).orElseThrow();
        lines.ended(place, live, EventKind.REMOVED, "", clock.instant());
    }
}
