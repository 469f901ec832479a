package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What people did, as it is listed, written into files and proved. */
class JournalCommandLineTest extends TerminalTest {

    private String ledger = "";

    private void restoredRemovedAndUndone() throws Exception {
        ledger = save("ledger.csv", "k,v\na,1\n");
        save("other.txt", "words");
        protect();
        save("ledger.csv", "k,v\na,2\n");
        assertThat(run("capture")).isZero();
        assertThat(run("restore", ledger, "--version", "1")).isZero();
        assertThat(run("remove", Path.of(ledger).resolveSibling("other.txt").toString()))
                .isZero();
        assertThat(run("undo")).isZero();
    }

    @Test
    void itSaysWhoDidWhatToWhichFileAndWhatWasUndone() throws Exception {
        restoredRemovedAndUndone();
        assertThat(run("journal")).isZero();
        assertThat(out).contains("ledger.csv restored").contains("other.txt removed  (undone)");
        JsonNode json = json("journal", "--file", "LEDGER");
        assertThat(json).hasSize(1);
        assertThat(json.get(0).get("kind").asText()).isEqualTo("RESTORED");
        assertThat(json.at("/0/files/0/path").asText()).isEqualTo("ledger.csv");
        assertThat(json.at("/0/files/0/before").asInt()).isEqualTo(2);
        assertThat(json("journal", "--kind", "removed")).hasSize(1);
        assertThat(json("journal", "--who", "nobody")).isEmpty();
        assertThat(json("journal", "--since", "yesterday"))
                .as("with the protection of the folder")
                .hasSize(4);
        assertThat(json("journal", "--until", "2020-01-01")).isEmpty();
        assertThat(run("journal", "--who", "nobody")).isZero();
        assertThat(out).contains("Nothing was done yet, or nothing of that kind.");
    }

    @Test
    void itIsWrittenIntoANewFile() throws Exception {
        restoredRemovedAndUndone();
        Path csv = temp.resolve("journal.csv");
        assertThat(run("journal", "--export", csv.toString())).isZero();
        List<String> rows = Files.readAllLines(csv);
        assertThat(rows.get(0))
                .isEqualTo("at,who,kind,place,words,undone,file,version before,version after,took seconds,failed");
        assertThat(rows).filteredOn(r -> r.startsWith("at,")).hasSize(1);
        assertThat(rows).anyMatch(r -> r.contains("REMOVED") && r.contains("true,other.txt"));
        Path lines = temp.resolve("journal.jsonl");
        assertThat(run("journal", "--export", lines.toString())).isZero();
        for (String line : Files.readAllLines(lines)) {
            assertThat(new com.fasterxml.jackson.databind.ObjectMapper()
                            .readTree(line)
                            .get("kind")
                            .asText())
                    .isNotEmpty();
        }
        assertThat(run("journal", "--export", csv.toString()))
                .as("nothing is overwritten")
                .isNotZero();
    }

    private void tamper(String sql) throws Exception {
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + temp.resolve("vault/catalogue.db"));
                Statement statement = db.createStatement()) {
            statement.execute(sql);
        }
    }

    @Test
    void whoeverChangesAnEntryAfterwardsIsFoundOut() throws Exception {
        restoredRemovedAndUndone();
        assertThat(run("check")).isZero();
        tamper("UPDATE journal SET who = 'Somebody else' WHERE id = 2");
        assertThat(run("check")).isNotZero();
        assertThat(err).contains("The journal was changed: entry 2");
    }

    @Test
    void whoeverTakesAnEntryOutIsFoundOut() throws Exception {
        restoredRemovedAndUndone();
        tamper("DELETE FROM journal WHERE id = 1");
        assertThat(run("check")).isNotZero();
        assertThat(err).contains("entry 1 is gone");
        tamper("DELETE FROM journal_link WHERE journal = 1");
        assertThat(run("check")).isNotZero();
        assertThat(err).contains("The journal was changed");
    }

    @Test
    void anEntryThatWasPutInShows() throws Exception {
        restoredRemovedAndUndone();
        tamper("INSERT INTO journal SELECT 99, at, who, kind, place, undoes FROM journal WHERE id = 1");
        assertThat(run("check")).isNotZero();
        assertThat(err).contains("entry 99 was not written by this program");
    }

    @Test
    void whatASpreadsheetWouldComputeIsWrittenAsTextUnlessItIsWantedAsItIs() throws Exception {
        String odd = save("=1+1.txt", "x");
        protect();
        assertThat(run("remove", odd)).isZero();
        Path safe = temp.resolve("safe.csv");
        assertThat(run("journal", "--export", safe.toString())).isZero();
        assertThat(Files.readString(safe)).contains(",'=1+1.txt,");
        Path plain = temp.resolve("plain.csv");
        assertThat(run("journal", "--export", plain.toString(), "--cells-as-is"))
                .isZero();
        assertThat(Files.readString(plain)).contains(",=1+1.txt,");
    }
}
