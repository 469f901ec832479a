package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.JournalStore;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Takes the last restore or removal back. */
@Command(name = "undo", description = "${bundle:cli.undo}", mixinStandardHelpOptions = true)
final class UndoCommand extends Base {

    UndoCommand(Surroundings surroundings) {
        super(surroundings);
    }

    private record Candidate(Path vault, Action action, Place place) {}

    @Override
    public Integer call() throws Exception {
        Candidate newest = null;
        for (Path folder : vaults()) {
            try (OpenVault open = open(folder);
                    Reading reading = open.read()) {
                Optional<Action> last = JournalStore.of(reading).lastUndoable();
                boolean newer = last.isPresent()
                        && (newest == null
                                || last.get().at().isAfter(newest.action().at()));
                if (newer) {
                    Place place = reading.places().stream()
                            .filter(p -> p.id() == last.get().place())
                            .findFirst()
                            .orElseThrow();
                    newest = new Candidate(folder, last.get(), place);
                }
            }
        }
        if (newest == null) {
            throw new IllegalArgumentException(Words.of("cli.undo.nothing"));
        }
        try (OpenVault open = open(newest.vault())) {
            FileWork.Undone undone = work(open, newest.place()).undo(newest.action());
            undone.failed().forEach(this::complain);
            if (json) {
                printJson(Map.of(
                        "undone", newest.action().kind().name(),
                        "done", undone.done(),
                        "failed", undone.failed()));
            } else {
                undone.done().forEach(path -> line(Words.of("cli.undo.done", path)));
            }
            return undone.failed().isEmpty() ? Main.DONE : Main.SOME_FAILED;
        }
    }
}
