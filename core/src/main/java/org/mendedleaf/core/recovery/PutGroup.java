package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.MovedAside;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ContentReader;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.words.Words;

/**
 * Puts versions into one folder. All are written beside their targets and proved; then the journal says what will be
 * changed, and that is committed; then they are moved into place, and their points are put down and committed. Killed in
 * between, the folder holds old contents or new ones, the vault has both, and the action can be undone.
 */
final class PutGroup {

    private final WriteSession session;
    private final Place place;
    private final InPlace files;
    private final LineWriter lines;
    private final JournalWriter noting;
    private final Clock clock;
    private final String who;
    private final MovedAside aside;

    PutGroup(WriteSession session, Place place, InPlace files, JournalWriter noting, Clock clock, String who) {
        this.session = session;
        this.place = place;
        this.files = files;
        this.lines = files.lines();
        this.noting = noting;
        this.clock = clock;
        this.who = who;
        this.aside = files.aside();
    }

    /** One file on its way. */
    private static final class Way {
        private final Task.Put put;
        private SafeWrite.@Nullable Written written;
        private Task.@Nullable Outcome outcome;
        private int firstItem;
        private int items;

        /** What was written, as it is on the disk; a save that comes in later looks otherwise. */
        private @Nullable DiskEntry proved;

        /** Two names of ours for a file that has to make space, and under which of them it is. */
        private final String spare = SafeFolder.ownName();

        private final String spareFrom = SafeFolder.ownName();
        private @Nullable String aside;
        private @Nullable LiveEntry captured;

        Way(Task.Put put) {
            this.put = put;
        }
    }

    List<Task.Outcome> run(List<Task.Put> puts, ContentReader contents, Progress progress) throws IOException {
        String folderPath = RelativePath.parent(puts.get(0).path());
        List<Way> ways = puts.stream().map(Way::new).toList();
        List<JournalWriter.Intent> folders = files.folders().foresee(folderPath);
        try (SafeFolder folder = SafeFolder.openOrCreate(place.root(), folderPath, made -> {})) {
            SafeWrite write = new SafeWrite(folder, contents);
            try {
                write(ways, write, progress);
                intend(folders, ways);
                session.commit();
                moveIntoPlace(ways, folder, write);
            } finally {
                for (Way w : ways) {
                    SafeWrite.Written left = w.written;
                    if (left != null) {
                        write.deleteQuietly(left.name());
                    }
                }
            }
            putDown(ways, folderPath, folder);
            session.commit();
            for (Way w : ways) {
                if (w.aside != null) {
                    aside.remove(folder, w.aside);
                }
            }
        } catch (IOException e) {
            for (Way w : ways) {
                if (w.outcome == null) {
                    w.outcome = InPlace.failed(e);
                }
            }
        }
        return ways.stream()
                .map(w -> w.outcome == null ? Task.Outcome.DONE : w.outcome)
                .toList();
    }

    private void write(List<Way> ways, SafeWrite write, Progress progress) throws IOException {
        for (Way w : ways) {
            Optional<String> locked = files.locked(w.put.path());
            if (locked.isPresent()) {
                w.outcome = Task.Outcome.failed(locked.get());
                continue;
            }
            try {
                w.written = write.write(w.put.version(), progress);
            } catch (IOException | IllegalArgumentException e) {
                w.outcome = InPlace.failed(e);
            }
        }
        // The first sync carries the others.
        for (Way w : ways) {
            SafeWrite.Written written = w.written;
            if (written != null) {
                try {
                    write.prove(written);
                } catch (IOException | IllegalArgumentException e) {
                    w.written = null;
                    w.outcome = InPlace.failed(e);
                }
            }
        }
    }

    private void intend(List<JournalWriter.Intent> folders, List<Way> ways) throws IOException {
        if (ways.stream().noneMatch(w -> w.written != null)) {
            return;
        }
        noting.intend(folders);
        for (Way w : ways) {
            if (w.written != null) {
                List<JournalWriter.Intent> foreseen = foresee(w.put);
                w.firstItem = noting.intend(foreseen);
                w.items = foreseen.size();
                if (w.put.mayReplace()) {
                    aside.willMove(w.written.name(), w.put.path());
                    aside.willMove(w.spare, w.put.path());
                }
                if (!w.put.from().isEmpty()) {
                    aside.willMove(w.spareFrom, w.put.from());
                }
            }
        }
    }

    /** What putting this will change: a file that loses its name to it, the place it moves from, and itself. */
    private List<JournalWriter.Intent> foresee(Task.Put put) throws IOException {
        List<JournalWriter.Intent> found = new ArrayList<>();
        long folder = lines.folder(place, RelativePath.parent(put.path()));
        String name = RelativePath.name(put.path());
        Optional<LiveEntry> live = lines.live(folder, name);
        long line = put.version().line();
        if (live.isPresent() && live.get().line() != line) {
            found.add(new JournalWriter.Intent(
                    folder, name, live.get().line(), live.get().number()));
        }
        movesFrom(put)
                .ifPresent(
                        from -> found.add(new JournalWriter.Intent(from.folder(), from.name(), line, from.number())));
        int before = live.filter(l -> l.line() == line).map(LiveEntry::number).orElse(0);
        boolean elsewhere = lines.liveLine(line).isPresent()
                && before == 0
                && movesFrom(put).isEmpty();
        found.add(new JournalWriter.Intent(folder, name, elsewhere ? 0 : line, before));
        return found;
    }

    /** Where the file of this line is, when it shall move from there and still is there. */
    private Optional<LiveEntry> movesFrom(Task.Put put) throws IOException {
        return put.from().isEmpty()
                ? Optional.empty()
                : files.live(put.from()).filter(l -> l.line() == put.version().line());
    }

    private void moveIntoPlace(List<Way> ways, SafeFolder folder, SafeWrite write) throws IOException {
        // What another one of the group took the place of is gone from there, and in the vault.
        Set<String> placed = new HashSet<>();
        for (Way w : ways) {
            SafeWrite.Written written = w.written;
            if (written == null) {
                continue;
            }
            String name = RelativePath.name(w.put.path());
            try {
                Optional<DiskEntry> there = folder.find(name);
                Optional<LiveEntry> live = files.live(w.put.path());
                boolean kept = live.isPresent() && there.isPresent() && InPlace.agrees(live.get(), there.get());
                if (there.isPresent() && (!w.put.mayReplace() || !kept)) {
                    throw new IOException(Words.of("restore.changedMeanwhile"));
                }
                Optional<LiveEntry> from = movesFrom(w.put).filter(f -> !placed.contains(w.put.from()));
                if (from.isPresent() && !isAsCaptured(w.put.from(), from.get())) {
                    throw new IOException(Words.of("restore.changedMeanwhile"));
                }
                w.proved = folder.find(written.name()).orElseThrow();
                if (live.isPresent() && there.isPresent()) {
                    w.captured = live.get();
                    exchange(w, written.name(), name, folder, write);
                } else {
                    write.place(written.name(), name);
                }
                placed.add(w.put.path());
                w.written = null;
                if (from.isPresent()) {
                    moveAway(w.put.from(), from.get(), w.spareFrom);
                }
            } catch (FileAlreadyExistsException e) {
                w.outcome = Task.Outcome.failed(Words.of("restore.changedMeanwhile"));
            } catch (IOException e) {
                w.outcome = InPlace.failed(e);
            }
        }
        folder.force();
    }

    /** Lets what was written take the place of a file, which is aside afterwards. */
    private static void exchange(Way w, String written, String name, SafeFolder folder, SafeWrite write)
            throws IOException {
        if (folder.exchange(written, name)) {
            w.aside = written;
            return;
        }
        folder.rename(name, w.spare);
        w.aside = w.spare;
        write.place(written, name);
    }

    private boolean isAsCaptured(String path, LiveEntry live) throws IOException {
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            Optional<DiskEntry> disk = folder.find(live.name());
            return disk.isEmpty() || InPlace.agrees(live, disk.get());
        }
    }

    /** Takes the file away from where it was. Where that fails, it stays there and the next look finds it. */
    private void moveAway(String path, LiveEntry live, String spare) {
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            files.delete(folder, live, spare);
            folder.force();
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(PutGroup.class).warn("{} stays where it is", path, e);
        }
    }

    private void putDown(List<Way> ways, String folderPath, SafeFolder folder) throws IOException {
        for (Way w : ways) {
            keepSave(w, folder);
            if (w.outcome != null) {
                for (int i = 0; i < w.items; i++) {
                    noting.didNot(w.firstItem + i);
                }
                continue;
            }
            files.folders().appear(folderPath);
            String name = RelativePath.name(w.put.path());
            Map<Integer, Long> lineOf = new HashMap<>();
            DiskEntry disk = Objects.requireNonNull(w.proved, "expected a file that was placed");
            int number = record(w.put, folderPath, name, disk, lineOf);
            long line = lineOf.getOrDefault(0, w.put.version().line());
            noting.done(w.firstItem + w.items - 1, line, number);
            w.outcome = new Task.Outcome(number, lines.edition(line, number).label(), "");
        }
    }

    /** What somebody saved in the moment in which the file was replaced is a version before it. */
    private void keepSave(Way w, SafeFolder folder) throws IOException {
        LiveEntry captured = w.captured;
        if (w.aside == null || captured == null) {
            return;
        }
        Optional<MovedAside.Save> save = aside.saved(folder, w.aside, captured);
        Optional<LiveEntry> live = files.live(w.put.path()).filter(l -> l.line() == captured.line());
        if (save.isPresent() && live.isPresent()) {
            int number = aside.putDown(live.get(), save.get());
            boolean own = captured.line() == w.put.version().line();
            noting.was(own ? w.firstItem + w.items - 1 : w.firstItem, number);
        }
    }

    private int record(Task.Put put, String folderPath, String name, DiskEntry disk, Map<Integer, Long> lineOf)
            throws IOException {
        Version version = put.version();
        long folder = lines.folder(place, folderPath);
        Optional<LiveEntry> live = lines.live(folder, name);
        FileAttributes facts =
                new FileAttributes(version.kind(), disk.size(), disk.mtimeNanos(), disk.mode(), author(version));
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
                version.number() == 0 ? version.note() : "",
                put.stage());
        if (live.isPresent() && live.get().line() == version.line()) {
            return lines.changed(place, live.get(), content, arrival);
        }
        if (live.isPresent()) {
            // Another line has the name now: it ends here, whole, and this one goes on.
            lines.ended(place, live.get(), EventKind.REMOVED, who, clock.instant());
        }
        Optional<LiveEntry> from = movesFrom(put);
        if (from.isPresent()) {
            return movedBack(from.get(), version, folder, name, facts, content, arrival);
        }
        Optional<LineWriter.Gone> gone = lines.goneLine(version.line());
        if (gone.isPresent()) {
            return lines.returnedTo(place, folder, name, gone.get(), content, arrival);
        }
        // Its line lives elsewhere: what was put here begins a line of its own.
        lineOf.put(0, lines.newLine(place, folder, name, content, arrival));
        return 1;
    }

    /** Who a version is by: what is put in may come from somebody else. */
    private String author(Version version) {
        boolean named = version.origin() == Origin.UPLOADED
                && version.number() == 0
                && !version.who().isEmpty();
        return named ? version.who() : who;
    }

    private int movedBack(
            LiveEntry from,
            Version version,
            long folder,
            String name,
            FileAttributes facts,
            StoredContent content,
            LineWriter.Arrival arrival)
            throws IOException {
        boolean same = lines.content(from.line(), from.number()).digest().equals(version.digest());
        lines.moved(place, from, folder, name, facts, clock.instant());
        return same
                ? from.number()
                : lines.changed(place, lines.liveLine(from.line()).orElseThrow(), content, arrival);
    }
}
