package org.mendedleaf.cli.revise;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.words.Formats;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Takes a file to work on it alone, or lists what is taken. */
@Command(name = "checkout", description = "${bundle:cli.checkout}")
public final class CheckOutCommand extends Base {

    @Parameters(paramLabel = "FILE|FOLDER", descriptionKey = "cli.checkout.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--list", descriptionKey = "cli.checkout.list")
    boolean list;

    public CheckOutCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file)) {
            if (list) {
                return list(located);
            }
            CheckOut out = lineWork(located).checkOut(located.path());
            if (json) {
                try (Reading reading = located.vault().read()) {
                    printJson(map(reading.line(out.line()).orElseThrow(), out));
                }
            } else {
                say("cli.checkout.done", located.path(), out.who(), Formats.moment(out.since(), now(), zone()));
            }
            return ExitCodes.DONE;
        }
    }

    private int list(Located located) throws IOException {
        List<Object> all = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        try (Reading reading = located.vault().read()) {
            for (CheckOut out : CheckOutStore.of(reading).all(located.place())) {
                Line line = reading.line(out.line()).orElseThrow();
                String path = line.path();
                if (located.path().isEmpty() || (path + "/").startsWith(located.path() + "/")) {
                    all.add(map(line, out));
                    rows.add(List.of(path, out.who(), Formats.moment(out.since(), now(), zone())));
                }
            }
        }
        if (json) {
            printJson(all);
        } else if (rows.isEmpty()) {
            say("cli.checkout.none");
        } else {
            table(rows, "lll");
        }
        return ExitCodes.DONE;
    }

    private static Map<String, Object> map(Line line, CheckOut out) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", line.path());
        map.put("who", out.who());
        map.put("since", out.since().toString());
        map.put("version", line.label(out.number()));
        return map;
    }
}
