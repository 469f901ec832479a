package org.mendedleaf.cli.recover;

import java.util.List;
import java.util.Optional;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Takes an undo back: the last one while nothing else was done since, or one of a list. */
@Command(name = "redo", description = "${bundle:cli.redo}")
public final class RedoCommand extends JournalBase {

    public RedoCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    List<Action> actions(JournalStore journal, int most) throws java.io.IOException {
        return journal.redoable(most);
    }

    @Override
    Optional<Action> last(JournalStore journal) throws java.io.IOException {
        return journal.lastRedoable();
    }

    @Override
    FileWork.Undone run(FileWork work, Action action, Progress progress) throws java.io.IOException {
        return work.redo(action, progress);
    }

    @Override
    String words(FileWork.Undone done) {
        return done.redoneWords();
    }

    @Override
    String nothing(boolean others) {
        return Words.of(others ? "cli.redo.other" : "cli.redo.nothing");
    }

    @Override
    String jsonKey() {
        return "doneAgain";
    }
}
