package org.mendedleaf.cli.care;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.HealthStore;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Says of the versions of a file whether each can be used. */
@Command(name = "health", description = "${bundle:cli.health}")
public final class HealthCommand extends FindingsBase {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.health.version")
    @Nullable
    String version;

    public HealthCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file)) {
            folderOnly(located);
            look(located.vault());
            try (Reading reading = located.vault().read();
                    HealthStore store = HealthStore.open(located.vault().folder())) {
                Line line = line(located, reading);
                String named = version;
                List<Version> versions = named == null ? line.versions() : List.of(version(line, named));
                boolean bad = print(versions, store);
                return bad ? ExitCodes.SOME_FAILED : ExitCodes.DONE;
            }
        }
    }

    /** Whether the first of them is broken. */
    private boolean print(List<Version> versions, HealthStore store) throws IOException {
        List<Object> maps = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        boolean bad = false;
        for (int i = 0; i < versions.size(); i++) {
            Version v = versions.get(i);
            Optional<Health> health = store.health(v.digest(), v.path());
            String state =
                    health.map(Health::state).orElse(Health.State.UNKNOWN).words();
            String why = health.map(Health::words).orElse(Words.of("health.notHere"));
            bad |= i == 0 && health.map(h -> h.state() == Health.State.BROKEN).orElse(false);
            rows.add(List.of(v.label(), state, why, Formats.moment(v.saved(), now(), zone()), v.who()));
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("version", v.label());
            map.put("health", health.map(h -> h.state().name()).orElse("UNKNOWN"));
            map.put("reason", health.map(h -> h.reason().name()).orElse(null));
            map.put("words", why);
            maps.add(map);
        }
        if (json) {
            printJson(maps);
        } else {
            table(rows, "rllll");
        }
        return bad;
    }
}
