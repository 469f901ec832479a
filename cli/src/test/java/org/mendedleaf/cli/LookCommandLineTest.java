package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

/** Looking into versions and comparing them, as it is typed. */
class LookCommandLineTest extends TerminalTest {

    private String ledger = "";

    private void versions() throws IOException {
        ledger = save("ledger.csv", "Kind,Kilos\nBramley,736\nEgremont,332\n");
        protect();
        save("ledger.csv", "Kind,Kilos\nBramley,763\nEgremont,332\nKaty,188\n");
        assertThat(run("capture")).isZero();
    }

    @Test
    void aVersionIsShownAsWhatItSays() throws Exception {
        versions();
        assertThat(run("preview", ledger, "--version", "1")).isZero();
        assertThat(out).contains("2  Bramley   736").doesNotContain("Katy");
        JsonNode json = json("preview", ledger);
        assertThat(json.get("version").asText()).isEqualTo("2");
        assertThat(json.at("/document/is").asText()).isEqualTo("sheets");
        assertThat(json.at("/document/sheets/0/rows/3/cells/0/shown").asText()).isEqualTo("Katy");
        assertThat(run("preview", ledger, "--sheet", "Other")).isNotZero();
        assertThat(err).contains("There is no sheet “Other”");
        assertThat(run("preview", ledger, "--page", "1")).isNotZero();
        assertThat(err).contains("There is no page 1; it has 0.");
    }

    @Test
    void anArchiveIsListedAndAMemberOfItShown() throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            zip.putNextEntry(new ZipEntry("inside.txt"));
            zip.write("words inside".getBytes(StandardCharsets.UTF_8));
        }
        Path file = Path.of(save("bundle.zip", ""));
        Files.write(file, bytes.toByteArray());
        protect();
        assertThat(run("preview", file.toString())).isZero();
        assertThat(out).contains("inside.txt");
        assertThat(run("preview", file.toString(), "--member", "inside.txt")).isZero();
        assertThat(out).contains("words inside");
        assertThat(run("preview", file.toString(), "--member", "other.txt")).isNotZero();
        assertThat(err).contains("There is no “other.txt” in it.");
    }

    private void archive(Path file, String inside) throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            zip.putNextEntry(new ZipEntry("fees.csv"));
            zip.write(inside.getBytes(StandardCharsets.UTF_8));
        }
    }

    @Test
    void aMemberOfTwoArchivesIsComparedFromThere() throws Exception {
        Path file = Path.of(save("bundle.zip", ""));
        archive(file, "k,v\na,1\n");
        protect();
        archive(file, "k,v\na,2\n");
        assertThat(run("capture")).isZero();
        assertThat(run("compare", file.toString(), "--from", "1")).isZero();
        assertThat(out).contains("fees.csv");
        assertThat(run("compare", file.toString(), "--from", "1", "--member", "fees.csv"))
                .isZero();
        assertThat(out).contains("fees.csv in bundle.zip").contains("1 cell").contains("1 → 2");
        assertThat(run("compare", file.toString(), "--from", "1", "--member", "never.txt"))
                .isNotZero();
        assertThat(err).contains("There is no “never.txt” in version 1.");
        assertThat(run("compare", file.getParent().toString(), "--from", "yesterday", "--member", "fees.csv"))
                .isNotZero();
        assertThat(err).contains("are for files");
    }

    @Test
    void versionsAreComparedAndWrittenAsPageTableAndJson() throws Exception {
        versions();
        Path html = temp.resolve("out.html");
        Path csv = temp.resolve("out.csv");
        assertThat(run(
                        "compare",
                        ledger,
                        "--from",
                        "1",
                        "--to",
                        "2",
                        "--html",
                        html.toString(),
                        "--csv",
                        csv.toString()))
                .isZero();
        assertThat(out)
                .contains("ledger.csv: version 1, then version 2")
                .contains("1 cell, +1 row")
                .contains("1. B2, Kilos of Bramley: 736 → 763")
                .contains("2. row 4: came: Katy, 188");
        assertThat(html).content().contains("<del>736</del> <ins>763</ins>").doesNotContain("http");
        assertThat(csv).content().contains("1,CHANGED,\"B2, Kilos of Bramley\",736,763");
        JsonNode json = json("compare", ledger, "--from", "1");
        assertThat(json.get("words").asText()).isEqualTo("1 cell, +1 row");
        assertThat(json.get("to").asText()).isEqualTo("what the folder holds now");
        assertThat(run("compare", ledger)).isNotZero();
        assertThat(err).contains("--from N");
        assertThat(run("compare", ledger, "--from", "1", "--html", html.toString()))
                .as("nothing is overwritten")
                .isNotZero();
    }

    @Test
    void aPatchIsAppliedByTheToolOfThatName() throws Exception {
        String text = save("letter.txt", "one\ntwo\nthree\nfour\nfive\nsix\nseven\neight\nnine\nten");
        protect();
        save("letter.txt", "zero\none\ntwo\n3\nfour\nfive\nsix\nseven\neight\nnine\nten\neleven\n");
        assertThat(run("capture")).isZero();
        Path patch = temp.resolve("out.patch");
        assertThat(run("compare", text, "--from", "1", "--to", "2", "--patch", patch.toString()))
                .isZero();
        Path target = Files.writeString(
                temp.resolve("target.txt"), "one\ntwo\nthree\nfour\nfive\nsix\nseven\neight\nnine\nten");
        Process tool;
        try {
            tool = new ProcessBuilder("patch", target.toString(), patch.toString())
                    .redirectErrorStream(true)
                    .start();
        } catch (IOException e) {
            assumeTrue(false, "there is no patch here");
            return;
        }
        String said = new String(tool.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(tool.waitFor()).as(said).isZero();
        assertThat(target).hasSameTextualContentAs(Path.of(text));
    }

    @Test
    void singleChangesAreTakenBackAsAVersionWithANote() throws Exception {
        versions();
        assertThat(run("pick", ledger, "--from", "1", "--change", "1", "--plan"))
                .isZero();
        assertThat(out).contains("763 → 736");
        assertThat(Path.of(ledger)).content().contains("763");
        assertThat(run("pick", ledger, "--from", "1", "--change", "1")).isZero();
        assertThat(Path.of(ledger)).hasContent("Kind,Kilos\nBramley,736\nEgremont,332\nKaty,188");
        JsonNode newest = json("line", ledger).at("/points/0");
        assertThat(newest.get("version").asText()).isEqualTo("3");
        assertThat(newest.get("note").asText()).isEqualTo("B2, Kilos of Bramley taken back to version 1");
        assertThat(run("undo")).isZero();
        assertThat(Path.of(ledger)).content().contains("763");
        assertThat(run("pick", ledger, "--from", "1", "--change", "9")).isNotZero();
        assertThat(err).contains("There is no change 9");
        assertThat(run("pick", ledger, "--from", "1", "--change", "x")).isNotZero();
        assertThat(err).contains("takes numbers");
    }

    /** A text document as every office program writes it, with these paragraphs. */
    private static void odt(Path file, String... paragraphs) throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            zip.putNextEntry(new ZipEntry("mimetype"));
            zip.write("application/vnd.oasis.opendocument.text".getBytes(StandardCharsets.UTF_8));
            zip.putNextEntry(new ZipEntry("content.xml"));
            StringBuilder xml = new StringBuilder("<office:document-content"
                    + " xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
                    + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><office:body><office:text>");
            for (String p : paragraphs) {
                xml.append("<text:p>").append(p).append("</text:p>");
            }
            xml.append("</office:text></office:body></office:document-content>");
            zip.write(xml.toString().getBytes(StandardCharsets.UTF_8));
            zip.putNextEntry(new ZipEntry("META-INF/documentsignatures.xml"));
            zip.write("<x/>".getBytes(StandardCharsets.UTF_8));
        }
    }

    @Test
    void aParagraphOfADocumentComesBackAndWhatElseChangesIsSaid() throws Exception {
        versions();
        Path lease = Path.of(ledger).resolveSibling("lease.odt");
        odt(lease, "The well is shared with the neighbour.", "The rent is 40 euros a year.");
        assertThat(run("capture")).isZero();
        odt(lease, "The well is shared with nobody.", "The rent is 60 euros a year.", "Signed.");
        assertThat(run("capture")).isZero();
        assertThat(run("pick", lease.toString(), "--from", "1", "--change", "2", "--plan"))
                .isZero();
        assertThat(out).contains("The file is signed").contains("60").contains("40");
        JsonNode made = json("pick", lease.toString(), "--from", "1", "--change", "2");
        assertThat(made.get("version").asText()).isEqualTo("3");
        assertThat(made.get("also").get(0).asText()).contains("signature is not valid");
        assertThat(run("preview", lease.toString())).isZero();
        assertThat(out).contains("shared with nobody").contains("40 euros").contains("Signed.");
    }

    @Test
    void aLargeTextIsShownPartByPart() throws Exception {
        versions();
        Path log = Path.of(ledger).resolveSibling("press.log");
        StringBuilder text = new StringBuilder();
        for (int i = 1; text.length() < 3_200_000; i++) {
            text.append("line ").append(i).append(" of the press log\n");
        }
        Files.writeString(log, text);
        assertThat(run("capture")).isZero();
        assertThat(run("preview", log.toString(), "--part", "4")).isZero();
        assertThat(out).contains("part 4 of 4").doesNotContain("line 1 of");
        JsonNode last = json("preview", log.toString(), "--part", "4").at("/document/lines");
        assertThat(last.get(last.size() - 1).asText())
                .isEqualTo(text.substring(text.lastIndexOf("line"), text.length() - 1));
        assertThat(run("preview", log.toString(), "--part", "5")).isNotZero();
        assertThat(err).contains("There is no part 5; it has 4.");
    }

    @Test
    void twoFilesOfTheDiskAreCompared() throws Exception {
        Path a = Files.writeString(temp.resolve("a.txt"), "one\ntwo\n");
        Path b = Files.writeString(temp.resolve("b.txt"), "one\n2\n");
        assertThat(run("compare", a.toString(), b.toString())).isZero();
        assertThat(out).contains("+1 line, −1 line");
        assertThat(run("compare", a.toString(), b.toString(), "--from", "1")).isNotZero();
        assertThat(run("compare", a.toString(), temp.resolve("none").toString()))
                .isNotZero();
        assertThat(err).contains("is not there");
    }
}
