package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.line.CaptureRecord;

class RulerModelTest {

    private static final ZonedDateTime NOW = ZonedDateTime.of(2026, 11, 20, 10, 45, 0, 0, ZoneId.of("Europe/Brussels"));

    private static RulerModel.Stretch stretch(Zoom zoom, Map<Long, Integer> density, CaptureRecord... captures) {
        return RulerModel.stretch(zoom, NOW, density, List.of(captures), List.of());
    }

    @Test
    void everyZoomEndsInTheStepOfNowAndItsStepsJoin() {
        for (Zoom zoom : Zoom.values()) {
            RulerModel.Stretch s = stretch(zoom, Map.of());
            for (int i = 1; i < s.steps().size(); i++) {
                assertThat(s.steps().get(i).from())
                        .isEqualTo(s.steps().get(i - 1).to());
            }
            RulerModel.Step last = s.steps().get(s.steps().size() - 1);
            assertThat(NOW.toInstant()).isBetween(last.from(), last.to());
        }
    }

    @Test
    void aHistoryOfAnHourIsNotShownAtTheEndOfThreeMonths() {
        Instant hourAgo = NOW.toInstant().minusSeconds(3600);
        java.util.Optional<Instant> beginning = java.util.Optional.of(hourAgo);
        assertThat(Zoom.of(beginning, NOW)).isEqualTo(Zoom.HOUR);
        RulerModel.Stretch s =
                stretch(Zoom.HOUR, Map.of(), new CaptureRecord(hourAgo, hourAgo.plusSeconds(5), true, 9, 0));
        assertThat(s.steps()).hasSize(24);
        assertThat(s.position(hourAgo)).isGreaterThan(0.9);
    }

    @Test
    void aHistoryOfThirtyDaysFillsTheRulerAndOneOfYearsHasItsLastThreeMonths() {
        Instant month = NOW.minusDays(30).toInstant();
        RulerModel.Stretch s = stretch(Zoom.DAY, Map.of(), new CaptureRecord(month, month.plusSeconds(5), true, 9, 0));
        assertThat(s.steps()).hasSize(31);
        assertThat(s.position(month)).isLessThan(0.04);
        Instant years = NOW.minusYears(3).toInstant();
        assertThat(Zoom.of(java.util.Optional.of(years), NOW)).isEqualTo(Zoom.DAY);
        assertThat(stretch(Zoom.DAY, Map.of(), new CaptureRecord(years, years.plusSeconds(5), true, 9, 0))
                        .steps())
                .hasSize(91);
    }

    @Test
    void daysFollowTheZoneAlsoWhenTheClocksChange() {
        RulerModel.Stretch s = stretch(Zoom.DAY, Map.of());
        assertThat(s.steps()).allMatch(step -> step.from().atZone(NOW.getZone()).getHour() == 0);
        long hours = s.steps().stream()
                .filter(step -> step.from().equals(Instant.parse("2026-10-24T22:00:00Z")))
                .mapToLong(step ->
                        java.time.Duration.between(step.from(), step.to()).toHours())
                .sum();
        assertThat(hours).as("the day on which summer time ends").isEqualTo(25);
    }

    @Test
    void changesAreCountedIntoTheirDay() {
        long hour = Instant.parse("2026-11-19T23:30:00Z").getEpochSecond() / 3600;
        RulerModel.Stretch s = stretch(Zoom.DAY, Map.of(hour, 7));
        assertThat(s.steps().get(s.steps().size() - 1).changes())
                .as("half past midnight of today in Brussels")
                .isEqualTo(7);
    }

    @Test
    void aCaptureThatStandsOutIsMarkedAndTheFirstOneIsNot() {
        Instant day = Instant.parse("2026-11-02T16:00:00Z");
        CaptureRecord first = new CaptureRecord(day.minusSeconds(999_999), day.minusSeconds(999_990), true, 400, 0);
        CaptureRecord usual = new CaptureRecord(day.minusSeconds(9_000), day.minusSeconds(8_999), false, 5, 0);
        CaptureRecord many = new CaptureRecord(day, day.plusSeconds(1), false, 140, 0);
        RulerModel.Stretch s = stretch(Zoom.DAY, Map.of(), first, usual, usual, many);
        assertThat(s.steps().stream().mapToLong(RulerModel.Step::burst).filter(b -> b > 0))
                .containsExactly(140L);
    }

    @Test
    void momentsAndPositionsBelongTogetherAndStayInBounds() {
        Instant begun = Instant.parse("2026-10-01T00:00:00Z");
        RulerModel.Stretch s = stretch(Zoom.DAY, Map.of(), new CaptureRecord(begun, begun.plusSeconds(1), true, 1, 0));
        Instant at = Instant.parse("2026-11-01T12:00:00Z");
        assertThat(s.at(s.position(at))).isBetween(at.minusSeconds(1), at.plusSeconds(1));
        assertThat(s.at(0)).isEqualTo(begun);
        assertThat(s.at(1)).isEqualTo(NOW.toInstant());
    }
}
