package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;

/** When places in other systems are looked at by themselves. */
class SystemWatchTest {

    private final List<String> asked = new ArrayList<>();

    @Test
    void aServerThatStaysAwayIsAskedEverMoreSeldomAndAsBeforeOnceItIsBack(@TempDir Path temp) throws Exception {
        try (Rig rig = new Rig(temp)) {
            Place place = rig.place(SystemKind.FILE_SERVER, "office");
            rig.put(place, "a.txt", "one");
            SystemWatch watch = new SystemWatch(rig.vault(), rig.registry, rig.clock(), new Asked());
            assertThat(asksWithin(rig, watch, Duration.ofSeconds(10))).isEqualTo(1);

            rig.standIn(SystemKind.FILE_SERVER).faults().away(true);
            assertThat(asksWithin(rig, watch, Duration.ofMinutes(60))).isPositive();
            int anHourLater = asksWithin(rig, watch, Duration.ofMinutes(60));
            assertThat(anHourLater).as("at most once in five minutes").isBetween(3, 13);

            rig.standIn(SystemKind.FILE_SERVER).faults().away(false);
            asksWithin(rig, watch, Duration.ofMinutes(6));
            assertThat(rig.line(place, "a.txt").versions()).hasSize(1);
        }
    }

    @Property(tries = 200)
    void theWaitGrowsWithTheTimeAwayAndNeverBeyondTheRhythmOrFiveMinutes(
            @ForAll @IntRange(min = 1, max = 200_000) int seconds,
            @ForAll @IntRange(min = 1, max = 1_440) int minutes) {
        Duration every = Duration.ofMinutes(minutes);
        Duration wait = SystemWatch.again(SystemKind.LIBRARY, every, Duration.ofSeconds(seconds));
        assertThat(wait).isBetween(Duration.ofSeconds(20), Duration.ofMinutes(5));
        assertThat(wait).isLessThanOrEqualTo(every);
        assertThat(wait)
                .isGreaterThanOrEqualTo(SystemWatch.again(SystemKind.LIBRARY, every, Duration.ofSeconds(seconds - 1)));
        assertThat(SystemWatch.again(SystemKind.BACKUP_DRIVE, every, Duration.ofSeconds(seconds)))
                .as("whether a drive is plugged in")
                .isEqualTo(Duration.ofSeconds(20));
    }

    /** How often is asked while the clock goes on by so much, in rounds of ten seconds. */
    private int asksWithin(Rig rig, SystemWatch watch, Duration by) throws IOException {
        asked.clear();
        for (long s = 0; s < by.toSeconds(); s += 10) {
            rig.later(Duration.ofSeconds(10));
            watch.round(mock(Supervisor.Breath.class));
        }
        return asked.size();
    }

    private final class Asked implements SystemWatch.Listener {
        @Override
        public Progress begins(Place place, boolean backup) {
            asked.add(place.name());
            return Progress.NONE;
        }

        @Override
        public void ended(Place place, boolean changed) {}

        @Override
        public void failed(Place place, IOException why) {}
    }
}
