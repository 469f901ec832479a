package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.MovedAside;
import org.mendedleaf.core.capture.Unsettled;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Rights;
import org.mendedleaf.core.vault.ContentReader;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Changing files within a protected folder such that whatever was there is in the vault first, in groups: what will be
 * changed is noted and committed, then the files are moved into place, then their points are put down and committed.
 */
final class InPlace {

    private static final int GROUP_FILES = 64;
    private static final long GROUP_BYTES = 16L << 20;

    private final WriteSession session;
    private final Place place;
    private final Clock clock;
    private final String who;
    private final LineWriter lines;
    private final ContentReader contents;
    private final Capture capture;
    private final Rights rights;
    private final MovedAside aside;
    private final FolderTasks folders;
    private Instant removed = Instant.EPOCH;

    private InPlace(WorkContext context, WriteSession session, Rights rights, ContentReader contents) {
        this.session = session;
        this.place = context.place();
        this.clock = context.clock();
        this.rights = rights;
        this.who = rights.who();
        this.lines = new LineWriter(session);
        this.contents = contents;
        this.capture = context.capture();
        this.aside = new MovedAside(session, place, lines, context.authors(), clock);
        this.folders = new FolderTasks(session, place, this, clock, who);
    }

    /** Changes by this person, who may do what the place allows. */
    static InPlace of(WorkContext context, WriteSession session, Reading reading) throws IOException {
        Rights rights = PlaceRules.of(session, context.place()).rights(context.who(), context.place());
        return new InPlace(context, session, rights, reading.contents());
    }

    MovedAside aside() {
        return aside;
    }

    FolderTasks folders() {
        return folders;
    }

    LineWriter lines() {
        return lines;
    }

    /** Why the file at a path may not be changed by this person now, as a message; empty when it may. */
    Optional<String> locked(String path) throws IOException {
        Optional<LiveEntry> live = live(path).filter(l -> l.kind() != EntryKind.FOLDER);
        Optional<CheckOut> out = live.isEmpty()
                ? Optional.empty()
                : CheckOutStore.of(session).get(live.get().line());
        return rights.locked(out, live.isPresent(), RelativePath.name(path));
    }

    /** Captures what is live and not yet captured in the folders of these paths. */
    void captureFirst(List<String> paths) throws IOException {
        Set<String> folders = new HashSet<>();
        for (String path : paths) {
            folders.add(nearestFolder(RelativePath.parent(path)));
        }
        capture.runWithin(session, new CaptureScope.Folders(folders), Progress.NONE);
        folders.add("");
        folders.forEach(new Leftovers(session, place)::remove);
    }

    /** Captures a file whose content is not what its size and times say; the files beside it are read again too. */
    void captureAnew(String path) throws IOException {
        Optional<Long> folder = lines.knownFolder(place, RelativePath.parent(path));
        if (folder.isPresent()) {
            ScanStore.forget(session, folder.get());
            session.commit();
            captureFirst(List.of(path));
        }
    }

    /** The folder itself, or the nearest one above it that is there. */
    private String nearestFolder(String path) throws IOException {
        String at = path;
        while (!at.isEmpty()) {
            try (SafeFolder folder = SafeFolder.open(place.root(), at)) {
                return folder.path();
            } catch (NoSuchFileException | NotDirectoryException e) {
                at = RelativePath.parent(at);
            }
        }
        return at;
    }

    /** What is there under a path, on the disk and in the catalogue; empty when nothing is. */
    Optional<Existing> existing(String path) throws IOException {
        String name = RelativePath.name(path);
        Optional<DiskEntry> disk;
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            disk = folder.find(name);
        } catch (NoSuchFileException e) {
            return Optional.empty();
        } catch (NotDirectoryException e) {
            return Optional.of(Existing.BLOCKED);
        }
        if (disk.isEmpty()) {
            return Optional.empty();
        }
        Optional<LiveEntry> live = live(path);
        boolean kept = live.isPresent() && agrees(live.get(), disk.get());
        if (kept && live.get().kind() != EntryKind.FOLDER) {
            LiveEntry l = live.get();
            return Optional.of(new Existing(
                    l.kind(), Optional.of(lines.content(l.line(), l.number()).digest()), l.line()));
        }
        EntryKind kind = disk.get().type() == DiskEntry.Type.FOLDER ? EntryKind.FOLDER : EntryKind.FILE;
        return Optional.of(new Existing(kind, Optional.empty(), 0));
    }

    Optional<LiveEntry> live(String path) throws IOException {
        Optional<Long> folder = lines.knownFolder(place, RelativePath.parent(path));
        return folder.isEmpty() ? Optional.empty() : lines.live(folder.get(), RelativePath.name(path));
    }

    /** Whether what is on the disk is still what was captured. */
    static boolean agrees(LiveEntry live, DiskEntry disk) {
        boolean folder = live.kind() == EntryKind.FOLDER;
        if (folder || disk.type() == DiskEntry.Type.FOLDER) {
            return folder && disk.type() == DiskEntry.Type.FOLDER;
        }
        boolean sameKind = (live.kind() == EntryKind.LINK) == (disk.type() == DiskEntry.Type.LINK);
        return sameKind && live.size() == disk.size() && live.mtimeNanos() == disk.mtimeNanos();
    }

    /**
     * Deletes a file that is still what was captured; one that is gone already is no trouble. It is moved aside first, so that
     * what somebody saves in this moment is not lost: then it goes back, and stays.
     *
     * @param spare a name of ours that is noted
     * @throws IOException when it was changed
     */
    void delete(SafeFolder folder, LiveEntry live, String spare) throws IOException {
        Optional<DiskEntry> disk = folder.find(live.name());
        if (disk.isEmpty()) {
            return;
        }
        if (!agrees(live, disk.get())) {
            throw new IOException(Words.of("restore.changedMeanwhile"));
        }
        folder.rename(live.name(), spare);
        Optional<MovedAside.Save> save = aside.saved(folder, spare, live);
        if (save.isPresent() || folder.isBeingWritten(spare).orElse(false)) {
            goBack(folder, live, spare, save);
            throw new IOException(Words.of("restore.changedMeanwhile"));
        }
        aside.remove(folder, spare);
    }

    /** Gives a file its name back. Where something has that by now, its content becomes a version of the line. */
    private void goBack(SafeFolder folder, LiveEntry live, String spare, Optional<MovedAside.Save> save)
            throws IOException {
        try {
            folder.renameNew(spare, live.name());
        } catch (FileAlreadyExistsException e) {
            if (save.isPresent()) {
                aside.putDown(live, save.get());
            }
            aside.remove(folder, spare);
        }
    }

    /** What one action removes goes at one moment. */
    private Instant removedAt() {
        if (removed.equals(Instant.EPOCH)) {
            removed = clock.instant();
        }
        return removed;
    }

    /**
     * Carries tasks out in their order, those of one kind in one folder as a group.
     *
     * @return what became of each, as far as it came before somebody cancelled
     */
    List<Task.Outcome> run(List<Task> tasks, JournalWriter noting, Progress progress) throws IOException {
        unsettle(tasks);
        List<Task.Outcome> outcomes = new ArrayList<>();
        int at = 0;
        while (at < tasks.size() && !progress.isCancelled()) {
            int end = group(tasks, at);
            List<Task> group = tasks.subList(at, end);
            Task first = group.get(0);
            if (first instanceof Task.Put) {
                List<Task.Put> puts = group.stream().map(t -> (Task.Put) t).toList();
                outcomes.addAll(new PutGroup(session, place, this, noting, clock, who).run(puts, contents, progress));
            } else if (first instanceof Task.Remove) {
                outcomes.addAll(new RemoveGroup(session, place, this, noting, who, removedAt()).run(group));
            } else if (first instanceof Task.MakeFolder m) {
                outcomes.add(folders.make(m.folder(), noting));
            } else {
                outcomes.add(folders.remove(first.path(), noting));
            }
            progress.advance(end - at, 0);
            at = end;
        }
        aside.finish();
        // That what was moved aside is gone.
        session.commit();
        return outcomes;
    }

    /** What the last look says of these names is void; committed with what is noted first, before any of them is changed. */
    private void unsettle(List<Task> tasks) throws IOException {
        Map<String, Set<String>> names = new HashMap<>();
        for (Task t : tasks) {
            String from = t instanceof Task.Put p ? p.from() : "";
            for (String path : from.isEmpty() ? List.of(t.path()) : List.of(t.path(), from)) {
                names.computeIfAbsent(RelativePath.parent(path), f -> new HashSet<>())
                        .add(RelativePath.name(path));
            }
        }
        for (Map.Entry<String, Set<String>> e : names.entrySet()) {
            Optional<Long> folder = lines.knownFolder(place, e.getKey());
            if (folder.isPresent()) {
                Unsettled.names(session, folder.get(), e.getValue());
            }
        }
    }

    /** The end of the group that begins here. */
    private static int group(List<Task> tasks, int from) {
        Task first = tasks.get(from);
        if (!(first instanceof Task.Put) && !(first instanceof Task.Remove)) {
            return from + 1;
        }
        String folder = RelativePath.parent(first.path());
        Set<String> names = new HashSet<>();
        long bytes = 0;
        int at = from;
        while (at < tasks.size() && at - from < GROUP_FILES && bytes < GROUP_BYTES) {
            Task t = tasks.get(at);
            boolean together = t.getClass() == first.getClass()
                    && RelativePath.parent(t.path()).equals(folder)
                    && names.add(t.path());
            if (!together) {
                break;
            }
            bytes += t instanceof Task.Put p ? p.version().size() : 0;
            at++;
        }
        return at;
    }

    /** Fails a task for what is wrong with its file; what is wrong with the vault stops all. */
    static Task.Outcome failed(Exception e) throws IOException {
        if (e instanceof java.io.InterruptedIOException) {
            return Task.Outcome.CANCELLED;
        }
        if (e instanceof VaultException.Elsewhere) {
            return Task.Outcome.failed(Words.of("plan.gone"));
        }
        if (e instanceof VaultException v && !(v instanceof VaultException.Damaged)) {
            throw v;
        }
        return Task.Outcome.failed(Failures.words(e));
    }
}
