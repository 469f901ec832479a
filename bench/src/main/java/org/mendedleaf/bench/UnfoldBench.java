package org.mendedleaf.bench;

import com.github.miachm.sods.Range;
import com.github.miachm.sods.Sheet;
import com.github.miachm.sods.SpreadSheet;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.unfold.Unfolding;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.sample.OpenDocument;

/**
 * What ten small edits of an office document take in a vault, by the program that wrote it: a document is made, a sentence
 * or a cell is changed ten times, each time all of it is written anew by that program, and each is captured.
 *
 * <p>Programs that are not there are left out, and named.
 */
final class UnfoldBench {

    private static final int EDITS = 10;

    private final Path folder;
    private final Table table;

    UnfoldBench(Path folder, Table table) {
        this.folder = folder;
        this.table = table;
    }

    /** Writes all states of a document, in order. */
    private interface Producer<T> {
        List<byte[]> write(List<T> states) throws IOException, InterruptedException;
    }

    private interface One<T> {
        byte[] write(T state) throws IOException, InterruptedException;
    }

    private static <T> Producer<T> each(One<T> one) {
        return states -> {
            List<byte[]> all = new ArrayList<>();
            for (T s : states) {
                all.add(one.write(s));
            }
            return all;
        };
    }

    void run() throws IOException, InterruptedException {
        Files.createDirectories(folder);
        for (int size : new int[] {25, 250, 2500}) {
            List<List<String>> texts = texts(size);
            String what = size + " paragraphs";
            measure("text, JDK, " + what, each(OpenDocument::text), texts);
            measure("text, POI, " + what, each(Kind.Texts::docx), texts);
            measure("text, LibreOffice ODF, " + what, office("txt", "odt", UnfoldBench::lines), texts);
            measure("text, LibreOffice OOXML, " + what, office("txt", "docx", UnfoldBench::lines), texts);
            measure("text, Info-ZIP, " + what, each(t -> zipped(OpenDocument.text(t), "-6")), texts);
            measure("text, Info-ZIP -9, " + what, each(t -> zipped(OpenDocument.text(t), "-9")), texts);
            List<List<List<String>>> sheets = sheets(size * 4);
            what = size * 4 + " rows";
            measure("sheet, JDK, " + what, each(t -> OpenDocument.sheet("Sheet", t)), sheets);
            measure("sheet, POI, " + what, each(Kind.Tables::xlsx), sheets);
            measure("sheet, ODF library (SODS), " + what, each(UnfoldBench::sods), sheets);
            measure("sheet, LibreOffice ODF, " + what, office("csv", "ods", UnfoldBench::csv), sheets);
            measure("sheet, LibreOffice OOXML, " + what, office("csv", "xlsx", UnfoldBench::csv), sheets);
        }
    }

    private static List<List<String>> texts(int paragraphs) {
        Prose prose = new Prose(new Random(41));
        List<List<String>> states = new ArrayList<>();
        List<String> now = prose.paragraphs(paragraphs, 1);
        states.add(now);
        for (int i = 1; i <= EDITS; i++) {
            List<String> next = new ArrayList<>(now);
            int at = i * 37 % 100 * next.size() / 100;
            next.set(at, next.get(at) + " " + prose.sentence(6, 12));
            states.add(next);
            now = next;
        }
        return states;
    }

    private static List<List<List<String>>> sheets(int rows) {
        Prose prose = new Prose(new Random(42));
        List<List<List<String>>> states = new ArrayList<>();
        List<List<String>> now = prose.rows(rows);
        states.add(now);
        for (int i = 1; i <= EDITS; i++) {
            List<List<String>> next = new ArrayList<>(now);
            int at = 1 + i * 37 % 100 * (next.size() - 1) / 100;
            List<String> row = new ArrayList<>(next.get(at));
            row.set(2, Integer.toString(2000 + i * 731));
            next.set(at, row);
            states.add(next);
            now = next;
        }
        return states;
    }

    private static byte[] lines(List<String> paragraphs) {
        return String.join("\n", paragraphs).getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] csv(List<List<String>> rows) {
        return rows.stream()
                .map(r -> String.join(",", r))
                .collect(Collectors.joining("\n"))
                .getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] sods(List<List<String>> rows) throws IOException {
        Sheet sheet = new Sheet("Sheet", rows.size(), rows.get(0).size());
        Range all = sheet.getDataRange();
        Object[][] values = rows.stream().map(List::toArray).toArray(Object[][]::new);
        all.setValues(values);
        SpreadSheet book = new SpreadSheet();
        book.appendSheet(sheet);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        book.save(out);
        return out.toByteArray();
    }

    /** The parts of a document, packed again by the zip command. */
    private byte[] zipped(byte[] document, String level) throws IOException, InterruptedException {
        Path parts = folder.resolve("parts");
        Path source = Files.write(folder.resolve("source.zip"), document);
        Path packed = folder.resolve("packed.zip");
        Files.deleteIfExists(packed);
        Shell.seconds(folder, "rm -rf parts && mkdir parts && unzip -q " + source.getFileName() + " -d parts");
        Shell.seconds(parts, "zip -q -X " + level + " -r ../" + packed.getFileName() + " .");
        return Files.readAllBytes(packed);
    }

    private <T> Producer<T> office(String from, String to, One<T> plain) {
        return states -> {
            Path in = Files.createDirectories(folder.resolve("plain"));
            Path out = Files.createDirectories(folder.resolve("office"));
            for (int i = 0; i < states.size(); i++) {
                Files.write(in.resolve("v%02d.%s".formatted(i, from)), plain.write(states.get(i)));
            }
            Path profile = folder.resolve("profile");
            Process office = new ProcessBuilder(
                            "sh",
                            "-c",
                            "command -v soffice >/dev/null && soffice -env:UserInstallation=" + profile.toUri()
                                    + " --headless --convert-to " + to + " --outdir " + out + " " + in + "/*." + from)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            if (!office.waitFor(5, TimeUnit.MINUTES)) {
                office.destroyForcibly();
            }
            List<byte[]> all = new ArrayList<>();
            for (int i = 0; i < states.size(); i++) {
                Path file = out.resolve("v%02d.%s".formatted(i, to));
                if (Files.exists(file)) {
                    all.add(Files.readAllBytes(file));
                    Files.delete(file);
                }
            }
            return all.size() == states.size() ? all : List.of();
        };
    }

    private <T> void measure(String name, Producer<T> producer, List<T> states)
            throws IOException, InterruptedException {
        List<byte[]> documents = producer.write(states);
        if (documents.isEmpty()) {
            System.out.println("| " + name + ": the program is not there | | | | | | |");
            return;
        }
        Path desk = Files.createDirectories(folder.resolve("desk"));
        Path file = desk.resolve("document");
        long full = documents.stream().mapToLong(d -> d.length).sum();
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "bench", Duration.ZERO)) {
            Clock clock = Clock.system(ZoneOffset.UTC);
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), clock, "Ines");
            Capture capture = new Capture(vault, place, clock, (p, o) -> o);
            for (int i = 0; i < documents.size(); i++) {
                Files.write(file, documents.get(i));
                Files.setLastModifiedTime(file, FileTime.from(Instant.now().minusSeconds(1000 - i)));
                capture.run(CaptureScope.WHOLE, Progress.NONE);
            }
            Unfolding.atOnce(vault, clock).run(Progress.NONE);
            new Reclaim(vault, clock).run(Progress.NONE);
            double stored = 0;
            for (long pack : vault.folder().packNumbers()) {
                stored += Files.size(vault.folder().pack(pack));
            }
            table.ratio(
                    "%s (%d kB, %.0f %% of it unfolded)"
                            .formatted(name, full / documents.size() / 1000, unfolded(vault, place)),
                    "full copies",
                    stored / 1000,
                    full / 1000.0,
                    "kB",
                    0.12);
        } finally {
            Shell.seconds(folder, "rm -rf vault desk");
        }
    }

    /** Share of the newest version that was deflated and is stored inflated, percent. */
    private static double unfolded(OpenVault vault, Place place) throws IOException {
        try (Reading reading = vault.read()) {
            Version newest =
                    reading.line(place, "document").orElseThrow().newest().orElseThrow();
            long bytes = newest.recipe().unfolded().stream()
                    .flatMap(u -> u.parts().stream())
                    .mapToLong(p -> p instanceof Recipe.Member m ? m.deflated() : 0)
                    .sum();
            return 100.0 * bytes / newest.size();
        }
    }
}
