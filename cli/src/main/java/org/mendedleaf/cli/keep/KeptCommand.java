package org.mendedleaf.cli.keep;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.ReportOption;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.report.Report;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.retention.KeptReport;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Says what is kept of files and until when, now or as it was on a day. */
@Command(name = "kept", description = "${bundle:cli.kept}")
public final class KeptCommand extends RetentionBase {

    private static final int SHOWN = 40;

    @Parameters(arity = "0..1", paramLabel = "PATH", descriptionKey = "cli.kept.path")
    @Nullable
    Path path;

    @Option(names = "--on", paramLabel = "DAY", descriptionKey = "cli.kept.on")
    @Nullable
    String on;

    @Mixin
    private final ReportOption reportOption = new ReportOption();

    public KeptCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        reportOption.isWanted();
        Optional<Instant> day = day();
        List<Object> all = new ArrayList<>();
        int code = eachMeant(path, m -> {
            try (Reading reading = m.vault().read()) {
                Report report = new KeptReport(reading, verdicts(reading), day, now(), zone()).of(m.place(), m.path());
                all.add(report.map());
                if (!json) {
                    print(report);
                }
                reportOption.write(this, () -> report);
            }
            return ExitCodes.DONE;
        });
        if (json) {
            printJson(all);
        }
        return code;
    }

    /** The day that was typed, to its end; empty for now. */
    private Optional<Instant> day() throws java.io.IOException {
        String typed = on;
        return typed == null
                ? Optional.empty()
                : Optional.of(new MomentText(zone(), now(), MomentText.NOWHERE).read(typed));
    }

    private void print(Report report) throws java.io.IOException {
        report.paragraphs().forEach(this::line);
        report.warnings().forEach(this::line);
        Report.Table files = report.main();
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of(
                Words.of("report.file"),
                Words.of("keeps.versions"),
                Words.of("keeps.oldest"),
                Words.of("keeps.nextGoes"),
                Words.of("keeps.newestIs")));
        files.rows().stream().limit(SHOWN).forEach(row -> {
            List<String> words = ReportFile.words(row);
            String file = path == null ? words.get(0) + ": " + words.get(1) : words.get(1);
            rows.add(List.of(file, words.get(2), words.get(3), words.get(5), words.get(6)));
        });
        if (!files.rows().isEmpty()) {
            table(rows, "lrlll");
        }
        if (files.rows().size() > SHOWN) {
            say("cli.kept.more", files.rows().size() - SHOWN);
        }
        for (Report.Table t : report.tables()) {
            if (t != files && !t.rows().isEmpty()) {
                line("");
                table(
                        t.rows().stream().map(ReportFile::words).toList(),
                        "l".repeat(t.rows().get(0).size()));
            }
        }
    }
}
