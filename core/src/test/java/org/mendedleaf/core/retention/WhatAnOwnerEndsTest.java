package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Edition;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.NotAllowedException;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.snapshots.Snapshots;

/** What ends other people's grace, protection, holds and snapshots takes an owner. */
class WhatAnOwnerEndsTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
        try (WriteSession session = p.vault().write()) {
            PlaceRules before = PlaceRules.of(session, p.place());
            before.store(
                    session,
                    p.place(),
                    before.settings().with(List.of(new Member("Tomas", Role.EDITOR), new Member("Adele", Role.READER))),
                    p.now(),
                    "Ines");
            session.commit();
        }
        for (int i = 0; i < 4; i++) {
            p.save("ledger.txt", "version " + i);
            p.capture();
            p.later(60);
        }
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private Erasing erasing() {
        return new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"));
    }

    private Snapshots snapshots(String who) {
        return new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), who));
    }

    private static void isRefused(ThrowingCallable deed, String who) {
        assertThatThrownBy(deed).isInstanceOf(NotAllowedException.class).hasMessageContaining(who + " is a");
    }

    private int waiting() throws IOException {
        try (Reading reading = p.vault().read()) {
            return PendingDeletionStore.of(reading).waiting().size();
        }
    }

    @Test
    void graceIsEndedByAnOwnerAlone() throws IOException {
        erasing().erase(p.line("ledger.txt").id(), Erasing.What.OLDER, 0, Progress.NONE);
        Reclaim reclaim = new Reclaim(p.vault(), p.clock());
        isRefused(() -> reclaim.endGrace("Adele", Progress.NONE), "Adele");
        isRefused(() -> reclaim.endGrace("Tomas", Progress.NONE), "Tomas");
        assertThat(waiting()).isEqualTo(3);
        assertThat(reclaim.run(Progress.NONE).versions())
                .as("what is not due stays whoever runs it")
                .isZero();
        assertThat(reclaim.endGrace("Ines", Progress.NONE).versions()).isEqualTo(3);
    }

    @Test
    void protectionIsNarrowedByAnOwnerAlone() throws IOException {
        PlaceChange change = new PlaceChange(Rhythm.ON_SAVE, List.of("*"), List.of());
        isRefused(() -> Protect.place(p.vault(), p.folder(), change, p.clock(), "Adele"), "Adele");
        try (Reading reading = p.vault().read()) {
            assertThat(reading.places().get(0).exclusions()).doesNotContain("*");
        }
        assertThat(Protect.place(p.vault(), p.folder(), change, p.clock(), "Ines")
                        .exclusions())
                .contains("*");
    }

    @Test
    void somebodyElsesSnapshotIsErasedByAnOwnerAlone() throws IOException {
        long hers = snapshots("Ines").take("", "year end", Progress.NONE).id();
        long his = snapshots("Tomas").take("", "before I try", Progress.NONE).id();
        isRefused(() -> snapshots("Adele").erase(List.of(hers)), "Adele");
        isRefused(() -> snapshots("Tomas").erase(List.of(his, hers)), "Tomas");
        assertThat(snapshots("Ines").standing()).as("none of them, then").hasSize(2);
        isRefused(() -> snapshots("Adele").rename(hers, "mine"), "Adele");
        snapshots("Tomas").erase(List.of(his));
        snapshots("Ines").erase(List.of(hers));
        assertThat(snapshots("Ines").standing()).isEmpty();
    }

    @Test
    void whatIsTakenByItselfIsChangedByAnOwnerAlone() throws IOException {
        SnapshotSchedule daily = new SnapshotSchedule(
                0,
                p.place().id(),
                "",
                "evening",
                "FREQ=DAILY",
                LocalDateTime.of(2026, 5, 4, 18, 0),
                ZoneOffset.UTC,
                14,
                SnapshotSchedule.Missed.values()[0],
                Instant.EPOCH,
                false);
        isRefused(() -> snapshots("Tomas").schedule(daily), "Tomas");
        long id = snapshots("Ines").schedule(daily).id();
        isRefused(() -> snapshots("Adele").end(id), "Adele");
        assertThat(snapshots("Ines").schedules()).hasSize(1);
    }

    @Test
    void aHoldOfSomebodyElseIsLiftedByAnOwnerAlone() throws IOException {
        long line = p.line("ledger.txt").id();
        long id = new Holds(p.vault(), p.clock(), "Ines")
                .version(p.place(), line, 1, "ledger.txt", "court", Optional.empty())
                .id();
        isRefused(() -> new Holds(p.vault(), p.clock(), "Tomas").lift(id), "Tomas");
        isRefused(() -> new Holds(p.vault(), p.clock(), "Adele").lift(id), "Adele");
        assertThat(new Holds(p.vault(), p.clock(), "Ines").standing()).hasSize(1);
    }

    @Test
    void erasingWarnsOfNotesAndOfWhatWasPublished() throws IOException {
        try (WriteSession session = p.vault().write()) {
            PlaceRules before = PlaceRules.of(session, p.place());
            before.store(session, p.place(), before.settings().with(Setting.NUMBERING, "drafts"), p.now(), "Ines");
            session.commit();
        }
        p.save("ledger.txt", "a draft");
        p.capture();
        assertThat(p.line("ledger.txt").newest().orElseThrow().edition()).isEqualTo(new Edition(4, 1));
        long line = p.line("ledger.txt").id();
        List<String> said = erasing().consequences(line, Erasing.What.OLDER, 0).words(p.line("ledger.txt"));
        assertThat(said)
                .contains("Of ledger.txt only a draft is left then: all that was published goes."
                        + " Publish the draft first to keep that.");
        assertThat(erasing().consequences(line, Erasing.What.VERSION, 2).words(p.line("ledger.txt")))
                .as("others that were published stay")
                .noneMatch(w -> w.contains("draft"));
    }
}
