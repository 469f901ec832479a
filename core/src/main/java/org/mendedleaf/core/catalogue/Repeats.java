package org.mendedleaf.core.catalogue;

import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.mendedleaf.core.time.Moment;

/**
 * Values that stand in very many rows, each kept once: who saved, what was noted, when it was captured. Of a million rows they would
 * take a hundred megabytes. For one statement, on one thread.
 */
public final class Repeats {

    /** So many different texts are remembered; what comes then is taken as it is. */
    private static final int MOST = 1000;

    private final Map<String, String> texts = new HashMap<>();
    private long at;
    private Instant moment = Instant.EPOCH;

    /** The text, the one that was there before when it is the same. */
    public String text(String text) {
        String known = texts.get(text);
        if (known == null && texts.size() < MOST) {
            texts.put(text, text);
        }
        return known == null ? text : known;
    }

    /** The moment of so many microseconds; the one before when it is the same. */
    public Instant moment(long micros) {
        if (micros != at) {
            at = micros;
            moment = Moment.instant(micros);
        }
        return moment;
    }
}
