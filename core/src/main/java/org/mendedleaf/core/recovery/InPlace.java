package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.Scope;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.CheckOutStore;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileFacts;
import org.mendedleaf.core.line.LineWriter;
import org.mendedleaf.core.line.LiveEntry;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.ScanStore;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.WriteSession;
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

    InPlace(
            OpenVault vault,
            WriteSession session,
            Place place,
            Clock clock,
            Authors authors,
            Rights rights,
            ContentReader contents) {
        this.session = session;
        this.place = place;
        this.clock = clock;
        this.rights = rights;
        this.who = rights.who();
        this.lines = new LineWriter(session);
        this.contents = contents;
        this.capture = new Capture(vault, place, clock, authors);
    }

    LineWriter lines() {
        return lines;
    }

    /** Why the file at a path may not be changed by this person now, in words; empty when it may. */
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
        capture.runWithin(session, new Scope.Folders(folders), Progress.NONE);
        folders.add("");
        for (String folder : folders) {
            removeUnfinished(folder);
        }
    }

    /** What an earlier restore left unfinished when it was killed; nobody else restores while we hold the vault. */
    private void removeUnfinished(String path) throws IOException {
        List<String> files = new ArrayList<>();
        List<String> below = new ArrayList<>();
        try (SafeFolder folder = SafeFolder.open(place.root(), path)) {
            folder.list(new SafeFolder.Visitor() {
                @Override
                public void entry(String name, boolean valid, DiskEntry entry) {
                    if (name.startsWith(SafeFolder.OWN_PREFIX)) {
                        (entry.type() == DiskEntry.Type.FOLDER ? below : files).add(name);
                    }
                }

                @Override
                public void failed(String name, IOException why) {
                    org.slf4j.LoggerFactory.getLogger(InPlace.class).debug("{} is not looked at", name, why);
                }
            });
            for (String name : files) {
                folder.delete(name);
            }
            for (String name : below) {
                folder.deleteFolder(name);
            }
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
     * Carries tasks out in their order, those of one kind in one folder as a group.
     *
     * @return what became of each, as far as it came before somebody cancelled
     */
    List<Task.Outcome> run(List<Task> tasks, Noting noting, Progress progress) throws IOException {
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
                outcomes.addAll(removeAll(group, noting));
            } else if (first instanceof Task.MakeFolder m) {
                outcomes.add(makeFolder(m.folder(), noting));
            } else {
                outcomes.add(removeFolder(first.path(), noting));
            }
            progress.advance(end - at, 0);
            at = end;
        }
        return outcomes;
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
        if (e instanceof VaultException v && !(v instanceof VaultException.Damaged)) {
            throw v;
        }
        return new Task.Outcome(0, Failures.words(e));
    }

    private List<Task.Outcome> removeAll(List<Task> group, Noting noting) throws IOException {
        List<Noting.Intent> intents = new ArrayList<>();
        List<Optional<LiveEntry>> live = new ArrayList<>();
        List<Optional<String>> locked = new ArrayList<>();
        for (Task t : group) {
            Optional<String> why = locked(t.path());
            locked.add(why);
            Optional<LiveEntry> l =
                    why.isPresent() ? Optional.empty() : live(t.path()).filter(e -> e.kind() != EntryKind.FOLDER);
            live.add(l);
            l.ifPresent(e -> intents.add(new Noting.Intent(e.folder(), e.name(), e.line(), e.number())));
        }
        int item = noting.intend(intents);
        session.commit();
        List<Task.Outcome> outcomes = new ArrayList<>();
        try (SafeFolder folder =
                SafeFolder.open(place.root(), RelativePath.parent(group.get(0).path()))) {
            for (int i = 0; i < group.size(); i++) {
                Optional<LiveEntry> l = live.get(i);
                if (l.isEmpty()) {
                    outcomes.add(new Task.Outcome(0, locked.get(i).orElse(Words.of("failure.gone"))));
                    continue;
                }
                try {
                    delete(folder, l.get());
                    outcomes.add(Task.Outcome.DONE);
                    noting.done(item, l.get().line(), 0);
                } catch (IOException e) {
                    outcomes.add(failed(e));
                    noting.didNot(item);
                }
                item++;
            }
            folder.force();
        } catch (NoSuchFileException | NotDirectoryException e) {
            // The whole folder is gone: so are its files, and the next look will say so.
            while (outcomes.size() < group.size()) {
                outcomes.add(new Task.Outcome(0, Failures.words(e)));
            }
        }
        for (int i = 0; i < group.size(); i++) {
            if (outcomes.get(i).isGood()) {
                lines.ended(place, live.get(i).orElseThrow(), EventKind.REMOVED, who, clock.instant());
            }
        }
        session.commit();
        return outcomes;
    }

    /** Deletes a file that is still what was captured; one that is gone already is no trouble. */
    static void delete(SafeFolder folder, LiveEntry live) throws IOException {
        Optional<DiskEntry> disk = folder.find(live.name());
        if (disk.isEmpty()) {
            return;
        }
        if (!agrees(live, disk.get())) {
            throw new IOException(Words.of("restore.changedMeanwhile"));
        }
        folder.delete(live.name());
    }

    private Task.Outcome makeFolder(TreeAt.Folder wanted, Noting noting) throws IOException {
        Optional<LiveEntry> live = live(wanted.path());
        if (live.isPresent()) {
            return live.get().kind() == EntryKind.FOLDER
                    ? Task.Outcome.DONE
                    : new Task.Outcome(0, Words.of("failure.exists"));
        }
        int item = noting.intend(foreseeFolders(wanted.path()));
        session.commit();
        try (SafeFolder made = SafeFolder.openOrCreate(place.root(), wanted.path(), m -> {});
                SafeFolder above = SafeFolder.open(place.root(), RelativePath.parent(wanted.path()))) {
            made.force();
            above.setAttributes(RelativePath.name(wanted.path()), wanted.mtimeNanos(), wanted.mode() | OWNER_ALL);
        } catch (IOException e) {
            noting.didNot(item);
            session.commit();
            return failed(e);
        }
        appear(wanted.path());
        session.commit();
        return Task.Outcome.DONE;
    }

    private static final int OWNER_ALL = 0b111_000_000;

    /** The folders of a path that are not there yet, as items of the journal. */
    List<Noting.Intent> foreseeFolders(String folderPath) throws IOException {
        List<Noting.Intent> found = new ArrayList<>();
        String at = folderPath;
        while (!at.isEmpty() && live(at).isEmpty()) {
            found.add(0, new Noting.Intent(lines.folder(place, RelativePath.parent(at)), RelativePath.name(at), 0, 0));
            at = RelativePath.parent(at);
        }
        return found;
    }

    /** Makes known to the catalogue the folders that had to be made for a path. */
    void appear(String folderPath) throws IOException {
        if (folderPath.isEmpty()) {
            return;
        }
        String above = RelativePath.parent(folderPath);
        String name = RelativePath.name(folderPath);
        appear(above);
        long parent = lines.folder(place, above);
        if (lines.live(parent, name).isEmpty()) {
            try (SafeFolder folder = SafeFolder.open(place.root(), above)) {
                DiskEntry disk = folder.find(name).orElseThrow();
                FileFacts facts = new FileFacts(EntryKind.FOLDER, 0, disk.mtimeNanos(), disk.mode(), who);
                lines.folderAppears(place, parent, above, name, facts, clock.instant());
            }
        }
    }

    /** Removes a folder when it is empty; one that is not, or is gone, is no trouble. */
    private Task.Outcome removeFolder(String path, Noting noting) throws IOException {
        Optional<LiveEntry> live = live(path).filter(l -> l.kind() == EntryKind.FOLDER);
        if (live.isEmpty()) {
            return Task.Outcome.DONE;
        }
        int item = noting.intend(
                List.of(new Noting.Intent(live.get().folder(), live.get().name(), 0, 1)));
        session.commit();
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            folder.deleteFolder(RelativePath.name(path));
        } catch (NoSuchFileException e) {
            // Its time in the catalogue ends below.
        } catch (IOException e) {
            noting.didNot(item);
            session.commit();
            return e instanceof DirectoryNotEmptyException ? Task.Outcome.DONE : failed(e);
        }
        lines.ended(place, live.get(), EventKind.REMOVED, who, clock.instant());
        ScanStore.forget(session, live.get().child());
        session.commit();
        return Task.Outcome.DONE;
    }
}
