package org.mendedleaf.core.intake;

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
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.FindingStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.NotAllowedException;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.rules.Visibility;

/** Drafts, publishing, check-out, roles and notes in a real folder with a real vault. */
class FolderLinesTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
        p.save("lease.txt", "one");
        p.capture();
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private FolderLines lines(String who) {
        p.later(1);
        return new FolderLines(new WorkContext(p.vault(), p.place(), p.clock(), (path, owner) -> who, who));
    }

    private Recovery recovery(String who) {
        p.later(1);
        return new Recovery(new WorkContext(p.vault(), p.place(), p.clock(), (path, owner) -> who, who));
    }

    private void capture(String who) throws IOException {
        p.later(1);
        new Capture(p.vault(), p.place(), p.clock(), (path, owner) -> who).run(CaptureScope.WHOLE, Progress.NONE);
    }

    private void set(Setting setting, String value) throws IOException {
        rules(rules().settings().with(setting, value), "Ines");
    }

    private PlaceRules rules() throws IOException {
        try (Reading reading = p.vault().read()) {
            return PlaceRules.of(reading, p.place());
        }
    }

    private void rules(PlaceSettings settings, String who) throws IOException {
        PlaceRules before = rules();
        try (WriteSession session = p.vault().write()) {
            before.store(session, p.place(), settings, p.now(), who);
            session.commit();
        }
    }

    private void members() throws IOException {
        rules(
                rules().settings().with(List.of(new Member("Tomas", Role.EDITOR), new Member("Adele", Role.READER))),
                "Ines");
    }

    private List<String> labels() throws IOException {
        return p.line("lease.txt").versions().stream()
                .map(v -> v.edition().label())
                .toList();
    }

    private PutResult put(String who, String text, DraftChoice stage) throws IOException {
        Path file = Files.writeString(temp.resolve("in.txt"), text);
        return recovery(who).put(List.of(new Revision(file, "lease.txt", "", stage, false)), Progress.NONE);
    }

    private Optional<CheckOut> out() throws IOException {
        try (Reading reading = p.vault().read()) {
            return CheckOutStore.of(reading).get(p.line("lease.txt").id());
        }
    }

    private List<StoredFinding> findings() throws IOException {
        try (Reading reading = p.vault().read()) {
            return FindingStore.of(reading).open(p.place());
        }
    }

    private Action last() throws IOException {
        try (Reading reading = p.vault().read()) {
            return JournalStore.of(reading).lastUndoable().orElseThrow();
        }
    }

    @Test
    void versionsAreNumberedWholeUnlessDraftsAreChosen() throws IOException {
        p.save("lease.txt", "two");
        capture("Ines");
        assertThat(labels()).containsExactly("2", "1");
        set(Setting.NUMBERING, "drafts");
        p.save("lease.txt", "two and a bit");
        capture("Ines");
        put("Ines", "two and more", DraftChoice.BY_RULE);
        assertThat(labels()).containsExactly("2.2", "2.1", "2", "1");
        assertThat(lines("Ines").publish("lease.txt", "as signed").label()).isEqualTo("3");
        assertThat(labels()).containsExactly("3", "2.1", "2", "1");
        assertThat(p.line("lease.txt").newest().orElseThrow().note()).isEqualTo("as signed");
        put("Ines", "four at once", DraftChoice.PUBLISHED);
        assertThat(labels().get(0)).isEqualTo("4");
        set(Setting.NUMBERING, "whole");
        p.save("lease.txt", "five");
        capture("Ines");
        assertThat(labels().get(0)).isEqualTo("5");
        assertThat(p.line("lease.txt").version("2.1").orElseThrow().number()).isEqualTo(3);
        assertThat(p.line("lease.txt").version("5").orElseThrow().number()).isEqualTo(6);
    }

    @Test
    void publishingIsUndoneUntilSomethingCameLater() throws IOException {
        set(Setting.NUMBERING, "drafts");
        p.save("lease.txt", "draft");
        capture("Ines");
        lines("Ines").publish("lease.txt", "a note");
        recovery("Ines").undo(last());
        assertThat(labels()).containsExactly("1.1", "1");
        assertThat(p.line("lease.txt").newest().orElseThrow().note()).isEmpty();
        lines("Ines").publish("lease.txt", "");
        Action published = last();
        p.save("lease.txt", "later");
        capture("Ines");
        assertThat(recovery("Ines").undo(published).failed()).hasSize(1);
        assertThat(labels()).containsExactly("2.1", "2", "1");
    }

    @Test
    void thereIsNothingToPublishWhereThereIsNoDraft() {
        assertThatThrownBy(() -> lines("Ines").publish("lease.txt", ""))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("published already");
        assertThatThrownBy(() -> put("Ines", "x", DraftChoice.DRAFT)).hasMessageContaining("numbered whole");
        assertThatThrownBy(() -> lines("Ines").publish("nothing.txt", "")).hasMessageContaining("not there");
    }

    @Test
    void whoReadsSeesTheNewestPublishedVersionOnly() throws IOException {
        members();
        set(Setting.NUMBERING, "drafts");
        p.save("lease.txt", "draft");
        capture("Ines");
        try (Reading reading = p.vault().read()) {
            Line line = p.line("lease.txt");
            assertThat(Visibility.see(reading, line, "Adele")
                            .orElseThrow()
                            .newest()
                            .orElseThrow()
                            .edition()
                            .label())
                    .isEqualTo("1");
            assertThat(Visibility.see(reading, line, "Tomas").orElseThrow().versions())
                    .hasSize(2);
        }
        lines("Ines").card("lease.txt", new FileProperties("leases", FileProperties.Visibility.EDITORS));
        try (Reading reading = p.vault().read()) {
            assertThat(Visibility.see(reading, p.line("lease.txt"), "Adele")).isEmpty();
            assertThat(Visibility.see(reading, p.line("lease.txt"), "Tomas")).isPresent();
            assertThat(RemarkStore.of(reading).card(p.line("lease.txt").id()).category())
                    .isEqualTo("leases");
        }
    }

    @Test
    void theCoreRefusesWhatARoleMayNotDo() throws IOException {
        p.save("lease.txt", "two");
        capture("Ines");
        members();
        Version first = p.line("lease.txt").version(1).orElseThrow();
        assertThatThrownBy(() -> put("Adele", "x", DraftChoice.BY_RULE)).isInstanceOf(NotAllowedException.class);
        assertThatThrownBy(() -> recovery("Adele")
                        .restore(List.of(new RestoreItem(first, "lease.txt")), Collision.REPLACE, Progress.NONE))
                .isInstanceOf(NotAllowedException.class);
        assertThatThrownBy(() -> recovery("Adele").remove(List.of("lease.txt")))
                .isInstanceOf(NotAllowedException.class);
        assertThatThrownBy(() -> lines("Adele").checkOut("lease.txt")).isInstanceOf(NotAllowedException.class);
        assertThatThrownBy(() -> lines("Adele").note(first, "x")).isInstanceOf(NotAllowedException.class);
        assertThatThrownBy(() -> rules(PlaceRules.DEFAULT.settings(), "Tomas")).isInstanceOf(NotAllowedException.class);
        set(Setting.PUBLISHING, "owner");
        set(Setting.NUMBERING, "drafts");
        p.save("lease.txt", "draft");
        capture("Tomas");
        assertThatThrownBy(() -> lines("Tomas").publish("lease.txt", "")).isInstanceOf(NotAllowedException.class);
        assertThatThrownBy(() -> put("Tomas", "x", DraftChoice.PUBLISHED)).isInstanceOf(NotAllowedException.class);
        assertThat(p.read("lease.txt")).isEqualTo("draft");
        lines("Adele").comment(first, "a reader may say something");
        put("Tomas", "an editor may", DraftChoice.BY_RULE);
        assertThat(p.read("lease.txt")).isEqualTo("an editor may");
    }

    @Test
    void whatIsCheckedOutIsChangedByNobodyElse() throws IOException {
        p.save("other.txt", "other");
        capture("Ines");
        CheckOut out = lines("Tomas").checkOut("lease.txt");
        assertThat(out.who()).isEqualTo("Tomas");
        assertThat(lines("Tomas").checkOut("lease.txt")).as("taking it twice").isEqualTo(out);
        assertThatThrownBy(() -> lines("Ines").checkOut("lease.txt")).hasMessageContaining("checked out by Tomas");
        PutResult put = put("Ines", "x", DraftChoice.BY_RULE);
        assertThat(put.failed().get("lease.txt")).startsWith("Tomas has lease.txt checked out");
        assertThat(recovery("Ines").remove(List.of("lease.txt", "other.txt")).removed())
                .containsExactly("other.txt");
        Version first = p.line("lease.txt").version(1).orElseThrow();
        p.save("lease.txt", "by Tomas");
        capture("Tomas");
        RestoreResult restored = recovery("Ines")
                .restore(List.of(new RestoreItem(first, "lease.txt")), Collision.REPLACE, Progress.NONE);
        assertThat(restored.count(RestoreResult.Outcome.FAILED)).isOne();
        assertThat(p.read("lease.txt")).isEqualTo("by Tomas");
    }

    @Test
    void whatWasDoneWhileCheckedOutBecomesOneVersion() throws IOException {
        lines("Tomas").checkOut("lease.txt");
        p.save("lease.txt", "first try");
        capture("Tomas");
        p.save("lease.txt", "second try");
        capture("Tomas");
        assertThat(labels()).containsExactly("1.2", "1.1", "1");
        LineWork.Done done = lines("Tomas").checkIn("lease.txt", "done with it", false);
        assertThat(done.label()).isEqualTo("2");
        assertThat(labels()).containsExactly("2", "1.1", "1");
        assertThat(p.line("lease.txt").newest().orElseThrow().note()).isEqualTo("done with it");
        assertThat(out()).isEmpty();
        assertThat(findings()).isEmpty();
        assertThatThrownBy(() -> lines("Tomas").checkIn("lease.txt", "", false))
                .hasMessageContaining("not checked out");
    }

    @Test
    void aCheckOutIsGivenUpOrEndedByAnOwnerAndNothingIsLost() throws IOException {
        members();
        lines("Tomas").checkOut("lease.txt");
        p.save("lease.txt", "half done");
        capture("Tomas");
        assertThatThrownBy(() -> lines("Ines").giveUp("lease.txt")).hasMessageContaining("not by Ines");
        lines("Tomas").giveUp("lease.txt");
        assertThat(labels()).containsExactly("1.1", "1");
        lines("Tomas").checkOut("lease.txt");
        assertThatThrownBy(() -> lines("Tomas").endCheckOut("lease.txt")).isInstanceOf(NotAllowedException.class);
        lines("Ines").endCheckOut("lease.txt");
        assertThat(out()).isEmpty();
        assertThat(p.read("lease.txt")).isEqualTo("half done");
    }

    @Test
    void anEditOfSomebodyElseMeanwhileIsADraftOfItsOwnWithAFinding() throws IOException {
        lines("Tomas").checkOut("lease.txt");
        p.save("lease.txt", "by Tomas");
        capture("Tomas");
        p.save("lease.txt", "by Jory");
        capture("Jory");
        assertThat(labels()).containsExactly("1.2", "1.1", "1");
        StoredFinding finding = findings().get(0);
        assertThat(finding.words("lease.txt", "1.2"))
                .isEqualTo("Jory changed lease.txt in its folder while Tomas had it checked out:"
                        + " version 1.2 is a draft of its own.");
        assertThatThrownBy(() -> lines("Tomas").checkIn("lease.txt", "", false))
                .hasMessageContaining("Jory changed it");
        // Tomas brings his own version to the front and hands that back.
        Version own = p.line("lease.txt").version(2).orElseThrow();
        recovery("Tomas").restore(List.of(new RestoreItem(own, "lease.txt")), Collision.REPLACE, Progress.NONE);
        assertThat(lines("Tomas").checkIn("lease.txt", "", false).label()).isEqualTo("2");
        assertThat(p.read("lease.txt")).isEqualTo("by Tomas");
        assertThat(p.line("lease.txt").version("1.2").orElseThrow().who()).isEqualTo("Jory");
        lines("Ines").settle(finding);
        assertThat(findings()).isEmpty();
    }

    @Test
    void whereCheckOutIsNeededNothingIsPutInWithoutIt() throws IOException {
        set(Setting.CHECK_OUT, "needed");
        assertThat(put("Ines", "x", DraftChoice.BY_RULE).failed().get("lease.txt"))
                .contains("must be checked out");
        lines("Ines").checkOut("lease.txt");
        assertThat(put("Ines", "two", DraftChoice.BY_RULE).failed()).isEmpty();
        assertThat(lines("Ines").checkIn("lease.txt", "", false).label()).isEqualTo("2");
    }

    @Test
    void notesAreChangedFoundAndPutBack() throws IOException {
        Version v = p.line("lease.txt").newest().orElseThrow();
        lines("Ines").note(v, "signed by the owner of the Pré");
        lines("Ines").note(v, "something else");
        recovery("Ines").undo(last());
        lines("Tomas").comment(v, "the pré floods in March");
        try (Reading reading = p.vault().read()) {
            RemarkStore store = RemarkStore.of(reading);
            assertThat(store.find(p.place(), "FLOODS Pre"))
                    .extracting(RemarkStore.Hit::words)
                    .containsExactly("the pré floods in March");
            assertThat(store.find(p.place(), "pre")).hasSize(2);
            assertThat(store.find(p.place(), "no such words")).isEmpty();
            assertThat(store.comments(v.line())).extracting(Comment::who).containsExactly("Tomas");
        }
        assertThatThrownBy(() -> lines("Tomas").comment(v, "  ")).hasMessageContaining("needs words");
    }

    @Test
    void allOfItComesBackFromThePacksAlone() throws Exception {
        members();
        set(Setting.NUMBERING, "drafts");
        p.save("lease.txt", "draft");
        capture("Ines");
        lines("Ines").note(p.line("lease.txt").newest().orElseThrow(), "a note");
        lines("Tomas").comment(p.line("lease.txt").newest().orElseThrow(), "a comment");
        lines("Tomas").checkOut("lease.txt");
        lines("Ines").card("lease.txt", new FileProperties("leases", FileProperties.Visibility.EDITORS));
        p.close();
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), p.clock());
        p = new TestPlace(temp);
        assertThat(labels()).containsExactly("1.1", "1");
        assertThat(p.line("lease.txt").newest().orElseThrow().note()).isEqualTo("a note");
        assertThat(out().orElseThrow().who()).isEqualTo("Tomas");
        assertThat(rules().role("Adele")).isEqualTo(Role.READER);
        try (Reading reading = p.vault().read()) {
            assertThat(RemarkStore.of(reading).comments(p.line("lease.txt").id()))
                    .hasSize(1);
            assertThat(RemarkStore.of(reading).card(p.line("lease.txt").id()).visibility())
                    .isEqualTo(FileProperties.Visibility.EDITORS);
        }
    }

    @Test
    void whatGoesBeyondWhatIsMeantToBeKeptIsSaidAndKept() throws IOException {
        set(Setting.NUMBERING, "drafts");
        set(Setting.KEEP_VERSIONS, "2");
        set(Setting.KEEP_DRAFTS_OF, "1");
        for (int i = 2; i <= 4; i++) {
            p.save("lease.txt", "draft of " + i);
            capture("Ines");
            p.save("lease.txt", "final " + i);
            capture("Ines");
            lines("Ines").publish("lease.txt", "");
        }
        assertThat(labels()).containsExactly("4", "3.1", "3", "2.1", "2", "1.1", "1");
        var beyond = PublishedKeep.beyond(p.line("lease.txt").versions(), rules().settings());
        assertThat(beyond.keySet().stream().map(n -> {
                    try {
                        return p.line("lease.txt").label(n);
                    } catch (IOException e) {
                        throw new java.io.UncheckedIOException(e);
                    }
                }))
                .containsExactlyInAnyOrder("1", "2", "1.1", "2.1");
        assertThat(beyond.values()).contains("beyond the newest 2 published versions");
    }
}
