package org.mendedleaf.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.FindQuery;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;

/** Names are found by an index of three letters in a row, and never other ones than going through all of them finds. */
class FindNamesTest {

    private static final Wanted.Narrow NAMES = new Wanted.Narrow(
            Optional.empty(), "", "", Optional.empty(), Optional.empty(), "", Wanted.Presence.ALL, Wanted.Field.NAMES);

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private void save(String... paths) throws IOException {
        for (String path : paths) {
            p.save(path, "words of " + path.hashCode());
        }
        p.later(5);
        p.capture();
    }

    private void index() throws IOException {
        assertThat(new Indexer(p.vault(), false).run(Progress.NONE).complete()).isTrue();
    }

    private List<String> found(String... words) throws IOException {
        Wanted wanted = Wanted.parse(String.join(" ", words), false, NAMES);
        return new Finder(p.vault(), "Ines")
                .find(wanted, 50).files().stream()
                        .map(h -> h.line().path())
                        .sorted()
                        .toList();
    }

    private void sql(String... statements) throws SQLException {
        try (Connection db = DriverManager.getConnection(
                "jdbc:sqlite:" + FindIndex.file(p.vault().folder()))) {
            for (String one : statements) {
                db.createStatement().execute(one);
            }
        }
    }

    /** The index says that it knows all names so far, and holds none. */
    private void loseNames() throws SQLException {
        sql("INSERT INTO name (name) VALUES ('delete-all')");
    }

    @Test
    void whateverIsLookedForIsFoundWithTheIndexAsWithoutIt() throws IOException {
        String[] names = {
            "Rent Übersicht 2026.xlsx",
            "rent übersicht.txt",
            "a 100%.txt",
            "a_100.txt",
            "say \"hello\".txt",
            "GROSS groß.txt",
            "ab",
            "folder/rent (2).odt",
            "İstanbul.txt",
            "aaaaaaaa.txt",
            "日本語の名前.txt"
        };
        save(names);
        Files.move(p.path("ab"), p.path("abc moved.txt"));
        p.later(5);
        p.capture();
        index();
        save("not in yet rent.txt");
        Random random = new Random(5);
        try (Reading reading = p.vault().read();
                FindIndex index = FindIndex.open(p.vault().folder())) {
            FindQuery query = FindQuery.of(reading);
            int told = 0;
            for (int i = 0; i < 400; i++) {
                String name = names[random.nextInt(names.length)];
                int from = random.nextInt(name.length());
                String word = name.substring(from, Math.min(name.length(), from + 1 + random.nextInt(6)));
                word = random.nextBoolean() ? word.toUpperCase(java.util.Locale.ROOT) : word;
                List<String> words = random.nextInt(3) == 0 ? List.of(word, "rent") : List.of(word);
                List<String> without = random.nextInt(4) == 0 ? List.of("2026") : List.of();
                FindQuery.Named named = index.named(words).orElse(new FindQuery.Named(0, List.of()));
                told += named.upto() > 0 ? 1 : 0;
                assertThat(query.said(words, without, named))
                        .as("%s without %s", words, without)
                        .containsExactlyInAnyOrderElementsOf(query.said(words, without));
            }
            assertThat(told).as("the index was asked").isGreaterThan(100);
        }
    }

    @Test
    void theIndexIsAskedAndWhatIsNotInItYetIsFoundToo() throws Exception {
        save("rent.txt", "lease.txt");
        index();
        assertThat(found("rent")).containsExactly("rent.txt");
        loseNames();
        assertThat(found("rent")).as("only the index is asked").isEmpty();
        assertThat(found("re")).as("too few letters for it").containsExactly("rent.txt");
        save("rent 2.txt");
        assertThat(found("rent")).as("known to nobody but the catalogue").containsExactly("rent 2.txt");
        assertThat(found("rent", "2.t")).containsExactly("rent 2.txt");
    }

    @Test
    void inAVaultThatWentBackTheIndexOfNamesIsNotAskedAndBegunAnew() throws Exception {
        save("rent.txt");
        index();
        loseNames();
        try (FindIndex index = FindIndex.open(p.vault().folder())) {
            index.filled(0, "1000000");
        }
        assertThat(found("rent")).containsExactly("rent.txt");
        index();
        try (FindIndex index = FindIndex.open(p.vault().folder())) {
            assertThat(index.named(List.of("rent")).orElseThrow().nodes()).hasSize(1);
        }
    }

    @Test
    void anIndexFromBeforeTakesNamesIn() throws Exception {
        save("rent.txt");
        index();
        sql("DROP TABLE name", "DROP TABLE named", "PRAGMA user_version = 6");
        assertThat(found("rent")).as("and finds until then").containsExactly("rent.txt");
        try (FindIndex index = FindIndex.open(p.vault().folder())) {
            assertThat(index.named(List.of("rent"))).isEmpty();
        }
        save("other.txt");
        index();
        loseNames();
        assertThat(found("rent")).isEmpty();
    }

    @Test
    void whoAsksDoesNotWaitForWhoeverWrites() throws Exception {
        save("rent.txt");
        index();
        loseNames();
        try (Connection writes = DriverManager.getConnection(
                "jdbc:sqlite:" + FindIndex.file(p.vault().folder()))) {
            writes.createStatement().execute("BEGIN IMMEDIATE");
            assertThat(found("rent"))
                    .as("who waits in vain goes through all names, and finds it")
                    .isEmpty();
            writes.createStatement().execute("ROLLBACK");
        }
    }

    @Test
    void namesThatArePutInPieceByPieceAreAllThere() throws IOException {
        String[] names = new String[40];
        for (int i = 0; i < names.length; i++) {
            names[i] = "file number " + i + ".txt";
        }
        save(names);
        try (Reading reading = p.vault().read();
                FindIndex index = FindIndex.open(p.vault().folder())) {
            FindQuery query = FindQuery.of(reading);
            for (List<FindQuery.Name> next = query.names(0, 7); !next.isEmpty(); next = query.names(index.named(), 7)) {
                index.putNames(next);
            }
            assertThat(index.named(List.of("number")).orElseThrow().nodes()).hasSize(40);
        }
    }
}
