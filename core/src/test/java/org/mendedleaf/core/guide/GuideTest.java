package org.mendedleaf.core.guide;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.words.Words;

/** The guide inside the program, in each language. */
class GuideTest {

    private static final Pattern LINK = Pattern.compile("(?:href|src)=\"([^\"]+)\"");

    @ParameterizedTest
    @ValueSource(strings = {"en", "de"})
    void allPagesAreThereWithAPictureAndEveryLinkLeadsToAFile(String language, @TempDir Path temp) throws IOException {
        Guide guide = new Guide(Locale.forLanguageTag(language));
        Path first = guide.write(temp, "index");
        assertThat(first).isEqualTo(temp.resolve(language).resolve("index.html"));
        for (String page : Guide.PAGES) {
            String html = Files.readString(first.resolveSibling(page + ".html"));
            assertThat(html)
                    .contains("<html lang=\"" + language + "\">")
                    .contains("<h1>")
                    .contains("<img src=\"pictures/");
            assertThat(html)
                    .as("nothing comes from a network")
                    .doesNotContain("http://")
                    .doesNotContain("https://");
            Matcher links = LINK.matcher(html);
            while (links.find()) {
                assertThat(first.resolveSibling(links.group(1)))
                        .as("%s leads there", page)
                        .exists();
            }
            assertThat(guide.markdown("index")).contains(page.equals("index") ? "# " : "(" + page + ".html)");
        }
    }

    @Test
    void aLanguageThatItIsNotWrittenInIsReadInEnglish() throws IOException {
        assertThat(new Guide(Locale.FRENCH).title("saved-over")).isEqualTo("I saved over it");
        assertThat(new Guide(Locale.GERMANY).title("saved-over")).isEqualTo("Ich habe darübergespeichert");
    }

    @Test
    void aPageThatIsNotThereIsRefusedWithThoseThatAre() {
        assertThatThrownBy(() -> new Guide(Locale.ENGLISH).markdown("../../secret"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("saved-over");
    }

    @Test
    void messagesLeadToThePageThatHelpsWithThem() {
        assertThat(Guide.pageFor(Words.of("vault.full", "/media/vault"))).contains("drive-full");
        assertThat(Guide.pageFor(Words.of("files.past.unprotected", "/home/ines/a.txt")))
                .contains("protect");
        assertThat(Guide.pageFor("plan.odt cannot be read: " + Words.of("failure.full")))
                .contains("drive-full");
        assertThat(Guide.pageFor(Words.of("copies.noRoom", "/attic", "2 GB", "1 GB")))
                .contains("copy");
        assertThat(Guide.pageFor("Something else went wrong.")).isEmpty();
        assertThat(Guide.pageFor("")).isEmpty();
    }

    @Test
    void everyMessageThatHasAPageLeadsThereWhateverItTells() {
        Guide.helps().forEach((key, page) -> {
            String message = Words.of(key, 2, 3, 4, 5);
            assertThat(Guide.pageFor(message)).as("%s: %s", key, message).contains(page);
            assertThat(Guide.PAGES).contains(page);
        });
        assertThat(Guide.pageFor(Words.of("preflight.refused", 1))).contains("gone");
        assertThat(Guide.pageFor(Words.of("preflight.refused", 12))).contains("gone");
    }
}
