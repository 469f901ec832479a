package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.intake.LineWork;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.FoldResult;
import org.mendedleaf.core.recovery.Folding;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.wire.Systems;

/** Publishing, check-out, notes, folding and putting in where the lines belong to another system. */
class OutsideLinesTest {

    private static final String PAPER = "lease.txt";

    @TempDir
    Path temp;

    private Rig rig;

    @BeforeEach
    void start() throws IOException {
        rig = new Rig(temp);
    }

    @AfterEach
    void end() throws IOException {
        rig.close();
    }

    private Place library() throws IOException {
        Place place = rig.place(SystemKind.LIBRARY, "Contracts", Setting.NUMBERING, "drafts");
        PlaceSettings settings = SystemKind.LIBRARY
                .standardSettings()
                .with(Setting.NUMBERING, "drafts")
                .with(List.of(new Member("tomas", Role.EDITOR)));
        rig.registry.system(place).configure("Contracts", settings);
        rig.put(place, PAPER, "one");
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        return place;
    }

    private LineWork lines(Place place) throws IOException {
        return new OutsideLines(rig.vault(), place, rig.registry, rig.clock(), "ines");
    }

    private OutsideSystem tomas() {
        return Systems.open(
                "tomas",
                SystemKind.LIBRARY,
                new Endpoint(
                        rig.outside.library().address(), rig.outside.library().token("tomas")),
                Rig.QUICK,
                rig.clock());
    }

    private Version newest(Place place) throws IOException {
        return rig.line(place, PAPER).newest().orElseThrow();
    }

    private Optional<CheckOut> out(Place place) throws IOException {
        try (Reading reading = rig.vault().read()) {
            return CheckOutStore.of(reading).get(newest(place).line());
        }
    }

    private String label(Place place) throws IOException {
        return rig.holders(rig.line(place, PAPER), newest(place).number())
                .get(0)
                .label();
    }

    @Test
    void aDraftOfALibraryIsPublishedThereWithANoteAndOnlyOnce() throws IOException {
        Place place = library();
        assertThat(label(place)).contains(".");
        LineWork.Done done = lines(place).publish(PAPER, "as signed");
        assertThat(done.label()).doesNotContain(".");
        assertThat(label(place)).isEqualTo(done.label());
        assertThat(newest(place).note()).isEqualTo("as signed");
        assertThatThrownBy(() -> lines(place).publish(PAPER, "again")).hasMessageContaining(PAPER);
    }

    @Test
    void aCheckOutIsTakenThereIsSeenHereAndIsHandedBackWithWhatChanged() throws IOException {
        Place place = library();
        CheckOut mine = lines(place).checkOut(PAPER);
        assertThat(mine.who()).isEqualToIgnoringCase("ines");
        assertThat(lines(place).checkOut(PAPER)).as("taking it twice").isEqualTo(mine);
        assertThat(lines(place).checkIn(PAPER, "", false).number())
                .as("nothing changed")
                .isZero();
        assertThat(out(place)).isEmpty();
        lines(place).checkOut(PAPER);
        rig.later(Duration.ofMinutes(1));
        rig.put(place, PAPER, "two");
        LineWork.Done done = lines(place).checkIn(PAPER, "after the call", true);
        assertThat(done.number()).isEqualTo(2);
        assertThat(done.label()).as("published with it").doesNotContain(".");
        assertThat(newest(place).note()).isEqualTo("after the call");
    }

    @Test
    void whatSomebodyElseHasCheckedOutThereIsRefusedHereAndAnOwnerEndsIt() throws IOException {
        Place place = library();
        tomas().checkOut("Contracts", PAPER, OutsideFiles.key());
        assertThatThrownBy(() -> lines(place).checkOut(PAPER)).hasMessageContaining("tomas");
        assertThat(out(place).orElseThrow().who()).isEqualTo("tomas");
        assertThatThrownBy(() -> lines(place).giveUp(PAPER)).hasMessageContaining("tomas");
        assertThatThrownBy(() -> lines(place).checkIn(PAPER, "", false)).hasMessageContaining("tomas");
        lines(place).endCheckOut(PAPER);
        assertThat(out(place)).isEmpty();
        tomas().checkOut("Contracts", PAPER, OutsideFiles.key());
        tomas().endCheckOut("Contracts", PAPER, OutsideSystem.CheckOutEnd.GIVE_UP, OutsideFiles.key());
        rig.look(place);
        assertThat(out(place)).as("what ended there has ended here").isEmpty();
    }

    @ParameterizedTest
    @EnumSource(
            value = SystemKind.class,
            names = {"FILE_SERVER", "OBJECT_STORE"})
    void whereASystemHasNoDraftsOrCheckOutItSaysSoAndNothingHappens(SystemKind kind) throws IOException {
        Place place = rig.place(kind, "p");
        rig.put(place, PAPER, "one");
        rig.look(place);
        assertThatThrownBy(() -> lines(place).publish(PAPER, "")).isInstanceOf(SystemException.Unable.class);
        assertThatThrownBy(() -> lines(place).checkOut(PAPER)).isInstanceOf(SystemException.Unable.class);
        assertThat(rig.text(newest(place))).isEqualTo("one");
    }

    @Test
    void aNoteStandsInTheSystemAndCommentsAndCategoriesStandHere() throws IOException {
        Place place = library();
        lines(place).note(newest(place), "from the owner");
        assertThat(newest(place).note()).isEqualTo("from the owner");
        lines(place).comment(newest(place), "he called back");
        lines(place).card(PAPER, new FileProperties("Leases", FileProperties.Visibility.EDITORS));
        try (Reading reading = rig.vault().read()) {
            RemarkStore remarks = RemarkStore.of(reading);
            assertThat(remarks.comments(newest(place).line()))
                    .extracting(Comment::words)
                    .containsExactly("he called back");
            assertThat(remarks.card(newest(place).line()).category()).isEqualTo("Leases");
        }
    }

    @Test
    void copiesInASystemAreFoldedIntoOneFileAndUndone() throws IOException {
        Place place = rig.place(SystemKind.FILE_SERVER, "p");
        rig.put(place, "plan v1.txt", "one");
        rig.put(place, "plan v2.txt", "two");
        rig.look(place);
        rig.later(Duration.ofMinutes(1));
        FoldResult result = rig.work(place)
                .fold(List.of(new Folding("plan.txt", List.of("plan v1.txt", "plan v2.txt"))), Progress.NONE);
        assertThat(result.failed()).isEmpty();
        assertThat(rig.listing(place, "", rig.now())).containsExactly("plan.txt");
        assertThat(rig.line(place, "plan.txt").versions()).extracting(rig::text).containsExactly("two", "one");
    }

    @Test
    void aFileThatIsTakenLeavesItsFolderOnlyWhenTheSystemHasIt() throws IOException {
        Place place = rig.place(SystemKind.OBJECT_STORE, "p");
        Path in = rig.file("in.txt", "one");
        PutResult result =
                rig.work(place).put(List.of(new Revision(in, PAPER, "why", DraftChoice.BY_RULE, true)), Progress.NONE);
        assertThat(result.failed()).isEmpty();
        assertThat(in).doesNotExist();
        assertThat(rig.text(newest(place))).isEqualTo("one");
        Path again = rig.file("in.txt", "two");
        rig.outside.close();
        try {
            PutResult failed = rig.work(place)
                    .put(List.of(new Revision(again, PAPER, "", DraftChoice.BY_RULE, true)), Progress.NONE);
            assertThat(failed.failed()).containsKey(PAPER);
        } catch (IOException e) {
            assertThat(e).isInstanceOf(SystemException.class);
        }
        assertThat(Files.readString(again)).as("still where it was").isEqualTo("two");
    }
}
