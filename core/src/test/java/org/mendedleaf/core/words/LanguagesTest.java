package org.mendedleaf.core.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.ChoiceFormat;
import java.text.Format;
import java.text.MessageFormat;
import java.text.NumberFormat;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.Properties;
import java.util.ResourceBundle;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.time.MomentText;

/** Every language says everything, of the same things. */
class LanguagesTest {

    private static final Instant NOW = Instant.parse("2026-11-20T10:42:00Z");
    private static final Pattern PLACE = Pattern.compile("\\{(\\d+)");

    @AfterEach
    void ofTheSystem() {
        Words.use((String) null);
    }

    private static Properties words(String suffix) throws IOException {
        Properties words = new Properties();
        try (InputStream in = Words.class.getResourceAsStream("messages" + suffix + ".properties");
                Reader reader = new InputStreamReader(in, StandardCharsets.UTF_8)) {
            words.load(reader);
        }
        return words;
    }

    private static Set<String> places(String pattern) {
        Set<String> found = new TreeSet<>();
        Matcher m = PLACE.matcher(pattern);
        while (m.find()) {
            found.add(m.group(1));
        }
        return found;
    }

    @Test
    void noKeyIsMissingInGermanAndNoneIsTooMany() throws IOException {
        Set<String> english = new TreeSet<>(words("").stringPropertyNames());
        english.removeIf(k -> k.startsWith("cli.examples."));
        assertThat(words("_de").stringPropertyNames()).containsExactlyInAnyOrderElementsOf(english);
    }

    @Test
    void whereDaysAreWrittenOtherwiseOnlyKnownKeysAre() throws IOException {
        assertThat(words("").stringPropertyNames()).containsAll(words("_en_US").stringPropertyNames());
    }

    @Test
    void germanWordsHaveTheSamePlaces() throws IOException {
        Properties english = words("");
        Properties german = words("_de");
        for (String key : german.stringPropertyNames()) {
            assertThat(places(german.getProperty(key))).as(key).isEqualTo(places(english.getProperty(key)));
        }
    }

    @Test
    void whatIsANumberInOneLanguageIsOneInTheOther() throws IOException {
        Properties english = words("");
        Properties german = words("_de");
        for (String key : german.stringPropertyNames()) {
            Format[] ours = new MessageFormat(german.getProperty(key), Locale.GERMAN).getFormatsByArgumentIndex();
            Format[] theirs = new MessageFormat(english.getProperty(key), Locale.ENGLISH).getFormatsByArgumentIndex();
            for (int i = 0; i < ours.length; i++) {
                boolean number = ours[i] instanceof NumberFormat || ours[i] instanceof ChoiceFormat;
                assertThat(!number || i < theirs.length && theirs[i] instanceof NumberFormat)
                        .as("place %s of %s", i, key)
                        .isTrue();
            }
        }
    }

    @Test
    void wordsNumbersAndDaysFollowTheLanguage() {
        Words.use(Locale.GERMAN);
        assertThat(Words.of("tab.files")).isEqualTo("Dateien");
        assertThat(Formats.size(1_240_000_000L)).isEqualTo("1,24 GB");
        assertThat(Formats.number(12_345)).isEqualTo("12.345");
        assertThat(Formats.moment(NOW.minusSeconds(600), NOW, ZoneOffset.UTC)).isEqualTo("heute 10:32");
        assertThat(Formats.day(Instant.parse("2025-05-04T10:00:00Z"), NOW, ZoneOffset.UTC))
                .isEqualTo("4. Mai 2025");
        assertThat(Formats.full(NOW, ZoneOffset.UTC)).isEqualTo("Fr. 20. Nov. 2026, 10:42");
        assertThat(Words.of("pick.daysAgo", 1)).isEqualTo("vor 1 Tag");
        assertThat(Words.of("pick.daysAgo", 2)).isEqualTo("vor 2 Tagen");
    }

    @Test
    void theMonthComesFirstAndHoursGoByTwelvesWhereTheyDo() throws IOException {
        Words.use(Locale.US);
        assertThat(Formats.moment(NOW, NOW, ZoneOffset.UTC)).isEqualTo("today 10:42 AM");
        assertThat(Formats.full(NOW.plusSeconds(6 * 3600), ZoneOffset.UTC)).isEqualTo("Fri Nov 20, 2026, 4:42 PM");
        assertThat(Formats.zoned(NOW.plusSeconds(1), ZoneOffset.UTC)).contains("10:42:01 AM");
        assertThat(Rhythm.parse("daily 18:00").words()).isEqualTo("every day at 6:00 PM");
        Instant typed = new MomentText(ZoneOffset.UTC, NOW, MomentText.NOWHERE)
                .read(Formats.full(NOW.minusSeconds(3 * 86_400), ZoneOffset.UTC));
        assertThat(typed).isEqualTo(NOW.minusSeconds(3 * 86_400));
        assertThat(Formats.day(Instant.parse("2025-05-04T10:00:00Z"), NOW, ZoneOffset.UTC))
                .isEqualTo("May 4, 2025");
        assertThat(Words.of("tab.files")).isEqualTo("Files");
    }

    @Test
    void aLanguageWithoutWordsIsSpokenInEnglishWithEnglishDays() {
        Words.use("fr");
        assertThat(Words.of("tab.files")).isEqualTo("Files");
        assertThat(Formats.full(NOW, ZoneOffset.UTC)).contains("Fri").contains("Nov");
        assertThat(Words.locale().getLanguage()).isEqualTo("en");
    }

    @Test
    void englishIsEnglishOnAGermanSystemToo() {
        Locale before = Locale.getDefault();
        try {
            Locale.setDefault(Locale.GERMANY);
            ResourceBundle.clearCache();
            Words.use("en-GB");
            assertThat(Words.of("tab.files")).isEqualTo("Files");
            Words.use("fr");
            assertThat(Words.of("tab.files")).isEqualTo("Files");
            Words.use("de-AT");
            assertThat(Words.of("tab.files")).isEqualTo("Dateien");
        } finally {
            Locale.setDefault(before);
        }
    }

    @Test
    void everyFileOfWordsIsLookedFor() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("src/main/resources/org/mendedleaf/core/words"))) {
            assertThat(files.map(f -> f.getFileName().toString()))
                    .containsExactlyInAnyOrderElementsOf(Words.BUNDLES.stream()
                            .map(l -> l.equals(Locale.ROOT) ? "" : "_" + l)
                            .map(l -> "messages" + l + ".properties")
                            .toList());
        }
    }

    @Test
    void austrianIsGermanToo() {
        Words.use("de-AT");
        assertThat(Words.of("tab.files")).isEqualTo("Dateien");
        assertThat(Words.languageFlag()).isEqualTo("-Dmendedleaf.language=de");
    }

    @Test
    void whatIsStoredInAllLanguagesIsToldInTheOneOfWhoAsks() {
        String stored = Words.inAll(() -> Words.of("compare.cells", 3));
        assertThat(Words.told(stored)).isEqualTo("3 cells");
        Words.use("de");
        assertThat(Words.told(stored)).isEqualTo("3 Zellen");
        assertThat(Words.told("as an earlier program stored it")).isEqualTo("as an earlier program stored it");
        assertThat(Words.of("compare.cells", 3))
                .as("the language is what it was")
                .isEqualTo("3 Zellen");
    }
}
