package org.mendedleaf.cli.systems;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Shows the systems that the user is connected to. */
@Command(name = "systems", description = "${bundle:cli.systems}")
public final class SystemsCommand extends Base {

    public SystemsCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Map<String, Object>> all = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        int code = ExitCodes.DONE;
        for (Connection c : settings().connections()) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("name", c.name());
            map.put("kind", c.kind().text());
            map.put("address", c.address());
            map.put(
                    "can",
                    c.kind().capabilities().stream().map(Enum::name).sorted().toList());
            String stands;
            try {
                OutsideSystem.State state = registry().system(c.name()).state();
                map.put("clock", state.clock().toString());
                map.put("usedBytes", state.usedBytes());
                map.put("totalBytes", state.totalBytes());
                stands = state.totalBytes() > 0
                        ? Words.of(
                                "cli.systems.space", Formats.size(state.usedBytes()), Formats.size(state.totalBytes()))
                        : Words.of("cli.systems.there");
            } catch (SystemException e) {
                map.put("error", e.words());
                stands = e.words();
                code = ExitCodes.SOME_FAILED;
            }
            all.add(map);
            rows.add(List.of(c.name(), Words.of("system.kind." + c.kind().text()), c.address(), stands));
        }
        if (json) {
            printJson(all);
        } else if (rows.isEmpty()) {
            say("cli.systems.none");
        } else {
            table(rows, "llll");
        }
        return code;
    }
}
