package org.mendedleaf.cli;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Says that nothing has to be done about a finding, or that its kind is fine from now on. */
@Command(name = "dismiss", description = "${bundle:cli.dismiss}")
final class DismissCommand extends FindingsBase {

    @Parameters(paramLabel = "FINDING", descriptionKey = "cli.finding.id")
    @SuppressWarnings("NullAway.Init")
    String id;

    @Option(names = "--reason", paramLabel = "WORDS", descriptionKey = "cli.dismiss.reason")
    @Nullable
    String reason;

    @Option(names = "--fine", paramLabel = "file|folder", descriptionKey = "cli.dismiss.fine")
    @Nullable
    String fine;

    @Option(names = "--take-back", descriptionKey = "cli.dismiss.takeBack")
    boolean takeBack;

    DismissCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        return with(id, this::dismiss);
    }

    private int dismiss(OpenVault vault, Findings.Listed listed) throws Exception {
        Findings findings = new Findings(vault, who());
        String words = listed.found().finding().words();
        if (takeBack) {
            findings.reopen(listed);
            return told(listed, "OPEN", "cli.dismiss.back", words);
        }
        String why = reason;
        if (why == null || why.isBlank()) {
            throw new IllegalArgumentException(Words.of("cli.dismiss.noReason"));
        }
        String how = fine;
        if (how == null) {
            findings.dismiss(listed, now(), why);
            return told(listed, "DISMISSED", "cli.dismiss.done", words);
        } else if (how.equals("file") || how.equals("folder")) {
            findings.fine(listed, how.equals("folder"), now(), why);
            return told(listed, "FINE", "cli.dismiss.isFine", words);
        }
        throw new IllegalArgumentException(Words.of("cli.dismiss.badFine", how));
    }

    private int told(Findings.Listed listed, String state, String key, String words) {
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("id", listed.id());
            map.put("words", words);
            map.put("state", state);
            printJson(map);
        } else {
            say(key, words);
        }
        return Main.DONE;
    }
}
