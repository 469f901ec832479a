package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.RestoreResult;

/** A file whose content was changed and whose size and times say that it was not, on a system that keeps no time of change. */
final class SameLookTest {

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

    @Test
    void aRestoreComparesContentsBeforeItSaysThatNothingIsToBeDone() throws Exception {
        p.save("ledger.txt", "as it was");
        p.capture();
        changeUnseen("ledger.txt", "forged it");
        p.later(5);
        assertThat(p.capture().points()).as("what no look can find").isZero();
        assertThat(plan(1).items().get(0).step()).isEqualTo(RestorePlan.Step.REPLACE);

        RestoreResult result = p.recovery().restore(List.of(asked(1)), Collision.REPLACE, Progress.NONE);

        assertThat(result.items().get(0).outcome()).isEqualTo(RestoreResult.Outcome.DONE);
        assertThat(p.path("ledger.txt")).hasContent("as it was");
        Line line = p.line("ledger.txt");
        assertThat(line.versions()).hasSize(3);
        p.recovery().restore(List.of(asked(2)), Collision.REPLACE, Progress.NONE);
        assertThat(p.path("ledger.txt")).as("what was there before the restore").hasContent("forged it");
        assertThat(p.check().isClean()).isTrue();
    }

    @Test
    void whatReallyIsThereStaysAsItIs() throws Exception {
        p.save("ledger.txt", "as it was");
        p.capture();
        RestoreResult result = p.recovery().restore(List.of(asked(1)), Collision.REPLACE, Progress.NONE);
        assertThat(result.items().get(0).outcome()).isEqualTo(RestoreResult.Outcome.LEFT);
        assertThat(p.line("ledger.txt").versions()).hasSize(1);
    }

    private RestorePlan plan(int number) throws IOException {
        return p.recovery().plan(RestoreRequest.restore(List.of(asked(number)), Collisions.all(Collision.REPLACE)));
    }

    private RestoreItem asked(int number) throws IOException {
        return new RestoreItem(p.line("ledger.txt").version(number).orElseThrow(), "ledger.txt");
    }

    /** Changes a file's content, and lets what the last look wrote down say what is there now. */
    private void changeUnseen(String name, String content) throws IOException {
        FileTime time = Files.getLastModifiedTime(p.path(name));
        Files.writeString(p.path(name), content);
        Files.setLastModifiedTime(p.path(name), time);
        try (WriteSession session = p.vault().write();
                SafeFolder folder = SafeFolder.open(p.folder(), "")) {
            long id = new LineWriter(session).folder(p.place(), "");
            Map<String, SeenName> seen =
                    ScanBlob.decode(ScanStore.entries(session, id).orElseThrow());
            DiskEntry now = folder.find(name).orElseThrow();
            DiskEntry silent = new DiskEntry(now.type(), now.size(), now.mtimeNanos(), now.mode(), now.key());
            seen.put(name, new SeenName(name, silent, SeenName.Skip.NONE));
            ScanStore.put(session, id, p.now(), ScanBlob.encode(new ArrayList<>(seen.values()), Set.of()));
            session.commit();
        }
    }
}
