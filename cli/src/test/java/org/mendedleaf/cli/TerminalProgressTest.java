package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.jobs.Job;

class TerminalProgressTest {

    @Test
    void onlyWhatIsKnownIsSaid() {
        Job job = new Job("capture", () -> {});
        assertThat(TerminalProgress.text(job.snapshot())).isEmpty();
        job.begin("Looking", 0, 0);
        assertThat(TerminalProgress.text(job.snapshot())).isEqualTo("Looking");
        job.advance(3, 0);
        assertThat(TerminalProgress.text(job.snapshot())).isEqualTo("Looking: 3 files");
        job.begin("Reading", 5, 1000);
        job.advance(2, 400);
        assertThat(TerminalProgress.text(job.snapshot()))
                .startsWith("Reading: 2 of 5 files, 400 B, ")
                .doesNotContain("0 of 0");
    }
}
