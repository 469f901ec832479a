package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.UnfoldQueue;
import org.mendedleaf.core.unfold.Unfolding;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Unfolds documents now, which otherwise goes on in the background. */
@Command(name = "unfold", description = "${bundle:cli.unfold}")
public final class UnfoldCommand extends Base {

    @Option(names = "--plan", descriptionKey = "cli.unfold.plan.option")
    boolean plan;

    public UnfoldCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> all = new ArrayList<>();
        int code = eachVault((folder, open) -> {
            if (plan) {
                plan(folder, open, all);
            } else {
                unfold(folder, open, all);
            }
            return ExitCodes.DONE;
        });
        if (json) {
            printJson(all);
        }
        return code;
    }

    private void plan(Path folder, OpenVault open, List<Object> all) throws IOException {
        long left;
        long alone;
        try (Reading reading = open.read()) {
            UnfoldQueue queue = UnfoldQueue.of(reading);
            left = queue.left();
            alone = queue.leftAlone(now());
        }
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("vault", folder.toString());
            map.put("left", left + alone);
            all.add(map);
        } else {
            say("cli.unfold.plan", folder, left, alone);
        }
    }

    private void unfold(Path folder, OpenVault open, List<Object> all) throws IOException {
        Unfolding.Result result;
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            result = Unfolding.atOnce(open, clock()).run(progress);
        }
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("vault", folder.toString());
            map.put("versions", result.versions());
            map.put("addedBytes", result.added());
            map.put("replacedBytes", result.givenUp());
            map.put("complete", result.complete());
            all.add(map);
            return;
        }
        say("cli.unfold.done", folder, result.versions(), Formats.size(result.added()), Formats.size(result.givenUp()));
        if (!result.complete()) {
            complain(Words.of("cli.unfold.more"));
        }
    }
}
