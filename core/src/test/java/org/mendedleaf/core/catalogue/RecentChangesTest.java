package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.document.Made;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.retention.Erasing;

/** Who follows a vault is told which files changed, or that everything has to be gone through. */
class RecentChangesTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
        p.save("lease.txt", "The rent is 400.");
        p.save("fees.txt", "Ten a tree.");
        p.capture();
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private long commit() throws IOException {
        try (Reading reading = p.vault().read()) {
            return reading.commit();
        }
    }

    private Optional<Map<Long, Set<Integer>>> since(long commit) throws IOException {
        try (Reading reading = p.vault().read()) {
            return RecentChanges.since(reading, commit);
        }
    }

    private void run(String sql) throws IOException {
        try (WriteSession session = p.vault().write()) {
            session.applyUnlogged(sql);
            session.commit();
        }
    }

    @Test
    void aSaveARenameAndARemovalNameTheirFileAlone() throws IOException {
        long before = commit();
        p.later(5);
        p.save("lease.txt", "The rent is 450.");
        p.capture();
        long lease = p.line("lease.txt").id();
        assertThat(since(before)).contains(Map.of(lease, Set.of(2)));
        long saved = commit();
        assertThat(since(saved)).as("nothing came").contains(Map.of());
        p.later(5);
        Files.move(p.path("lease.txt"), p.path("contract.txt"));
        p.capture();
        assertThat(since(saved).orElseThrow()).containsOnlyKeys(lease);
        long renamed = commit();
        p.later(5);
        long fees = p.line("fees.txt").id();
        Files.delete(p.path("fees.txt"));
        p.capture();
        assertThat(since(renamed).orElseThrow()).containsOnlyKeys(fees);
        assertThat(since(before).orElseThrow()).as("all of it together").containsOnlyKeys(lease, fees);
    }

    @Test
    void whatChangesNoFileNamesNone() throws IOException {
        long before = commit();
        try (WriteSession session = p.vault().write()) {
            SnapshotStore.put(
                    session, new Snapshot(0, p.place().id(), "", p.now(), "A label", "Ines", 0, Optional.empty()));
            session.commit();
        }
        assertThat(commit()).isGreaterThan(before);
        assertThat(since(before)).contains(Map.of());
    }

    @Test
    void unfoldingADocumentChangesNothingOfIt() throws IOException {
        p.save("fees.xlsx", Made.xlsx(Made.rows("Kind,Kilos", "Bramley,736")));
        p.capture();
        p.later(5);
        p.save("fees.xlsx", Made.xlsx(Made.rows("Kind,Kilos", "Bramley,737")));
        p.capture();
        long before = commit();
        p.unfold();
        assertThat(since(before)).contains(Map.of());
    }

    @Test
    void everythingIsGoneThroughWhenVersionsWereLetGo() throws IOException {
        p.later(5);
        p.save("lease.txt", "The rent is 450.");
        p.capture();
        long before = commit();
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                .erase(p.line("lease.txt").id(), Erasing.What.VERSION, 1, Progress.NONE);
        assertThat(since(before)).isEmpty();
    }

    @Test
    void everythingIsGoneThroughAfterTooManyChangesAGapOrAFall() throws IOException {
        long before = commit();
        for (int i = 0; i < 600; i++) {
            p.save("many/" + i + ".txt", "number " + i);
        }
        p.later(5);
        p.capture();
        assertThat(since(before)).as("too many to name").isEmpty();
        long after = commit();
        assertThat(since(after + 1)).as("the vault went back").isEmpty();
        assertThat(since(0)).as("nothing is known").isEmpty();
        p.later(5);
        p.save("lease.txt", "The rent is 450.");
        p.capture();
        assertThat(since(after)).isPresent();
        run("DELETE FROM recent_change WHERE seq = " + commit());
        assertThat(since(after)).as("a commit that left no row").isEmpty();
    }
}
