package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.spy;

import java.io.IOException;
import java.nio.file.Path;
import java.util.BitSet;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;

/** What is erased is what was chosen, less what somebody holds by then; what is said to come free does. */
class ErasingTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private final Random random = new Random(4);

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private Erasing erasing() {
        return erasing(p.vault());
    }

    private Erasing erasing(OpenVault vault) {
        return new Erasing(new WorkContext(vault, p.place(), p.clock(), p.authors(), "Ines"));
    }

    private void versions(String name, byte[]... contents) throws IOException {
        for (byte[] content : contents) {
            p.save(name, content);
            p.capture();
            p.later(60);
        }
    }

    private byte[] noise(int bytes) {
        byte[] all = new byte[bytes];
        random.nextBytes(all);
        return all;
    }

    @Test
    void whatIsHeldWhileItIsBeingErasedStays() throws IOException {
        versions("a.txt", noise(10), noise(20), noise(30));
        Line line = p.line("a.txt");
        // Somebody holds one of them just before they are let go.
        OpenVault vault = spy(p.vault());
        doAnswer(call -> {
                    new Holds(p.vault(), p.clock(), "Ada")
                            .version(p.place(), line.id(), 2, line.path(), "audit", Optional.empty());
                    return call.callRealMethod();
                })
                .when(vault)
                .writeToMakeRoom();
        Erasing.Done done = erasing(vault).erase(line.id(), Erasing.What.OLDER, 0, Progress.NONE);
        assertThat(done.consequences().numbers()).containsExactly(1);
        assertThat(done.consequences().kept()).singleElement().asString().contains("held by Ada");
        try (Reading reading = p.vault().read()) {
            assertThat(PendingDeletionStore.of(reading).of(line.id())).containsOnlyKeys(1);
        }
    }

    @Test
    void whatComesFreeIsWhatNeitherOtherVersionsNorOtherFilesNeed() throws IOException {
        byte[] shared = noise(5_000);
        byte[] large = noise(300_000);
        byte[] edited = large.clone();
        edited[150_000]++;
        versions("other.bin", shared);
        versions("a.bin", noise(7_000), shared, large, edited);
        long line = p.line("a.bin").id();
        for (Erasing.What what : Erasing.What.values()) {
            for (int number = 1; number <= 4; number++) {
                Erasing.Consequences said = erasing().consequences(line, what, number);
                try (Reading reading = p.vault().read()) {
                    VersionTable all = VersionTable.of(reading);
                    BitSet rows = new BitSet();
                    said.numbers().forEach(n -> rows.set(all.row(line, n)));
                    assertThat(said.freedBytes()).isEqualTo(new SpaceTable(all).freedBy(rows));
                }
            }
        }
        assertThat(erasing().consequences(line, Erasing.What.VERSION, 2).freedBytes())
                .as("another file has it")
                .isZero();
        assertThat(erasing().consequences(line, Erasing.What.VERSION, 1).freedBytes())
                .isEqualTo(7_000);
    }
}
