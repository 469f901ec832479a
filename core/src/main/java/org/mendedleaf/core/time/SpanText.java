package org.mendedleaf.core.time;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;

/** How long before or after now people say something is: {@code 2 hours and a half}, {@code 3d}. */
final class SpanText {

    private final Instant now;
    private final ZoneId zone;

    SpanText(Instant now, ZoneId zone) {
        this.now = now;
        this.zone = zone;
    }

    /** So long before now, or after it. */
    Instant span(String typed, List<String> tokens, int direction) {
        List<String> spaced = Arrays.asList(
                String.join(" ", tokens).replaceAll("(\\d)(\\p{L})", "$1 $2").split(" "));
        ZonedDateTime at = now.atZone(zone);
        boolean half = false;
        int number = -1;
        boolean any = false;
        for (String token : spaced) {
            if (MomentWords.vocabulary("and").contains(token)) {
                continue;
            }
            if (MomentWords.vocabulary("half").contains(token)) {
                half = true;
            } else if (MomentWords.number(token) >= 0) {
                number = MomentWords.number(token);
            } else if (MomentWords.unit(token).isPresent() && (number >= 0 || half)) {
                ChronoUnit unit = MomentWords.unit(token).get();
                at = half && number <= 1 ? half(typed, at, unit, direction) : at.plus((long) direction * number, unit);
                half = false;
                number = -1;
                any = true;
            } else {
                throw MomentWords.unreadable(typed);
            }
        }
        if (!any || number >= 0) {
            throw MomentWords.unreadable(typed);
        }
        return at.toInstant();
    }

    private static ZonedDateTime half(String typed, ZonedDateTime at, ChronoUnit unit, int direction) {
        return switch (unit) {
            case HOURS -> at.plusMinutes(30L * direction);
            case DAYS -> at.plusHours(12L * direction);
            case YEARS -> at.plusMonths(6L * direction);
            default -> throw MomentWords.unreadable(typed);
        };
    }

    static boolean isOfSpan(String token) {
        return MomentWords.number(token) >= 0
                || MomentWords.unit(token).isPresent()
                || MomentWords.vocabulary("and").contains(token)
                || MomentWords.vocabulary("half").contains(token)
                || token.matches("\\d+\\p{L}+")
                        && MomentWords.unit(token.replaceAll("\\d", "")).isPresent();
    }
}
