package org.mendedleaf.desktop.protection;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.desktop.context.AppContextTest;
import org.mendedleaf.desktop.context.OpenPlace;

/** What versions will take is looked into when somebody sees it, and said beside each interval. */
class AheadModelTest extends AppContextTest {

    private static final List<Rhythm> INTERVALS = List.of(Rhythm.ON_SAVE, Rhythm.every(60), Rhythm.BY_HAND);

    private OpenPlace everyDay() throws Exception {
        var place = Protect.place(
                openPlace.vault(), folder, Rhythm.parse("daily 18:00"), List.of(), Clock.systemUTC(), "Ines");
        return new OpenPlace(openPlace.vault(), place);
    }

    @Test
    void nobodySeesItSoNothingIsRead() throws Exception {
        AheadModel model = new AheadModel(context);
        model.show(openPlace, INTERVALS);
        assertThat(model.words()).isEmpty();
        model.seen(true);
        until(() -> model.aheadProperty().get() != null);
        assertThat(model.words()).hasSize(3);
        assertThat(model.words().get(1)).contains("versions a day").contains("in a year");
        assertThat(model.problemProperty().get()).isEmpty();
    }

    @Test
    void byHandNobodyKnowsHowOftenSoNothingIsBesideIt() throws Exception {
        AheadModel model = new AheadModel(context);
        model.seen(true);
        model.show(openPlace, INTERVALS);
        until(() -> model.aheadProperty().get() != null);
        assertThat(model.aheadProperty().get().present()).isEqualTo(Rhythm.BY_HAND);
        assertThat(model.aheadProperty().get().others()).isEmpty();
        assertThat(model.cost(Rhythm.ON_SAVE)).isEmpty();
    }

    @Test
    void eachOtherIntervalSaysWhatItCosts() throws Exception {
        AheadModel model = new AheadModel(context);
        model.seen(true);
        model.show(everyDay(), INTERVALS);
        until(() -> model.aheadProperty().get() != null);
        assertThat(model.aheadProperty().get().others()).containsOnlyKeys(Rhythm.ON_SAVE, Rhythm.every(60));
        assertThat(model.cost(Rhythm.ON_SAVE))
                .hasValueSatisfying(w -> assertThat(w).endsWith("in a month"));
        assertThat(model.cost(Rhythm.parse("daily 18:00")))
                .as("the present one costs nothing beside itself")
                .isEmpty();
    }
}
