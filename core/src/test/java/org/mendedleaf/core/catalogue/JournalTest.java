package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Decision;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.words.Formats;

/** Everything that people did, as one list that is proved and written down for other programs. */
class JournalTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void aRestoreAHoldAndADecision() throws IOException {
        p = new TestPlace(temp);
        p.save("sub/a, b.txt", "one");
        p.capture();
        p.save("sub/a, b.txt", "two");
        p.capture();
        Line line = p.line("sub/a, b.txt");
        p.recovery()
                .restore(
                        RestoreRequest.restore(
                                List.of(new RestoreItem(line.version(1).orElseThrow(), line.path())),
                                Collisions.all(Collision.REPLACE)),
                        Progress.NONE);
        p.later(10);
        Holds holds = new Holds(p.vault(), p.clock(), "Ines");
        Hold hold = holds.line(p.place(), line.id(), line.path(), "the tax office asked", Optional.empty());
        p.later(10);
        holds.lift(hold.id());
        p.later(10);
        try (WriteSession session = p.vault().write()) {
            DecisionStore.decide(
                    session,
                    new Decision(
                            p.place().id(), "abc123", Decision.What.DISMISSED, p.now(), "Wilma", "it was meant", 0));
            session.commit();
        }
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private List<JournalQuery.Entry> entries(JournalQuery.Wanted wanted) throws IOException {
        try (Reading reading = p.vault().read()) {
            return JournalQuery.of(reading).entries(wanted, 100);
        }
    }

    private List<String> kinds(JournalQuery.Wanted wanted) throws IOException {
        return entries(wanted).stream().map(JournalQuery.Entry::kind).toList();
    }

    private static JournalQuery.Wanted by(String file, String who, String kind) {
        return new JournalQuery.Wanted(file, who, kind, Optional.empty(), Optional.empty());
    }

    @Test
    void itHoldsActionsHoldsAndDecisionsTheLatestFirst() throws IOException {
        assertThat(kinds(JournalQuery.Wanted.ALL))
                .containsExactly("FINDING_DISMISSED", "HOLD_LIFTED", "HELD", "RESTORED", "SETTING_CHANGED");
        JournalQuery.Entry restored = entries(JournalQuery.Wanted.ALL).get(3);
        assertThat(restored.who()).isEqualTo("Tomas");
        assertThat(restored.words()).isEqualTo("a, b.txt restored");
        assertThat(restored.action().orElseThrow().items())
                .containsExactly(new Action.Item(p.line("sub/a, b.txt").id(), "sub", "a, b.txt", 2, 3));
        assertThat(entries(JournalQuery.Wanted.ALL).get(2).words()).isEqualTo("held: the tax office asked");
    }

    @Test
    void itIsNarrowedDown() throws IOException {
        assertThat(kinds(by("SUB/A", "", ""))).containsExactly("RESTORED");
        assertThat(kinds(by("nothing", "", ""))).isEmpty();
        assertThat(kinds(by("", "tom", ""))).containsExactly("RESTORED");
        assertThat(kinds(by("", "", "held"))).containsExactly("HELD");
        var since = new JournalQuery.Wanted(
                "", "", "", Optional.of(p.now().minus(Duration.ofMinutes(1))), Optional.empty());
        assertThat(kinds(since)).containsExactly("FINDING_DISMISSED");
        var until = new JournalQuery.Wanted(
                "", "", "", Optional.empty(), Optional.of(p.now().minus(Duration.ofMinutes(25))));
        assertThat(kinds(until)).containsExactly("RESTORED", "SETTING_CHANGED");
        try (Reading reading = p.vault().read()) {
            assertThat(JournalQuery.of(reading).entries(JournalQuery.Wanted.ALL, 2))
                    .hasSize(2);
        }
    }

    @Test
    void anyProgramReadsItAsCsv() throws IOException {
        String csv = JournalReport.csv(entries(JournalQuery.Wanted.ALL), id -> "Desk " + id, CsvTable.Cells.TEXT);
        try (CSVParser parser = CSVParser.parse(
                csv,
                CSVFormat.RFC4180
                        .builder()
                        .setHeader()
                        .setSkipHeaderRecord(true)
                        .get())) {
            List<CSVRecord> rows = parser.getRecords();
            assertThat(rows).hasSize(5);
            CSVRecord restored = rows.get(3);
            assertThat(restored.get("file")).isEqualTo("sub/a, b.txt");
            assertThat(restored.get("version before")).isEqualTo("2");
            assertThat(restored.get("version after")).isEqualTo("3");
            assertThat(restored.get("place")).isEqualTo("Desk 1");
            assertThat(rows.get(0).get("file")).isEmpty();
        }
    }

    @Test
    void anyProgramReadsItAsJsonLines() throws IOException {
        String[] lines = JournalReport.jsonLines(entries(JournalQuery.Wanted.ALL), id -> "")
                .split("\n");
        assertThat(lines).hasSize(5);
        JsonNode restored = new ObjectMapper().readTree(lines[3]);
        assertThat(restored.at("/files/0/path").asText()).isEqualTo("sub/a, b.txt");
        assertThat(restored.get("undone").asBoolean()).isFalse();
        assertThat(new ObjectMapper().readTree(lines[0]).has("files")).isFalse();
    }

    private Optional<String> broken() throws IOException {
        try (Reading reading = p.vault().read()) {
            return JournalChain.broken(reading.sql());
        }
    }

    private void run(String sql) throws IOException {
        try (WriteSession session = p.vault().write()) {
            session.sql().run(sql);
            session.commit();
        }
    }

    @Test
    void theChainHoldsUntilSomebodyChangesAnEntry() throws IOException {
        assertThat(broken()).isEmpty();
        run("UPDATE journal SET at = at + 1 WHERE id = 1");
        assertThat(broken()).hasValueSatisfying(w -> assertThat(w).contains("entry 1"));
    }

    @Test
    void theChainIsMadeAnewFromThePacks() throws IOException {
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), p.clock());
        assertThat(broken()).isEmpty();
        assertThat(kinds(JournalQuery.Wanted.ALL)).hasSize(5);
        assertThat(p.check().isClean()).isTrue();
    }

    @Test
    void aVaultWhoseEntriesAreOlderThanTheChainIsFine() throws IOException {
        run("DELETE FROM journal_link");
        assertThat(broken()).isEmpty();
        p.save("c.txt", "x");
        p.capture();
        Line line = p.line("sub/a, b.txt");
        p.recovery()
                .restore(
                        RestoreRequest.restore(
                                List.of(new RestoreItem(line.version(2).orElseThrow(), line.path())),
                                Collisions.all(Collision.REPLACE)),
                        Progress.NONE);
        assertThat(broken()).as("it begins with what comes next").isEmpty();
        run("UPDATE journal SET who = 'x' WHERE id = (SELECT max(id) FROM journal)");
        assertThat(broken()).isPresent();
    }

    private Optional<String> brokenEnds() throws IOException {
        try (Reading reading = p.vault().read()) {
            return JournalEnds.broken(reading.sql());
        }
    }

    private JournalQuery.Entry restored() throws IOException {
        return entries(JournalQuery.Wanted.ALL).stream()
                .filter(e -> e.kind().equals("RESTORED"))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void howAnActionCameOutStandsWithIt() throws IOException {
        assertThat(restored().end())
                .hasValueSatisfying(e -> assertThat(e.failed()).isZero());
        assertThat(restored().cutShort()).isFalse();
        long id = restored().action().orElseThrow().id();
        try (WriteSession session = p.vault().write()) {
            JournalStore.end(session, id, new JournalEnds.End(Duration.ofSeconds(75), 2));
            session.commit();
        }
        assertThat(restored().outcome()).isEqualTo("2 files failed, took " + Formats.duration(Duration.ofSeconds(75)));
        assertThat(JournalReport.jsonLines(List.of(restored()), i -> "")).contains("\"tookSeconds\":75.0");
        assertThat(brokenEnds()).isEmpty();
    }

    @Test
    void anActionThatWasKilledIsSaidToBeCutShort() throws IOException {
        try (WriteSession session = p.vault().write()) {
            long id = JournalStore.begin(
                    session,
                    new Action(0, p.now(), "Ada", ActionKind.REMOVED, p.place().id(), 0, false, List.of()));
            JournalStore.goesOn(session, id);
            session.commit();
        }
        JournalQuery.Entry latest = entries(JournalQuery.Wanted.ALL).get(0);
        assertThat(latest.cutShort()).isTrue();
        assertThat(latest.outcome()).isEqualTo("cut short");
    }

    @Test
    void theChainCoversTheFilesOfAnEntryAndHowItCameOut() throws IOException {
        assertThat(brokenEnds()).isEmpty();
        long id = restored().action().orElseThrow().id();
        run("UPDATE journal_item SET name = 'another.txt' WHERE journal = " + id);
        assertThat(brokenEnds()).hasValueSatisfying(w -> assertThat(w).contains("files of entry " + id));
        assertThat(p.check().damages()).anyMatch(d -> d.contains("files of entry " + id));
        run("UPDATE journal_end SET failed = 7 WHERE id = 1");
        assertThat(brokenEnds()).hasValueSatisfying(w -> assertThat(w).contains("entry"));
        run("DELETE FROM journal_end WHERE id = 1");
        assertThat(p.check().damages()).as("the packs still tell of it").isNotEmpty();
    }

    @Test
    void howActionsEndedIsMadeAnewFromThePacks() throws IOException {
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), p.clock());
        assertThat(brokenEnds()).isEmpty();
        assertThat(restored().end()).isPresent();
    }
}
