package org.mendedleaf.core.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.Locale;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class NumberTextTest {

    private static final List<Locale> COUNTRIES = List.of(
            Locale.ENGLISH,
            Locale.UK,
            Locale.GERMANY,
            Locale.forLanguageTag("de-CH"),
            Locale.forLanguageTag("de-AT"),
            Locale.forLanguageTag("en-IN"),
            Locale.forLanguageTag("en-SE"),
            Locale.forLanguageTag("ar-EG-u-nu-arab"));

    @Property(tries = 200)
    void aNumberIsWrittenAsTheLibraryWritesIt(@ForAll long number, @ForAll @IntRange(max = 7) int country) {
        Locale locale = COUNTRIES.get(country);
        assertThat(NumberText.of(locale).grouped(number)).isEqualTo(String.format(locale, "%,d", number));
    }

    @Property(tries = 200)
    void aQuotientIsRoundedAsTheLibraryRoundsIt(
            @ForAll @LongRange(min = 0) long amount,
            @ForAll @IntRange(min = 1, max = 6) int thousands,
            @ForAll @IntRange(max = 2) int decimals,
            @ForAll @IntRange(max = 7) int country) {
        Locale locale = COUNTRIES.get(country);
        long unit = BigDecimal.TEN.pow(3 * thousands).longValueExact();
        BigDecimal exact =
                BigDecimal.valueOf(amount).divide(BigDecimal.valueOf(unit)).setScale(decimals, RoundingMode.HALF_UP);
        assertThat(NumberText.of(locale).quotient(amount, unit, decimals))
                .isEqualTo(String.format(locale, "%." + decimals + "f", exact));
    }

    @Test
    void halvesAreRoundedUpAndWhatIsSmallHasItsZeros() {
        NumberText english = NumberText.of(Locale.ENGLISH);
        assertThat(english.quotient(1_995, 1000, 2)).isEqualTo("2.00");
        assertThat(english.quotient(12_250, 1000, 1)).isEqualTo("12.3");
        assertThat(english.quotient(4, 1000, 2)).isEqualTo("0.00");
        assertThat(english.quotient(5, 1000, 2)).isEqualTo("0.01");
        assertThat(english.quotient(999_500, 1000, 0)).isEqualTo("1000");
        assertThat(english.quotient(Long.MAX_VALUE, 1_000_000_000_000_000L, 2)).isEqualTo("9223.37");
        assertThat(english.grouped(Long.MIN_VALUE)).isEqualTo("-9,223,372,036,854,775,808");
    }
}
