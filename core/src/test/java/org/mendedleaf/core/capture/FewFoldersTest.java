package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.FolderScans;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.ScanStore;

/** A few folders of a place are captured; of the others nothing is read. */
class FewFoldersTest {

    @TempDir
    Path temp;

    private static void fill(TestPlace p) throws IOException {
        for (String path : new String[] {"a.txt", "x/b.txt", "x/y/c.txt", "x/y/z/d.txt", "other/e.txt"}) {
            p.save(path, "content of " + path);
        }
        p.capture();
    }

    @Test
    void whatIsAskedForOneByOneIsWhatIsKnownOfAll() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            fill(p);
            Files.createDirectories(p.path("new/deep"));
            try (Reading reading = p.vault().read()) {
                Map<String, byte[]> all = ScanStore.known(reading, p.place());
                assertThat(all.keySet()).containsExactlyInAnyOrder("", "x", "x/y", "x/y/z", "other");
                FolderScans asked = FolderScans.asked(reading, p.place());
                FolderScans whole = FolderScans.of(all);
                Set<String> paths = new TreeSet<>(all.keySet());
                paths.addAll(Set.of("new", "new/deep", "x/none", "x/y/z/none", "none/none"));
                for (String path : paths) {
                    assertThat(asked.entries(path)).as(path).isEqualTo(whole.entries(path));
                    assertThat(asked.isKnown(path)).as(path).isEqualTo(whole.isKnown(path));
                }
            }
        }
    }

    @Test
    void aNewFolderIsFoundWithAllThatIsInItAndAKnownOneIsNotLookedInto() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            fill(p);
            p.save("x/fresh/f.txt", "in a new folder");
            p.save("x/fresh/more/g.txt", "below it");
            p.save("x/y/c.txt", "changed, where nobody said so");
            CaptureResult result = p.capture("x");
            assertThat(result.added()).isEqualTo(2);
            assertThat(result.changed()).isZero();
            assertThat(p.line("x/fresh/more/g.txt").versions()).hasSize(1);
            assertThat(p.capture("x/y").changed()).isOne();
            assertThat(p.capture().points())
                    .as("nothing is left for a scan of all")
                    .isZero();
        }
    }

    @Test
    void aFolderThatWentAndOneThatCameUnderItsNameAreTold() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            fill(p);
            Files.delete(p.path("x/y/z/d.txt"));
            Files.delete(p.path("x/y/z"));
            CaptureResult gone = p.capture("x/y");
            assertThat(gone.removed()).isOne();
            p.save("x/y/z/d.txt", "it is back, and another");
            assertThat(p.capture("x/y", "x/y/z").points()).isPositive();
            assertThat(p.line("x/y/z/d.txt").versions()).hasSize(2);
            assertThat(p.capture().points()).isZero();
        }
    }
}
