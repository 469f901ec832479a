package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

/** Documents that are unfolded by a command. */
class UnfoldCommandLineTest extends TerminalTest {

    /** A ZIP file of one text, which is the same in all but for one sentence. */
    private static byte[] letter(int edit) throws IOException {
        Random random = new Random(1);
        StringBuilder text = new StringBuilder();
        while (text.length() < 300_000) {
            text.append(Integer.toString(random.nextInt(4000), 36)).append(random.nextInt(9) == 0 ? "\n" : " ");
        }
        text.replace(9000 + edit * 60_000, 9020 + edit * 60_000, "what edit " + edit + " says");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            ZipEntry entry = new ZipEntry("content.xml");
            entry.setTimeLocal(LocalDateTime.of(2026, 1, 1, 0, 0));
            zip.putNextEntry(entry);
            zip.write(text.toString().getBytes(StandardCharsets.US_ASCII));
        }
        return out.toByteArray();
    }

    private Path saveLetters() throws IOException {
        Path file = desk.resolve("letter.odt");
        Files.write(file, letter(0));
        assertThat(protect()).isZero();
        for (int i = 1; i < 4; i++) {
            later(60);
            Files.write(file, letter(i));
            assertThat(run("capture")).isZero();
        }
        return file;
    }

    /** Bytes that contents take, needed or not. */
    private long stored() throws IOException {
        JsonNode space = json("space").get(0);
        return space.get("inUse").asLong() + space.get("unused").asLong();
    }

    @Test
    void versionsOfADocumentTakeLessSpaceAfterwardsAndComeBackBitForBit() throws Exception {
        Path file = saveLetters();
        assertThat(run("unfold", "--plan")).isZero();
        assertThat(out).contains("3 versions of documents with several versions to look at, and 1 document with one");
        long before = stored();
        assertThat(run("unfold")).isZero();
        assertThat(out).contains("4 versions were unfolded.").contains("at once by \"reclaim\"");
        assertThat(run("reclaim")).isZero();
        assertThat(stored()).isLessThan(before * 2 / 3);
        for (int i = 0; i < 4; i++) {
            Path to = temp.resolve("back" + i);
            assertThat(run("restore", file.toString(), "--version", String.valueOf(i + 1), "--to", to.toString()))
                    .as(err)
                    .isZero();
            assertThat(to.resolve("letter.odt")).hasBinaryContent(letter(i));
        }
        assertThat(run("check", "--full")).isZero();
        assertThat(run("unfold")).isZero();
        assertThat(out).contains("no version was unfolded.").doesNotContain("added");
    }

    @Test
    void whatWasDoneIsSaidAsData() throws Exception {
        saveLetters();
        JsonNode plan = json("unfold", "--plan").get(0);
        assertThat(plan.get("left").asInt()).isEqualTo(4);
        JsonNode done = json("unfold").get(0);
        assertThat(done.get("versions").asInt()).isEqualTo(4);
        assertThat(done.get("complete").asBoolean()).isTrue();
        assertThat(done.get("replacedBytes").asLong())
                .isGreaterThan(done.get("addedBytes").asLong() * 2);
    }
}
