package org.mendedleaf.cli.systems;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.OutsidePlaceState;
import picocli.CommandLine.Command;

/** Makes a place in another system. */
@Command(name = "create", description = "${bundle:cli.place.create}")
public final class PlaceCreateCommand extends PlaceBase {

    public PlaceCreateCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Connection c = connection();
        PlaceSettings settings = changed(c.kind(), c.kind().standardSettings());
        try (OpenVault open = open(c.vault())) {
            Place place = connecting().create(c, placeName(), settings, open);
            relate(open, place, c.kind());
            new Mirror(open, place, registry().system(place), clock()).run(Progress.NONE);
            if (json) {
                try (Reading reading = open.read()) {
                    printJson(json(place, OutsidePlaceState.of(reading, place).orElseThrow()));
                }
            } else {
                say("cli.place.created", place.where());
                effects(open, place, c.kind(), settings).forEach(w -> line("  " + w));
            }
            return ExitCodes.DONE;
        }
    }
}
