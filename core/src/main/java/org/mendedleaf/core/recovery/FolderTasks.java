package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.NoSuchFileException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.words.Words;

/** Makes and removes folders of a protected folder, so that the catalogue knows of them as of files. */
final class FolderTasks {

    private static final int OWNER_ALL = 0b111_000_000;

    private final WriteSession session;
    private final Place place;
    private final InPlace files;
    private final Clock clock;
    private final String who;

    FolderTasks(WriteSession session, Place place, InPlace files, Clock clock, String who) {
        this.session = session;
        this.place = place;
        this.files = files;
        this.clock = clock;
        this.who = who;
    }

    /** Makes a folder, and those above it that are not there. */
    Task.Outcome make(TreeAt.Folder wanted, JournalWriter noting) throws IOException {
        Optional<LiveEntry> live = files.live(wanted.path());
        if (live.isPresent()) {
            return live.get().kind() == EntryKind.FOLDER
                    ? Task.Outcome.DONE
                    : Task.Outcome.failed(Words.of("failure.exists"));
        }
        int item = noting.intend(foresee(wanted.path()));
        session.commit();
        try (SafeFolder made = SafeFolder.openOrCreate(place.root(), wanted.path(), m -> {});
                SafeFolder above = SafeFolder.open(place.root(), RelativePath.parent(wanted.path()))) {
            made.force();
            above.setAttributes(RelativePath.name(wanted.path()), wanted.mtimeNanos(), wanted.mode() | OWNER_ALL);
        } catch (IOException e) {
            noting.didNot(item);
            session.commit();
            return InPlace.failed(e);
        }
        appear(wanted.path());
        session.commit();
        return Task.Outcome.DONE;
    }

    /** The folders of a path that are not there yet, as items of the journal. */
    List<JournalWriter.Intent> foresee(String folderPath) throws IOException {
        List<JournalWriter.Intent> found = new ArrayList<>();
        String at = folderPath;
        while (!at.isEmpty() && files.live(at).isEmpty()) {
            found.add(
                    0,
                    new JournalWriter.Intent(
                            files.lines().folder(place, RelativePath.parent(at)), RelativePath.name(at), 0, 0));
            at = RelativePath.parent(at);
        }
        return found;
    }

    /** Makes known to the catalogue the folders that had to be made for a path. */
    void appear(String folderPath) throws IOException {
        // From the top: a path may be deeper than a stack is.
        for (int end = folderPath.indexOf('/'); !folderPath.isEmpty(); end = folderPath.indexOf('/', end + 1)) {
            String path = end < 0 ? folderPath : folderPath.substring(0, end);
            String above = RelativePath.parent(path);
            String name = RelativePath.name(path);
            long parent = files.lines().folder(place, above);
            if (files.lines().live(parent, name).isEmpty()) {
                try (SafeFolder folder = SafeFolder.open(place.root(), above)) {
                    DiskEntry disk = folder.find(name).orElseThrow();
                    FileAttributes facts = new FileAttributes(EntryKind.FOLDER, 0, disk.mtimeNanos(), disk.mode(), who);
                    files.lines().folderAppears(place, parent, above, name, facts, clock.instant());
                }
            }
            if (end < 0) {
                return;
            }
        }
    }

    /** Removes a folder when it is empty; one that is not, or is gone, is no trouble. */
    Task.Outcome remove(String path, JournalWriter noting) throws IOException {
        Optional<LiveEntry> live = files.live(path).filter(l -> l.kind() == EntryKind.FOLDER);
        if (live.isEmpty()) {
            return Task.Outcome.DONE;
        }
        int item = noting.intend(
                List.of(new JournalWriter.Intent(live.get().folder(), live.get().name(), 0, 1)));
        session.commit();
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            folder.deleteFolder(RelativePath.name(path));
        } catch (NoSuchFileException e) {
            // Its time in the catalogue ends below.
        } catch (IOException e) {
            noting.didNot(item);
            session.commit();
            return e instanceof DirectoryNotEmptyException ? Task.Outcome.DONE : InPlace.failed(e);
        }
        files.lines().ended(place, live.get(), EventKind.REMOVED, who, clock.instant());
        ScanStore.forget(session, live.get().child());
        session.commit();
        return Task.Outcome.DONE;
    }
}
