package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.line.MomentText;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.VersionTable;
import org.mendedleaf.core.retention.LettingGo;
import org.mendedleaf.core.retention.RoomReport;
import org.mendedleaf.core.retention.RoomTable;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.ThinReport;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Lets go what rules no longer keep, or all but so many; with a grace time in which "undo" brings it back. */
@Command(name = "thin", description = "${bundle:cli.thin}", mixinStandardHelpOptions = true)
final class ThinCommand extends RulesBase {

    private static final int SHOWN = 30;

    @Parameters(arity = "0..1", paramLabel = "PATH", descriptionKey = "cli.thin.path")
    @Nullable
    Path path;

    @Option(names = "--rule", paramLabel = "FILE", descriptionKey = "cli.thin.rule")
    @Nullable
    Path rule;

    @Option(names = "--keep-last", paramLabel = "N", descriptionKey = "cli.thin.keepLast")
    int keepLast;

    @Option(names = "--kind", paramLabel = "KIND", descriptionKey = "cli.thin.kind")
    List<ContentKind> kinds = List.of();

    @Option(names = "--older-than", paramLabel = "MOMENT", descriptionKey = "cli.thin.olderThan")
    @Nullable
    String olderThan;

    @Option(names = "--leave-changed-after", paramLabel = "MOMENT", descriptionKey = "cli.thin.leave")
    @Nullable
    String leave;

    @Option(names = "--plan", descriptionKey = "cli.thin.plan")
    boolean plan;

    @Option(names = "--report", paramLabel = "FILE", descriptionKey = "cli.thin.report")
    @Nullable
    Path report;

    ThinCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Path file = rule;
        if (keepLast < 0 || (keepLast > 0 && file != null)) {
            throw new IllegalArgumentException(Words.of("cli.thin.ruleOrCount"));
        }
        Path to = report;
        if (to != null) {
            ThinReport.requireEnding(to);
        }
        Set<ContentKind> only = kinds.isEmpty() ? Set.of() : EnumSet.copyOf(kinds);
        ThinPlan.Limits limits =
                new ThinPlan.Limits(0, "", only, keepLast, moment(leave), moment(olderThan), keepLast == 0);
        for (Meant m : meant(path)) {
            try (m) {
                thin(m, file == null ? null : read(file), limits.in(m.place(), m.path()));
            }
        }
        return Main.DONE;
    }

    private Optional<Instant> moment(@Nullable String typed) throws IOException {
        return typed == null ? Optional.empty() : Optional.of(new MomentText(zone(), now(), NO_AROUND).read(typed));
    }

    private void thin(Meant m, @Nullable RuleSet once, ThinPlan.Limits limits) throws IOException {
        ThinPlan p;
        RoomReport room;
        try (Reading reading = m.vault().read()) {
            RuleSet rules = once == null ? RuleSets.of(reading) : once;
            Verdicts v = verdicts(reading, rules);
            RoomTable table = new RoomTable(v.table());
            p = ThinPlan.of(v, table, limits);
            room = RoomReport.of(m.vault().folder(), table);
        }
        Optional<LettingGo.Done> done = Optional.empty();
        if (!plan && p.versions() > 0) {
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                done = Optional.of(new LettingGo(m.vault(), clock(), who()).thin(p, progress));
            }
            try (Reading reading = m.vault().read()) {
                room = RoomReport.of(m.vault().folder(), new RoomTable(VersionTable.of(reading)));
            }
        }
        Path to = report;
        if (to != null) {
            new ThinReport(p, done, room, now(), zone()).write(to);
        }
        if (json) {
            printJson(json(p, done, room));
        } else {
            print(p, done, room);
        }
    }

    private void print(ThinPlan p, Optional<LettingGo.Done> done, RoomReport room) throws IOException {
        VersionTable t = p.verdicts().table();
        List<List<String>> rows = new ArrayList<>();
        p.files().stream()
                .sorted((a, b) -> Long.compare(b.bytes(), a.bytes()))
                .limit(SHOWN)
                .forEach(f -> rows.add(List.of(
                        t.path(f.line()), Words.of("cli.thin.going", f.going(), f.left()), Say.size(f.bytes()))));
        table(rows, "lrr");
        if (p.files().size() > SHOWN) {
            say("cli.rules.more", p.files().size() - SHOWN);
        }
        line(p.words());
        p.warnings().forEach(this::line);
        if (done.isPresent()) {
            if (done.get().kept() > 0) {
                say("cli.thin.kept", done.get().kept());
            }
            say("cli.thin.done", done.get().versions(), Say.full(done.get().due(), zone()));
        }
        line(Words.of(
                "report.room",
                Say.size(room.inUse()),
                Say.size(room.waiting()),
                Say.size(room.unused()),
                Say.size(room.bookkeeping()),
                Say.size(room.all()),
                Say.size(room.free())));
    }

    private static Map<String, Object> json(ThinPlan p, Optional<LettingGo.Done> done, RoomReport room) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("versions", p.versions());
        map.put("files", p.files().size());
        map.put("bytes", p.bytes());
        map.put("freedBytes", p.freedBytes());
        map.put("warnings", p.warnings());
        map.put("done", done.isPresent());
        done.ifPresent(d -> {
            map.put("letGo", d.versions());
            map.put("kept", d.kept());
            map.put("due", d.due().toString());
            map.put("actions", d.actions());
        });
        map.put("inUse", room.inUse());
        map.put("waiting", room.waiting());
        map.put("unused", room.unused());
        map.put("bookkeeping", room.bookkeeping());
        map.put("free", room.free());
        return map;
    }
}
