package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.AsideStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Version;

/** What killed restores leave is never in the way, and goes when nobody can need it. */
class LeftoversTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private Path bag;
    private Path file;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.capture();
        bag = p.path(SafeFolder.ownName());
        Files.createDirectories(bag.resolve("data/deep"));
        Files.writeString(bag.resolve("data/deep/half.txt"), "half of a ba");
        file = p.path(SafeFolder.ownName());
        Files.writeString(file, "half of a fi");
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private void remove(Duration leftAlone) throws IOException {
        try (WriteSession session = p.vault().write()) {
            new Leftovers(session, p.place(), leftAlone).remove("");
        }
    }

    @Test
    void theyAreNeverInTheWay() throws IOException {
        Version first = p.line("a.txt").version(1).orElseThrow();
        RestoreResult result =
                p.recovery().restore(List.of(new RestoreItem(first, "a.txt")), Collision.REPLACE, Progress.NONE);
        assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(1);
        assertThat(p.recovery().remove(List.of("a.txt")).failed()).isEmpty();
        assertThat(bag.resolve("data/deep/half.txt"))
                .as("somebody may be making it")
                .exists();
        assertThat(p.capture().points()).as("nothing of them is captured").isZero();
    }

    @Test
    void theyGoWithAllThatIsInThemWhenNobodyTouchedThemForAWhile() throws Exception {
        Thread.sleep(20);
        remove(Duration.ZERO);
        assertThat(bag).doesNotExist();
        assertThat(file).doesNotExist();
        assertThat(p.read("a.txt")).isEqualTo("two");
    }

    @Test
    void oneThatIsBeingWrittenAndOneThatWasNotLookedAtStay() throws Exception {
        Path aside = p.path(SafeFolder.ownName());
        Files.writeString(aside, "saved in the moment of a kill");
        try (WriteSession session = p.vault().write();
                var out = Files.newOutputStream(file)) {
            AsideStore.put(session, p.place(), new AsideStore.Aside(String.valueOf(aside.getFileName()), "a.txt"));
            Thread.sleep(20);
            new Leftovers(session, p.place(), Duration.ZERO).remove("");
            assertThat(file).exists();
            assertThat(aside).exists();
        }
        assertThat(bag).doesNotExist();
    }
}
