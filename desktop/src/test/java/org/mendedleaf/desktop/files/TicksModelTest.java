package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.desktop.context.AppContextTest;

class TicksModelTest extends AppContextTest {

    private TicksModel ticks() {
        return new TicksModel(context);
    }

    @Test
    void aTickedFolderHasAllBelowItAndIsCountedOnce() throws Exception {
        TicksModel ticks = ticks();
        ticks.tick(openPlace, between(), "sub/plan.txt", true);
        until(() -> ticks.sumProperty().get().files() == 1);
        assertThat(ticks.isPartly("sub")).isTrue();
        ticks.tick(openPlace, between(), "sub", true);
        assertThat(ticks.paths()).containsExactly("sub");
        assertThat(ticks.isTicked("sub/deep/note.txt")).isTrue();
        assertThat(ticks.isPartly("sub")).isFalse();
        until(() -> ticks.sumProperty().get().files() == 2);
        assertThat(ticks.sumProperty().get().bytes()).isEqualTo("the plan".length() + "a note".length());
    }

    @Test
    void whatIsBelowATickedFolderCannotBeTickedByItself() {
        TicksModel ticks = ticks();
        ticks.tick(openPlace, Moment.FAR, "sub", true);
        ticks.tick(openPlace, Moment.FAR, "sub/plan.txt", false);
        assertThat(ticks.isTicked("sub/plan.txt")).isTrue();
        ticks.tick(openPlace, Moment.FAR, "sub", false);
        assertThat(ticks.paths()).isEmpty();
        assertThat(ticks.sumProperty().get()).isEqualTo(TicksModel.Sum.NOTHING);
    }

    @Test
    void removedFilesAreCountedToo() throws Exception {
        TicksModel ticks = ticks();
        ticks.tick(openPlace, Moment.FAR, "sub/deep/note.txt", true);
        until(() -> ticks.sumProperty().get().files() == 1);
        assertThat(ticks.sumProperty().get().bytes()).isEqualTo("a note".length());
    }
}
