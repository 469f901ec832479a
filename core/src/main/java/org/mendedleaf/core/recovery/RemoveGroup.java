package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.words.Words;

/** Removes files of one folder: what is removed is noted first, then each is moved aside and removed, then their lines end. */
final class RemoveGroup {

    private final WriteSession session;
    private final Place place;
    private final InPlace files;
    private final JournalWriter noting;
    private final String who;
    private final Instant at;

    /**
     * Removes from this place.
     *
     * @param at when all that one action removes goes
     */
    RemoveGroup(WriteSession session, Place place, InPlace files, JournalWriter noting, String who, Instant at) {
        this.session = session;
        this.place = place;
        this.files = files;
        this.noting = noting;
        this.who = who;
        this.at = at;
    }

    /** What became of each. */
    List<Task.Outcome> run(List<Task> group) throws IOException {
        List<JournalWriter.Intent> intents = new ArrayList<>();
        List<Optional<LiveEntry>> live = new ArrayList<>();
        List<Optional<String>> locked = new ArrayList<>();
        List<String> spare = new ArrayList<>();
        for (Task t : group) {
            Optional<String> why = files.locked(t.path());
            locked.add(why);
            Optional<LiveEntry> l =
                    why.isPresent() ? Optional.empty() : files.live(t.path()).filter(e -> e.kind() != EntryKind.FOLDER);
            live.add(l);
            spare.add(SafeFolder.ownName());
            files.aside().willMove(spare.get(spare.size() - 1), t.path());
            l.ifPresent(e -> intents.add(new JournalWriter.Intent(e.folder(), e.name(), e.line(), e.number())));
        }
        int item = noting.intend(intents);
        session.commit();
        List<Task.Outcome> outcomes = new ArrayList<>();
        try (SafeFolder folder =
                SafeFolder.open(place.root(), RelativePath.parent(group.get(0).path()))) {
            for (int i = 0; i < group.size(); i++) {
                Optional<LiveEntry> l = live.get(i);
                if (l.isEmpty()) {
                    outcomes.add(Task.Outcome.failed(locked.get(i).orElse(Words.of("failure.gone"))));
                    continue;
                }
                try {
                    files.delete(folder, l.get(), spare.get(i));
                    outcomes.add(Task.Outcome.DONE);
                    noting.done(item, l.get().line(), 0);
                } catch (IOException e) {
                    outcomes.add(InPlace.failed(e));
                    noting.didNot(item);
                }
                item++;
            }
            folder.force();
        } catch (NoSuchFileException | NotDirectoryException e) {
            // The whole folder is gone: so are its files, and the next look will say so.
            while (outcomes.size() < group.size()) {
                outcomes.add(Task.Outcome.failed(Failures.words(e)));
            }
        }
        for (int i = 0; i < group.size(); i++) {
            if (outcomes.get(i).isGood()) {
                files.lines().ended(place, live.get(i).orElseThrow(), EventKind.REMOVED, who, at);
            }
        }
        session.commit();
        return outcomes;
    }
}
