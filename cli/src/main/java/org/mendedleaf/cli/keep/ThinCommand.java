package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.CellsOption;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.SpaceReport;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.ThinReport;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.systems.OutsideThinning;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Lets go what rules no longer keep, or all but so many; with a grace time in which "undo" brings it back. */
@Command(name = "thin", description = "${bundle:cli.thin}")
public final class ThinCommand extends RulesBase {

    private static final int SHOWN = 30;

    @Parameters(arity = "0..1", paramLabel = "PATH", descriptionKey = "cli.thin.path")
    @Nullable
    Path path;

    @Mixin
    private final CellsOption cells = new CellsOption();

    @Option(names = "--rule", paramLabel = "FILE", descriptionKey = "cli.thin.rule")
    @Nullable
    Path rule;

    @Option(names = "--keep-last", paramLabel = "N", descriptionKey = "cli.thin.keepLast")
    @Nullable
    Integer keepLast;

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

    public ThinCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Path file = rule;
        Integer last = keepLast;
        if (last != null && last < 1) {
            throw new IllegalArgumentException(Words.of("thin.keepLast"));
        }
        if (last != null && file != null) {
            throw new IllegalArgumentException(Words.of("cli.thin.ruleOrCount"));
        }
        Path to = report;
        if (to != null) {
            ThinReport.requireEnding(to);
        }
        Set<ContentKind> only = kinds.isEmpty() ? Set.of() : EnumSet.copyOf(kinds);
        ThinPlan.Limits limits =
                new ThinPlan.Limits(0, "", only, last == null ? 0 : last, since(leave), since(olderThan), last == null);
        RuleSet once = file == null ? null : read(file);
        return eachMeant(path, m -> {
            Optional<Place> outside = outside(m);
            if (outside.isPresent()) {
                return thinOutside(m, outside.get(), once, limits.in(m.place(), m.path()));
            }
            thin(m, once, limits.in(m.place(), m.path()));
            return ExitCodes.DONE;
        });
    }

    private void thin(Meant m, @Nullable RuleSet once, ThinPlan.Limits limits) throws IOException {
        ThinPlan p;
        SpaceReport space;
        try (Reading reading = m.vault().read()) {
            RuleSet rules = once == null ? RuleSets.of(reading) : once;
            Verdicts v = verdicts(reading, rules);
            SpaceTable table = new SpaceTable(v.table());
            p = ThinPlan.of(v, table, limits);
            space = SpaceReport.of(m.vault().folder(), table);
        }
        Optional<Thinning.Done> done = Optional.empty();
        if (!plan && p.versions() > 0) {
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                done = Optional.of(new Thinning(m.vault(), clock(), who()).thin(p, progress));
            }
            try (Reading reading = m.vault().read()) {
                space = SpaceReport.of(m.vault().folder(), new SpaceTable(VersionTable.of(reading)));
            }
        }
        Path to = report;
        if (to != null) {
            new ThinReport(p, done, space, now(), zone(), cells.cells(settings())).write(to);
        }
        if (json) {
            printJson(ThinJson.of(p, done, space));
        } else {
            print(p, done, space);
        }
    }

    private static Optional<Place> outside(Meant m) throws IOException {
        try (Reading reading = m.vault().read()) {
            return reading.places().stream()
                    .filter(p -> p.id() == m.place() && p.isOutside())
                    .findFirst();
        }
    }

    /** In another system what goes is erased there, and waits in the vault. */
    private int thinOutside(Meant m, Place place, @Nullable RuleSet once, ThinPlan.Limits limits) throws IOException {
        OutsideThinning thinning = new OutsideThinning(m.vault(), place, registry(), clock(), who());
        RuleSet rules;
        SpaceReport space;
        try (Reading reading = m.vault().read()) {
            rules = once == null ? RuleSets.of(reading) : once;
        }
        ThinPlan p = thinning.plan(rules, limits, calendar());
        Optional<OutsideThinning.Done> done = Optional.empty();
        if (!plan && p.versions() > 0) {
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                done = Optional.of(thinning.run(p, progress));
            }
        }
        try (Reading reading = m.vault().read()) {
            space = SpaceReport.of(m.vault().folder(), new SpaceTable(VersionTable.of(reading)));
        }
        Optional<Thinning.Done> letGo = done.flatMap(OutsideThinning.Done::letGo);
        Path to = report;
        if (to != null) {
            new ThinReport(p, letGo, space, now(), zone(), cells.cells(settings())).write(to);
        }
        if (json) {
            Map<String, Object> map = ThinJson.of(p, letGo, space);
            map.put("place", place.where());
            map.put("erased", done.map(OutsideThinning.Done::erased).orElse(0));
            map.put("failed", done.map(OutsideThinning.Done::failed).orElse(Map.of()));
            printJson(map);
        } else {
            rows(p);
            if (done.isEmpty()) {
                line(thinning.words(p));
            }
            p.warnings().forEach(this::line);
            if (done.isPresent()) {
                say("cli.thin.erased", done.get().erased(), place.where());
            }
            if (letGo.isPresent()) {
                sayDone(letGo.get());
            }
        }
        done.ifPresent(d -> d.failed().forEach((what, why) -> complain(Words.of("cli.thin.notErased", what, why))));
        return done.map(d -> d.failed().isEmpty()).orElse(true) ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
    }

    private void sayDone(Thinning.Done done) throws IOException {
        if (done.kept() > 0) {
            say("cli.thin.kept", done.kept());
        }
        say("cli.thin.done", done.versions(), Formats.full(done.due(), zone()));
    }

    private void rows(ThinPlan p) {
        VersionTable t = p.verdicts().table();
        List<List<String>> rows = new ArrayList<>();
        p.files().stream()
                .sorted((a, b) -> Long.compare(b.bytes(), a.bytes()))
                .limit(SHOWN)
                .forEach(f -> rows.add(List.of(
                        t.path(f.line()), Words.of("cli.thin.going", f.going(), f.left()), Formats.size(f.bytes()))));
        table(rows, "lrr");
        if (p.files().size() > SHOWN) {
            say("cli.rules.more", p.files().size() - SHOWN);
        }
    }

    private void print(ThinPlan p, Optional<Thinning.Done> done, SpaceReport space) throws IOException {
        rows(p);
        line(p.words());
        p.warnings().forEach(this::line);
        if (done.isPresent()) {
            sayDone(done.get());
        }
        line(space.words());
    }
}
