package org.mendedleaf.core.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.retention.StandingRules;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.systems.Healing;

/** What stands in the log of captures, checks and retention. */
class ActivityWordsTest {

    @TempDir
    Path temp;

    @Test
    void aCaptureSaysHowManyFilesAndOfAQuietOneThatNothingChanged() throws IOException {
        TestPlace p = new TestPlace(temp);
        try {
            CaptureResult some = new CaptureResult(3, 2, 1, 0, 100, 4_000, List.of(), false, List.of("a.txt"));
            assertThat(some.words(p.place())).contains("3 new", "2 changed", "1 moved", "4.00 kB");
            CaptureResult none = new CaptureResult(0, 0, 0, 0, 100, 0, List.of(), false, List.of());
            assertThat(none.words(p.place())).contains("100").doesNotContain("new");
        } finally {
            p.close();
        }
    }

    @Test
    void aCheckSaysWhatWasReadWhatWasHealedAndWhatIsLost() {
        VaultCheck.LostVersion healed = new VaultCheck.LostVersion(1, "ledger.csv", 2, "2");
        VaultCheck.LostVersion lost = new VaultCheck.LostVersion(1, "plan.odt", 4, "4");
        VaultCheck.Report before = report(List.of(healed, lost));
        Healing.Result result = new Healing.Result(
                before, List.of(new Healing.Healed(healed, "the copy")), report(List.of(lost)), List.of());
        assertThat(result.words()).hasSize(3);
        assertThat(result.words().get(0)).contains("7 versions", "9.00 kB");
        assertThat(result.words().get(1)).contains("ledger.csv", "the copy");
        assertThat(result.words().get(2)).contains("plan.odt");
    }

    private static VaultCheck.Report report(List<VaultCheck.LostVersion> lost) {
        return new VaultCheck.Report(VaultCheck.Depth.DEEP, 1, 7, 9_000, List.of(), lost, false, Set.of());
    }

    @Test
    void retentionSaysWhatWentAndNothingWhereNothingDid() {
        Thinning.Done went = new Thinning.Done(List.of(1L), 12, 0, Instant.EPOCH);
        assertThat(new StandingRules.Done(Optional.of(went), 0, 0, List.of(), Optional.empty()).words())
                .singleElement()
                .asString()
                .contains("12 versions");
        assertThat(new StandingRules.Done(Optional.empty(), 0, 0, List.of(), Optional.empty()).words())
                .isEmpty();
        assertThat(new StandingRules.Done(Optional.empty(), 0, 5_000_000, List.of(), Optional.empty()).words())
                .as("the drive is still short")
                .hasSize(1);
    }
}
