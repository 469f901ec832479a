package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.time.Clock;
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
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileFacts;
import org.mendedleaf.core.line.LineWriter;
import org.mendedleaf.core.line.LiveEntry;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.line.WriteSession;
import org.mendedleaf.core.vault.ContentReader;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.words.Words;

/** Changing files within a protected folder such that whatever was there is in the vault first. */
final class InPlace {

    private final WriteSession session;
    private final Place place;
    private final Clock clock;
    private final String who;
    private final LineWriter lines;
    private final ContentReader contents;
    private final Capture capture;

    InPlace(
            OpenVault vault,
            WriteSession session,
            Place place,
            Clock clock,
            Authors authors,
            String who,
            ContentReader contents) {
        this.session = session;
        this.place = place;
        this.clock = clock;
        this.who = who;
        this.lines = new LineWriter(session);
        this.contents = contents;
        this.capture = new Capture(vault, place, clock, authors);
    }

    LineWriter lines() {
        return lines;
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
        List<String> files = new java.util.ArrayList<>();
        List<String> below = new java.util.ArrayList<>();
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
            return Optional.of(new Existing(EntryKind.FOLDER, Optional.empty(), 0));
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
    private static boolean agrees(LiveEntry live, DiskEntry disk) {
        boolean folder = live.kind() == EntryKind.FOLDER;
        if (folder || disk.type() == DiskEntry.Type.FOLDER) {
            return folder && disk.type() == DiskEntry.Type.FOLDER;
        }
        boolean sameKind = (live.kind() == EntryKind.LINK) == (disk.type() == DiskEntry.Type.LINK);
        return sameKind && live.size() == disk.size() && live.mtimeNanos() == disk.mtimeNanos();
    }

    /** What one change did to the lines, for the journal. */
    record Done(long folder, String name, long line, int before, int after) {}

    /**
     * Writes a version to a path, where nothing is or what is there is in the vault, and adds the point to its line.
     *
     * @param done told what changed
     * @return number of the new version
     */
    int put(Version version, String path, boolean mayReplace, java.util.function.Consumer<Done> done, Progress progress)
            throws IOException {
        String folderPath = RelativePath.parent(path);
        String name = RelativePath.name(path);
        try (SafeFolder folder = SafeFolder.openOrCreate(place.root(), folderPath, made -> {})) {
            SafeWrite write = new SafeWrite(folder, contents);
            String beside = write.writeBeside(version, progress);
            try {
                Optional<DiskEntry> there = folder.find(name);
                Optional<LiveEntry> live = live(path);
                if (there.isPresent() && (!mayReplace || live.isEmpty() || !agrees(live.get(), there.get()))) {
                    throw new IOException(Words.of("restore.changedMeanwhile"));
                }
                write.place(beside, name);
            } catch (IOException e) {
                write.deleteQuietly(beside);
                throw e;
            }
            folder.force();
            return record(version, folderPath, name, folder.find(name).orElseThrow(), done);
        }
    }

    private int record(
            Version version, String folderPath, String name, DiskEntry disk, java.util.function.Consumer<Done> done)
            throws IOException {
        appear(folderPath, done);
        long folder = lines.folder(place, folderPath);
        Optional<LiveEntry> live = lines.live(folder, name);
        FileFacts facts = new FileFacts(version.kind(), disk.size(), disk.mtimeNanos(), disk.mode(), who);
        StoredContent content = new StoredContent(
                version.recipe(),
                version.size(),
                version.digest(),
                version.sha256().orElse(null));
        LineWriter.Arrival arrival = new LineWriter.Arrival(
                facts,
                version.number() == 0 ? version.origin() : Origin.RESTORED,
                version.number(),
                clock.instant(),
                clock.instant(),
                version.number() == 0 ? version.note() : "");
        if (live.isPresent() && live.get().line() == version.line()) {
            int after = lines.changed(place, live.get(), content, arrival);
            done.accept(new Done(folder, name, version.line(), live.get().number(), after));
            return after;
        }
        if (live.isPresent()) {
            // Another line has the name now: it ends here, whole, and this one goes on.
            lines.ended(place, live.get(), EventKind.REMOVED, who, clock.instant());
            done.accept(new Done(folder, name, live.get().line(), live.get().number(), 0));
        }
        Optional<LineWriter.Gone> gone = lines.goneLine(version.line());
        if (gone.isPresent()) {
            int after = lines.returnedTo(place, folder, name, gone.get(), content, arrival);
            done.accept(new Done(folder, name, version.line(), 0, after));
            return after;
        }
        // Its line lives elsewhere: what was put here begins a line of its own.
        long line = lines.newLine(place, folder, name, content, arrival);
        done.accept(new Done(folder, name, line, 0, 1));
        return 1;
    }

    /** Makes known to the catalogue the folders that had to be made for a path. */
    private void appear(String folderPath, java.util.function.Consumer<Done> done) throws IOException {
        if (folderPath.isEmpty()) {
            return;
        }
        String above = RelativePath.parent(folderPath);
        String name = RelativePath.name(folderPath);
        appear(above, done);
        long parent = lines.folder(place, above);
        if (lines.live(parent, name).isEmpty()) {
            try (SafeFolder folder = SafeFolder.open(place.root(), above)) {
                DiskEntry disk = folder.find(name).orElseThrow();
                FileFacts facts = new FileFacts(EntryKind.FOLDER, 0, disk.mtimeNanos(), disk.mode(), who);
                lines.folderAppears(place, parent, above, name, facts, clock.instant());
            }
            done.accept(new Done(parent, name, 0, 0, 0));
        }
    }

    /** Removes a file whose content is in the vault. */
    void remove(String path, java.util.function.Consumer<Done> done) throws IOException {
        String name = RelativePath.name(path);
        LiveEntry live = live(path).orElseThrow(() -> new NoSuchFileException(path));
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            Optional<DiskEntry> disk = folder.find(name);
            if (disk.isPresent() && !agrees(live, disk.get())) {
                throw new IOException(Words.of("restore.changedMeanwhile"));
            }
            if (disk.isPresent()) {
                folder.delete(name);
                folder.force();
            }
        }
        lines.ended(place, live, EventKind.REMOVED, who, clock.instant());
        done.accept(new Done(live.folder(), name, live.line(), live.number(), 0));
    }

    /** Removes a folder that a restore made, when it is empty. */
    void removeFolder(String folderPath, String name) throws IOException {
        try (SafeFolder folder = SafeFolder.open(place.root(), folderPath)) {
            folder.deleteFolder(name);
        } catch (NoSuchFileException | java.nio.file.DirectoryNotEmptyException e) {
            return;
        }
        Optional<LiveEntry> live = live(RelativePath.child(folderPath, name));
        if (live.isPresent() && live.get().kind() == EntryKind.FOLDER) {
            lines.ended(place, live.get(), EventKind.REMOVED, who, clock.instant());
            org.mendedleaf.core.line.ScanStore.forget(session, live.get().child());
        }
    }
}
