package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.line.Cut;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.systems.OutsideWork;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Snapshots of places. */
@Command(
        name = "snapshot",
        description = "${bundle:cli.snapshot}",
        mixinStandardHelpOptions = true,
        subcommands = SnapshotCommand.Take.class)
final class SnapshotCommand extends Group {

    /** Takes one. */
    @Command(name = "take", description = "${bundle:cli.snapshot.take}", mixinStandardHelpOptions = true)
    static final class Take extends Base {

        @Parameters(paramLabel = "SYSTEM:PLACE", descriptionKey = "cli.place.place")
        @SuppressWarnings("NullAway.Init")
        Path place;

        @Option(names = "--label", paramLabel = "TEXT", descriptionKey = "cli.snapshot.label")
        String label = "";

        Take(Surroundings surroundings) {
            super(surroundings);
        }

        @Override
        public Integer call() throws Exception {
            try (Located located = locate(place)) {
                if (!located.place().isOutside()) {
                    throw new IllegalArgumentException(Words.of("cli.snapshot.outsideOnly", located.file()));
                }
                Optional<Cut> goes;
                try (Reading reading = located.vault().read()) {
                    goes = Outlook.goesForOneMore(reading, located.place());
                }
                if (goes.isPresent()) {
                    complain(
                            Words.of("line.snapshotDrops", Say.moment(goes.get().at(), now(), zone())));
                }
                Cut cut = new OutsideWork(located.vault(), located.place(), book(), clock(), home().who())
                        .snapshot(label);
                if (json) {
                    printJson(Map.of("id", cut.key(), "at", cut.at().toString(), "label", cut.label()));
                } else {
                    say("cli.snapshot.done", located.place().where(), Say.moment(cut.at(), now(), zone()));
                }
                return Main.DONE;
            }
        }
    }
}
