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
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.vault.Flip;

/** One line across all systems. */
class MergedLineTest {

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

    private MergedLine merged(Line line) throws IOException {
        return MergedLine.of(rig.vault(), line, rig.registry, true);
    }

    private static List<String> holders(MergedPoint p) {
        return p.holders("vault");
    }

    @Test
    void aFileWithNoRelativesIsItsOwnLine() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        MergedLine line = merged(rig.desk.line("a.txt"));
        assertThat(line.others()).isEmpty();
        assertThat(line.points()).hasSize(1);
        assertThat(holders(line.points().get(0))).containsExactly("vault");
        assertThat(line.points().get(0).onlyOne()).isTrue();
    }

    @Test
    void equalContentsAreShownOnceWithAllWhoHoldThem() throws IOException {
        rig.desk.save("rota.csv", "one");
        rig.desk.capture();
        Place share = rig.place(SystemKind.FILE_SERVER, "common");
        rig.relate(rig.desk.place(), "", share, "");
        rig.put(share, "rota.csv", "one");
        rig.system(SystemKind.FILE_SERVER).snapshot("common", "s1", "k1");
        rig.put(share, "rota.csv", "from the server");
        rig.later(Duration.ofHours(1));
        rig.look(share);

        MergedLine line = merged(rig.desk.line("rota.csv"));
        assertThat(line.points()).hasSize(2);
        MergedPoint foreign = line.points().get(0);
        assertThat(foreign.line().place().id()).isEqualTo(share.id());
        assertThat(holders(foreign)).containsExactly("file-server:common");
        assertThat(foreign.onlyOne()).isTrue();
        assertThat(holders(line.points().get(1))).containsExactly("vault", "file-server:common");
    }

    @Test
    void aFileIsRecognisedByItsContentUnderTheSameName() throws IOException {
        rig.desk.save("contracts/lease.odt", "the lease as signed");
        rig.desk.capture();
        Place library = rig.place(SystemKind.LIBRARY, "Contracts");
        rig.put(library, "2026/Lease.odt", "the lease as drafted");
        rig.put(library, "2026/Lease.odt", "the lease as signed", "signed by both");
        rig.put(library, "2026/copy of it.odt", "the lease as signed");
        rig.put(library, "2026/empty", "");
        rig.later(Duration.ofMinutes(5));
        rig.look(library);

        MergedLine line = merged(rig.desk.line("contracts/lease.odt"));
        assertThat(line.others()).extracting(Line::path).containsExactly("2026/Lease.odt");
        assertThat(line.points()).hasSize(2);
        MergedLine back = merged(rig.line(library, "2026/Lease.odt"));
        assertThat(back.others()).extracting(Line::path).contains("contracts/lease.odt");
    }

    @Test
    void aPointOfAnotherSystemIsRestoredOntoTheFilesOwnLine() throws IOException {
        rig.desk.save("rota.csv", "mine");
        rig.desk.capture();
        Place share = rig.place(SystemKind.FILE_SERVER, "common");
        rig.relate(rig.desk.place(), "", share, "");
        rig.put(share, "rota.csv", "theirs, and good");
        rig.look(share);
        Line own = rig.desk.line("rota.csv");
        Version theirs = rig.line(share, "rota.csv").newest().orElseThrow();

        Version here = new ContentFetch(rig.vault(), rig.registry).intoVault(theirs, Progress.NONE);
        rig.desk
                .recovery()
                .restore(
                        List.of(new RestoreItem(here.borrowed(own.id(), "from the server"), "rota.csv")),
                        Collision.REPLACE,
                        Progress.NONE);

        assertThat(rig.desk.read("rota.csv")).isEqualTo("theirs, and good");
        Line after = rig.desk.line("rota.csv");
        assertThat(after.id()).isEqualTo(own.id());
        assertThat(after.versions()).hasSize(2);
        assertThat(after.newest().orElseThrow().origin()).isEqualTo(Origin.RESTORED);
        assertThat(after.originWords(after.newest().orElseThrow())).isEqualTo("restored from elsewhere");
        assertThat(after.newest().orElseThrow().note()).isEqualTo("from the server");
    }

    @Test
    void whatIsNotReachableIsFetchedFromTheNextWhoIs() throws IOException {
        Place share = rig.place(SystemKind.FILE_SERVER, "common");
        Place library = rig.place(SystemKind.LIBRARY, "Minutes");
        rig.put(share, "minutes.odt", "the minutes");
        rig.put(library, "minutes.odt", "the minutes");
        rig.look(share);
        rig.look(library);
        Version v = rig.line(library, "minutes.odt").newest().orElseThrow();
        List<String> nearest =
                holders(merged(rig.line(library, "minutes.odt")).points().get(0));
        assertThat(nearest).containsExactly("file-server:common", "library:Minutes");

        rig.outside.files().faults().away(true);
        Version taken = new ContentFetch(rig.vault(), rig.registry).intoVault(v, Progress.NONE);
        assertThat(taken.recipe().isElsewhere()).isFalse();
        assertThat(rig.text(taken)).isEqualTo("the minutes");
    }

    @Test
    void whatIsTakenInIsWholeAlsoWhereTheVaultHadItDamaged() throws Exception {
        String content = "the minutes, at some length: " + "0123456789".repeat(40);
        rig.desk.save("copy.odt", content);
        rig.desk.capture();
        rig.desk.save("copy.odt", "something else");
        rig.desk.capture();
        Place library = rig.place(SystemKind.LIBRARY, "Minutes");
        rig.put(library, "minutes.odt", content);
        rig.look(library);
        // Nobody knows yet that the vault's own copy is damaged.
        Flip.in(rig.vault(), rig.desk.line("copy.odt").version(1).orElseThrow());

        Version v = rig.line(library, "minutes.odt").newest().orElseThrow();
        Version taken = new ContentFetch(rig.vault(), rig.registry).intoVault(v, Progress.NONE);

        assertThat(taken.recipe().isElsewhere()).isFalse();
        assertThat(rig.text(taken)).isEqualTo(content);
        assertThat(rig.text(rig.desk.line("copy.odt").version(1).orElseThrow()))
                .as("the vault's own version is whole again with it")
                .isEqualTo(content);
        assertThat(rig.desk.check().lost()).isEmpty();
    }

    @Test
    void whatIsKnownToBeDamagedIsFetchedFromWhoElseHoldsIt() throws Exception {
        Place library = rig.place(SystemKind.LIBRARY, "Minutes");
        String content = "the minutes, at some length: " + "0123456789".repeat(40);
        rig.put(library, "minutes.odt", content);
        rig.look(library);
        ContentFetch fetch = new ContentFetch(rig.vault(), rig.registry);
        Version taken =
                fetch.intoVault(rig.line(library, "minutes.odt").newest().orElseThrow(), Progress.NONE);
        Flip.in(rig.vault(), taken);
        assertThat(rig.desk.check().lost()).hasSize(1);

        rig.outside.library().faults().away(true);
        assertThat(fetch.intoVault(taken, Progress.NONE))
                .as("nobody can give it")
                .isEqualTo(taken);
        rig.outside.library().faults().away(false);
        assertThat(rig.text(fetch.intoVault(taken, Progress.NONE))).isEqualTo(content);
        assertThat(rig.desk.check().lost()).isEmpty();
    }

    @Test
    void whenNobodyCanBeReachedItIsSaidWhoWasAsked() throws IOException {
        Place library = rig.place(SystemKind.LIBRARY, "Minutes");
        rig.put(library, "minutes.odt", "the minutes");
        rig.look(library);
        rig.outside.library().faults().away(true);
        Version v = rig.line(library, "minutes.odt").newest().orElseThrow();
        assertThatThrownBy(() -> new ContentFetch(rig.vault(), rig.registry).intoVault(v, Progress.NONE))
                .isInstanceOf(SystemException.Unreachable.class)
                .hasMessageContaining("library");
    }

    @Test
    void whatASystemWillSoonForgetIsSaidAndCanBeTakenIntoTheVault() throws IOException {
        Place store = rig.place(SystemKind.OBJECT_STORE, "archive", Setting.EXPIRE_DAYS, "7");
        rig.put(store, "a", "one");
        rig.put(store, "a", "two");
        rig.look(store);
        MergedPoint one = merged(rig.line(store, "a")).points().get(1);
        assertThat(one.forgottenSoon(rig.now())).isTrue();

        new ContentFetch(rig.vault(), rig.registry).intoVault(one.version().orElseThrow(), Progress.NONE);
        rig.later(Duration.ofDays(8));
        rig.look(store);
        MergedPoint kept = merged(rig.line(store, "a")).points().get(1);
        assertThat(holders(kept)).containsExactly("vault");
        assertThat(kept.forgottenAt()).isEmpty();
        assertThat(rig.text(kept.version().orElseThrow())).isEqualTo("one");
        assertThat(rig.desk.check().isClean()).isTrue();
    }
}
