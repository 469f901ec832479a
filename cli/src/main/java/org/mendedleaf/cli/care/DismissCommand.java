package org.mendedleaf.cli.care;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.notices.Dismissals;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Says that nothing has to be done about a finding, or that its kind is fine from now on. */
@Command(name = "dismiss", description = "${bundle:cli.dismiss}")
public final class DismissCommand extends FindingsBase {

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

    public DismissCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Optional<Integer> told = concern();
        return told.isPresent() ? told.get() : with(id, this::dismiss);
    }

    /** What needs attention and is no harm to a file, when it goes by that id; empty when nothing does. */
    private Optional<Integer> concern() throws Exception {
        for (Path folder : vaults()) {
            try (OpenVault open = open(folder)) {
                List<Concern> found = Concern.warnings(open, who(), now(), zone()).stream()
                        .filter(c -> c.code().equalsIgnoreCase(id.strip()))
                        .toList();
                if (!found.isEmpty()) {
                    return Optional.of(dismiss(new Dismissals(open), found.get(0)));
                }
            } catch (VaultException e) {
                complain(e.words());
            }
        }
        return Optional.empty();
    }

    private int dismiss(Dismissals dismissals, Concern concern) throws IOException {
        if (fine != null) {
            throw new IllegalArgumentException(Words.of("cli.dismiss.onlyFiles"));
        }
        if (takeBack) {
            dismissals.takeBack(concern);
            return told(concern.code(), "OPEN", "cli.dismiss.back", concern.words());
        }
        dismissals.dismiss(concern, now(), who(), why());
        return told(concern.code(), "DISMISSED", "cli.dismiss.until", concern.words());
    }

    private String why() {
        String why = reason;
        if (why == null || why.isBlank()) {
            throw new IllegalArgumentException(Words.of("cli.dismiss.noReason"));
        }
        return why;
    }

    private int dismiss(OpenVault vault, Findings.Listed listed) throws Exception {
        Findings findings = new Findings(vault, who());
        String words = listed.found().finding().words();
        if (takeBack) {
            findings.reopen(listed);
            return told(listed.id(), "OPEN", "cli.dismiss.back", words);
        }
        String why = why();
        String how = fine;
        if (how == null) {
            findings.dismiss(listed, now(), why);
            return told(listed.id(), "DISMISSED", "cli.dismiss.done", words);
        } else if (how.equals("file") || how.equals("folder")) {
            findings.fine(listed, how.equals("folder"), now(), why);
            return told(listed.id(), "FINE", "cli.dismiss.isFine", words);
        }
        throw new IllegalArgumentException(Words.of("cli.dismiss.badFine", how));
    }

    private int told(String of, String state, String key, String words) {
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("id", of);
            map.put("words", words);
            map.put("state", state);
            printJson(map);
        } else {
            say(key, words);
        }
        return ExitCodes.DONE;
    }
}
