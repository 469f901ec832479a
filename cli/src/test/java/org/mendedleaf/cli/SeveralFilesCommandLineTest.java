package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Outcome;
import org.mendedleaf.cli.base.Surroundings;

/** Several files in one command, strange names, and contents that come and go through pipes. */
class SeveralFilesCommandLineTest extends TerminalTest {

    private String a;
    private String b;

    @BeforeEach
    void office() throws IOException {
        a = save("a.txt", "one of a");
        b = save("b.txt", "one of b");
        protect();
        save("a.txt", "two of a");
        save("b.txt", "two of b");
        run("capture");
    }

    private int piped(byte[] in, ByteArrayOutputStream to, String... arguments) {
        StringWriter o = new StringWriter();
        StringWriter e = new StringWriter();
        int code = Main.run(
                arguments,
                new Surroundings(
                        Map.of("MENDED_LEAF_HOME", temp.resolve("home").toString()),
                        Clock.fixed(now.plusSeconds(60), ZoneOffset.UTC),
                        new PrintWriter(o),
                        new PrintWriter(e),
                        Optional.empty(),
                        new ByteArrayInputStream(in),
                        to));
        out = o.toString();
        err = e.toString();
        return code;
    }

    @Test
    void severalAreRemovedAtOnceAndOneUndoBringsThemBack() {
        assertThat(run("remove", a, b)).as(err).isZero();
        assertThat(Path.of(a)).doesNotExist();
        assertThat(Path.of(b)).doesNotExist();
        assertThat(run("undo")).isZero();
        assertThat(Path.of(a)).hasContent("two of a");
        assertThat(Path.of(b)).hasContent("two of b");
    }

    @Test
    void whenOneOfThemCannotBeNothingIsDone() {
        String gone = desk.resolve("gone.txt").toString();
        assertThat(run("remove", a, desk.toString())).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(run("erase", a, gone, "--older", "--yes", "--vault", "nowhere"))
                .isNotZero();
        assertThat(run("hold", a, temp.resolve("elsewhere/x.txt").toString())).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(run("note", a, temp.resolve("elsewhere/x.txt").toString(), "--text", "countersigned"))
                .isEqualTo(ExitCodes.WRONG_USE);
        assertThat(Path.of(a)).exists();
        run("hold");
        assertThat(out).contains("Nothing is held");
        run("note", a);
        assertThat(out).doesNotContain("countersigned");
    }

    @Test
    void severalAreHeldAndErased() throws IOException {
        assertThat(json("hold", a, b, "--reason", "audit")).hasSize(2);
        assertThat(run("erase", a, b, "--older", "--yes")).as("they are held").isNotZero();
        run("unhold", "1", "2");
        assertThat(run("erase", a, b, "--older")).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(json("erase", a, b, "--older", "--yes")).hasSize(2);
        assertThat(run("hold", a, b, "--version", "1")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("one file at a time");
    }

    @Test
    void aNoteGoesToSeveralAndIsFoundInWhateverOrderItsWordsStand() {
        assertThat(run("note", a, b, "--text", "Signed by Zoé,\nand counted twice"))
                .as(err)
                .isZero();
        assertThat(run("note", desk.toString(), "--find", "TWICE zoe")).isZero();
        assertThat(out).contains("a.txt").contains("b.txt").contains("Signed by Zoé, and counted twice");
        run("note", desk.toString(), "--find", "twice never");
        assertThat(out).doesNotContain("a.txt");
        run("note", a);
        assertThat(out).doesNotContain("\\n").contains("and counted twice");
        assertThat(run("note", a, "one", "two")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("--text");
    }

    @Test
    void behindTwoDashesEverythingIsAName() throws IOException {
        Path strange = desk.resolve("--plan");
        Files.writeString(strange, "a file of that name");
        run("capture");
        assertThat(run("remove", "--", strange.toString())).as(err).isZero();
        assertThat(strange).doesNotExist();
        assertThat(run("restore", "--version", "1", "--", strange.toString()))
                .as(err)
                .isZero();
        assertThat(strange).hasContent("a file of that name");
    }

    @Test
    void aContentGoesThroughAPipeByteForByte() {
        ByteArrayOutputStream to = new ByteArrayOutputStream();
        assertThat(piped(new byte[0], to, "copy", a, "--version", "1", "--to", "-"))
                .as(err)
                .isZero();
        assertThat(to.toString(StandardCharsets.UTF_8)).isEqualTo("one of a");
        assertThat(out).isEmpty();
        assertThat(piped(new byte[0], to, "copy", a, "--version", "1", "--to", "-", "--json"))
                .isEqualTo(ExitCodes.WRONG_USE);
        byte[] next = "two of a, and a third".getBytes(StandardCharsets.UTF_8);
        assertThat(piped(next, to, "put", "-", "--as", a, "--yes")).as(err).isZero();
        assertThat(Path.of(a)).hasBinaryContent(next);
        run("line", a);
        assertThat(out).contains("3 versions");
    }
}
