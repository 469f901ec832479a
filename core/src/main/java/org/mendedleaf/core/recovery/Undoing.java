package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.words.Words;

/**
 * Undoes what was done in a folder, and takes an undoing back. Both put everything that an action changed back to what was
 * there before it; an undoing is an action like others, and notes what it changes.
 */
final class Undoing {

    private final WorkContext context;
    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final String who;

    Undoing(WorkContext context) {
        this.context = context;
        this.vault = context.vault();
        this.place = context.place();
        this.clock = context.clock();
        this.who = context.who();
    }

    FileWork.Undone undo(Action action, Progress progress) throws IOException {
        return switch (action.kind()) {
            case SNAPSHOT_ERASED -> new FileWork.Undone(action, new Snapshots(context).bringBack(action), List.of());
            case PUBLISHED, NOTED -> new RemarksUndo(context).sayBack(action);
            case THINNED -> ThinningUndo.run(vault, place, clock, who, action);
            default -> back(action, action, ActionKind.UNDONE, progress);
        };
    }

    FileWork.Undone redo(Action undo, Progress progress) throws IOException {
        Action original;
        try (Reading reading = vault.read()) {
            original = JournalStore.of(reading).get(undo.undoes()).orElseThrow();
        }
        return switch (original.kind()) {
            case SNAPSHOT_ERASED ->
                new FileWork.Undone(original, new Snapshots(context).eraseAgain(original, undo), List.of());
            case PUBLISHED, NOTED -> new RemarksUndo(context).sayAgain(original, undo);
            case THINNED -> ThinningUndo.again(vault, place, clock, who, original, undo);
            default -> back(undo, original, ActionKind.REDONE, progress);
        };
    }

    /**
     * Puts back what an action changed.
     *
     * @param action whose changes are put back
     * @param about the action that somebody sees: the same, or that which it undid
     */
    private FileWork.Undone back(Action action, Action about, ActionKind kind, Progress progress) throws IOException {
        boolean undoes = kind == ActionKind.UNDONE;
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            PlaceRules.of(session, place)
                    .rights(who, place)
                    .require(about.kind() == ActionKind.LET_GO && !undoes ? Permission.ERASE : Permission.CHANGE);
            InPlace files = InPlace.of(context, session, reading);
            List<Action.Item> items = firstOfEach(action.items());
            files.captureFirst(items.stream().map(Undoing::path).toList());
            JournalWriter noting = new JournalWriter(session, place, clock, who, kind, true);
            List<Task> tasks = new ArrayList<>();
            for (Action.Item item : items) {
                // Where only the past of a file was let go, what it holds now stays.
                boolean past = about.kind() == ActionKind.LET_GO && item.before() == item.after();
                Optional<Task> task = past ? Optional.empty() : back(files, reading, item, action.at());
                task.ifPresent(tasks::add);
            }
            if (about.kind() == ActionKind.LET_GO && undoes) {
                // Kept first: what is needed for putting back must not go.
                noting.copy(pastOnly(items), files.lines());
                PendingDeletionStore.back(session, about.id(), noting.action());
                session.commit();
            }
            progress.begin(Words.of("job.undo"), tasks.size(), 0);
            List<Task.Outcome> outcomes = files.run(tasks, noting, progress);
            List<String> failed = new ArrayList<>();
            Set<String> done = new LinkedHashSet<>();
            items.stream().filter(i -> i.line() != 0).forEach(i -> done.add(path(i)));
            for (int i = 0; i < tasks.size(); i++) {
                boolean good = i < outcomes.size() && outcomes.get(i).isGood();
                if (!good) {
                    done.remove(tasks.get(i).path());
                    String why = i < outcomes.size() ? outcomes.get(i).why() : Words.of("restore.cancelled");
                    failed.add(tasks.get(i).path() + ": " + why);
                }
            }
            // Noted at the end: one that was cut short can be undone again.
            if (outcomes.size() == tasks.size()) {
                if (undoes) {
                    failed.addAll(RemovalUndo.run(session, reading, action.id()));
                } else if (about.kind() == ActionKind.LET_GO) {
                    PendingDeletionStore.again(
                            session, action.id(), about.id(), TrustedTime.of(session, clock.instant()), who);
                }
                noting.undoes(action.id());
            }
            noting.end(failed.size());
            return new FileWork.Undone(about, List.copyOf(done), failed, tasks.isEmpty());
        }
    }

    private static List<Action.Item> pastOnly(List<Action.Item> items) {
        return items.stream().filter(i -> i.before() == i.after()).toList();
    }

    /** Items the other way round; of several of one file under one name the first alone says what was there before. */
    private static List<Action.Item> firstOfEach(List<Action.Item> all) {
        Map<String, Action.Item> first = new LinkedHashMap<>();
        for (Action.Item i : all) {
            first.putIfAbsent(i.line() + "/" + path(i), i);
        }
        List<Action.Item> items = new ArrayList<>(first.values());
        java.util.Collections.reverse(items);
        return items;
    }

    static String path(Action.Item item) {
        return RelativePath.child(item.folder(), item.name());
    }

    /** What takes one item back; nothing when it is as it was. */
    private Optional<Task> back(InPlace files, Reading reading, Action.Item item, Instant began) throws IOException {
        String path = path(item);
        Optional<LiveEntry> live = files.live(path);
        if (item.line() == 0) {
            if (item.before() != 0) {
                boolean isThere = live.filter(l -> l.kind() == EntryKind.FOLDER).isPresent();
                return isThere ? Optional.empty() : Optional.of(folderAgain(files, item));
            }
            if (live.isEmpty()) {
                return Optional.empty();
            }
            if (live.get().kind() == EntryKind.FOLDER) {
                return Optional.of(new Task.RemoveFolder(path));
            }
            // A new file that was cut off by a kill before its line was noted: nobody knew it before this action.
            boolean ours = reading.line(live.get().line())
                    .filter(l -> l.versions().size() == 1
                            && !l.versions().get(0).captured().isBefore(began))
                    .isPresent();
            return ours ? Optional.of(new Task.Remove(path)) : Optional.empty();
        }
        boolean there = live.isPresent() && live.get().line() == item.line();
        if (item.before() == 0) {
            return there ? Optional.of(new Task.Remove(path)) : Optional.empty();
        }
        Version before = reading.version(item.line(), item.before()).orElseThrow();
        long folder = files.lines().folder(place, item.folder());
        Optional<LineWriter.Look> look = files.lines().look(folder, item.name(), item.line(), item.before());
        Version wanted = look.map(l -> before.looking(l.mtimeNanos(), l.mode())).orElse(before);
        if (there
                && live.get().mtimeNanos() == wanted.mtimeNanos()
                && live.get().mode() == wanted.mode()
                && files.lines()
                        .content(item.line(), live.get().number())
                        .digest()
                        .equals(before.digest())) {
            return Optional.empty();
        }
        return Optional.of(new Task.Put(wanted, path, true, ""));
    }

    private Task folderAgain(InPlace files, Action.Item item) throws IOException {
        long parent = files.lines().folder(place, item.folder());
        LineWriter.Look look = files.lines()
                .look(parent, item.name(), 0, 0)
                .orElse(new LineWriter.Look(clock.millis() * 1_000_000, 0755));
        return new Task.MakeFolder(new TreeAt.Folder(path(item), look.mtimeNanos(), look.mode()));
    }
}
