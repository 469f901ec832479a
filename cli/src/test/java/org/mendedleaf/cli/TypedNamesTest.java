package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.disk.RawNames;

/** Files whose names are no text in UTF-8 are worked with like any other. */
class TypedNamesTest extends TerminalTest {

    private static final String LATIN = "caf\uF7E9.txt";
    private static final String OTHER = "caf\uF7E8.txt";

    @BeforeEach
    void unix() {
        assumeTrue(File.separatorChar == '/');
    }

    private Path raw(String name) {
        return RawNames.resolve(desk, name);
    }

    private void saveRaw(String name, String text) throws IOException {
        Files.createDirectories(desk);
        Files.writeString(raw(name), text);
    }

    @Test
    void itIsShownByItsBytesAndMeantByThemOrByWhatAShellGives() throws Exception {
        saveRaw(LATIN, "one");
        protect();
        saveRaw(LATIN, "two");
        assertThat(run("capture")).isZero();
        assertThat(run("list", desk.toString())).isZero();
        assertThat(out).contains("caf\\xe9.txt");

        assertThat(run("restore", desk.resolve("caf\\xe9.txt").toString(), "--version", "1"))
                .isZero();
        assertThat(raw(LATIN)).hasContent("one");
        assertThat(run("remove", desk.resolve("caf\uFFFD.txt").toString())).isZero();
        assertThat(raw(LATIN)).doesNotExist();
        assertThat(run("restore", desk.resolve("caf\uFFFD.txt").toString(), "--version", "2"))
                .isZero();
        assertThat(raw(LATIN)).hasContent("two");
    }

    @Test
    void whatMayBeTwoFilesIsAsked() throws Exception {
        saveRaw(LATIN, "acute");
        saveRaw(OTHER, "grave");
        protect();
        assertThat(run("remove", desk.resolve("caf\uFFFD.txt").toString())).isNotZero();
        assertThat(err).contains("caf\\xe8.txt, caf\\xe9.txt");
        assertThat(raw(LATIN)).exists();
        assertThat(run("remove", desk.resolve("caf\\xe8.txt").toString())).isZero();
        assertThat(raw(OTHER)).doesNotExist();
        assertThat(raw(LATIN)).exists();
    }

    @Test
    void aNameThatLooksLikeAnEscapeIsItself() throws Exception {
        String odd = save("caf\\xe9.txt", "odd");
        saveRaw(LATIN, "latin");
        protect();
        assertThat(run("remove", odd)).isZero();
        assertThat(Path.of(odd)).doesNotExist();
        assertThat(raw(LATIN)).exists();
    }
}
