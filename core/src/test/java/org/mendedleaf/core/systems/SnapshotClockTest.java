package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Version;

/**
 * What a snapshot in another system holds is what it held when it was taken, however the clock of this computer is set afterwards:
 * when it is erased there, nothing that only it holds is lost.
 */
class SnapshotClockTest {

    @TempDir
    Path temp;

    private Rig rig;
    private Place share;

    @BeforeEach
    void start() throws IOException {
        rig = new Rig(temp);
        share = rig.place(SystemKind.FILE_SERVER, "share");
        rig.put(share, "plan.txt", "the plan as it was");
        rig.later(Duration.ofMinutes(1));
        rig.look(share);
        rig.later(Duration.ofMinutes(1));
        rig.erasing(share).snapshot("before");
        rig.later(Duration.ofMinutes(1));
    }

    @AfterEach
    void end() throws IOException {
        rig.close();
    }

    /** Sets the clock of this computer alone. */
    private void set(long minutes) throws IOException {
        rig.desk.at(rig.now().plus(Duration.ofMinutes(minutes)));
    }

    @ParameterizedTest
    @ValueSource(longs = {0, 1, -1, 5, -5, 60, -60, 60 * 24 * 30, -60 * 24 * 30})
    void whatOnlyItHoldsIsTakenBeforeItGoesWhateverTheClockOfThisComputerSays(long minutes) throws IOException {
        RemoteSnapshot cut = rig.cuts(share).get(0);
        set(minutes);
        rig.put(share, "plan.txt", "another plan altogether");
        rig.look(share);
        Line line = rig.line(share, "plan.txt");
        assertThat(line.versions()).hasSize(2);
        assertThat(rig.cuts(share))
                .singleElement()
                .satisfies(c -> assertThat(c.key()).isEqualTo(cut.key()));
        assertThat(rig.holders(line, 1))
                .as("the snapshot still holds the version that it was taken of")
                .extracting(Holder::point)
                .containsExactly(cut.key());
        set(minutes);
        assertThat(rig.erasing(share).eraseSnapshot(rig.cuts(share).get(0), Progress.NONE))
                .isEqualTo(1);
        Version first = rig.line(share, "plan.txt").version(1).orElseThrow();
        assertThat(first.recipe().isElsewhere()).isFalse();
        assertThat(rig.text(first)).isEqualTo("the plan as it was");
    }

    @Test
    void oneOfWhichTheVaultKnowsSomethingElseIsLeftAlone() throws IOException {
        RemoteSnapshot cut = rig.cuts(share).get(0);
        rig.put(share, "plan.txt", "another plan altogether");
        rig.look(share);
        // As an earlier version of this program left it, when the clock had been set in between.
        try (WriteSession session = rig.vault().write()) {
            new OutsideWriter(session, share)
                    .cut(new RemoteSnapshot(cut.key(), rig.now().plusSeconds(1), cut.label(), cut.expires()));
            session.commit();
        }
        RemoteSnapshot wrong = rig.cuts(share).get(0);
        assertThatThrownBy(() -> rig.erasing(share).eraseSnapshot(wrong, Progress.NONE))
                .isInstanceOf(SystemException.Conflict.class)
                .hasMessageContaining("plan.txt")
                .hasMessageContaining("left alone");
        assertThat(rig.read(share, "plan.txt", cut.key())).isEqualTo("the plan as it was");
    }

    @Test
    void aSnapshotThatIsTakenAfterTheClockWasSetBackComesAfterTheOneBefore() throws IOException {
        set(-60);
        rig.put(share, "plan.txt", "another plan altogether");
        rig.erasing(share).snapshot("after");
        List<RemoteSnapshot> cuts = rig.cuts(share);
        assertThat(cuts).extracting(RemoteSnapshot::label).containsExactly("before", "after");
        assertThat(cuts.get(1).at()).isAfter(cuts.get(0).at());
        Line line = rig.line(share, "plan.txt");
        assertThat(rig.holders(line, 1)).extracting(Holder::label).containsExactly("before");
        assertThat(rig.holders(line, 2))
                .extracting(Holder::label)
                .contains("after")
                .doesNotContain("before");
    }
}
