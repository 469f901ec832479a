package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.JournalQuery;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.NotAllowedException;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageState;
import org.mendedleaf.core.systems.Warning;

/** A folder that is paused, or protected no longer. */
class VersioningTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
        p.save("a.txt", "one");
        p.capture();
    }

    @AfterEach
    void close() throws Exception {
        p.close();
    }

    private Place now() throws IOException {
        try (Reading reading = p.vault().read()) {
            return reading.places().get(0);
        }
    }

    private Coverage.Row row() throws IOException {
        return Coverage.of(p.vault(), p.now(), ZoneOffset.UTC).get(0);
    }

    private List<String> journal() throws IOException {
        try (Reading reading = p.vault().read()) {
            return JournalQuery.of(reading).entries(JournalQuery.Wanted.ALL, 100).stream()
                    .filter(e -> e.kind().equals("SETTING_CHANGED"))
                    .map(e -> e.who() + " " + e.words())
                    .toList();
        }
    }

    @Test
    void itIsCoveredNoMoreButNobodyIsWarnedOfWhatHeMeant() throws IOException {
        p.later(60 * 24 * 30);
        Protect.versioning(p.vault(), p.place(), Versioning.PAUSED, p.clock(), "Ines");
        assertThat(row().state()).isEqualTo(CoverageState.PAUSED);
        assertThat(now().isKept()).isFalse();
        Protect.versioning(p.vault(), p.place(), Versioning.OFF, p.clock(), "Ines");
        assertThat(row().state()).isEqualTo(CoverageState.OFF);
        assertThat(row().next()).isEmpty();
        assertThat(Warning.of(List.of(row()), p.now(), ZoneOffset.UTC)).isEmpty();
        Protect.versioning(p.vault(), p.place(), Versioning.ON, p.clock(), "Ines");
        assertThat(row().state()).isEqualTo(CoverageState.LATE);
        assertThat(now()).isEqualTo(p.place());
    }

    @Test
    void otherSettingsOfAPausedFolderDoNotTakeItUpAgain() throws IOException {
        Protect.versioning(p.vault(), p.place(), Versioning.PAUSED, p.clock(), "Ines");
        Protect.place(p.vault(), p.folder(), PlaceChange.to(Rhythm.parse("daily 7:30")), p.clock(), "Ines");
        assertThat(now().versioning()).isEqualTo(Versioning.PAUSED);
        assertThat(now().rhythm()).isEqualTo(Rhythm.parse("daily 7:30"));
    }

    @Test
    void itIsStillSoAfterTheCatalogueWasMadeAnew() throws Exception {
        Protect.versioning(p.vault(), p.place(), Versioning.OFF, p.clock(), "Ines");
        Protect.place(p.vault(), p.folder(), PlaceChange.to(Rhythm.parse("weekly tue 9")), p.clock(), "Ines");
        List<String> before = journal();
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), p.clock());
        assertThat(now().versioning()).isEqualTo(Versioning.OFF);
        assertThat(now().rhythm().words()).isEqualTo("every Tuesday at 09:00");
        assertThat(journal()).isEqualTo(before).hasSize(3);
    }

    @Test
    void whoChangedWhatStandsInTheJournal() throws IOException {
        Protect.versioning(p.vault(), p.place(), Versioning.PAUSED, p.clock(), "Jory");
        p.later(1);
        Protect.place(
                p.vault(),
                p.folder(),
                new PlaceChange(Rhythm.every(30), List.of("*.iso"), List.of()),
                p.clock(),
                "Tomas");
        p.later(1);
        try (WriteSession session = p.vault().write()) {
            PlaceRules rules = PlaceRules.of(session, p.place());
            rules.store(
                    session,
                    p.place(),
                    rules.settings().with(List.of(new Member("Adele", Role.READER))),
                    p.now(),
                    "Ines");
            session.commit();
        }
        assertThat(journal())
                .containsExactlyInAnyOrder(
                        "Ines Adele: nothing -> reader",
                        "Tomas Captured: on every save -> every 30 minutes",
                        "Tomas Left out: nothing -> *.iso",
                        "Jory Versions: kept -> paused",
                        "Ines protected, captured: on every save");
    }

    @Test
    void whoDoesNotOwnTheFolderCannotEndItsProtection() throws IOException {
        try (WriteSession session = p.vault().write()) {
            PlaceRules rules = PlaceRules.of(session, p.place());
            rules.store(
                    session,
                    p.place(),
                    rules.settings().with(List.of(new Member("Adele", Role.READER))),
                    p.now(),
                    "Ines");
            session.commit();
        }
        assertThatThrownBy(() -> Protect.versioning(p.vault(), p.place(), Versioning.OFF, p.clock(), "Adele"))
                .isInstanceOf(NotAllowedException.class);
        assertThat(now().versioning()).isEqualTo(Versioning.ON);
    }

    @Test
    void whatFailedBeforeItEndedFailsNoLonger() throws Exception {
        Supervisor.Duty failing = new Supervisor.Duty() {
            @Override
            public String name() {
                return "captures of a folder that is away";
            }

            @Override
            public Duration round(Supervisor.Breath breath) throws IOException {
                throw new IOException("it is away");
            }
        };
        LinkedBlockingQueue<String> told = new LinkedBlockingQueue<>();
        Duties duties = new Duties(p.vault(), p.clock(), f -> told.add(f.trouble()));
        try (Supervisor supervisor = new Supervisor(Supervisor.Backoff.DEFAULT, duties)) {
            supervisor.add(failing);
            assertThat(told.poll(30, TimeUnit.SECONDS)).isEqualTo("it is away");
            supervisor.remove(failing.name());
        }
        try (Reading reading = p.vault().read()) {
            assertThat(Duties.failing(reading)).isEmpty();
        }
        assertThat(told).as("that it ended is no news of a recovery").isEmpty();
    }
}
