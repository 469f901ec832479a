package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;

/** Undoes what was done, and takes an undoing back, as jobs; says what it was, and offers the way back. */
public final class UndoActions {

    private final AppContext context;
    private final Consumer<Message> said;

    UndoActions(AppContext context, Consumer<Message> said) {
        this.context = context;
        this.said = said;
    }

    private interface Find {
        Optional<Action> in(JournalStore journal) throws IOException;
    }

    private interface Deed {
        FileWork.Undone run(FileWork work, Action action, Progress progress) throws IOException;
    }

    /** Undoes what was done last in the vault of a place, wherever in it. */
    void undoLast(OpenPlace openPlace) {
        start("job.undo", openPlace, JournalStore::lastUndoable, FileWork::undo, this::undone);
    }

    /** Takes the last undoing back, unless something else was done since. */
    void redoLast(OpenPlace openPlace) {
        start("job.redo", openPlace, JournalStore::lastRedoable, FileWork::redo, this::redone);
    }

    /** Undoes an action of a place. */
    public void undo(OpenPlace at, Action action) {
        start("job.undo", at, journal -> Optional.of(action), FileWork::undo, this::undone);
    }

    /** Takes an undoing in a place back. */
    public void redo(OpenPlace at, Action undo) {
        start("job.redo", at, journal -> Optional.of(undo), FileWork::redo, this::redone);
    }

    private void start(
            String title,
            OpenPlace openPlace,
            Find find,
            Deed deed,
            Function<Optional<FileWork.Undone>, Message> words) {
        context.jobs()
                .start(
                        Words.of(title),
                        progress -> {
                            Optional<Action> found;
                            try (Reading reading = openPlace.vault().read()) {
                                found = find.in(JournalStore.of(reading));
                            }
                            return found.isEmpty()
                                    ? Optional.<FileWork.Undone>empty()
                                    : Optional.of(deed.run(
                                            context.work(place(openPlace, found.get())), found.get(), progress));
                        },
                        done -> {
                            said.accept(words.apply(done));
                            context.changed();
                        },
                        e -> {
                            said.accept(new Message(Failures.words(e), false, true));
                            context.changed();
                        });
    }

    /** The place that an action was done in, in the same vault. */
    private OpenPlace place(OpenPlace openPlace, Action action) {
        return context.places().stream()
                .filter(h -> h.vault() == openPlace.vault() && h.place().id() == action.place())
                .findFirst()
                .orElse(openPlace);
    }

    private Message undone(Optional<FileWork.Undone> done) {
        return done.map(u -> message(u, u.undoneWords(), Offer.REDO))
                .orElseGet(() -> new Message(Words.of("cli.undo.nothing"), false, false));
    }

    private Message redone(Optional<FileWork.Undone> done) {
        return done.map(u -> message(u, u.redoneWords(), Offer.UNDO))
                .orElseGet(() -> new Message(Words.of("cli.redo.nothing"), false, false));
    }

    private static Message message(FileWork.Undone u, String words, Offer offer) {
        return new Message(
                words, u.failed().isEmpty() ? offer : Offer.NOTHING, !u.failed().isEmpty());
    }
}
