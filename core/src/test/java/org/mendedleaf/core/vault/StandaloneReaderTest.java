package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.deflate.DeflateEncoderTest;
import org.mendedleaf.core.deflate.DeflateSettings;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.systems.Rig;
import org.mendedleaf.core.systems.SystemKind;

class StandaloneReaderTest {

    /** More than a window of the encoders, several times. Bytes. */
    private static final int CONTENT = 100_000;

    @TempDir
    Path temp;

    @Test
    void aReaderWithoutOurCodeRecoversEveryVersion() throws Exception {
        byte[] noise = new byte[700_000];
        new Random(6).nextBytes(noise);
        Line text;
        Line large;
        Map<String, byte[]> documents = documents();
        Map<String, Long> lines = new TreeMap<>();
        try (Rig rig = new Rig(temp)) {
            TestPlace p = rig.desk;
            p.save("a.txt", "one");
            p.save("large.bin", noise);
            p.save("empty.txt", "");
            p.capture();
            p.save("a.txt", "two");
            noise[350_000] ^= 1;
            p.save("large.bin", noise);
            for (Map.Entry<String, byte[]> d : documents.entrySet()) {
                p.save(d.getKey(), d.getValue());
            }
            p.capture();
            for (Map.Entry<String, byte[]> d : documents.entrySet()) {
                p.save(d.getKey(), Arrays.copyOf(d.getValue(), d.getValue().length + 1));
            }
            p.capture();
            p.unfold();
            for (String name : documents.keySet()) {
                assertThat(p.line(name).newest().orElseThrow().recipe().unfolded())
                        .as(name)
                        .isPresent();
                lines.put(name, p.line(name).id());
            }
            text = p.line("a.txt");
            large = p.line("large.bin");
            // Known, and held by another system only: nothing that a reader of the vault could recover.
            Place archive = rig.place(SystemKind.OBJECT_STORE, "archive");
            rig.put(archive, "a.txt", "elsewhere");
            rig.look(archive);
        }
        // Only the libraries, so that not one class of ours can be used.
        String libraries = Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                .filter(jar -> jar.contains("sqlite-jdbc") || jar.contains("zstd-jni") || jar.contains("slf4j-api"))
                .collect(Collectors.joining(File.pathSeparator));
        Path out = temp.resolve("recovered");
        Process reader = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        libraries,
                        "../docs/VaultReader.java",
                        temp.resolve("vault").toString(),
                        out.toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(reader.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(reader.waitFor()).as(said).isZero();
        assertThat(said).contains(5 + 2 * documents.size() + " versions");
        assertThat(out.resolve(text.id() + "/1")).hasContent("one");
        assertThat(out.resolve(text.id() + "/2")).hasContent("two");
        assertThat(out.resolve(large.id() + "/2")).hasBinaryContent(noise);
        documents.forEach((name, bytes) ->
                assertThat(out.resolve(lines.get(name) + "/1")).as(name).hasBinaryContent(bytes));
    }

    /** One for each encoder, by levels that find their matches in different ways. */
    private static Map<String, byte[]> documents() throws Exception {
        Map<String, byte[]> documents = new TreeMap<>();
        documents.put("letter.odt", Documents.document(6, Documents.text(1, 30_000), Documents.noise(2, 30_000), 0));
        for (DeflateSettings.Encoder e : DeflateSettings.Encoder.values()) {
            for (int level : new int[] {1, 3, 4, 6, 9}) {
                byte[] content = DeflateEncoderTest.content(level, CONTENT);
                documents.put(
                        e + " " + level + ".zip", Documents.oneMember(new DeflateSettings(level, e), content, CONTENT));
            }
        }
        return documents;
    }
}
