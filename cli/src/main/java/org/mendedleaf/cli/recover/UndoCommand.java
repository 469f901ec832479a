package org.mendedleaf.cli.recover;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Takes an action back: the last one, or one of a list. */
@Command(name = "undo", description = "${bundle:cli.undo}")
public final class UndoCommand extends JournalBase {

    public UndoCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    List<Action> actions(JournalStore journal, int most) throws IOException {
        return journal.undoable(most);
    }

    @Override
    Optional<Action> last(JournalStore journal) throws IOException {
        return journal.lastUndoable();
    }

    @Override
    FileWork.Undone run(FileWork work, Action action, Progress progress) throws IOException {
        return work.undo(action, progress);
    }

    @Override
    String words(FileWork.Undone done) {
        return done.undoneWords();
    }

    @Override
    String nothing(boolean others) {
        return Words.of("cli.undo.nothing");
    }

    @Override
    String jsonKey() {
        return "undone";
    }
}
