package org.mendedleaf.core.time;

import java.time.LocalTime;
import java.util.Optional;

/** Times of the day as people type them: {@code 17:30}, {@code 5pm}, {@code evening}. */
final class TimeOfDay {

    private static final LocalTime MORNING = LocalTime.of(9, 0);
    private static final LocalTime AFTERNOON = LocalTime.of(15, 0);
    private static final LocalTime EVENING = LocalTime.of(20, 0);
    private static final LocalTime NIGHT = LocalTime.of(23, 0);

    private TimeOfDay() {}

    /** The time that a word or a number means; empty when it means none. */
    static Optional<LocalTime> parse(String token) {
        if (MomentWords.vocabulary("morning").contains(token)) {
            return Optional.of(MORNING);
        }
        if (MomentWords.vocabulary("noon").contains(token)) {
            return Optional.of(LocalTime.NOON);
        }
        if (MomentWords.vocabulary("afternoon").contains(token)) {
            return Optional.of(AFTERNOON);
        }
        if (MomentWords.vocabulary("evening").contains(token)) {
            return Optional.of(EVENING);
        }
        if (MomentWords.vocabulary("night").contains(token)
                || MomentWords.vocabulary("tonight").contains(token)) {
            return Optional.of(NIGHT);
        }
        if (token.matches("\\d{1,2}:\\d\\d(:\\d\\d)?")) {
            return Optional.of(LocalTime.parse((token.indexOf(':') == 1 ? "0" : "") + token));
        }
        if (token.matches("\\d{1,2}(:\\d\\d)?[ap]\\.?m\\.?")) {
            boolean afternoon = token.contains("p");
            String[] parts = token.replaceAll("[ap]\\.?m\\.?", "").split(":");
            int hour = Integer.parseInt(parts[0]);
            if (hour < 1 || hour > 12) {
                return Optional.empty();
            }
            return Optional.of(
                    LocalTime.of(hour % 12 + (afternoon ? 12 : 0), parts.length > 1 ? Integer.parseInt(parts[1]) : 0));
        }
        return Optional.empty();
    }
}
