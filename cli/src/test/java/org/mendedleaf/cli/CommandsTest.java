package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Collections;
import java.util.List;
import java.util.ListResourceBundle;
import java.util.Map;
import java.util.ResourceBundle;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** The command that is asked for is built and no other; where none is named, or help for all is wanted, all are. */
class CommandsTest {

    @TempDir
    Path home;

    static List<String> names() {
        return Commands.NAMES;
    }

    @ParameterizedTest
    @MethodSource("names")
    void aCommandIsCalledWhatTheTableSays(String name) {
        Command command = Commands.named(name).getAnnotation(Command.class);
        assertThat(command).isNotNull();
        assertThat(command.name()).isEqualTo(name);
    }

    @Test
    void noNameIsUsedTwiceAndWhatIsNoneIsRefused() {
        assertThat(Commands.NAMES).doesNotHaveDuplicates();
        assertThatThrownBy(() -> Commands.named("frobnicate")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void whoNamesACommandGetsThatOneAlone() {
        assertThat(asked("line", "ledger.csv")).containsExactly("line");
        assertThat(asked("restore", "line", "--version", "1"))
                .as("a file may be called like a command")
                .containsExactly("restore");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "--help", "-h", "lien", "completion", "man", "--json"})
    void whereAllAreMeantOrNoneIsKnownAllAreThere(String first) {
        assertThat(first.isEmpty() ? asked() : asked(first)).isEqualTo(Commands.NAMES);
    }

    @ParameterizedTest
    @ValueSource(strings = {"--version", "-V"})
    void theVersionIsToldEvenWhereSettingsAreDamaged(String option) throws IOException {
        Files.writeString(home.resolve("settings.json"), "{");
        StringWriter out = new StringWriter();
        PrintWriter to = new PrintWriter(out);
        Map<String, String> environment = Map.of("MENDED_LEAF_HOME", home.toString());
        int code = Main.run(new String[] {option}, environment, Clock.systemUTC(), to, to);
        assertThat(code).isZero();
        assertThat(out.toString().strip()).isEqualTo(Main.VERSION);
    }

    private static List<String> asked(String... arguments) {
        return Commands.asked(arguments);
    }

    @Test
    void theParserSeesTheWordsOfCommandsAndNoOthersButFindsAll() {
        ResourceBundle words = new CommandWords(Words.bundle());
        List<String> keys = Collections.list(words.getKeys());
        assertThat(keys).hasSizeGreaterThan(300).allSatisfy(k -> assertThat(k).startsWith("cli."));
        assertThat(keys).noneMatch(k -> k.startsWith("cli.examples."));
        assertThat(words.getString("cli.protect")).isEqualTo(Words.bundle().getString("cli.protect"));
        assertThat(words.containsKey("vault.busy")).isTrue();
        assertThat(words.containsKey("no.such.key")).isFalse();
    }

    @Test
    void aWordThatIsMissingIsMissingThereToo() {
        ResourceBundle few = new ListResourceBundle() {
            @Override
            protected Object[][] getContents() {
                return new Object[][] {{"cli.one", "One"}, {"cli.examples.one", "one"}, {"two", "Two"}};
            }
        };
        CommandWords words = new CommandWords(few);
        assertThat(Collections.list(words.getKeys())).containsExactly("cli.one");
        assertThatThrownBy(() -> words.getString("cli.two")).isInstanceOf(java.util.MissingResourceException.class);
    }
}
