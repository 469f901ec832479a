package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Optional;

/** Settings of a place, as they came in, with what a stand-in needs to know of them. */
record Settings(JsonNode node) {

    /** Kept until space is needed. */
    static final String UNTIL_FULL = "until-full";

    String text(String name, String otherwise) {
        return node.path(name).asText(otherwise);
    }

    long number(String name) {
        return node.path(name).asLong(0);
    }

    /** These with what is new put over them. */
    static ObjectNode merge(JsonNode before, JsonNode change) {
        ObjectNode merged = before.deepCopy();
        change.properties().forEach(e -> merged.set(e.getKey(), e.getValue()));
        return merged;
    }

    /** How far two times of a schedule are apart. */
    static Optional<Duration> every(String text) {
        return switch (text) {
            case "hour" -> Optional.of(Duration.ofHours(1));
            case "day" -> Optional.of(Duration.ofDays(1));
            case "week" -> Optional.of(Duration.ofDays(7));
            default -> Optional.empty();
        };
    }

    /** Whether what is kept so goes when space is needed. */
    static boolean isUntilFull(String keep) {
        // "room" is what it was called at first.
        return keep.equals(UNTIL_FULL) || keep.equals("room");
    }

    /** Until when something of a moment is kept by such words; empty when no time is set. */
    static Optional<Instant> keptUntil(Instant at, String keep) {
        int months = switch (keep) {
            case "1-month" -> 1;
            case "3-months" -> 3;
            case "6-months" -> 6;
            case "9-months" -> 9;
            case "1-year" -> 12;
            case "2-years" -> 24;
            default -> 0;
        };
        return months == 0
                ? Optional.empty()
                : Optional.of(at.atOffset(ZoneOffset.UTC).plusMonths(months).toInstant());
    }
}
