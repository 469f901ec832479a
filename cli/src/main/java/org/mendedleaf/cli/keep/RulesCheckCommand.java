package org.mendedleaf.cli.keep;

import java.nio.file.Path;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.SpaceAge;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.retention.WhatIf;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Reads rules from a file and shows them beside those that count, on the real history; changes nothing. */
@Command(name = "check", description = "${bundle:cli.rules.check}")
public final class RulesCheckCommand extends RulesBase {

    private static final int SHOWN = 20;

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.rules.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    public RulesCheckCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        RuleSet rules = read(file);
        return eachVault((folder, open) -> {
            try (Reading reading = open.read()) {
                Verdicts now = verdicts(reading, RuleSets.of(reading));
                Verdicts proposed = verdicts(reading, rules);
                WhatIf what = WhatIf.of(now, proposed, new SpaceTable(now.table()), now());
                if (json) {
                    printJson(what);
                } else {
                    print(reading, rules);
                    print(now.table(), what);
                }
                return ExitCodes.DONE;
            }
        });
    }

    private void print(VersionTable t, WhatIf what) {
        java.util.List<java.util.List<String>> rows = new java.util.ArrayList<>();
        rows.add(java.util.List.of("", Words.of("whatif.now"), "", Words.of("whatif.proposed"), ""));
        for (SpaceAge a : SpaceAge.values()) {
            WhatIf.Kept one = what.now().ages().get(a);
            WhatIf.Kept two = what.proposed().ages().get(a);
            if (one != null && two != null) {
                rows.add(java.util.List.of(
                        Words.of("age." + a),
                        Formats.number(one.versions()),
                        Formats.size(one.bytes()),
                        Formats.number(two.versions()),
                        Formats.size(two.bytes())));
            }
        }
        rows.add(java.util.List.of(
                Words.of("space.taken"),
                Formats.number(what.now().versions()),
                Formats.size(what.now().takenBytes()),
                Formats.number(what.proposed().versions()),
                Formats.size(what.proposed().takenBytes())));
        table(rows, "lrrrr");
        what.differing().stream()
                .limit(SHOWN)
                .forEach(d -> line(Words.of("cli.rules.differs", t.path(d.line()), d.now(), d.proposed())));
        if (what.differing().size() > SHOWN) {
            say("cli.rules.more", what.differing().size() - SHOWN);
        }
    }
}
