package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;

/** Versions that go for good within days, by rules, and that nothing else holds. */
class GoingSoonTest {

    private static final long DAY = 24 * 60;

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void start() throws IOException {
        p = new TestPlace(temp);
        for (int v = 1; v <= 4; v++) {
            p.save("a.txt", "text " + v);
            p.save("b.txt", "text " + (v == 1 ? 4 : v + 10));
            p.later(5);
            p.capture();
        }
    }

    @AfterEach
    void end() throws IOException {
        p.close();
    }

    private Optional<GoingSoon> going() throws IOException {
        try (Reading reading = p.vault().read()) {
            return GoingSoon.of(reading, p.now());
        }
    }

    private void thin() throws IOException {
        Verdicts v = Histories.judge(
                p,
                new RuleSet(List.of(Rule.keepAll("last one", RuleScope.ALL).withCounts(1, 1)), Term.days(14), false));
        ThinPlan plan = ThinPlan.of(v, new SpaceTable(v.table()), ThinPlan.Limits.RULES);
        new Thinning(p.vault(), p.clock(), "Ada").thin(plan, Progress.NONE);
    }

    @Test
    void nothingGoesWhereNothingWasLetGo() throws IOException {
        assertThat(going()).isEmpty();
    }

    @Test
    void whatIsDueWithinDaysIsSaidUnlessSomethingElseHoldsIt() throws IOException {
        thin();
        assertThat(going()).as("there is a week left").isEmpty();
        p.later(5 * DAY);
        GoingSoon soon = going().orElseThrow();
        // Six were let go; what the first version of b.txt says, the newest of a.txt still says.
        assertThat(soon.versions()).isEqualTo(5);
        assertThat(soon.files()).isEqualTo(2);
        assertThat(soon.first()).isAfter(p.now());
    }

    @Test
    void whatSomebodyErasedHimselfIsNotSaid() throws IOException {
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                .erase(p.line("a.txt").id(), Erasing.What.VERSION, 1, Progress.NONE);
        p.later(5 * DAY);
        assertThat(going()).isEmpty();
    }

    @Test
    void ofVeryManyTheNumbersAreSaidWithoutLookingIntoEach() throws IOException {
        thin();
        p.later(5 * DAY);
        try (Reading reading = p.vault().read()) {
            GoingSoon many = GoingSoon.of(reading, p.now(), 5).orElseThrow();
            assertThat(many.versions()).as("all that were let go").isEqualTo(6);
            assertThat(many.files()).isEqualTo(2);
            assertThat(many.first()).isEqualTo(going().orElseThrow().first());
            assertThat(many.words(p.now(), java.time.ZoneOffset.UTC)).contains("nobody looked");
            GoingSoon few = GoingSoon.of(reading, p.now(), 6).orElseThrow();
            assertThat(few).isEqualTo(going().orElseThrow());
            assertThat(few.words(p.now(), java.time.ZoneOffset.UTC)).contains("nothing else holds");
        }
    }
}
