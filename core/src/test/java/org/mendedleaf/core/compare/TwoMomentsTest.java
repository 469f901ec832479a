package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.time.Moment;

class TwoMomentsTest {

    @TempDir
    Path temp;

    private static TwoMoments compare(TestPlace p, String folder, Instant from, Instant to) throws IOException {
        try (Reading reading = p.vault().read()) {
            return TwoMoments.of(reading.folders().difference(p.place(), folder, from, to));
        }
    }

    @Test
    void whatWasAddedRemovedChangedAndMovedIsToldApart() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("same", "same");
            p.save("changed", "before");
            p.save("gone", "goes");
            p.save("sub/moved", "goes along with its line");
            p.save("renamed", "goes along and changes");
            p.capture();
            Instant then = p.now();
            p.save("changed", "after, longer");
            Files.delete(p.path("gone"));
            Files.move(p.path("sub/moved"), p.path("moved"));
            Files.move(p.path("renamed"), p.path("other name"));
            p.capture();
            p.save("other name", "with another content");
            p.save("new", "new");
            p.capture();
            TwoMoments all = compare(p, "", then, p.now());
            assertThat(all.changes())
                    .extracting(c -> c.kind() + " " + c.path())
                    .containsExactly(
                            "CHANGED changed",
                            "REMOVED gone",
                            "MOVED moved",
                            "ADDED new",
                            "MOVED_AND_CHANGED other name");
            assertThat(all.growth())
                    .isEqualTo("after, longer".length()
                            - "before".length()
                            - "goes".length()
                            + "new".length()
                            + "with another content".length()
                            - "goes along and changes".length());
            assertThat(compare(p, "sub", then, p.now()).changes())
                    .as("seen from the folder alone, what left it is gone")
                    .extracting(TwoMoments.Change::kind)
                    .containsExactly(TwoMoments.Kind.REMOVED);
            assertThat(compare(p, "", p.now(), Moment.FAR).changes()).isEmpty();
            assertThat(compare(p, "nowhere", then, p.now()).changes()).isEmpty();
        }
    }

    @Test
    void aContentThatWasRestoredIsNoChange() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            p.capture();
            Instant then = p.now();
            p.save("a", "two");
            p.capture();
            p.recovery()
                    .restore(
                            java.util.List.of(
                                    new RestoreItem(p.line("a").version(1).orElseThrow(), "a")),
                            Collision.REPLACE,
                            Progress.NONE);
            assertThat(p.line("a").versions()).hasSize(3);
            assertThat(compare(p, "", then, p.now()).changes()).isEmpty();
        }
    }
}
