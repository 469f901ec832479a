package org.mendedleaf.bench;

import com.github.miachm.sods.Sheet;
import com.github.miachm.sods.SpreadSheet;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.apache.poi.xssf.streaming.SXSSFWorkbook;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.find.FindIndex;
import org.mendedleaf.core.find.Finder;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;

/** Looking into documents, comparing them, and finding words: each beside plain extraction of the same contents. */
final class LookBench {

    private static final int ROUNDS = 5;

    private final Path folder;
    private final double scale;
    private final Table table;
    private final Random random = new Random(11);
    private final Prose prose = new Prose(random);

    LookBench(Path folder, double scale, Table table) {
        this.folder = folder;
        this.scale = scale;
        this.table = table;
    }

    private interface Work {
        void run() throws IOException;
    }

    private static double seconds(Work work) throws IOException {
        double[] times = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            long began = System.nanoTime();
            work.run();
            times[i] = (System.nanoTime() - began) / 1e9;
        }
        return Table.median(times);
    }

    void run() throws IOException {
        Files.createDirectories(folder);
        opening("sheet of 2,000 rows, XLSX", "a.xlsx", xlsx(2000, 0));
        opening("sheet of 2,000 rows, ODS", "a.ods", ods(2000));
        opening("text of 1,200 paragraphs, DOCX", "a.docx", docx(1200, 0));
        int rows = (int) (50_000 * scale);
        comparing(String.format(Locale.ROOT, "sheets of %,d rows", rows), "a.xlsx", xlsx(rows, 0), xlsx(rows, 1));
        int paragraphs = (int) (12_000 * scale);
        comparing(
                String.format(Locale.ROOT, "texts of %,d paragraphs", paragraphs),
                "a.docx",
                docx(paragraphs, 0),
                docx(paragraphs, 1));
        finding();
    }

    private void opening(String what, String name, byte[] content) throws IOException {
        try (DocumentProcess process = new DocumentProcess(Duration.ofSeconds(60), 512)) {
            process.read(name, content, false);
            double theirs = seconds(() -> Documents.read(name, content, false));
            double ours = seconds(() -> process.read(name, content, false));
            table.ratio("opening a " + what, "plain extraction", ours * 1000, theirs * 1000, "ms", 0);
        }
    }

    private void comparing(String what, String name, byte[] before, byte[] after) throws IOException {
        double theirs = seconds(() -> {
            Documents.read(name, before, false);
            Documents.read(name, after, false);
        });
        Document a = Documents.read(name, before, false);
        Document b = Documents.read(name, after, false);
        double ours = seconds(() -> Compare.compare(a, before, b, after).words());
        table.ratio("comparing two " + what, "plain extraction of both", ours, theirs, "s", 1);
    }

    private byte[] xlsx(int rows, int edit) throws IOException {
        Random own = new Random(3);
        try (SXSSFWorkbook book = new SXSSFWorkbook(100);
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            var sheet = book.createSheet("Harvest");
            int at = 0;
            for (int r = 0; r < rows; r++) {
                // One row in five hundred is gone, one is new, and a few cells are others.
                boolean gone = edit == 1 && r % 500 == 250;
                String name = "row " + own.nextInt(1_000_000);
                double kilos = own.nextInt(1000) + (edit == 1 && r % 400 == 3 ? 0.5 : 0);
                if (gone) {
                    continue;
                }
                var row = sheet.createRow(at++);
                row.createCell(0).setCellValue(name);
                row.createCell(1).setCellValue(kilos);
                row.createCell(2).setCellValue(r % 7);
                row.createCell(3).setCellValue("by " + r % 11);
                if (edit == 1 && r % 500 == 100) {
                    sheet.createRow(at++).createCell(0).setCellValue("came " + r);
                }
            }
            book.write(out);
            return out.toByteArray();
        }
    }

    private byte[] ods(int rows) throws IOException {
        SpreadSheet book = new SpreadSheet();
        Sheet sheet = new Sheet("Harvest", rows, 4);
        for (int r = 0; r < rows; r++) {
            sheet.getRange(r, 0).setValue("row " + random.nextInt(1_000_000));
            sheet.getRange(r, 1).setValue((double) random.nextInt(1000));
            sheet.getRange(r, 2).setValue((double) (r % 7));
            sheet.getRange(r, 3).setValue("by " + r % 11);
        }
        book.appendSheet(sheet);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        book.save(out);
        return out.toByteArray();
    }

    private static byte[] docx(int paragraphs, int edit) throws IOException {
        Prose own = new Prose(new Random(4));
        try (XWPFDocument document = new XWPFDocument();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            for (int i = 0; i < paragraphs; i++) {
                String text = own.paragraph();
                if (edit == 1 && i % 100 == 50) {
                    continue;
                }
                boolean changed = edit == 1 && i % 60 == 7;
                document.createParagraph().createRun().setText(changed ? text + " and more" : text);
            }
            document.write(out);
            return out.toByteArray();
        }
    }

    /** Only the search, over a thousand files of ten versions each for each unit of scale. */
    void finding() throws IOException {
        Path desk = Files.createDirectories(folder.resolve("desk"));
        int files = (int) Math.max(20, 1000 * scale);
        int versions = 10;
        Clock clock = Clock.system(ZoneOffset.UTC);
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "bench", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk.toRealPath(), Rhythm.BY_HAND, List.of(), clock, "Ines");
            for (int v = 0; v < versions; v++) {
                for (int f = 0; f < files; f++) {
                    Files.writeString(desk.resolve("letter " + f + ".txt"), String.join("\n", prose.paragraphs(5, 5)));
                }
                new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            }
            long chars = extraction(vault, place);
            double theirs = once(() -> extraction(vault, place));
            double ours = once(() -> new Indexer(vault, false).run(Progress.NONE));
            String what = String.format(Locale.ROOT, "%,d versions", files * versions);
            table.ratio("filling the index with " + what, "reading their words", ours, theirs, "s", 0);
            try (FindIndex index = FindIndex.open(vault.folder())) {
                table.ratio("the index of " + what, "their text", index.size().bytes() / 1e6, chars / 1e6, "MB", 0);
            }
            Finder finder = new Finder(vault, "Ines");
            Wanted few = Wanted.parse("\"" + rare(vault, place) + "\"", false, Wanted.Narrow.NOT);
            finder.find(few, 50);
            table.absolute(
                    "a query over " + what + " for a phrase that few hold",
                    seconds(() -> finder.find(few, 50)) * 1000,
                    "ms",
                    50);
            Wanted one = Wanted.parse(prose.word() + " " + prose.word(), false, Wanted.Narrow.NOT);
            finder.find(one, 50);
            table.absolute(
                    "a query over " + what + " for words that most hold",
                    seconds(() -> finder.find(one, 50)) * 1000,
                    "ms",
                    50);
            stepping(vault, place);
        }
    }

    /** Five words in a row of one version. */
    private static String rare(OpenVault vault, Place place) throws IOException {
        try (Reading reading = vault.read()) {
            List<Long> lines = reading.lines().ids(place);
            Version v = reading.line(lines.get(lines.size() / 2))
                    .orElseThrow()
                    .versions()
                    .get(3);
            String text = new String(reading.contents().head(v.recipe(), 400), java.nio.charset.StandardCharsets.UTF_8);
            String[] words = text.replaceAll("[^\\p{L} ]", " ").trim().split("\\s+");
            return String.join(" ", List.of(words).subList(2, 7));
        }
    }

    private static double once(Work work) throws IOException {
        long began = System.nanoTime();
        work.run();
        return (System.nanoTime() - began) / 1e9;
    }

    private static long extraction(OpenVault vault, Place place) throws IOException {
        long chars = 0;
        try (Reading reading = vault.read()) {
            for (long id : reading.lines().ids(place)) {
                for (Version v : reading.line(id).orElseThrow().versions()) {
                    byte[] content = reading.contents().head(v.recipe(), 1 << 20);
                    for (String line : Document.words(Documents.read(v.path(), content, false))) {
                        chars += line.length();
                    }
                }
            }
        }
        return chars;
    }

    /** From version to version of one line, each compared with the one before it, for the first time and again. */
    private void stepping(OpenVault vault, Place place) throws IOException {
        try (Reading reading = vault.read()) {
            Line line = reading.line(reading.lines().ids(place).get(0)).orElseThrow();
            List<Version> versions = new ArrayList<>(line.versions());
            DocumentCache looks = DocumentCache.shared();
            double first = once(() -> step(looks, reading, versions));
            double again = once(() -> step(looks, reading, versions));
            double steps = versions.size() - 1.0;
            table.absolute("a step along a line, first", first * 1000 / steps, "ms", 150);
            table.absolute("a step along a line, again", again * 1000 / steps, "ms", 0);
        }
    }

    private static void step(DocumentCache looks, Reading reading, List<Version> versions) throws IOException {
        for (int i = 0; i + 1 < versions.size(); i++) {
            looks.between(reading, versions.get(i + 1), versions.get(i));
        }
    }
}
