package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Rollback;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.time.Moment;

/** A clock that once stood ten years ahead: what is current is decided by order. */
class ClockTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private Instant then;

    @BeforeEach
    void aCaptureTenYearsAhead() throws IOException {
        p = new TestPlace(temp);
        p.save("a.txt", "one");
        p.save("other.txt", "other one");
        p.capture();
        then = p.now();
        p.at(then.plus(Duration.ofDays(3650)));
        p.save("a.txt", "saved while the clock was wrong");
        p.capture();
        p.at(then.plus(Duration.ofHours(1)));
        p.save("a.txt", "three");
        p.save("other.txt", "other two");
        p.capture();
    }

    private String at(Instant moment) throws IOException {
        try (Reading r = p.vault().read()) {
            Version v = r.folders().treeAt(p.place(), "", moment).files().get("a.txt");
            return new String(r.contents().head(v.recipe(), 100), java.nio.charset.StandardCharsets.UTF_8);
        }
    }

    @Test
    void whatIsThereNowIsWhatWasSavedLast() throws IOException {
        assertThat(at(Moment.FAR)).isEqualTo("three");
        assertThat(p.line("a.txt").versions()).extracting(Version::number).containsExactly(3, 2, 1);
        assertThat(p.line("a.txt").newest().orElseThrow().number()).isEqualTo(3);
    }

    @Test
    void aFileThatWasNotTouchedThenIsDatedAsUsual() throws IOException {
        assertThat(p.line("other.txt").newest().orElseThrow().saved()).isBefore(then.plus(Duration.ofDays(1)));
    }

    @Test
    void aSnapshotNamesWhatIsThereAndStaysSo() throws IOException {
        Snapshot taken = new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                .take("", "now", Progress.NONE);
        assertThat(at(taken.at())).isEqualTo("three");
        p.save("a.txt", "four");
        p.capture();
        assertThat(at(taken.at())).isEqualTo("three");
        assertThat(at(Moment.FAR)).isEqualTo("four");
    }

    @Test
    void whatChangesAfterASnapshotIsNotInItThoughTheSnapshotIsDatedAhead() throws IOException {
        Snapshots snapshots = new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"));
        Snapshot taken = snapshots.take("", "now", Progress.NONE);
        int before = p.tree(taken.at()).get("other.txt").number();
        p.save("other.txt", "changed after the snapshot");
        p.save("new.txt", "came after it");
        p.capture();
        assertThat(p.tree(taken.at()).get("other.txt").number()).isEqualTo(before);
        assertThat(p.tree(taken.at())).doesNotContainKey("new.txt");
        assertThat(p.tree(Moment.FAR).get("other.txt").number()).isEqualTo(before + 1);
        assertThat(p.line("other.txt").newest().orElseThrow().saved()).isBefore(then.plus(Duration.ofDays(1)));
        Files.delete(p.path("new.txt"));
        p.capture();
        assertThat(p.tree(Moment.FAR)).doesNotContainKey("new.txt");
        assertThat(p.check().isClean()).isTrue();
    }

    @Test
    void rollingBackToNowPutsNothingStaleOverWhatIsThere() throws IOException {
        p.recovery().rollBack(new Rollback(List.of(""), Moment.FAR, false), Progress.NONE);
        assertThat(p.read("a.txt")).isEqualTo("three");
    }

    @Test
    void thatTheClockStandsBeforeWhatIsDatedIsKnown() throws IOException {
        try (Reading r = p.vault().read()) {
            assertThat(Present.ahead(r, p.now())).isPresent();
            assertThat(Present.ahead(r, p.now().plus(Duration.ofDays(4000)))).isEmpty();
        }
    }

    @Test
    void whatOneLookFindsGoneWentAtOneMoment() throws IOException {
        for (int i = 0; i < 5; i++) {
            p.save("d/file " + i, "content " + i);
        }
        p.capture();
        for (int i = 0; i < 5; i++) {
            Files.delete(p.path("d/file " + i));
        }
        // A clock that goes on while the look is put down.
        Instant[] ticking = {p.later(1)};
        Clock clock = new Clock() {
            @Override
            public Instant instant() {
                ticking[0] = ticking[0].plusMillis(3);
                return ticking[0];
            }

            @Override
            public ZoneId getZone() {
                return ZoneOffset.UTC;
            }

            @Override
            public Clock withZone(ZoneId zone) {
                return this;
            }
        };
        new Capture(p.vault(), p.place(), clock, p.authors()).run(CaptureScope.WHOLE, Progress.NONE);
        try (Reading r = p.vault().read()) {
            Instant before =
                    r.changes().lastChange(p.place(), "d").orElseThrow().minusNanos(1000);
            assertThat(r.folders().listing(p.place(), "d", before, false)).hasSize(5);
        }
    }
}
