package org.mendedleaf.cli.systems;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.systems.OutsidePlaceState;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Changes the settings and members of a folder or of a place in another system; says what they mean before and after. */
@Command(name = "set", description = "${bundle:cli.place.set}")
public final class PlaceSetCommand extends PlaceBase {

    @Option(names = "--plan", descriptionKey = "cli.place.plan")
    boolean plan;

    public PlaceSetCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(Path.of(where))) {
            if (!located.place().isOutside()) {
                return folder(located);
            }
            SystemKind kind = connection().kind();
            Place place = located.place();
            OutsidePlaceState before = facts(located);
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
            return ExitCodes.DONE;
        }
    }

    /** Settings and members of a protected folder. */
    private int folder(Located located) throws java.io.IOException {
        if (!located.path().isEmpty()) {
            throw new IllegalArgumentException(
                    Words.of("cli.place.wholeFolder", located.place().root()));
        }
        if (!backsUp.isEmpty() || !sameAs.isEmpty() || lookEvery > 0) {
            throw new IllegalArgumentException(Words.of("cli.place.outsideOnly", located.file()));
        }
        PlaceRules before;
        try (Reading reading = located.vault().read()) {
            before = PlaceRules.of(reading, located.place());
        }
        PlaceSettings after = withMembers(withSettings(before.settings(), s -> {}), before.settings());
        if (!json) {
            say("cli.place.before");
            Outlook.folderEffects(before.settings()).forEach(w -> line("  " + w));
            say(plan ? "cli.place.would" : "cli.place.after");
            Outlook.folderEffects(after).forEach(w -> line("  " + w));
        }
        if (!plan && !after.equals(before.settings())) {
            try (WriteSession session = located.vault().write()) {
                before.store(session, located.place(), after, now(), who());
                session.commit();
            }
        }
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("place", located.place().where());
            Map<String, String> settings = new LinkedHashMap<>();
            after.values().forEach((s, v) -> settings.put(s.text(), v));
            map.put("settings", settings);
            map.put(
                    "members",
                    after.members().stream()
                            .map(m -> Map.of("who", m.who(), "role", m.role().text()))
                            .toList());
            printJson(map);
        }
        return ExitCodes.DONE;
    }

    private OutsidePlaceState facts(Located located) throws java.io.IOException {
        try (Reading reading = located.vault().read()) {
            return OutsidePlaceState.of(reading, located.place())
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.place.unknown", where)));
        }
    }
}
