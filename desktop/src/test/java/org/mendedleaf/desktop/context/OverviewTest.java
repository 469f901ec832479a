package org.mendedleaf.desktop.context;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Versioning;

/** What stands in the status bar: how many folders are kept and how, and what somebody should know of them. */
class OverviewTest extends AppContextTest {

    private Overview at(Instant now, Place... places) throws IOException {
        List<OpenPlace> all = List.of(places).stream()
                .map(p -> new OpenPlace(openPlace.vault(), p))
                .toList();
        return Overview.of(all.isEmpty() ? List.of(openPlace) : all, now, ZoneOffset.UTC);
    }

    private Place rhythm(Rhythm rhythm) throws IOException {
        return Protect.place(openPlace.vault(), folder, rhythm, List.of(), Clock.fixed(later, ZoneOffset.UTC), "Ines");
    }

    @Test
    void aFolderThatIsCapturedByHandIsCountedAndNeverLate() throws IOException {
        Overview overview = at(later.plus(Duration.ofDays(900)));
        assertThat(overview.folders()).isEqualTo(1);
        assertThat(overview.watched()).isZero();
        assertThat(overview.lastSave()).as("when it came in").isBetween(later.plusSeconds(4), later.plusSeconds(6));
        assertThat(overview.space().versions()).isEqualTo(5);
        assertThat(overview.troubles()).isEmpty();
    }

    @Test
    void oneThatIsCapturedOnEverySaveIsLateWhenNothingLookedAtItForLong() throws IOException {
        Place place = rhythm(Rhythm.ON_SAVE);
        assertThat(at(later.plus(Duration.ofMinutes(5)), place).watched()).isEqualTo(1);
        assertThat(at(later.plus(Duration.ofMinutes(5)), place).troubles()).isEmpty();
        assertThat(at(later.plus(Duration.ofHours(1)), place).troubles())
                .singleElement()
                .satisfies(t -> assertThat(t).startsWith("papers is late: "));
    }

    @Test
    void whoPausedAFolderIsNotToldThatItIsLateAndOneThatIsEndedIsNotCounted() throws IOException {
        Place paused = rhythm(Rhythm.ON_SAVE).with(Versioning.PAUSED);
        Overview overview = at(later.plus(Duration.ofDays(3)), paused);
        assertThat(overview.folders()).isEqualTo(1);
        assertThat(overview.watched()).isZero();
        assertThat(overview.troubles()).isEmpty();
        Overview ended = at(later.plus(Duration.ofDays(3)), paused.with(Versioning.OFF));
        assertThat(ended.folders()).isZero();
        assertThat(ended.lastSave()).isEqualTo(Instant.EPOCH);
        assertThat(ended.troubles()).isEmpty();
    }

    @Test
    void aFolderThatIsGoneIsNamedAlsoWhenNobodyLookedSince() throws IOException {
        Place place = rhythm(Rhythm.ON_SAVE);
        Path away = folder.resolveSibling("away");
        Files.move(folder, away);
        Overview overview = at(later.plus(Duration.ofMinutes(1)), place);
        assertThat(overview.watched()).as("what is not there is not watched").isZero();
        assertThat(overview.troubles())
                .singleElement()
                .satisfies(t -> assertThat(t).contains("papers").contains("is not there"));
    }

    @Test
    void withNothingProtectedThereIsNothingToSay() throws IOException {
        assertThat(Overview.of(List.of(), later, ZoneOffset.UTC)).isEqualTo(Overview.NOTHING);
    }
}
