package org.mendedleaf.cli.care;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.line.Decision;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.notices.Dismissals;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Lists what looks wrong. */
@Command(name = "findings", description = "${bundle:cli.findings}")
public final class FindingsCommand extends FindingsBase {

    @Option(names = "--all", descriptionKey = "cli.findings.all")
    boolean all;

    @Option(names = "--as-it-is", descriptionKey = "cli.findings.asItIs")
    boolean asItIs;

    @Option(names = "--exit-code", descriptionKey = "cli.findings.exitCode")
    boolean exitCode;

    public FindingsCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> maps = new ArrayList<>();
        boolean[] open = {false};
        int code = eachVault((folder, vault) -> {
            if (!asItIs) {
                look(vault);
            }
            Findings findings = new Findings(vault, who());
            List<Findings.Listed> listed = all ? findings.all() : findings.open();
            open[0] |= listed.stream().anyMatch(l -> l.state() == Findings.State.OPEN);
            for (Findings.Listed l : listed) {
                if (json) {
                    maps.add(map(l));
                } else {
                    print(l);
                }
            }
            // What needs attention and is no harm to a file: late, away, full, not copied, damaged, about to go.
            List<Concern> warnings = Concern.warnings(vault, who(), now(), zone());
            Map<String, Decision> dismissed = new Dismissals(vault).all();
            open[0] |= warnings.stream().anyMatch(c -> !dismissed.containsKey(c.id()));
            for (Concern c : warnings) {
                Decision decision = dismissed.get(c.id());
                if (decision != null && !all) {
                    continue;
                }
                if (json) {
                    maps.add(NoticesCommand.map(c));
                } else {
                    line(c.code() + "  " + c.words());
                }
                if (decision != null && !json) {
                    line("        " + Words.of("cli.findings.DISMISSED", decision.who(), decision.reason()));
                }
            }
            if (!json && findings.pausing(now()).isPresent()) {
                say("findings.pausing");
            }
            if (!json
                    && listed.isEmpty()
                    && (warnings.isEmpty() || findings.looked().isEmpty())) {
                line(
                        findings.looked().isEmpty()
                                ? Words.of("cli.findings.never", folder)
                                : Words.of(
                                        "cli.findings.none",
                                        folder,
                                        full(findings.looked().get())));
            }
            return ExitCodes.DONE;
        });
        if (json) {
            printJson(maps);
        }
        return exitCode && open[0] ? Math.max(code, ExitCodes.SOME_FAILED) : code;
    }
}
