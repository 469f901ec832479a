package org.mendedleaf.core.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.Properties;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Words are found by halving: each in our files, with the value that properties have, and nothing that is not there. */
class SortedMessagesTest {

    private static SortedMessages sorted(String text) {
        return new SortedMessages(text.getBytes(StandardCharsets.UTF_8));
    }

    @ParameterizedTest
    @ValueSource(strings = {"messages.properties", "messages_de.properties", "messages_en_US.properties"})
    void everyKeyOfOurFilesIsFoundWithItsValue(String file) throws IOException {
        String text;
        try (InputStream in = Objects.requireNonNull(Words.class.getResourceAsStream(file))) {
            text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        Properties all = new Properties();
        all.load(new StringReader(text));
        SortedMessages words = sorted(text);
        assertThat(List.copyOf(words.handleKeySet()))
                .as("sorted by their characters: otherwise they are not found")
                .isEqualTo(List.copyOf(new TreeSet<>(all.stringPropertyNames())));
        all.forEach((key, value) -> assertThat(words.getString((String) key)).isEqualTo(value));
    }

    @Test
    void betweenCommentsAndEmptyLinesKeysAreFoundToo() {
        SortedMessages words = sorted("# a=head\n\n\na=1\n# b=no\nab=2\n\n#\n#\nb.c=\\ or\\ \nd=4 = 5");
        assertThat(words.getString("a")).isEqualTo("1");
        assertThat(words.getString("ab")).isEqualTo("2");
        assertThat(words.getString("b.c")).isEqualTo(" or ");
        assertThat(words.getString("d")).isEqualTo("4 = 5");
        assertThat(words.handleKeySet()).containsExactly("a", "ab", "b.c", "d");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "0", "aa", "abc", "b", "b.", "c", "d=", "e", "# a"})
    void whatIsNotThereIsNotFound(String key) {
        assertThat(sorted("# a=head\na=1\n# b=no\nab=2\nb.c=3\nd=4").handleGetObject(key))
                .isNull();
        assertThat(sorted("").handleGetObject(key)).isNull();
        assertThat(sorted("# only\n# words").handleGetObject(key)).isNull();
    }
}
