package org.mendedleaf.sample;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Documents;

/** The documents of the sample office are real ones: readers that know nothing of it read in them what was written. */
class SampleDocumentsTest {

    private static Document read(String name, byte[] content) {
        return Documents.read(name, content, false);
    }

    private static List<String> paragraphs(byte[] text) {
        Document.Prose prose = (Document.Prose) read("a.odt", text);
        return prose.sections().stream()
                .flatMap(s -> s.blocks().stream())
                .map(Document.Block::text)
                .toList();
    }

    private static List<String> members(byte[] zipped) throws IOException {
        List<String> names = new ArrayList<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(zipped))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
                names.add(e.getName());
            }
        }
        return names;
    }

    @Test
    void aSheetHasItsCellsItsNumbersAndWhatItsFormulasGive() {
        byte[] sheet = OpenDocument.sheet(
                "Ledger & log",
                List.of(
                        List.of("Kind", "Kilos"),
                        List.of("Katy <early>", "412"),
                        List.of("Total", "=SUM([.B2:.B2])|412")));
        Document.Sheets sheets = (Document.Sheets) read("a.ods", sheet);
        Document.Sheet only = sheets.sheets().get(0);
        assertThat(only.name()).isEqualTo("Ledger & log");
        assertThat(only.rows().get(1).cell(0).shown()).isEqualTo("Katy <early>");
        assertThat(only.rows().get(1).cell(1).value()).startsWith("412");
        assertThat(only.rows().get(2).cell(1).formula()).contains("SUM");
        assertThat(only.rows().get(2).cell(1).shown()).isEqualTo("412");
    }

    @Test
    void aTextHasItsHeadingsAndParagraphsAndItsPicturesAsMembers() throws IOException {
        byte[] text = OpenDocument.text(List.of("# Minutes", "It was \"cold\".", "!0"), List.of(new byte[] {1, 2, 3}));
        assertThat(paragraphs(text)).contains("Minutes", "It was \"cold\".");
        assertThat(members(text))
                .as("the type comes first, unpacked, as the standard asks for")
                .startsWith("mimetype", "content.xml")
                .contains("Pictures/picture1.jpg", "META-INF/manifest.xml");
    }

    @Test
    void aPresentationHasItsSlidesPicturesAndNotes() throws IOException {
        byte[] slides = OpenDocument.slides(
                List.of("The press", "The cellar"), List.of(new byte[] {1}), List.of("Say who built it."));
        Document.Prose prose = (Document.Prose) read("a.odp", slides);
        assertThat(prose.form()).isEqualTo(Document.Form.SLIDES);
        assertThat(prose.sections()).hasSize(2);
        assertThat(prose.sections().get(0).blocks())
                .extracting(Document.Block::text)
                .contains("The press", "Say who built it.");
        assertThat(members(slides)).contains("Pictures/slide1.png").doesNotContain("Pictures/slide2.png");
    }

    @Test
    void theSameIsWrittenByteForByteOnEachRun() {
        List<List<String>> rows = List.of(List.of("a", "1"));
        assertThat(OpenDocument.sheet("s", rows)).isEqualTo(OpenDocument.sheet("s", rows));
        assertThat(Pictures.pdf(List.of("Quote", "Total\t840.00")))
                .isEqualTo(Pictures.pdf(List.of("Quote", "Total\t840.00")));
        assertThat(Pictures.label("Perry", 245, 5)).isEqualTo(Pictures.label("Perry", 245, 5));
        assertThat(Pictures.album(2, new Random(4))).isEqualTo(Pictures.album(2, new Random(4)));
    }

    @Test
    void aPdfSaysItsLinesAndItsColumns() throws IOException {
        byte[] pdf = Pictures.pdf(List.of("Quote 118", "Pump\t\t760.00"));
        try (var document = Loader.loadPDF(pdf)) {
            assertThat(document.getNumberOfPages()).isEqualTo(1);
            assertThat(new PDFTextStripper().getText(document)).contains("Quote 118", "Pump", "760.00");
        }
    }

    @Test
    void eachEditionOfALabelLooksDifferent() throws IOException {
        BufferedImage first = picture(Pictures.label("Perry", 245, 1));
        BufferedImage second = picture(Pictures.label("Perry", 245, 2));
        assertThat(first.getWidth()).isEqualTo(420);
        assertThat(first.getHeight()).isEqualTo(560);
        long changed = 0;
        for (int y = 0; y < 560; y++) {
            for (int x = 0; x < 420; x++) {
                changed += first.getRGB(x, y) == second.getRGB(x, y) ? 0 : 1;
            }
        }
        assertThat(changed).as("a leaf more, and nothing else").isBetween(100L, 20_000L);
    }

    private static BufferedImage picture(byte[] bytes) throws IOException {
        try (InputStream in = new ByteArrayInputStream(bytes)) {
            return ImageIO.read(in);
        }
    }

    @ParameterizedTest
    @EnumSource(Scenes.class)
    void aPhotographIsWhatItShowsAndNeverTwiceTheSame(Scenes scene) {
        BufferedImage one = scene.photograph(120, 80, new Random(1));
        BufferedImage again = scene.photograph(120, 80, new Random(1));
        BufferedImage other = scene.photograph(120, 80, new Random(2));
        assertThat(one.getWidth()).isEqualTo(120);
        Set<Integer> colours = new HashSet<>();
        boolean same = true;
        boolean equal = true;
        for (int y = 0; y < 80; y++) {
            for (int x = 0; x < 120; x++) {
                colours.add(one.getRGB(x, y));
                same &= one.getRGB(x, y) == again.getRGB(x, y);
                equal &= one.getRGB(x, y) == other.getRGB(x, y);
            }
        }
        assertThat(colours).hasSizeGreaterThan(500);
        assertThat(same).as("the same by the same numbers").isTrue();
        assertThat(equal).isFalse();
    }

    @Test
    void aMessageIsReadWithItsAttachmentsByAMailProgram() throws IOException {
        byte[] pump = Pictures.pdf(List.of("Quote 118"));
        byte[] mail = Mails.mail(
                "Adele",
                "Tomas",
                "Quote for the pump",
                Instant.parse("2026-11-16T09:00:00Z"),
                List.of("Hello Tomas,", "here is the quote: 840 €."),
                List.of(new Mails.Attachment("Quote 118.pdf", "application/pdf", pump)));
        Document.Prose prose = (Document.Prose) read("a.eml", mail);
        assertThat(prose.form()).isEqualTo(Document.Form.MAIL);
        assertThat(Document.words(prose))
                .anySatisfy(w -> assertThat(w).contains("Quote for the pump"))
                .anySatisfy(w -> assertThat(w).contains("840 €"))
                .anySatisfy(w -> assertThat(w).contains("Quote 118.pdf"));
        assertThat(Documents.member("a.eml", mail, "Quote 118.pdf")).isEqualTo(pump);
    }

    @ParameterizedTest
    @EnumSource(Phrases.class)
    void sentencesHaveNoGapsLeftAndOneParagraphSaysNothingTwice(Phrases phrases) {
        Random random = new Random(7);
        for (int i = 0; i < 200; i++) {
            List<String> paragraph = phrases.paragraph(random);
            assertThat(paragraph).isNotEmpty().doesNotHaveDuplicates();
            assertThat(paragraph)
                    .allSatisfy(s -> assertThat(s).doesNotContain("{").doesNotContain("}"));
        }
        assertThat(phrases.sentence(new Random(3))).isEqualTo(phrases.sentence(new Random(3)));
    }

    @ParameterizedTest
    @EnumSource(Tables.class)
    void aTableHasFiveColumnsOfWhichTwoAreSummedAndACorrectionIsAnotherNumber(Tables table) {
        Random random = new Random(11);
        List<List<String>> rows = new ArrayList<>(List.of(table.head()));
        for (int i = 1; i <= 60; i++) {
            rows.add(table.row(random, i));
        }
        assertThat(rows).allSatisfy(r -> assertThat(r).hasSize(5));
        long third =
                rows.stream().skip(1).mapToLong(r -> Long.parseLong(r.get(2))).sum();
        assertThat(Tables.totals(rows).get(2)).isEqualTo("=SUM([.C2:.C61])|" + third);
        for (int i = 1; i <= 60; i++) {
            String before = rows.get(i).get(3);
            assertThat(Tables.corrected(before, random)).matches("-?\\d+");
        }
        assertThat(Tables.corrected("412", new Random(1))).isNotEqualTo("412");
    }

    @Test
    void howeverASheetIsEditedItsSumsAreThoseOfItsRows() {
        Random random = new Random(5);
        Draft draft = Draft.table(random, 12, "Cash", true);
        byte[] before = draft.save();
        for (int i = 0; i < 30; i++) {
            draft.edit(random);
            Document.Sheet sheet =
                    ((Document.Sheets) read("a.ods", draft.save())).sheets().get(0);
            List<Document.Row> rows = sheet.rows();
            long sum = rows.subList(1, rows.size() - 1).stream()
                    .mapToLong(r -> Long.parseLong(r.cell(2).shown()))
                    .sum();
            assertThat(rows.get(rows.size() - 1).cell(0).shown()).isEqualTo("Total");
            assertThat(rows.get(rows.size() - 1).cell(2).shown()).isEqualTo(Long.toString(sum));
        }
        assertThat(draft.save()).isNotEqualTo(before);
    }

    @Test
    void aTextKeepsItsTitleThroughAllEdits() {
        Random random = new Random(6);
        Draft draft = Draft.text(random, 8, "House rules of the press", true);
        for (int i = 0; i < 40; i++) {
            draft.edit(random);
        }
        assertThat(paragraphs(draft.save()))
                .startsWith("House rules of the press")
                .hasSizeGreaterThan(3);
    }
}
