package org.mendedleaf.cli.systems;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Connects another system. */
@Command(name = "connect", description = "${bundle:cli.connect}")
public final class ConnectCommand extends Base {

    @Parameters(index = "0", paramLabel = "NAME", descriptionKey = "cli.connect.name")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1", paramLabel = "ADDRESS", descriptionKey = "cli.connect.address")
    @SuppressWarnings("NullAway.Init")
    String address;

    @Option(names = "--token", paramLabel = "TOKEN", descriptionKey = "cli.connect.token")
    String token = "";

    @Option(names = "--kind", paramLabel = "KIND", descriptionKey = "cli.connect.kind")
    @Nullable
    String kind;

    public ConnectCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Path vaultFolder = Protect.realOfNew(vaults().get(0));
        SystemKind known = kind == null ? null : SystemKind.parse(kind);
        try (OpenVault open = openOrCreate(vaultFolder, null)) {
            settings().addVault(open.folder().root());
            SystemConnector connecting = new SystemConnector(settings(), book(), clock());
            Connection c = connecting.connect(name, known, address, token, open, Retry.DEFAULT);
            List<Place> places = connecting.takeIn(c, open);
            for (Place place : places) {
                try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                    new Mirror(open, place, book().system(place), clock()).run(progress);
                }
            }
            if (json) {
                printJson(Map.of(
                        "name", c.name(),
                        "kind", c.kind().text(),
                        "places", places.stream().map(Place::where).toList()));
            } else {
                say(
                        "cli.connect.done",
                        c.name(),
                        Words.of("system.kind." + c.kind().text()),
                        places.size());
                places.forEach(p -> line("  " + p.where()));
            }
            return ExitCodes.DONE;
        }
    }
}
