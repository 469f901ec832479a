package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.Outcome;

/** What restore cannot mean is refused in words, before anything is changed; and each way out of a taken name does what it says. */
class RestoreRefusalsCommandLineTest extends TerminalTest {

    private String letter = "";

    @BeforeEach
    void versions() throws IOException {
        letter = save("letter.txt", "first\n");
        save("sub/note.txt", "a note\n");
        assertThat(protect()).isZero();
        save("letter.txt", "second\n");
        assertThat(run("capture")).isZero();
    }

    private void refused(String words, String... arguments) throws IOException {
        assertThat(run(arguments)).as(out).isEqualTo(Outcome.WRONG_USE.code());
        assertThat(err).contains(words);
        assertThat(Files.readString(Path.of(letter))).isEqualTo("second\n");
    }

    @Test
    void whatContradictsItselfIsRefused() throws IOException {
        refused("--version or --at", "restore", letter, "--version", "1", "--at", "yesterday");
        refused("--as needs --to", "restore", letter, "--version", "1", "--as", "zip");
        refused("folder, zip or bag", "restore", letter, "--version", "1", "--as", "tar", "--to", "x.tar");
        refused("replace, keep-both", "restore", letter, "--version", "1", "--on-collision", "burn");
        refused("use --at MOMENT", "restore", desk.resolve("sub").toString(), "--version", "1");
        refused("no version 9", "restore", letter, "--version", "9");
    }

    @Test
    void whatIsThereNeedsToBeToldWhichVersionIsMeant() throws IOException {
        refused("Choose a version", "restore", letter);
        refused("Nothing is removed", "restore", desk.resolve("sub").toString());
    }

    @Test
    void aMomentBeforeTheFirstCaptureAndAFileThatWasNeverThereAreSaid() throws IOException {
        refused("before anything is known", "restore", letter, "--at", "2020-01-01");
        refused("was never captured", "restore", desk.resolve("other.txt").toString(), "--version", "1");
    }

    private List<String> there() throws IOException {
        try (var all = Files.list(desk)) {
            return all.map(p -> p.getFileName().toString()).sorted().toList();
        }
    }

    @Test
    void aTakenNameIsLeftAloneWhereThatIsAskedFor() throws IOException {
        assertThat(run("restore", letter, "--version", "1", "--on-collision", "skip"))
                .isZero();
        assertThat(out).contains("left as it is");
        assertThat(Files.readString(Path.of(letter))).isEqualTo("second\n");
        assertThat(there()).containsExactly("letter.txt", "sub");
    }

    @Test
    void bothAreKeptWithANumberForOneOfThem() throws IOException {
        assertThat(run("restore", letter, "--version", "1", "--on-collision", "keep-both"))
                .as(err)
                .isZero();
        assertThat(Files.readString(Path.of(letter))).isEqualTo("second\n");
        assertThat(there()).hasSize(3);
        assertThat(run("undo")).isZero();
        assertThat(run("restore", letter, "--version", "1", "--on-collision", "rename-other"))
                .as(err)
                .isZero();
        assertThat(Files.readString(Path.of(letter))).isEqualTo("first\n");
        assertThat(there()).hasSize(3);
    }

    @Test
    void aFolderAndAnArchiveAreWrittenWhereTheyAreAskedForByNameOrByWord() throws IOException {
        Path folder = temp.resolve("elsewhere");
        assertThat(run("restore", letter, "--version", "1", "--to", folder.toString(), "--as", "folder"))
                .as(err)
                .isZero();
        assertThat(Files.readString(folder.resolve("letter.txt"))).isEqualTo("first\n");
        Path zip = temp.resolve("packed");
        assertThat(run("restore", letter, "--version", "1", "--to", zip.toString(), "--as", "zip"))
                .as(err)
                .isZero();
        assertThat(Files.readAllBytes(zip)).startsWith('P', 'K', 3, 4);
        assertThat(run("restore", letter, "--version", "1", "--to", zip.toString(), "--as", "zip"))
                .as("what is there is not replaced")
                .isNotZero();
        assertThat(Files.readAllBytes(zip)).startsWith('P', 'K', 3, 4);
    }

    @Test
    void oneArchiveTakesFilesOfOnePlace() throws IOException {
        Path other = Files.createDirectory(temp.resolve("other")).toRealPath();
        Path paper = Files.writeString(other.resolve("paper.txt"), "paper\n");
        assertThat(run(
                        "protect",
                        other.toString(),
                        "--vault",
                        temp.resolve("vault").toString()))
                .isZero();
        Path zip = temp.resolve("both.zip");
        refused("files of one place", "restore", letter, paper.toString(), "--at", "now", "--to", zip.toString());
        assertThat(zip).doesNotExist();
    }
}
