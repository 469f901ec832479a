package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
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
        ticks.tick(openPlace, between(), List.of("sub/plan.txt"), true);
        until(() -> ticks.sumProperty().get().files() == 1);
        assertThat(ticks.isPartly("sub")).isTrue();
        ticks.tick(openPlace, between(), List.of("sub"), true);
        assertThat(ticks.paths()).containsExactly("sub");
        assertThat(ticks.isTicked("sub/deep/note.txt")).isTrue();
        assertThat(ticks.isPartly("sub")).isFalse();
        until(() -> ticks.sumProperty().get().files() == 2);
        assertThat(ticks.sumProperty().get().bytes()).isEqualTo("the plan".length() + "a note".length());
    }

    @Test
    void whatIsBelowATickedFolderCannotBeTickedByItself() {
        TicksModel ticks = ticks();
        ticks.tick(openPlace, Moment.FAR, List.of("sub"), true);
        ticks.tick(openPlace, Moment.FAR, List.of("sub/plan.txt"), false);
        assertThat(ticks.isTicked("sub/plan.txt")).isTrue();
        ticks.tick(openPlace, Moment.FAR, List.of("sub"), false);
        assertThat(ticks.paths()).isEmpty();
        assertThat(ticks.sumProperty().get()).isEqualTo(TicksModel.Sum.NOTHING);
    }

    @Test
    void removedFilesAreCountedToo() throws Exception {
        TicksModel ticks = ticks();
        ticks.tick(openPlace, Moment.FAR, List.of("sub/deep/note.txt"), true);
        until(() -> ticks.sumProperty().get().files() == 1);
        assertThat(ticks.sumProperty().get().bytes()).isEqualTo("a note".length());
    }

    @Test
    void manyAtOnceAreOneChangeThatIsCountedOnce() throws Exception {
        TicksModel ticks = ticks();
        List<TicksModel.Sum> said = new ArrayList<>();
        ticks.sumProperty().addListener((o, before, now) -> said.add(now));
        ticks.tick(openPlace, between(), List.of("ledger.csv", "sub/plan.txt", "sub/deep/note.txt"), true);
        until(() -> ticks.sumProperty().get().files() == 3);
        assertThat(said).extracting(TicksModel.Sum::files).containsExactly(-1L, 3L);
        assertThat(said).extracting(TicksModel.Sum::ticks).containsOnly(3);
        ticks.tick(openPlace, between(), List.of("ledger.csv"), true);
        assertThat(said).as("that was so already").hasSize(2);
    }

    /** Names whose letters stand before and behind the slash. */
    @Test
    void whatIsTickedIsWhatSomebodyWhoGoesThroughAllOfItWouldSay() {
        String[] names = {"a", "a b", "a.txt", "a-", "a0", "aa", "b"};
        Random random = new Random(3);
        TicksModel ticks = ticks();
        TreeSet<String> naive = new TreeSet<>();
        for (int i = 0; i < 600; i++) {
            StringBuilder path = new StringBuilder(names[random.nextInt(names.length)]);
            for (int deep = random.nextInt(3); deep > 0; deep--) {
                path.append('/').append(names[random.nextInt(names.length)]);
            }
            String chosen = path.toString();
            boolean on = random.nextInt(3) > 0;
            ticks.tick(openPlace, Moment.FAR, List.of(chosen), on);
            if (naive.stream().noneMatch(p -> chosen.startsWith(p + "/"))) {
                if (on) {
                    naive.removeIf(p -> p.startsWith(chosen + "/"));
                    naive.add(chosen);
                } else {
                    naive.remove(chosen);
                }
            }
            assertThat(ticks.paths()).containsExactlyElementsOf(naive);
            assertThat(ticks.isPartly("a"))
                    .isEqualTo(!naive.contains("a") && naive.stream().anyMatch(p -> p.startsWith("a/")));
        }
    }
}
