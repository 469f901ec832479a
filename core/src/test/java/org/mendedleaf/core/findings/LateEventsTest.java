package org.mendedleaf.core.findings;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.findings.LateEvents.Event;
import org.mendedleaf.core.findings.LateEvents.Kind;

/** Few changes are enough to judge a place by, unless they may be one event with what was before them. */
class LateEventsTest {

    private static final Instant DAY = Instant.parse("2026-05-04T08:00:00Z");

    private static List<Event> removals(int first, int count, int minutes) {
        List<Event> all = new ArrayList<>();
        for (int i = first; i < first + count; i++) {
            all.add(new Event(Kind.REMOVED, i, DAY.plus(Duration.ofMinutes((long) i * minutes))));
        }
        return all;
    }

    @Test
    void whatIsFewAndApartCannotBeAFinding() {
        assertThat(LateEvents.mayMatter(List.of(), List.of())).isFalse();
        assertThat(LateEvents.mayMatter(List.of(), removals(0, 2, 1))).isFalse();
        assertThat(LateEvents.mayMatter(removals(0, 20, 60), removals(20, 20, 60)))
                .as("one an hour")
                .isFalse();
    }

    @Test
    void whatCompletesARunWithWhatWasBeforeMatters() {
        int fewest = RemovedInBulk.FEWEST;
        assertThat(LateEvents.mayMatter(removals(0, fewest - 2, 1), removals(fewest - 2, 1, 1)))
                .isFalse();
        assertThat(LateEvents.mayMatter(removals(0, fewest - 1, 1), removals(fewest - 1, 1, 1)))
                .isTrue();
        assertThat(LateEvents.mayMatter(removals(0, fewest, 1), removals(1000, 1, 1)))
                .as("the run was judged before")
                .isFalse();
    }

    @Test
    void whatIsOlderThanWhatIsRememberedMatters() {
        List<Event> many = removals(100, LateEvents.REMEMBERED, 60);
        assertThat(LateEvents.mayMatter(many, removals(0, 1, 60))).isTrue();
        assertThat(LateEvents.mayMatter(many, removals(500, 1, 60))).isFalse();
    }

    /** Whatever the pieces in which it comes: a run that is large enough matters with its last piece at the latest. */
    @Property(tries = 40)
    void aRunThatComesInPiecesIsNotMissed(
            @ForAll @Size(min = 1, max = 12) List<@IntRange(min = 1, max = 5) Integer> pieces) {
        List<Event> before = LateEvents.last(removals(0, 3, 60));
        int at = 200;
        int came = 0;
        for (int piece : pieces) {
            List<Event> fresh = removals(at, piece, 1);
            boolean matters = LateEvents.mayMatter(before, fresh);
            came += piece;
            assertThat(matters).isEqualTo(came >= RemovedInBulk.FEWEST);
            List<Event> all = new ArrayList<>(before);
            all.addAll(fresh);
            before = LateEvents.last(all);
            assertThat(before).hasSizeLessThanOrEqualTo(LateEvents.REMEMBERED);
            at += piece;
        }
    }
}
