package org.mendedleaf.desktop.context;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** A window does not look at everything anew because a system is away as it was before. */
class RepeatsTest {

    private final AtomicLong now = new AtomicLong(-5);
    private final Repeats repeats = new Repeats(Duration.ofSeconds(60), now::get);

    private void later(int seconds) {
        now.addAndGet(Duration.ofSeconds(seconds).toNanos());
    }

    @Test
    void theSameIsNoNewsUntilMuchLater() {
        assertThat(repeats.isNews(1, "away")).isTrue();
        later(20);
        assertThat(repeats.isNews(1, "away")).isFalse();
        later(39);
        assertThat(repeats.isNews(1, "away")).isFalse();
        later(1);
        assertThat(repeats.isNews(1, "away")).isTrue();
        assertThat(repeats.isNews(1, "away")).isFalse();
    }

    @Test
    void anotherThingIsNewsAtOnceAndEachHasItsOwn() {
        assertThat(repeats.isNews(1, "away")).isTrue();
        assertThat(repeats.isNews(2, "away")).isTrue();
        assertThat(repeats.isNews(1, "")).isTrue();
        assertThat(repeats.isNews(1, "away")).isTrue();
        assertThat(repeats.isNews(2, "away")).isFalse();
    }
}
