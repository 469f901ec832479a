package org.mendedleaf.cli.systems;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.NotConnectedException;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.OutsidePlaceState;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Lists places in other systems and how they stand. */
@Command(name = "list", description = "${bundle:cli.place.list}")
public final class PlaceListCommand extends Base {

    @Parameters(paramLabel = "SYSTEM", arity = "0..1", descriptionKey = "cli.place.system")
    @Nullable
    String system;

    public PlaceListCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> all = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        int code = ExitCodes.DONE;
        for (Connection c : settings().connections()) {
            if (system != null && !c.name().equals(system)) {
                continue;
            }
            try (OpenVault open = open(c.vault())) {
                try {
                    for (Place p : new SystemConnector(settings(), registry(), clock()).takeIn(c, open)) {
                        new Mirror(open, p, registry().system(p), clock()).run(Progress.NONE);
                    }
                } catch (SystemException e) {
                    complain(e.words());
                    code = ExitCodes.SOME_FAILED;
                }
                for (Coverage.Row row : Coverage.of(open, now(), zone())) {
                    boolean here = row.place()
                            .flatMap(Place::outside)
                            .filter(o -> o.system().equals(c.name()))
                            .isPresent();
                    if (here) {
                        add(row, all, rows);
                    }
                }
            }
        }
        if (system != null && settings().connection(system).isEmpty()) {
            throw new NotConnectedException(system);
        }
        if (json) {
            printJson(all);
        } else if (rows.isEmpty()) {
            say("cli.place.none");
        } else {
            table(rows, "lllrrl");
        }
        return code;
    }

    private void add(Coverage.Row row, List<Object> all, List<List<String>> rows) throws java.io.IOException {
        Optional<OutsidePlaceState> facts = row.facts();
        Map<String, Object> map = facts.isPresent()
                ? PlaceBase.json(row.place().orElseThrow(), facts.get())
                : new LinkedHashMap<>(Map.of("place", row.where()));
        map.put("state", row.state().name());
        map.put("files", row.files());
        map.put("versions", row.versions());
        row.lastGood().ifPresent(l -> map.put("lastGood", l.toString()));
        row.next().ifPresent(l -> map.put("next", l.toString()));
        map.put("missed", row.missed());
        map.put("related", row.related());
        map.put("trouble", row.trouble());
        all.add(map);
        rows.add(List.of(
                row.where(),
                row.kind().map(k -> Words.of("system.kind." + k.text())).orElse(""),
                Words.of("coverage." + row.state()),
                Words.of("cli.place.files", row.files(), row.versions()),
                row.usedBytes() < 0 ? "" : Formats.size(row.usedBytes()),
                row.lastGood().isPresent() ? Formats.ago(row.lastGood().get(), now(), zone()) : ""));
    }
}
