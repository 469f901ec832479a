package org.mendedleaf.core.find;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.find.Wanted.Narrow;
import org.mendedleaf.core.find.Wanted.Term;

/** What is typed into the box becomes a question that the index understands, whatever it is. */
class WantedTest {

    private static Wanted parse(String typed) {
        return Wanted.parse(typed, false, Narrow.NOT);
    }

    @Test
    void wordsPhrasesBeginningsAndWhatMustNotBeThere() {
        Wanted w = parse("harvest \"of 2026\" glov* -draft -\"not this\"");
        assertThat(w.terms())
                .containsExactly(new Term("harvest", false), new Term("of 2026", false), new Term("glov", true));
        assertThat(w.without()).containsExactly(new Term("draft", false), new Term("not this", false));
        assertThat(w.words()).containsExactly("harvest", "of 2026", "glov");
        assertThat(w.unwanted()).containsExactly("draft", "not this");
    }

    @Test
    void theLastWordMayGoOnWhileItIsTyped() {
        assertThat(Wanted.parse("apple tre", true, Narrow.NOT).terms())
                .containsExactly(new Term("apple", false), new Term("tre", true));
        assertThat(Wanted.parse("apple tree ", true, Narrow.NOT).terms())
                .as("a space ends it")
                .containsExactly(new Term("apple", false), new Term("tree", false));
        assertThat(Wanted.parse("\"apple tre", true, Narrow.NOT).terms())
                .as("a phrase is what it says")
                .containsExactly(new Term("apple tre", false));
        assertThat(Wanted.parse("apple -dra", true, Narrow.NOT).without())
                .as("what must not be there is not guessed")
                .containsExactly(new Term("dra", false));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "   ", "-", "\"\"", "*", "-draft", "!?", "- -"})
    void nothingIsNoQuestion(String typed) {
        assertThatThrownBy(() -> parse(typed)).isInstanceOf(IllegalArgumentException.class);
    }

    /** The texts of an index that fit what was typed. */
    private static List<String> found(String typed, String... texts) throws SQLException {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite::memory:");
                Statement make = connection.createStatement()) {
            make.execute("CREATE VIRTUAL TABLE t USING fts5(words)");
            try (PreparedStatement put = connection.prepareStatement("INSERT INTO t VALUES (?)")) {
                for (String text : texts) {
                    put.setString(1, text);
                    put.execute();
                }
            }
            List<String> found = new ArrayList<>();
            try (PreparedStatement ask =
                    connection.prepareStatement("SELECT words FROM t WHERE t MATCH ? ORDER BY rowid")) {
                ask.setString(1, parse(typed).expression());
                try (ResultSet rows = ask.executeQuery()) {
                    while (rows.next()) {
                        found.add(rows.getString(1));
                    }
                }
            }
            return found;
        }
    }

    @ParameterizedTest
    @CsvSource({
        "apple, 'an apple|apple tree'",
        "APPLE tree, 'apple tree'",
        "\"an apple\", 'an apple'",
        "appl*, 'an apple|apple tree'",
        "apple -tree, 'an apple'",
        "apple -tree -\"an apple\", ''",
        "tree OR pear, ''",
        "NEAR pear, ''"
    })
    void itFindsWhatItSays(String typed, String fits) throws SQLException {
        List<String> expected = fits.isEmpty() ? List.of() : List.of(fits.split("\\|"));
        assertThat(found(typed, "an apple", "apple tree", "a pear")).isEqualTo(expected);
    }

    /** Nobody has to know the language of the index, and nobody can talk to it. */
    @Property(tries = 300)
    void whateverIsTypedIsAnsweredOrRefusedInWords(@ForAll @StringLength(max = 40) String typed) throws SQLException {
        try {
            found(typed.replace("\0", ""), "an apple", "apple tree");
        } catch (IllegalArgumentException e) {
            assertThat(e.getMessage()).isNotBlank();
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "a\" OR \"b",
                "words:apple",
                "apple) OR (tree",
                "^apple",
                "a AND NOT b",
                "{words}: x",
                "a + b",
                "'; DROP TABLE t; --"
            })
    void signsOfTheIndexAreWordsLikeAnyOther(String typed) throws SQLException {
        assertThat(found(typed, "nothing of it")).isEmpty();
    }
}
