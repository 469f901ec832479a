package org.mendedleaf.cli.keep;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemovedFile;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.retention.Verdict;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Shows what was removed and can be brought back, and what was let go and waits for the end of its grace. */
@Command(name = "removed", description = "${bundle:cli.removed}")
public final class RemovedCommand extends RetentionBase {

    @Parameters(arity = "0..1", paramLabel = "FOLDER", descriptionKey = "cli.removed.folder")
    @Nullable
    Path folder;

    public RemovedCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> json = new ArrayList<>();
        int code = eachMeant(folder, m -> {
            try (Reading reading = m.vault().read()) {
                Verdicts verdicts = verdicts(reading);
                List<List<String>> rows = new ArrayList<>();
                for (RemovedFile f : RemovedFile.of(reading)) {
                    boolean meant = m.place() == 0
                            || (f.place() == m.place()
                                    && (m.path().isEmpty() || f.path().startsWith(m.path() + "/")));
                    if (meant) {
                        Verdict v = verdicts.at(verdicts.table().row(f.line(), f.number()));
                        rows.add(List.of(
                                f.path(),
                                Formats.moment(f.removed(), now(), zone()),
                                f.who(),
                                Formats.size(f.bytes()),
                                v.words(now(), zone())));
                        json.add(map(f, v));
                    }
                }
                List<PendingDeletion> waiting =
                        m.place() == 0 ? PendingDeletionStore.of(reading).waiting() : List.of();
                if (!this.json) {
                    print(rows, waiting);
                }
                return ExitCodes.DONE;
            }
        });
        if (this.json) {
            printJson(json);
        }
        return code;
    }

    private void print(List<List<String>> rows, List<PendingDeletion> waiting) throws java.io.IOException {
        if (rows.isEmpty()) {
            say("cli.removed.none");
        }
        table(rows, "lllr");
        if (!waiting.isEmpty()) {
            line(Words.of(
                    "cli.removed.waiting",
                    waiting.size(),
                    Formats.full(waiting.get(0).due(), zone())));
        }
    }

    private static Map<String, Object> map(RemovedFile f, Verdict v) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", f.path());
        map.put("removed", f.removed().toString());
        map.put("who", f.who());
        map.put("bytes", f.bytes());
        map.put("reason", v.reason().name());
        map.put("until", v.until().map(java.time.Instant::toString).orElse(null));
        return map;
    }
}
