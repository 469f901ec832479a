package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.snapshots.Snapshots;

/** What somebody types for a moment is meant for the file or folder that it is typed for. */
class MomentReaderTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void fill() throws Exception {
        p = new TestPlace(temp);
        p.save("a/letter.txt", "one");
        p.save("b/other.txt", "one");
        p.capture();
        p.save("a/letter.txt", "two");
        p.capture();
        p.save("b/other.txt", "two");
        p.capture();
    }

    @AfterEach
    void end() throws Exception {
        p.close();
    }

    private Instant read(String path, @Nullable String file, String typed) throws Exception {
        try (Reading reading = p.vault().read()) {
            return new MomentReader(reading, p.place(), path, file).read(typed, p.now(), ZoneOffset.UTC);
        }
    }

    private Instant saved(String path, int number) throws Exception {
        try (Reading reading = p.vault().read()) {
            return reading.line(p.place(), path)
                    .flatMap(l -> l.version(number))
                    .orElseThrow()
                    .saved();
        }
    }

    @Test
    void aVersionIsThatOfTheFile() throws Exception {
        try (Reading reading = p.vault().read()) {
            assertThat(read("a", "a/letter.txt", "version 1"))
                    .as("it was saved before its folder was first captured")
                    .isEqualTo(reading.changes().firstCapture(p.place()).orElseThrow())
                    .isAfter(saved("a/letter.txt", 1));
        }
        assertThat(read("a", "a/letter.txt", "version 2")).isEqualTo(saved("a/letter.txt", 2));
        assertThatThrownBy(() -> read("a", null, "version 1")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> read("a", "a/letter.txt", "version 7")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void theLastChangeIsThatOfTheFolder() throws Exception {
        Instant a = read("a", null, "before the last change");
        Instant b = read("b", null, "before the last change");
        assertThat(a).isBefore(saved("a/letter.txt", 2)).isAfterOrEqualTo(saved("a/letter.txt", 1));
        assertThat(b).isBefore(saved("b/other.txt", 2)).isAfterOrEqualTo(saved("a/letter.txt", 2));
    }

    @Test
    void aSnapshotIsMeantByItsName() throws Exception {
        Instant at = new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                .take("", "before the move", Progress.NONE)
                .at();
        assertThat(read("a", null, "snapshot before the move")).isEqualTo(at);
        assertThatThrownBy(() -> read("a", null, "snapshot of nothing")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void beforeTheFirstCaptureNothingIsKnown() {
        assertThatThrownBy(() -> read("a", null, "1999-01-01"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("it was first captured on");
    }

    @Test
    void ofAFolderThatWasNotCapturedYetThatIsSaid() throws Exception {
        Path fresh = Files.createDirectories(temp.resolve("fresh"));
        Place place = Protect.place(p.vault(), fresh, Rhythm.ON_SAVE, java.util.List.of(), p.clock(), "Ines");
        try (Reading reading = p.vault().read()) {
            assertThatThrownBy(() -> new MomentReader(reading, place, "", null).read("now", p.now(), ZoneOffset.UTC))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("was not captured yet");
        }
    }
}
