package org.mendedleaf.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.words.Words;

class MomentTextTest {

    private static final ZoneId ZONE = ZoneId.of("Europe/Brussels");

    /** A Friday, 10:45 in Brussels. */
    private static final Instant NOW = Instant.parse("2026-11-20T09:45:00Z");

    private static final MomentText.Around AROUND = new MomentText.Around() {
        @Override
        public Optional<Instant> lastChange() {
            return Optional.of(Instant.parse("2026-11-19T15:00:00Z"));
        }

        @Override
        public List<MomentText.Named> snapshots() {
            return List.of(snapshot("before pressing", 1), snapshot("twice", 2), snapshot("twice", 3));
        }

        @Override
        public Optional<Instant> version(String label) {
            return label.equals("3") ? Optional.of(Instant.parse("2026-11-12T08:00:00Z")) : Optional.empty();
        }
    };

    private static MomentText.Named snapshot(String label, int day) {
        return new MomentText.Named(day, label, Instant.parse("2026-11-0" + day + "T12:00:00Z"));
    }

    private static Instant read(String text) throws IOException {
        return new MomentText(ZONE, NOW, AROUND).read(text);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "now | 2026-11-20T09:45:00Z",
                "2026-05-04T17:00 | 2026-05-04T15:00:00Z",
                "2026-05-04 17:00 | 2026-05-04T15:00:00Z",
                "2026-05-04T17:00Z | 2026-05-04T17:00:00Z",
                "2026-05-04T17:00:30+01:00 | 2026-05-04T16:00:30Z",
                "2026-05-04 | 2026-05-04T21:59:59.999999Z",
                "2026-05-04 evening | 2026-05-04T18:00:00Z",
                "2026-11-20 | 2026-11-20T09:45:00Z",
                "today | 2026-11-20T09:45:00Z",
                "today 9:30 | 2026-11-20T08:30:00Z",
                "08:15 | 2026-11-20T07:15:00Z",
                "this morning | 2026-11-20T08:00:00Z",
                "yesterday | 2026-11-19T22:59:59.999999Z",
                "yesterday evening | 2026-11-19T19:00:00Z",
                "Yesterday at noon | 2026-11-19T11:00:00Z",
                "last night | 2026-11-19T22:00:00Z",
                "the day before yesterday 5pm | 2026-11-18T16:00:00Z",
                "last Thursday 17:00 | 2026-11-19T16:00:00Z",
                "17:00 last Thursday | 2026-11-19T16:00:00Z",
                "last Friday 10:00 | 2026-11-13T09:00:00Z",
                "Tue | 2026-11-17T22:59:59.999999Z",
                "on Tuesday, 5:30 pm | 2026-11-17T16:30:00Z",
                "3 hours ago | 2026-11-20T06:45:00Z",
                "an hour ago | 2026-11-20T08:45:00Z",
                "half an hour ago | 2026-11-20T09:15:00Z",
                "1 hour and 20 minutes ago | 2026-11-20T08:25:00Z",
                "90min ago | 2026-11-20T08:15:00Z",
                "two weeks ago | 2026-11-06T09:45:00Z",
                "1 month ago | 2026-10-20T08:45:00Z",
                "4 May | 2026-05-04T21:59:59.999999Z",
                "May 4th 2025 12:00 | 2025-05-04T10:00:00Z",
                "24 December | 2025-12-24T22:59:59.999999Z",
                "31.12.2025 | 2025-12-31T22:59:59.999999Z",
                "before the last change | 2026-11-19T14:59:59.999999Z",
                "before the last save | 2026-11-19T14:59:59.999999Z",
                "monday last week | 2026-11-09T22:59:59.999999Z",
                "last week Monday 10:00 | 2026-11-09T09:00:00Z",
                "this Monday | 2026-11-16T22:59:59.999999Z",
                "this Monday at 9 | 2026-11-16T08:00:00Z",
                "Tuesday 2 weeks ago | 2026-11-03T22:59:59.999999Z",
                "3 days ago 17:00 | 2026-11-17T16:00:00Z",
                "3 days ago at 17 | 2026-11-17T16:00:00Z",
                "two weeks ago, 5 pm | 2026-11-06T16:00:00Z",
                "earlier today | 2026-11-19T23:00:00Z",
                "just now | 2026-11-20T09:45:00Z",
                "yesterday at 17 | 2026-11-19T16:00:00Z",
                "yesterday 17 | 2026-11-19T16:00:00Z",
                "yesterday 17.30 | 2026-11-19T16:30:00Z",
                "9.30 | 2026-11-20T08:30:00Z",
                "16/11 | 2026-11-16T22:59:59.999999Z",
                "11/16 | 2026-11-16T22:59:59.999999Z",
                "16.11. | 2026-11-16T22:59:59.999999Z",
                "16.11. 10:15 | 2026-11-16T09:15:00Z",
                "16.11 10:15 | 2026-11-16T09:15:00Z",
                "31.12 | 2025-12-31T22:59:59.999999Z",
                "2026/11/16 | 2026-11-16T22:59:59.999999Z",
                "2026/11/6 8:00 | 2026-11-06T07:00:00Z",
                "beginning of November | 2026-10-31T23:00:00Z",
                "the start of November 2025 | 2025-10-31T23:00:00Z",
                "end of October | 2026-10-31T22:59:59.999999Z",
                "end of December | 2025-12-31T22:59:59.999999Z",
                "end of last week | 2026-11-15T22:59:59.999999Z",
                "beginning of this month | 2026-10-31T23:00:00Z",
                "end of last year | 2025-12-31T22:59:59.999999Z",
                "end of 2024 | 2024-12-31T22:59:59.999999Z",
                "end of yesterday | 2026-11-19T22:59:59.999999Z",
                "Mon 16 Nov | 2026-11-16T22:59:59.999999Z",
                "4 May 17 | 2026-05-04T15:00:00Z",
                "version 3 | 2026-11-12T08:00:00Z",
                "before pressing | 2026-11-01T12:00:00Z",
                "1 | 2026-11-01T12:00:00Z",
                "snapshot 3 | 2026-11-03T12:00:00Z",
                "snapshot Before pressing | 2026-11-01T12:00:00Z"
            })
    void whatPeopleTypeIsUnderstood(String typed, Instant meant) throws IOException {
        assertThat(read(typed)).isEqualTo(meant);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "2026-11-21 | not come yet",
                "today 17:00 | not come yet",
                "tonight | not come yet",
                "Fri | last Fri",
                "Friday 9:00 | today 9:00",
                "04/05/2026 | 2026-05-04",
                "last week | stretch of time",
                "yesterday midnight | beginning or the end",
                "snapshot nowhere | no snapshot",
                "snapshot twice | several snapshots",
                "snapshot twice | snapshot 2 of Mon 2 Nov 2026, 13:00; snapshot 3 of Tue 3 Nov",
                "twice | several snapshots",
                "tomorrow | has not come yet",
                "tomorrow 9:00 | has not come yet",
                "this Sunday | not come yet",
                "end of this month | not come yet",
                "Mon 17 Nov | that day is Tue 17 Nov 2026",
                "version 9 | no version 9",
                "16.11 | Write 16:11 or 2026-11-16",
                "5/11 | Write 2026-11-05 or 2026-05-11",
                "Tuesday 2 days ago | not a moment",
                "2 hours ago 17:00 | not a moment",
                "end of it | not a moment",
                "ago | not a moment",
                "yesterday 31 | not a moment",
                "2026-03-29 02:30 | clocks were put forward to 03:00",
                "2025-10-26 02:30 | 2025-10-26T02:30+02:00",
                "last week-ish | not a moment",
                "2026-13-41 | not a moment",
                "30 February | not a moment",
                "3 hours | not a moment",
                "999999 years ago | not a moment",
                "5 | not a moment",
                "17:00 evening | not a moment",
                "25:00 | not a moment"
            })
    void whatIsNoneOrTwoOrNotYetIsRefusedInWords(String typed, String words) {
        assertThatThrownBy(() -> read(typed))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(words);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "2027-05-04 | 2027-05-04T22:00:00Z",
                "2026-11-20 | 2026-11-20T23:00:00Z",
                "2027-05-04 17:00 | 2027-05-04T15:00:00Z",
                "in 3 months | 2027-02-20T09:45:00Z",
                "2 years | 2028-11-20T09:45:00Z",
                "half a year | 2027-05-20T08:45:00Z",
                "a week | 2026-11-27T09:45:00Z"
            })
    void anEndIsADayOrAMomentToComeOrSoLongFromNow(String typed, Instant end) throws IOException {
        assertThat(new MomentText(ZONE, NOW, AROUND).readEnd(typed)).isEqualTo(end);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "2026-11-19 | past",
                "2026-11-20 10:00 | past",
                "0 days | past",
                "3 months ago | not an end",
                "soon | not an end",
                "2027-13-01 | not an end"
            })
    void whatIsNoEndIsRefusedInWords(String typed, String words) {
        assertThatThrownBy(() -> new MomentText(ZONE, NOW, AROUND).readEnd(typed))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(words);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "jetzt | 2026-11-20T09:45:00Z",
                "heute | 2026-11-20T09:45:00Z",
                "heute früh | 2026-11-20T08:00:00Z",
                "heute Morgen | 2026-11-20T08:00:00Z",
                "gestern | 2026-11-19T22:59:59.999999Z",
                "gestern Abend | 2026-11-19T19:00:00Z",
                "gestern um 17 Uhr | 2026-11-19T16:00:00Z",
                "gestern 17.30 Uhr | 2026-11-19T16:30:00Z",
                "vorgestern 17:00 | 2026-11-18T16:00:00Z",
                "letzten Donnerstag 17:00 | 2026-11-19T16:00:00Z",
                "letzten Freitag um 10 | 2026-11-13T09:00:00Z",
                "Di | 2026-11-17T22:59:59.999999Z",
                "am Dienstag, 17:30 | 2026-11-17T16:30:00Z",
                "vor 3 Stunden | 2026-11-20T06:45:00Z",
                "vor einer halben Stunde | 2026-11-20T09:15:00Z",
                "vor einer Stunde | 2026-11-20T08:45:00Z",
                "vor 3 Tagen 17:00 | 2026-11-17T16:00:00Z",
                "vor zwei Wochen | 2026-11-06T09:45:00Z",
                "Montag vor 2 Wochen | 2026-11-02T22:59:59.999999Z",
                "Montag letzter Woche | 2026-11-09T22:59:59.999999Z",
                "Ende Oktober | 2026-10-31T22:59:59.999999Z",
                "Anfang November | 2026-10-31T23:00:00Z",
                "4. Mai 12:00 | 2026-05-04T10:00:00Z",
                "4.5.2026 | 2026-05-04T21:59:59.999999Z",
                "16.11. | 2026-11-16T22:59:59.999999Z",
                "vor der letzten Änderung | 2026-11-19T14:59:59.999999Z",
                "Version 3 | 2026-11-12T08:00:00Z",
                "Snapshot before pressing | 2026-11-01T12:00:00Z",
                "3 hours ago | 2026-11-20T06:45:00Z",
                "last Thursday 17:00 | 2026-11-19T16:00:00Z",
                "morgen | refused",
                "morgen früh | refused",
                "irgendwann | refused",
            })
    void momentsAreUnderstoodInGermanAndInEnglishThere(String typed, String meant) throws IOException {
        Words.use("de");
        try {
            if (meant.equals("refused")) {
                assertThatThrownBy(() -> read(typed)).isInstanceOf(IllegalArgumentException.class);
            } else {
                assertThat(read(typed)).isEqualTo(Instant.parse(meant));
            }
        } finally {
            Words.use((String) null);
        }
    }

    @Test
    void anEndIsUnderstoodInGerman() throws IOException {
        Words.use("de");
        try {
            assertThat(new MomentText(ZONE, NOW, AROUND).readEnd("in 3 Monaten"))
                    .isEqualTo(Instant.parse("2027-02-20T09:45:00Z"));
            assertThatThrownBy(() -> read("Freitag"))
                    .hasMessage("\"Freitag\": Das ist heute. Schreiben Sie \"heute\" oder \"letzten Freitag\".");
            assertThat(read("letzten Freitag")).isEqualTo(Instant.parse("2026-11-13T22:59:59.999999Z"));
        } finally {
            Words.use((String) null);
        }
    }

    @Test
    void whatIsSuggestedInARefusalIsUnderstood() throws IOException {
        assertThat(read("2025-10-26T02:30+02:00")).isEqualTo("2025-10-26T00:30:00Z");
        assertThat(read("2025-10-26T02:30+01:00")).isEqualTo("2025-10-26T01:30:00Z");
        assertThat(read("last Fri")).isEqualTo("2026-11-13T22:59:59.999999Z");
    }

    @Test
    void aDayOfTheClockChangeEndsWhereItEnds() throws IOException {
        assertThat(read("2026-10-25")).isEqualTo("2026-10-25T22:59:59.999999Z");
        assertThat(read("2026-03-29")).isEqualTo("2026-03-29T21:59:59.999999Z");
    }

    @Test
    void daysAgoKeepTheClockAndHoursAgoCountHours() throws IOException {
        MomentText afterChange = new MomentText(ZONE, Instant.parse("2026-10-25T11:00:00Z"), AROUND);
        assertThat(afterChange.read("1 day ago")).as("12:00 in summer").isEqualTo("2026-10-24T10:00:00Z");
        assertThat(afterChange.read("24 hours ago")).isEqualTo("2026-10-24T11:00:00Z");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "2026-11-13       | 2026-11-12T23:00:00Z",
                "yesterday        | 2026-11-18T23:00:00Z",
                "today            | 2026-11-19T23:00:00Z",
                "last Fri         | 2026-11-12T23:00:00Z",
                "2 weeks ago      | 2026-11-06T09:45:00Z",
                "2026-11-13 17:00 | 2026-11-13T16:00:00Z",
                "end of October   | 2026-10-31T22:59:59.999999Z"
            })
    void whatCountsSinceADayCountsFromItsBeginning(String typed, String expected) throws IOException {
        MomentText moments = new MomentText(ZONE, NOW, AROUND);
        assertThat(moments.readSince(typed)).isEqualTo(expected);
        assertThat(moments.readSince(typed)).isBeforeOrEqualTo(moments.read(typed));
    }

    @Test
    void sinceADayThatIsToComeIsRefused() {
        assertThatThrownBy(() -> new MomentText(ZONE, NOW, AROUND).readSince("2027-01-01"))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", ",", "at", "ago", "last", "snapshot", "half ago", "of the", "T", "2026-", "::"})
    void scrapsAreRefusedToo(String typed) {
        assertThatThrownBy(() -> read(typed)).isInstanceOf(IllegalArgumentException.class);
    }

    @Property
    void everyMomentOfThePastIsReadBackFromItsIsoForm(@ForAll @LongRange(min = 0, max = 1_780_000_000) long second)
            throws IOException {
        Instant at = Instant.ofEpochSecond(second);
        assertThat(read(at.toString())).isEqualTo(at);
        assertThat(read(at.atZone(ZONE).toOffsetDateTime().toString())).isEqualTo(at);
    }

    @Property
    void whateverIsTypedIsAMomentOfThePastOrRefusedInWords(@ForAll @StringLength(max = 30) String typed)
            throws IOException {
        try {
            assertThat(read(typed)).isBeforeOrEqualTo(NOW);
        } catch (IllegalArgumentException e) {
            assertThat(e.getMessage()).isNotBlank();
        }
    }
}
