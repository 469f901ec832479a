package org.mendedleaf.desktop.context;

import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import java.util.function.LongSupplier;

/** What is said again and again of something: it is news when it is another thing, or was said long ago. One lock guards it. */
final class Repeats {

    private record Said(String words, long nanos) {}

    private final Map<Long, Said> last = new HashMap<>();
    private final long againNanos;
    private final LongSupplier nanos;

    /** @param again after so long the same is news again */
    Repeats(Duration again) {
        this(again, System::nanoTime);
    }

    Repeats(Duration again, LongSupplier nanos) {
        this.againNanos = again.toNanos();
        this.nanos = nanos;
    }

    /** Whether this is news about the one with this id. */
    synchronized boolean isNews(long id, String words) {
        long now = nanos.getAsLong();
        Said before = last.get(id);
        if (before != null && before.words().equals(words) && now - before.nanos() < againNanos) {
            return false;
        }
        last.put(id, new Said(words, now));
        return true;
    }
}
