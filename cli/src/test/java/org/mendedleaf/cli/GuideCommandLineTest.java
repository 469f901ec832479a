package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.core.guide.Guide;
import picocli.CommandLine;

/** The guide on the command line, and the commands that it names. */
class GuideCommandLineTest extends TerminalTest {

    private static final Pattern COMMAND = Pattern.compile("`mended-leaf ([^`]+)`");
    private static final Pattern WORD = Pattern.compile("\"([^\"]*)\"|(\\S+)");

    @ParameterizedTest
    @ValueSource(strings = {"en", "de"})
    void everyCommandInTheGuideIsUnderstood(String language) throws IOException {
        Guide guide = new Guide(Locale.forLanguageTag(language));
        List<String> seen = new ArrayList<>();
        for (String page : Guide.PAGES) {
            Matcher commands = COMMAND.matcher(guide.markdown(page));
            while (commands.find()) {
                List<String> words = new ArrayList<>();
                Matcher word = WORD.matcher(commands.group(1));
                while (word.find()) {
                    words.add(word.group(1) == null ? word.group(2) : word.group(1));
                }
                seen.add(words.get(0));
                if (words.contains("--help")) {
                    continue;
                }
                CommandLine line = HelpTest.all();
                CommandLine.ParseResult parsed = line.parseArgs(words.toArray(String[]::new));
                assertThat(parsed.hasSubcommand()).as(commands.group()).isTrue();
            }
        }
        assertThat(seen).hasSizeGreaterThan(20);
    }

    @Test
    void aPageIsPrintedAndAllOfThemAreWritten() throws Exception {
        assertThat(run("guide")).isZero();
        assertThat(out).startsWith("# What do you need?").contains("saved-over");
        assertThat(run("guide", "drive-full")).isZero();
        assertThat(out).startsWith("# The drive is full");
        assertThat(run("guide", "drive-full", "--to", temp.resolve("guide").toString()))
                .isZero();
        assertThat(temp.resolve("guide/en/drive-full.html")).isRegularFile();
        assertThat(temp.resolve("guide/en/pictures/retention-space.png")).isRegularFile();
        assertThat(run("guide", "nothing")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("There is no page nothing").contains("last-thursday");
    }
}
