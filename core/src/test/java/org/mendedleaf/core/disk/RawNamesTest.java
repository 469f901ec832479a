package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.time.Moment;

/** Names that are no text in UTF-8 are kept, and come back as they were. */
final class RawNamesTest {

    private static final String LATIN = "caf\uF7E9.txt";

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        assumeTrue(File.separatorChar == '/');
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    @Test
    void allBytesComeBackAndNoTwoNamesAreTheSameText() {
        Random random = new Random(5);
        Set<String> texts = new HashSet<>();
        Set<List<Byte>> names = new HashSet<>();
        for (int i = 0; i < 2_000; i++) {
            byte[] bytes = new byte[1 + random.nextInt(6)];
            random.nextBytes(bytes);
            String text = RawNames.text(bytes);
            assertThat(RawNames.bytes(text)).isEqualTo(bytes);
            texts.add(text);
            List<Byte> list = new java.util.ArrayList<>();
            for (byte b : bytes) {
                list.add(b);
            }
            names.add(list);
        }
        assertThat(texts).hasSameSizeAs(names);
        assertThat(RawNames.text("Müller 中.txt".getBytes(StandardCharsets.UTF_8)))
                .isEqualTo("Müller 中.txt");
        byte[] own = LATIN.getBytes(StandardCharsets.UTF_8);
        assertThat(RawNames.bytes(RawNames.text(own)))
                .as("a name that has such a character itself")
                .isEqualTo(own);
        assertThat(RawNames.readable(LATIN)).isEqualTo("caf\uFFFD.txt");
    }

    @Test
    void pathsOfTheSystemAreWhatTheTextsSay() {
        assertThat(RawNames.text(RawNames.path("a/" + LATIN))).isEqualTo("a/" + LATIN);
        assertThat(RawNames.text(RawNames.path("/a/" + LATIN))).isEqualTo("/a/" + LATIN);
        assertThat(RawNames.path("../" + LATIN).isAbsolute()).isFalse();
        assertThat(RawNames.text(RawNames.path("../" + LATIN))).isEqualTo("../" + LATIN);
        assertThat(RawNames.path("a b/c%20d")).isEqualTo(Path.of("a b/c%20d"));
    }

    private void shell(String script) throws Exception {
        Process process = new ProcessBuilder("sh", "-c", script)
                .directory(p.folder().toFile())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assumeTrue(process.waitFor() == 0, said);
    }

    private String listed(String glob) throws Exception {
        Process process = new ProcessBuilder("sh", "-c", "ls -1d " + glob + " | od -An -c | tr -d ' \\n'")
                .directory(p.folder().toFile())
                .start();
        return new String(process.getInputStream().readAllBytes(), StandardCharsets.US_ASCII);
    }

    @Test
    void aFileInAFolderBothWithSuchNamesIsKeptAndRestoredUnderItsVeryName() throws Exception {
        shell("d=$(printf 'f\\344cher'); mkdir \"$d\"; printf one > \"$d/$(printf 'caf\\351.txt')\"");
        String path = "f\uF7E4cher/" + LATIN;
        assertThat(p.capture().troubles()).isEmpty();
        assertThat(p.line(path).versions()).hasSize(1);

        shell("for f in f*/caf*; do printf two > \"$f\"; done");
        p.later(5);
        p.capture();
        assertThat(p.line(path).versions()).hasSize(2);
        shell("rm -r f*");
        p.later(5);
        p.capture();
        assertThat(p.line(path).removed()).isPresent();

        p.recovery()
                .restore(
                        List.of(new RestoreItem(p.line(path).version(1).orElseThrow(), path)),
                        Collision.REPLACE,
                        Progress.NONE);
        assertThat(listed("f*/*")).isEqualTo("f344cher/caf351.txt\\n");
        assertThat(RawNames.resolve(p.folder(), path)).hasContent("one");

        // Over a file that is there, by the exchange of names.
        p.recovery()
                .restore(
                        List.of(new RestoreItem(p.line(path).version(2).orElseThrow(), path)),
                        Collision.REPLACE,
                        Progress.NONE);
        assertThat(RawNames.resolve(p.folder(), path)).hasContent("two");
        try (var reading = p.vault().read()) {
            p.recovery().undo(JournalStore.of(reading).lastUndoable().orElseThrow());
        }
        assertThat(RawNames.resolve(p.folder(), path)).hasContent("one");
        assertThat(p.check().isClean()).isTrue();
    }

    @Test
    void aLinkToSuchANameIsKeptWithItsTarget() throws Exception {
        shell("ln -s \"$(printf '../caf\\351.txt')\" link");
        assertThat(p.capture().troubles()).isEmpty();
        Files.delete(p.path("link"));
        p.later(5);
        p.capture();
        p.recovery()
                .restore(
                        List.of(new RestoreItem(p.line("link").version(1).orElseThrow(), "link")),
                        Collision.REPLACE,
                        Progress.NONE);
        assertThat(Files.exists(p.path("link"), LinkOption.NOFOLLOW_LINKS)).isTrue();
        assertThat(RawNames.text(Files.readSymbolicLink(p.path("link")))).isEqualTo("../" + LATIN);
    }

    @Test
    void renamingItToTextIsOneLine() throws Exception {
        shell("printf same > \"$(printf 'caf\\351.txt')\"");
        p.capture();
        shell("mv caf* café.txt");
        p.later(5);
        p.capture();
        assertThat(p.line("café.txt").versions()).hasSize(1);
        try (var reading = p.vault().read()) {
            assertThat(reading.folders().listing(p.place(), "", Moment.FAR, true))
                    .hasSize(1);
        }
    }
}
