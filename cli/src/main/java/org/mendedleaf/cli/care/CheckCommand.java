package org.mendedleaf.cli.care;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.check.CheckSchedule;
import org.mendedleaf.core.check.LastCheck;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Checks the vault. */
@Command(name = "check", description = "${bundle:cli.check}")
public final class CheckCommand extends Base {

    private static final int NAMED = 20;

    @Option(names = "--full", descriptionKey = "cli.check.full")
    boolean full;

    @Option(names = "--deep", descriptionKey = "cli.check.deep")
    boolean deep;

    @Option(names = "--heal", descriptionKey = "cli.check.heal")
    boolean heal;

    @Option(names = "--rebuild", descriptionKey = "cli.check.rebuild")
    boolean rebuild;

    @Option(names = "--every", paramLabel = "DAYS|off", descriptionKey = "cli.check.every")
    @Nullable
    String every;

    public CheckCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (every != null) {
            return choose(days(every));
        }
        List<Object> rows = new ArrayList<>();
        int code = ExitCodes.DONE;
        for (Path folder : vaults()) {
            try {
                code = Math.max(code, check(folder, rows));
            } catch (VaultException e) {
                complain(e.words());
                rows.add(Map.of("vault", folder.toString(), "error", e.words()));
                code = ExitCodes.NO_VAULT;
            }
        }
        if (json) {
            printJson(rows);
        }
        return code;
    }

    private static int days(String typed) {
        try {
            return typed.equalsIgnoreCase("off") ? CheckSchedule.BY_HAND : Math.max(1, Integer.parseInt(typed));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(Words.of("check.days", typed), e);
        }
    }

    private int choose(int days) throws Exception {
        return eachVault((folder, open) -> {
            CheckSchedule.choose(open, days);
            if (json) {
                printJson(Map.of("vault", folder.toString(), "everyDays", days));
            } else {
                say("cli.check.schedule", folder, days);
            }
            return ExitCodes.DONE;
        });
    }

    private int check(Path folder, List<Object> rows) throws Exception {
        boolean whole = !rebuild || rebuild(folder);
        try (OpenVault open = open(folder)) {
            VaultCheck.Report report;
            List<Healing.Healed> healed = List.of();
            List<Healing.OfCopy> copies = List.of();
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                if (heal) {
                    Healing.Result result = new Healing(open, registry(), clock(), authors()).run(progress);
                    report = result.after();
                    healed = result.healed();
                    copies = result.copies();
                } else {
                    report = new VaultCheck(open).run(depth(), progress, Set.of());
                    LastCheck.note(open, report, now());
                }
            }
            Map<String, Object> row = json(folder, report);
            if (heal) {
                row.put(
                        "healed",
                        healed.stream()
                                .map(h -> Map.of(
                                        "path", h.version().path(),
                                        "version", h.version().label(),
                                        "from", h.from()))
                                .toList());
                row.put(
                        "copies",
                        copies.stream()
                                .map(c -> Map.of(
                                        "folder", c.copy().folder().toString(),
                                        "healedBytes", c.bytes(),
                                        "trouble", c.trouble()))
                                .toList());
            }
            rows.add(row);
            if (!json) {
                healed.forEach(h ->
                        say("cli.check.healed", h.version().path(), h.version().label(), h.from()));
                copies.forEach(this::print);
            }
            boolean good = heal
                    ? report.lost().isEmpty()
                            && copies.stream().allMatch(c -> c.trouble().isEmpty())
                    : report.isClean();
            if (!json && heal && good && !report.isClean()) {
                say(
                        "cli.check.healedAll",
                        folder,
                        report.versions(),
                        report.damages().size());
            } else if (!json) {
                print(folder, report);
            }
            return whole && good ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
    }

    private VaultCheck.Depth depth() {
        if (deep) {
            return VaultCheck.Depth.DEEP;
        }
        return full ? VaultCheck.Depth.FULL : VaultCheck.Depth.QUICK;
    }

    private void print(Healing.OfCopy copy) {
        if (!copy.trouble().isEmpty()) {
            complain(copy.trouble());
        } else if (copy.bytes() > 0) {
            say("cli.copyVault.healed", copy.copy().folder(), Formats.size(copy.bytes()));
        }
    }

    /** Makes the catalogue anew; says whether the packs told everything. */
    private boolean rebuild(Path folder) throws Exception {
        Rebuild.Report report = Rebuild.run(
                folder,
                Words.of("cli.holder", ProcessHandle.current().pid()),
                Duration.ofSeconds(10),
                surroundings.clock());
        report.damages().forEach(this::complain);
        if (!report.missing().isEmpty()) {
            complain(Words.of(
                    "cli.check.commits",
                    report.missing().size(),
                    report.missing().stream()
                            .limit(NAMED)
                            .map(String::valueOf)
                            .collect(java.util.stream.Collectors.joining(", "))));
        }
        if (report.basis() != Rebuild.Basis.PACKS) {
            complain(Words.of("cli.check.basis." + report.basis()));
        }
        if (!json) {
            line(report.words());
        }
        return report.damages().isEmpty() && report.basis() == Rebuild.Basis.PACKS;
    }

    private void print(Path folder, VaultCheck.Report report) {
        report.damages().forEach(this::complain);
        if (report.isClean()) {
            say(
                    switch (report.depth()) {
                        case QUICK -> "cli.check.clean";
                        case FULL -> "cli.check.cleanFull";
                        case DEEP -> "cli.check.cleanDeep";
                    },
                    folder,
                    report.versions(),
                    Formats.size(report.bytes()),
                    report.packs());
        } else {
            say(
                    "cli.check.damaged",
                    folder,
                    report.damages().size(),
                    report.lost().size());
        }
    }

    private static Map<String, Object> json(Path folder, VaultCheck.Report report) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("vault", folder.toString());
        map.put("full", report.full());
        map.put("deep", report.depth() == VaultCheck.Depth.DEEP);
        map.put("clean", report.isClean());
        map.put("packs", report.packs());
        map.put("versions", report.versions());
        map.put("bytes", report.bytes());
        map.put("damages", report.damages());
        map.put(
                "lost",
                report.lost().stream()
                        .map(l -> Map.of("path", l.path(), "version", l.label()))
                        .toList());
        return map;
    }
}
