package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/** What fails is written down once, for whoever asks and in their language, until it goes well again. */
class DutiesTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private final List<Duties.Failing> heard = new ArrayList<>();

    /** A duty whose name is said in the language that is used. */
    private static final Supervisor.Duty RULES = new Supervisor.Duty() {
        @Override
        public String name() {
            return Words.of("duty.retention");
        }

        @Override
        public Duration round(Supervisor.Breath breath) {
            return Duration.ofDays(1);
        }
    };

    @BeforeEach
    void start() throws IOException {
        Words.use(Locale.ENGLISH);
        p = new TestPlace(temp);
    }

    @AfterEach
    void end() throws IOException {
        p.close();
        Words.use((String) null);
    }

    private Duties duties() {
        return new Duties(p.vault(), p.clock(), heard::add);
    }

    private List<Duties.Failing> failing() throws IOException {
        try (Reading reading = p.vault().read()) {
            return Duties.failing(reading);
        }
    }

    private static void fails(Duties duties, Exception why, int times) {
        duties.failed(RULES, why, times, Duration.ofSeconds(5));
    }

    @Test
    void itStandsThereSinceItsFirstFailureWithItsLastTrouble() throws IOException {
        Duties duties = duties();
        fails(duties, new IOException("the drive is away"), 1);
        p.later(30);
        fails(duties, new IOException("the drive is full"), 2);
        assertThat(failing()).singleElement().satisfies(f -> {
            assertThat(f.name()).isEqualTo(Words.of("duty.retention"));
            assertThat(f.since()).isEqualTo(p.now().minus(Duration.ofMinutes(30)));
            assertThat(f.trouble()).isEqualTo("the drive is full");
        });
        duties.recovered(RULES);
        assertThat(failing()).isEmpty();
        assertThat(heard)
                .extracting(Duties.Failing::trouble)
                .containsExactly("the drive is away", "the drive is full", "");
    }

    @Test
    void aProgramInAnotherLanguageSaysItInItsOwnAndEndsTheSame() throws IOException {
        fails(duties(), new IOException("the drive is away"), 1);
        String english = Words.of("duty.retention");
        Words.use(Locale.GERMAN);
        assertThat(Words.of("duty.retention")).isNotEqualTo(english);
        assertThat(failing()).extracting(Duties.Failing::name).containsExactly(Words.of("duty.retention"));
        fails(duties(), new IOException("das Laufwerk fehlt"), 2);
        assertThat(failing()).as("it is one failure").hasSize(1);
        duties().recovered(RULES);
        assertThat(failing()).isEmpty();
        Words.use(Locale.ENGLISH);
        assertThat(failing()).isEmpty();
    }

    @Test
    void whatEarlierVersionsNotedInOneLanguageEndsToo() throws IOException {
        try (WriteSession session = p.vault().write()) {
            session.applyUnlogged(
                    "INSERT INTO duty(name, since, trouble) VALUES (?,?,?)",
                    Words.of("duty.retention"),
                    Moment.micros(p.now()),
                    "as it was");
            session.commit();
        }
        Words.use(Locale.GERMAN);
        assertThat(failing()).hasSize(1);
        duties().recovered(RULES);
        assertThat(failing()).isEmpty();
    }

    @Test
    void thatSomebodyElseWritesIsNoTroubleUnlessItDoesNotEnd() throws IOException {
        Duties duties = duties();
        fails(duties, new VaultException.Busy(temp, "somebody"), 1);
        fails(duties, new VaultException.Busy(temp, "somebody"), 2);
        assertThat(failing()).isEmpty();
        assertThat(heard).isEmpty();
        fails(duties, new VaultException.Busy(temp, "somebody"), 3);
        assertThat(failing()).hasSize(1);
    }

    @Test
    void aDefectIsSaidAsOneAndWhatIsNotDoneAnyMoreDoesNotFail() throws IOException {
        Duties duties = duties();
        fails(duties, new IllegalStateException("null"), 1);
        assertThat(failing().get(0).trouble()).isEqualTo(Words.of("capture.defect", new IllegalStateException("null")));
        duties.ended(RULES);
        assertThat(failing()).isEmpty();
        duties.ended(RULES);
        assertThat(failing()).isEmpty();
    }
}
