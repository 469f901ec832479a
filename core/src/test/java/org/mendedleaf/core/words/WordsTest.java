package org.mendedleaf.core.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.MessageFormat;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

class WordsTest {

    private static final Pattern KEY = Pattern.compile("\"((?:[a-z][A-Za-z0-9]*\\.)+[A-Za-z0-9.]*|where|when)\"");

    private static Properties words() throws IOException {
        Properties words = new Properties();
        try (Reader in =
                Files.newBufferedReader(Path.of("src/main/resources/org/mendedleaf/core/words/messages.properties"))) {
            words.load(in);
        }
        return words;
    }

    /** What looks like a key, or like the beginning of one, in all sources of the product. */
    private static Set<String> quoted() throws IOException {
        Set<String> found = new TreeSet<>();
        for (String module : new String[] {"../core", "../cli", "../desktop"}) {
            try (Stream<Path> all = Files.walk(Path.of(module, "src/main/java"))) {
                for (Path file : all.filter(f -> f.toString().endsWith(".java")).toList()) {
                    String text = Files.readString(file);
                    Matcher m = KEY.matcher(text);
                    while (m.find()) {
                        found.add(m.group(1));
                    }
                    Matcher bundle =
                            Pattern.compile("\\$\\{bundle:([a-zA-Z.]+)}").matcher(text);
                    while (bundle.find()) {
                        found.add(bundle.group(1));
                    }
                }
            }
        }
        return found;
    }

    @Test
    void aSentenceThatEndsWithAnAbbreviationHasOneFullStop() {
        assertThat(Words.of("vaultBox.next", "20. Dez.")).endsWith("20. Dez.");
        assertThat(Words.of("vaultBox.next", "20 Dec")).endsWith("20 Dec.");
        assertThat(Words.of("vaultBox.next", "../x")).endsWith("../x.");
        assertThat(Words.of("vaultBox.next", "a...")).endsWith("a....");
    }

    @Test
    void everyKeyInTheSourcesHasWords() throws IOException {
        Properties words = words();
        Set<String> families = new TreeSet<>();
        words.stringPropertyNames()
                .forEach(k -> families.add(k.substring(0, k.indexOf('.') < 0 ? k.length() : k.indexOf('.'))));
        for (String key : quoted()) {
            String family = key.substring(0, key.indexOf('.') < 0 ? key.length() : key.indexOf('.'));
            boolean isStart = key.endsWith(".");
            if (families.contains(family)
                    && !key.contains("mendedleaf")
                    && !key.matches(".*\\.(txt|db|json|css|new|pack|key|ini)")) {
                assertThat(isStart
                                || words.containsKey(key)
                                || words.stringPropertyNames().stream().anyMatch(k -> k.startsWith(key + ".")))
                        .as("words for %s", key)
                        .isTrue();
            }
        }
    }

    @Test
    void noKeyHasWordsTwice() throws IOException {
        Set<String> seen = new TreeSet<>();
        try (Stream<String> lines =
                Files.lines(Path.of("src/main/resources/org/mendedleaf/core/words/messages.properties"))) {
            lines.filter(l -> l.matches("[A-Za-z0-9.]+=.*"))
                    .map(l -> l.substring(0, l.indexOf('=')))
                    .forEach(key -> assertThat(seen.add(key))
                            .as("%s for the first time", key)
                            .isTrue());
        }
    }

    @Test
    void everyWordIsUsedAndCanBeRead() throws IOException {
        Set<String> quoted = quoted();
        Properties words = words();
        for (String key : words.stringPropertyNames()) {
            assertThat(new MessageFormat(words.getProperty(key))).isNotNull();
            boolean used = quoted.contains(key)
                    || quoted.stream().anyMatch(q -> key.startsWith(q.endsWith(".") ? q : q + "."))
                    || key.startsWith("keys.");
            assertThat(used).as("use of %s", key).isTrue();
        }
    }

    @Test
    void sizesAreSaidInTwoOrThreeDigits() {
        assertThat(Formats.size(0)).isEqualTo("0 B");
        assertThat(Formats.size(999)).isEqualTo("999 B");
        assertThat(Formats.size(1000)).isEqualTo("1.00 kB");
        assertThat(Formats.size(48_312)).isEqualTo("48.3 kB");
        assertThat(Formats.size(999_499)).isEqualTo("999 kB");
        assertThat(Formats.size(999_600)).isEqualTo("1.00 MB");
        assertThat(Formats.size(1_240_000_000L)).isEqualTo("1.24 GB");
        assertThat(Formats.sizeChange(-45_200)).isEqualTo("−45.2 kB");
    }

    @Test
    void timesAreSaidAsPeopleDo() {
        Instant now = Instant.parse("2026-05-14T10:42:00Z");
        assertThat(Formats.moment(Instant.parse("2026-05-14T09:05:00Z"), now, ZoneOffset.UTC))
                .isEqualTo("today 09:05");
        assertThat(Formats.moment(Instant.parse("2026-05-13T17:20:00Z"), now, ZoneOffset.UTC))
                .isEqualTo("yesterday 17:20");
        assertThat(Formats.moment(Instant.parse("2026-05-12T16:05:00Z"), now, ZoneOffset.UTC))
                .isEqualTo("Tue 16:05");
        assertThat(Formats.moment(Instant.parse("2026-05-04T16:05:00Z"), now, ZoneOffset.UTC))
                .isEqualTo("4 May 16:05");
        assertThat(Formats.moment(Instant.parse("2025-05-04T16:05:00Z"), now, ZoneOffset.UTC))
                .isEqualTo("4 May 2025");
        assertThat(Formats.ago(now.minusSeconds(125), now, ZoneOffset.UTC)).isEqualTo("2 min ago");
    }
}
