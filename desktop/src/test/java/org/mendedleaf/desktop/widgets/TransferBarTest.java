package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.jobs.Job;

/** What is said while files are moved. */
class TransferBarTest {

    private static String words(String step, long files, long allFiles, long bytes, long allBytes) {
        return TransferBar.words(new Job.Snapshot(
                "Restoring", step, Job.State.RUNNING, files, allFiles, bytes, allBytes, Duration.ofSeconds(10)));
    }

    @Test
    void onlyWhatIsKnownIsSaid() {
        assertThat(words("", 0, 0, 0, 0)).isEqualTo("Restoring");
        assertThat(words("Reading", 0, 0, 0, 0)).isEqualTo("Reading");
        assertThat(words("Reading", 1_200, 0, 0, 0)).isEqualTo("Reading · 1,200 files so far");
        assertThat(words("Checking", 5, 10, 0, 0)).isEqualTo("Checking · 5 of 10 files · 10 s left");
        assertThat(words("Writing", 5, 10, 500_000, 1_000_000))
                .isEqualTo("Writing · 5 of 10 files · 500 kB of 1.00 MB · 50.0 kB/s · 10 s left");
    }
}
