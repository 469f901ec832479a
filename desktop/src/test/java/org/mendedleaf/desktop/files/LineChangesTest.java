package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.desktop.context.AppContextTest;

/** What changed from version to version, in a few words each: found when it is looked at, and kept when it was found before. */
class LineChangesTest extends AppContextTest {

    private Line line(String path) throws Exception {
        try (Reading reading = openPlace.vault().read()) {
            return reading.line(openPlace.place(), path).orElseThrow();
        }
    }

    private void captureAt(Instant when) throws Exception {
        new Capture(openPlace.vault(), openPlace.place(), Clock.fixed(when, ZoneOffset.UTC), (p, o) -> "Ines")
                .run(CaptureScope.WHOLE, Progress.NONE);
    }

    @Test
    void eachVersionButTheFirstSaysWhatChangedInIt() throws Exception {
        save("sub/plan.txt", "the plan\nand more\n", later.plusSeconds(60));
        captureAt(later.plusSeconds(70));
        save("sub/plan.txt", "", later.plusSeconds(120));
        captureAt(later.plusSeconds(130));
        Map<Integer, String> found = LineChanges.compute(openPlace, line("sub/plan.txt"));
        assertThat(found).containsOnlyKeys(2, 3);
        assertThat(found.get(2)).contains("line");
        assertThat(found.get(3)).isEqualTo("emptied");
    }

    @Test
    void aLineOfOneVersionHasNothingToSay() throws Exception {
        assertThat(LineChanges.compute(openPlace, line("sub/new.txt"))).isEmpty();
    }

    @Test
    void whatTheIndexFoundBeforeIsTheSameAsWhatIsFoundNow() throws Exception {
        save("sub/plan.txt", "the plan\nand more\n", later.plusSeconds(60));
        captureAt(later.plusSeconds(70));
        Map<Integer, String> found = LineChanges.compute(openPlace, line("sub/plan.txt"));
        assertThat(new Indexer(openPlace.vault(), false).run(Progress.NONE).complete())
                .isTrue();
        assertThat(LineChanges.compute(openPlace, line("sub/plan.txt"))).isEqualTo(found);
    }

    @Test
    void aContentThatIsTooLargeForThisIsLeftToItsSize() throws Exception {
        save("large.txt", "one line\n".repeat(1_000_000), later.plusSeconds(60));
        captureAt(later.plusSeconds(70));
        save("large.txt", "one line\n".repeat(1_000_001), later.plusSeconds(120));
        captureAt(later.plusSeconds(130));
        assertThat(LineChanges.compute(openPlace, line("large.txt"))).isEmpty();
    }
}
