package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import org.mendedleaf.core.line.LetGo;
import org.mendedleaf.core.line.LetGoStore;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Gives room back whose grace has ended; with {@code --now}, ends the grace of all that waits. */
@Command(name = "reclaim", description = "${bundle:cli.reclaim}", mixinStandardHelpOptions = true)
final class ReclaimCommand extends RetentionBase {

    @Option(names = "--now", descriptionKey = "cli.reclaim.now")
    boolean atOnce;

    ReclaimCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        int code = Main.DONE;
        for (Path folder : vaults()) {
            try (OpenVault open = open(folder)) {
                int waiting;
                try (Reading reading = open.read()) {
                    java.util.List<LetGo> all = LetGoStore.of(reading).waiting();
                    waiting = all.size();
                }
                // At a terminal this is asked once more; a script that says it means it.
                boolean asks = atOnce && waiting > 0 && surroundings.terminal().isPresent();
                if (asks && !surroundings.confirms(Words.of("cli.reclaim.what", waiting))) {
                    code = Main.SOME_FAILED;
                    continue;
                }
                try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                    Reclaim.Done done = new Reclaim(open, clock()).run(atOnce, progress);
                    print(done);
                    code = done.damaged().isEmpty() ? code : Main.SOME_FAILED;
                }
            }
        }
        return code;
    }

    private void print(Reclaim.Done done) {
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("versions", done.versions());
            map.put("kept", done.kept());
            map.put("packs", done.packs());
            map.put("freedBytes", done.freedBytes());
            map.put("proved", done.proof().map(p -> p.leftIn().isEmpty()).orElse(null));
            map.put("damaged", done.damaged());
            printJson(map);
            return;
        }
        say("cli.reclaim.done", done.versions(), Say.size(done.freedBytes()), done.packs());
        if (done.kept() > 0) {
            say("cli.reclaim.kept", done.kept());
        }
        done.proof()
                .ifPresent(p -> say(
                        p.leftIn().isEmpty() ? "cli.reclaim.proof" : "cli.reclaim.noProof",
                        p.packs(),
                        Say.number(p.records()),
                        p.leftIn().size()));
        done.damaged().forEach(this::complain);
    }
}
