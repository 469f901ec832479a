package org.mendedleaf.cli.keep;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.retention.Forecast;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Says how much space the versions will take, from how the files really changed. */
@Command(name = "forecast", description = "${bundle:cli.forecast}")
public final class ForecastCommand extends RulesBase {

    @Parameters(arity = "0..1", paramLabel = "PATH", descriptionKey = "cli.forecast.path")
    @Nullable
    Path path;

    @Option(names = "--rule", paramLabel = "FILE", descriptionKey = "cli.forecast.rule")
    @Nullable
    Path rule;

    @Option(names = "--every", paramLabel = "MINUTES", descriptionKey = "cli.forecast.every")
    int every = -1;

    public ForecastCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Path file = rule;
        return eachMeant(path, m -> {
            try (Reading reading = m.vault().read()) {
                Verdicts v = verdicts(reading, file == null ? RuleSets.of(reading) : read(file));
                int present = reading.places().stream()
                        .filter(p -> !p.isOutside() && (m.place() == 0 || p.id() == m.place()))
                        .mapToInt(p -> p.rhythm().intervalMinutes())
                        .max()
                        .orElse(0);
                long free = Files.getFileStore(m.vault().folder().root()).getUsableSpace();
                Forecast asItIs =
                        Forecast.of(v, now(), new Forecast.Asked(present, present, free, m.place(), m.path()));
                Forecast asked = every < 0
                        ? asItIs
                        : Forecast.of(v, now(), new Forecast.Asked(present, every, free, m.place(), m.path()));
                print(asItIs, asked);
                return ExitCodes.DONE;
            }
        });
    }

    private void print(Forecast asItIs, Forecast asked) throws java.io.IOException {
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("assumed", asked.assumed());
            map.put("observedDays", asked.observedDays());
            map.put("versionsPerDay", asked.versionsPerDay());
            map.put("monthBytes", asked.monthBytes());
            map.put("yearBytes", asked.yearBytes());
            map.put("fullInDays", asked.full().isPresent() ? asked.full().getAsInt() : null);
            map.put("curve", asked.curve());
            printJson(map);
            return;
        }
        say(asked.assumed() ? "forecast.assumed" : "forecast.basis", asked.observedDays());
        say(
                "forecast.words",
                Formats.oneDecimal(asked.versionsPerDay()),
                Formats.size(asked.curve().get(0).bytes()),
                Formats.size(asked.monthBytes()),
                Formats.size(asked.yearBytes()));
        Forecast.Point last = asked.curve().get(asked.curve().size() - 1);
        if (last.lowBytes() < last.highBytes()) {
            say("forecast.band", Formats.size(last.lowBytes()), Formats.size(last.highBytes()));
        }
        line(asked.fullAt(now())
                .map(f -> Words.of("forecast.full", Formats.zoned(f, java.time.ZoneOffset.UTC)))
                .orElseGet(() -> Words.of("forecast.notFull")));
        if (every >= 0) {
            say("forecast.costs", every, Formats.sizeChange(asked.monthBytes() - asItIs.monthBytes()));
        }
    }
}
