package org.mendedleaf.core.line;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** What versions are called. */
class EditionTest {

    @Test
    void aPublishedOneIsCalledByItsNumberAndADraftByBoth() {
        for (int number = -1; number < 300; number++) {
            Edition published = Edition.whole(number);
            assertThat(published).isEqualTo(new Edition(number, 0)).isEqualByComparingTo(new Edition(number, 0));
            assertThat(published.label()).isEqualTo(String.valueOf(number));
            assertThat(published.nextDraft().label()).isEqualTo(number + ".1");
            assertThat(published.nextPublished()).isEqualTo(Edition.whole(number + 1));
        }
    }

    @Test
    void ofAMillionFilesWithFewVersionsTheNamesAreKeptOnce() {
        assertThat(Edition.whole(3)).isSameAs(Edition.whole(3));
        assertThat(new Edition(3, 0).label()).isSameAs(Edition.whole(3).label());
    }
}
