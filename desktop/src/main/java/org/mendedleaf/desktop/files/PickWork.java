package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.pick.Picking;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;

/** Takes ticked changes back in what is in the folder. */
final class PickWork {

    private final AppContext context;

    PickWork(AppContext context) {
        this.context = context;
    }

    /**
     * What shall be done.
     *
     * @param from the earlier version
     * @param numbers of the changes
     * @param shown all changes, as they were shown
     */
    record Request(OpenPlace openPlace, Line line, Version from, Set<Integer> numbers, List<Change> shown) {}

    /** An outcome, and which point it was taken from, as a message. */
    record Outcome(Picking.Outcome outcome, String from) {}

    /** What would come of it; changes nothing. */
    static Outcome outcome(Request asked) throws IOException {
        Side before;
        try (Reading reading = asked.openPlace().vault().read()) {
            before = Side.version(reading, asked.from());
        }
        Side after = Side.live(asked.openPlace().place(), asked.line().path())
                .orElseThrow(
                        () -> new IOException(Words.of("pick.live", asked.line().name())));
        Comparison comparison = Compare.compare(before.name(), before.content(), after.name(), after.content());
        // Somebody may have saved since the changes were shown.
        if (!comparison.changes().equals(asked.shown())) {
            throw new IOException(Words.of("pick.changed"));
        }
        return new Outcome(
                Picking.back(after.name(), before.content(), after.content(), comparison, asked.numbers()),
                before.said());
    }

    /** Makes the version, and says so. */
    Message make(Request asked, Progress progress) throws IOException {
        Outcome found = outcome(asked);
        Picking.Outcome outcome = found.outcome();
        Line l = asked.line();
        Path made = TemporaryFiles.file("");
        try {
            Files.write(made, outcome.content());
            Revision revision = new Revision(made, l.path(), Picking.note(found.from(), outcome.taken()));
            PutResult result = context.work(asked.openPlace()).put(List.of(revision), progress);
            Optional<String> failed = result.failed().values().stream().findFirst();
            if (failed.isPresent()) {
                throw new IOException(failed.get());
            }
            String label = result.labels().getOrDefault(l.path(), "");
            return new Message(
                    Words.of(
                            "pick.done",
                            l.name(),
                            Words.of("pick.changes", outcome.taken().size()),
                            found.from(),
                            label),
                    true,
                    false);
        } finally {
            Files.deleteIfExists(made);
        }
    }
}
