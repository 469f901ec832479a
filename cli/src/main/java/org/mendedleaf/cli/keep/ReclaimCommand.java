package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.NeedsYesException;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Gives space back whose grace has ended; with {@code --now}, ends the grace of all that waits. */
@Command(name = "reclaim", description = "${bundle:cli.reclaim}")
public final class ReclaimCommand extends RetentionBase {

    @Option(names = "--now", descriptionKey = "cli.reclaim.now")
    boolean atOnce;

    @Option(names = "--yes", descriptionKey = "cli.reclaim.yes")
    boolean yes;

    @Option(names = "--plan", descriptionKey = "cli.reclaim.plan.option")
    boolean plan;

    public ReclaimCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        return eachVault((folder, open) -> {
            List<PendingDeletion> ends;
            try (Reading reading = open.read()) {
                Instant now = TrustedTime.of(reading, now());
                ends = PendingDeletionStore.of(reading).waiting().stream()
                        .filter(l -> atOnce || !l.due().isAfter(now))
                        .toList();
            }
            if (plan) {
                return plan(folder, open, ends);
            }
            // What waits could still be taken back; after this nothing brings it back.
            boolean asks = atOnce && !ends.isEmpty() && !yes;
            if (asks && !surroundings.confirms(Words.of("cli.reclaim.what", ends.size()))) {
                throw new NeedsYesException(Words.of("cli.reclaim.needsYes", ends.size()));
            }
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                Reclaim reclaim = new Reclaim(open, clock());
                Reclaim.Done done = atOnce ? reclaim.endGrace(who(), progress) : reclaim.run(progress);
                print(done);
                for (CopyStatus copy : new Copies(open, clock(), who()).list()) {
                    if (copy.stale() > 0) {
                        complain(Words.of("cli.reclaim.copy", copy.copy().folder()));
                    }
                }
                return done.damaged().isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
            }
        });
    }

    private int plan(Path folder, OpenVault open, List<PendingDeletion> ends) throws IOException {
        long bytes;
        try (Reading reading = open.read()) {
            VersionTable table = VersionTable.of(reading);
            BitSet rows = new BitSet();
            ends.stream()
                    .mapToInt(l -> table.row(l.line(), l.number()))
                    .filter(row -> row >= 0)
                    .forEach(rows::set);
            bytes = new SpaceTable(table).freedBy(rows);
        }
        if (json) {
            printJson(Map.of("vault", folder.toString(), "versions", ends.size(), "freedBytes", bytes));
        } else {
            say("cli.reclaim.plan", folder, ends.size(), Formats.size(bytes));
        }
        return ExitCodes.DONE;
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
        say("cli.reclaim.done", done.versions(), Formats.size(done.freedBytes()), done.packs());
        if (done.kept() > 0) {
            say("cli.reclaim.kept", done.kept());
        }
        done.proof()
                .ifPresent(p -> say(
                        p.leftIn().isEmpty() ? "cli.reclaim.proof" : "cli.reclaim.noProof",
                        p.packs(),
                        Formats.number(p.records()),
                        p.leftIn().size()));
        done.damaged().forEach(this::complain);
    }
}
