package org.mendedleaf.cli.base;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import picocli.CommandLine;

/** What a command says: for people and for programs, each where it belongs, and nothing that would move a terminal. */
class OutputTest {

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    @CommandLine.Command
    private static final class Saying extends Output {
        Saying(Surroundings surroundings) {
            super(surroundings);
        }
    }

    private Saying saying(String... arguments) {
        Saying saying = new Saying(new Surroundings(
                Map.of(), Clock.systemUTC(), new PrintWriter(out, true), new PrintWriter(err, true), Optional.empty()));
        new CommandLine(saying).parseArgs(arguments);
        return saying;
    }

    private List<String> said() {
        return out.toString().lines().toList();
    }

    @Test
    void wordsStandWhereTheAnswerIsUnlessThatIsData() {
        saying().line("a word");
        assertThat(out.toString()).isEqualTo("a word" + System.lineSeparator());
        assertThat(err.toString()).isEmpty();
        Saying json = saying("--json");
        json.line("beside it");
        json.printJson(Map.of("a", 1));
        assertThat(said()).containsExactly("a word", "{", "  \"a\" : 1", "}");
        assertThat(err.toString()).contains("beside it");
    }

    @Test
    void quietSaysOnlyWhatGoesWrongAndWhatWasAskedFor() {
        Saying quiet = saying("--quiet");
        quiet.line("nothing of this");
        quiet.say("cli.noVault");
        assertThat(out.toString()).isEmpty();
        quiet.complain("this went wrong");
        assertThat(err.toString()).contains("this went wrong");
        quiet.printJson(List.of(1));
        assertThat(out.toString()).contains("1");
    }

    @Test
    void whatWouldMoveATerminalIsShownAsAnEscape() {
        saying().line("a\u001b[2Jb\nc\u0000d\u009be\tf");
        assertThat(said()).containsExactly("a\\u001b[2Jb\\nc\\u0000d\\u009be\tf");
        saying().complain("x\ry");
        assertThat(err.toString()).contains("x\\u000dy");
    }

    @Test
    void columnsAreAsWideAsTheirWidestCellAndTheLastIsNotPadded() {
        saying().table(List.of(List.of("a", "1", "x"), List.of("long", "200", ""), List.of("b")), "lr");
        assertThat(said()).containsExactly("a       1  x", "long  200", "b");
    }

    @Test
    void anEmptyTableSaysNothing() {
        saying().table(List.of(), "");
        assertThat(out.toString()).isEmpty();
        saying().table(List.of(List.of()), "");
        assertThat(said()).containsExactly("");
    }

    @ParameterizedTest
    @CsvSource({
        "abc,3",
        "'',0",
        "Ärger,5",
        "A\u0308rger,5",
        "日本,4",
        "かな,4",
        "한국,4",
        "🍐,2",
        "a\u200bb,2",
        "Ｈｉ,4",
        "a\u00ADb,2"
    })
    void aTextTakesTheColumnsThatATerminalGivesIt(String text, int columns) {
        assertThat(Output.columns(text)).isEqualTo(columns);
    }

    @Test
    void namesInOtherScriptsAndWithMarksStandInLine() {
        saying().table(
                        List.of(List.of("A\u0308pfel.txt", "1"), List.of("日本.txt", "22"), List.of("plain.txt", "333")),
                        "lr");
        assertThat(said()).containsExactly("A\u0308pfel.txt    1", "日本.txt    22", "plain.txt  333");
    }

    @Property(tries = 50)
    void noTextLeavesItsLineOrMovesTheTerminal(@ForAll String text) {
        String shown = Output.printable(text);
        assertThat(shown.chars().filter(c -> c != '\t').noneMatch(c -> Character.getType(c) == Character.CONTROL))
                .isTrue();
    }

    @Property(tries = 50)
    void everyRowOfATableIsOneLine(@ForAll List<String> cells) {
        OutputTest own = new OutputTest();
        own.saying().table(List.of(cells, List.of("x")), "r");
        assertThat(own.out.toString().split(System.lineSeparator(), -1)).hasSize(3);
    }
}
