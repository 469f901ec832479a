package org.mendedleaf.cli;

import java.nio.file.Path;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.systems.Facts;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Changes the settings of a place in another system; says what they mean before and after. */
@Command(name = "set", description = "${bundle:cli.place.set}", mixinStandardHelpOptions = true)
final class PlaceSetCommand extends PlaceBase {

    @Option(names = "--plan", descriptionKey = "cli.place.plan")
    boolean plan;

    PlaceSetCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        SystemKind kind = connection().kind();
        try (Located located = locate(Path.of(where))) {
            Place place = located.place();
            Facts before = facts(located);
            PlaceSettings after = changed(kind, before.settings());
            if (!json) {
                say("cli.place.before");
                effects(located.vault(), place, kind, before.settings()).forEach(w -> line("  " + w));
                say(plan ? "cli.place.would" : "cli.place.after");
                effects(located.vault(), place, kind, after).forEach(w -> line("  " + w));
            }
            if (!plan) {
                if (!after.equals(before.settings())) {
                    connecting().configure(place, after, located.vault());
                }
                relate(located.vault(), place, kind);
            }
            if (json) {
                printJson(json(place, facts(located)));
            }
            return Main.DONE;
        }
    }

    private Facts facts(Located located) throws java.io.IOException {
        try (Reading reading = located.vault().read()) {
            return Facts.of(reading, located.place())
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.place.unknown", where)));
        }
    }
}
