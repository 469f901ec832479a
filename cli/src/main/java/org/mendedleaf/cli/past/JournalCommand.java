package org.mendedleaf.cli.past;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.CellsOption;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.JournalQuery;
import org.mendedleaf.core.catalogue.JournalReport;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** Lists what people did. */
@Command(name = "journal", description = "${bundle:cli.journal}")
public final class JournalCommand extends Base {

    private static final int SHOWN = 100;

    @Mixin
    private final CellsOption cells = new CellsOption();

    @Option(names = "--file", paramLabel = "NAME", descriptionKey = "cli.journal.file")
    String file = "";

    @Option(names = "--who", paramLabel = "PERSON", descriptionKey = "cli.journal.who")
    String by = "";

    @Option(names = "--kind", paramLabel = "KIND", descriptionKey = "cli.journal.kind")
    String kind = "";

    @Option(names = "--since", paramLabel = "MOMENT", descriptionKey = "cli.journal.since")
    @Nullable
    String since;

    @Option(names = "--until", paramLabel = "MOMENT", descriptionKey = "cli.journal.until")
    @Nullable
    String until;

    @Option(names = "--export", paramLabel = "FILE", descriptionKey = "cli.journal.export")
    @Nullable
    Path export;

    public JournalCommand(Surroundings surroundings) {
        super(surroundings);
    }

    /** An entry, and what its place is called. */
    private record Row(JournalQuery.Entry entry, String place) {}

    @Override
    public Integer call() throws Exception {
        JournalQuery.Wanted wanted = new JournalQuery.Wanted(file, by, kind, since(since), until(until));
        List<Row> all = new ArrayList<>();
        int code = eachVault((folder, vault) -> {
            try (Reading reading = vault.read()) {
                Map<Long, String> places = new TreeMap<>();
                reading.places().forEach(p -> places.put(p.id(), p.label()));
                for (JournalQuery.Entry e : JournalQuery.of(reading).entries(wanted, Integer.MAX_VALUE)) {
                    all.add(new Row(e, places.getOrDefault(e.place(), "")));
                }
            }
            return ExitCodes.DONE;
        });
        all.sort(Comparator.comparing((Row r) -> r.entry().at()).reversed());
        Path to = export;
        if (to != null && isPage(to)) {
            java.util.IdentityHashMap<JournalQuery.Entry, String> places = new java.util.IdentityHashMap<>();
            all.forEach(r -> places.put(r.entry(), r.place()));
            if (Files.exists(to)) {
                throw new java.nio.file.FileAlreadyExistsException(to.toString());
            }
            ReportFile.write(
                    JournalReport.report(
                            all.stream().map(Row::entry).toList(), e -> places.getOrDefault(e, ""), now(), zone()),
                    to,
                    cells.cells(settings()),
                    zone());
            say("cli.journal.exported", all.size(), to);
            return code;
        }
        if (to != null) {
            write(to, all);
            say("cli.journal.exported", all.size(), to);
        } else if (json) {
            printJson(all.stream()
                    .map(r -> JournalReport.map(r.entry(), id -> r.place()))
                    .toList());
        } else {
            print(all);
        }
        return code;
    }

    /** One file a row or an entry a line, by the ending of the file's name. */
    private void write(Path to, List<Row> all) throws IOException {
        boolean csv = String.valueOf(to.getFileName()).toLowerCase(Locale.ROOT).endsWith(".csv");
        StringBuilder text = new StringBuilder();
        for (Row row : all) {
            List<JournalQuery.Entry> entry = List.of(row.entry());
            String one = csv
                    ? JournalReport.csv(entry, id -> row.place(), cells.cells(settings()))
                    : JournalReport.jsonLines(entry, id -> row.place());
            // The names of the columns stand once.
            boolean head = csv && !text.isEmpty();
            text.append(head ? one.substring(one.indexOf('\n') + 1) : one);
        }
        Files.writeString(to, text, StandardOpenOption.CREATE_NEW);
    }

    private static boolean isPage(Path to) {
        return String.valueOf(to.getFileName()).toLowerCase(Locale.ROOT).matches(".*\\.html?");
    }

    private void print(List<Row> all) throws IOException {
        if (all.isEmpty()) {
            say("cli.journal.none");
            return;
        }
        List<List<String>> rows = new ArrayList<>();
        for (Row row : all.subList(0, Math.min(SHOWN, all.size()))) {
            JournalQuery.Entry e = row.entry();
            String undone =
                    e.action().filter(Action::undone).isPresent() ? "  (" + Words.of("journal.undone") + ")" : "";
            rows.add(List.of(
                    e.action().map(a -> String.valueOf(a.id())).orElse(""),
                    Formats.moment(e.at(), now(), zone()),
                    e.who(),
                    row.place(),
                    e.words() + (e.outcome().isEmpty() ? "" : " · " + e.outcome()) + undone));
        }
        table(rows, "rllll");
        if (all.size() > SHOWN) {
            say("cli.journal.more", all.size() - SHOWN);
        }
    }
}
