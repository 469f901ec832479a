package org.mendedleaf.cli.protect;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Ends the protection of a folder; its past stays readable. */
@Command(name = "unprotect", description = "${bundle:cli.unprotect}")
public final class UnprotectCommand extends Base {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.protect.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Option(names = "--plan", descriptionKey = "cli.set.plan")
    boolean plan;

    public UnprotectCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = wholeFolder(folder)) {
            Place place = located.place();
            long files;
            long versions;
            RuleSet rules;
            try (Reading reading = located.vault().read()) {
                PlaceRules.of(reading, place).rights(who(), place).require(Permission.SETTINGS);
                files = reading.state(place).files();
                versions = reading.lines().versions(place);
                rules = RuleSets.of(reading);
            }
            boolean was = place.versioning() != Versioning.OFF;
            if (was && !plan) {
                Protect.versioning(located.vault(), place, Versioning.OFF, clock(), who());
            }
            if (json) {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("folder", place.root().toString());
                map.put("changed", was && !plan);
                map.put("files", files);
                map.put("versions", versions);
                map.put("vault", located.vault().folder().root().toString());
                map.put("rulesGoOn", rules.standing());
                printJson(map);
                return ExitCodes.DONE;
            }
            say(
                    !was ? "cli.unprotect.already" : plan ? "cli.unprotect.would" : "cli.unprotect.done",
                    printable(place.root().toString()));
            line("  "
                    + Words.of(
                            "cli.unprotect.stays",
                            versions,
                            located.vault().folder().root()));
            line("  " + Words.of(rules.standing() ? "cli.unprotect.rules" : "cli.unprotect.forGood"));
            line("  " + Words.of("cli.unprotect.again", place.root()));
            return ExitCodes.DONE;
        }
    }
}
