package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.line.Line;

/** Another name loses nothing: not what has it already, and not the past of what gets it. */
class RenamingTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void start() throws IOException {
        p = new TestPlace(temp);
        p.save("sub/plan.txt", "one");
        p.save("sub/other.txt", "other");
        p.capture();
        p.later(10);
        p.save("sub/plan.txt", "two");
        p.capture();
    }

    @AfterEach
    void end() throws IOException {
        p.close();
    }

    private String rename(String path, String name) throws IOException {
        return Renaming.rename(p.place(), path, name);
    }

    @Test
    void theLineGoesOnUnderTheNewName() throws IOException {
        assertThat(rename("sub/plan.txt", " plan for May.txt ")).isEqualTo("sub/plan for May.txt");
        p.later(10);
        p.capture();
        assertThat(p.path("sub/plan.txt")).doesNotExist();
        assertThat(p.path("sub/plan for May.txt")).hasContent("two");
        Line line = p.line("sub/plan for May.txt");
        assertThat(line.versions()).hasSize(2);
        assertThat(line.removed()).isEmpty();
    }

    @Test
    void aFolderIsRenamedWithAllThatIsInIt() throws IOException {
        assertThat(rename("sub", "May")).isEqualTo("May");
        p.later(10);
        p.capture();
        assertThat(p.line("May/plan.txt").versions()).hasSize(2);
        assertThat(p.path("May/other.txt")).hasContent("other");
    }

    @Test
    void whatHasThatNameStays() throws IOException {
        assertThatThrownBy(() -> rename("sub/plan.txt", "other.txt"))
                .isInstanceOf(IOException.class)
                .hasMessage("There is something called other.txt already. Nothing was changed.");
        assertThat(p.path("sub/plan.txt")).hasContent("two");
        assertThat(p.path("sub/other.txt")).hasContent("other");
        Files.createDirectory(p.path("sub/empty"));
        assertThatThrownBy(() -> rename("sub/plan.txt", "empty")).isInstanceOf(IOException.class);
        assertThatThrownBy(() -> rename("sub/empty", "plan.txt")).isInstanceOf(IOException.class);
        assertThat(p.path("sub/plan.txt")).hasContent("two");
    }

    @Test
    void onlyTheLettersMayBeOtherOnes() throws IOException {
        rename("sub/plan.txt", "Plan.txt");
        assertThat(p.path("sub/Plan.txt")).hasContent("two");
        p.save("sub/OTHER.txt", "in large letters");
        assertThatThrownBy(() -> rename("sub/other.txt", "OTHER.txt")).isInstanceOf(IOException.class);
        assertThat(p.path("sub/other.txt")).hasContent("other");
        assertThat(p.path("sub/OTHER.txt")).hasContent("in large letters");
    }

    @Test
    void theSameNameIsNoChangeAndWhatIsGoneIsSaid() throws IOException {
        assertThat(rename("sub/plan.txt", "plan.txt")).isEqualTo("sub/plan.txt");
        Files.delete(p.path("sub/plan.txt"));
        assertThatThrownBy(() -> rename("sub/plan.txt", "new.txt"))
                .isInstanceOf(IOException.class)
                .hasMessage("sub/plan.txt is not there any more. Nothing was changed.");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "   ", ".", "..", "a/b", "../out.txt", "/etc/x", "a\0b"})
    void whatIsNoNameIsRefused(String name) {
        assertThatThrownBy(() -> rename("sub/plan.txt", name)).isInstanceOf(IllegalArgumentException.class);
        assertThat(p.path("sub/plan.txt")).hasContent("two");
    }
}
