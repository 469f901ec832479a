package org.mendedleaf.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** No name and no path that came over the connection leads out of its folder. */
class SafePathTest {

    @TempDir
    Path temp;

    @ParameterizedTest
    @ValueSource(strings = {"a", "a b.txt", "..a", "a..", "...", ".hidden", "Äpfel", "con", "-rf", "a:b", "%2e%2e"})
    void whatIsANameIsOne(String name) throws Problem {
        assertThat(SafePath.name(name)).isEqualTo(name);
        assertThat(SafePath.inside(temp, name)).isEqualTo(temp.resolve(name));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", ".", "..", "/", "a/b", "../a", "/etc", "a\0b"})
    void stepsAndPathsAreNoNames(String name) {
        assertThatThrownBy(() -> SafePath.name(name))
                .isInstanceOfSatisfying(
                        Problem.class, e -> assertThat(e.answer().status()).isEqualTo(400));
    }

    @Test
    void aNameThatIsTooLongIsNone() throws Problem {
        assertThat(SafePath.name("x".repeat(255))).hasSize(255);
        assertThatThrownBy(() -> SafePath.name("x".repeat(256))).isInstanceOf(Problem.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"/a", "a/", "a//b", "a/../b", "./a", "a/./b", "../../etc/passwd", "a/\0"})
    void aPathWithAPartThatIsNoNameIsRefused(String path) {
        assertThatThrownBy(() -> SafePath.inside(temp, path)).isInstanceOf(Problem.class);
    }

    @Test
    void whatLiesBehindALinkIsNotThere() throws IOException, Problem {
        Path share = Files.createDirectories(temp.resolve("share/real/deep"));
        Files.createDirectories(temp.resolve("elsewhere"));
        try {
            Files.createSymbolicLink(temp.resolve("share/link"), temp.resolve("elsewhere"));
        } catch (UnsupportedOperationException e) {
            assumeTrue(false, "no links here");
        }
        Path root = temp.resolve("share");
        assertThat(SafePath.inside(root, "real/deep")).isEqualTo(share);
        assertThat(SafePath.inside(root, "")).isEqualTo(root);
        assertThatThrownBy(() -> SafePath.inside(root, "link/a.txt"))
                .isInstanceOfSatisfying(
                        Problem.class, e -> assertThat(e.answer().status()).isEqualTo(404));
        assertThat(SafePath.inside(root, "link"))
                .as("the link itself is for the caller to look at, without following it")
                .isEqualTo(root.resolve("link"));
    }
}
