package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.recovery.PutResult;

class StrayCopiesTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private StrayCopies strays() {
        return new StrayCopies(
                p.vault(),
                p.place(),
                new Evidence(p.vault(), p.place(), p.clock(), VersionBytes.VAULT_ONLY),
                p.clock());
    }

    @ParameterizedTest
    @CsvSource({
        "plan.odg.bak, plan.odg",
        "plan.bak, plan",
        "plan.odg~, plan.odg",
        "plan.odg.~3~, plan.odg",
        "#plan.odg#, plan.odg",
        "~plan.odg, plan.odg",
        "plan_autosave.odg, plan.odg",
        "plan (autosaved).odg, plan.odg",
        "AutoSave of plan.odg, plan.odg",
        "Backup of plan.odg.tmp, plan.odg",
        "plan.odg.old, plan.odg"
    })
    void namesOfSafetyCopiesSayWhoseTheyAre(String name, String original) {
        assertThat(StrayName.original(name)).contains(original);
    }

    @ParameterizedTest
    @CsvSource({"plan.odg", "backup.odg", "old.txt", "~", "notes.md"})
    void ordinaryNamesSayNothing(String name) {
        assertThat(StrayName.original(name)).isEmpty();
    }

    @Test
    void safetyCopiesAreKnownByTheirContentAndTakenInAsVersions() throws IOException {
        List<String> text = new ArrayList<>(Documents.paragraphs(1, 12));
        p.save("plan.odt", Documents.openDocument("text", text));
        text.add("saved by the program and not by me");
        p.save("plan.odt.bak", Documents.openDocument("text", text));
        p.save("plan.tmp", Documents.openDocument("text", text.subList(0, 10)));
        p.save("~wrf0004.tmp", Documents.openDocument("text", text.subList(2, 12)));
        p.save("unrelated.tmp", Documents.odt(99, 12));
        p.save("noise.bak", new byte[] {1, 2, 3, 0, 5, 6});
        p.save("empty.bak", "");
        p.capture();
        List<Stray> strays = strays().find("", List.of());
        assertThat(strays)
                .extracting(s -> s.file().getFileName() + " of " + s.belongsTo() + " " + s.present())
                .containsExactly(
                        "~wrf0004.tmp of plan.odt true", "plan.tmp of plan.odt true", "plan.odt.bak of plan.odt true");
        Stray bak = strays.get(2);
        assertThat(bak.shared()).isGreaterThan(80);
        PutResult result = p.recovery().adopt(List.of(strays().revision(bak, false)), Progress.NONE);
        assertThat(result.failed()).isEmpty();
        assertThat(p.line("plan.odt").newest().orElseThrow().origin()).isEqualTo(Origin.ADOPTED);
        assertThat(p.line("plan.odt").newest().orElseThrow().note()).startsWith("safety copy plan.odt.bak of ");
        assertThat(p.path("plan.odt.bak")).exists();
        assertThat(strays().find("", List.of()).get(2).sameAs()).isEqualTo("2");
    }

    @Test
    void theCopiesOfOneFileAreFoundBesideItAndInNamedFolders() throws IOException {
        p.save("d/plan.odt", Documents.odt(1, 12));
        p.save("d/lease.odt", Documents.odt(2, 12));
        p.save("d/plan.odt.bak", Documents.odt(1, 11));
        p.save("d/lease.odt~", Documents.odt(2, 11));
        p.save("d/deeper/plan.odt.bak", Documents.odt(1, 10));
        p.capture();
        Path named = Files.createDirectories(temp.resolve("autosave"));
        Files.write(named.resolve("plan_autosave.odt"), Documents.odt(1, 10));
        assertThat(strays().of("d/plan.odt", List.of(named)))
                .extracting(s -> String.valueOf(s.file().getFileName()))
                .containsExactlyInAnyOrder("plan.odt.bak", "plan_autosave.odt");
        p.recovery().remove(List.of("d/plan.odt"));
        assertThat(strays().of("d/plan.odt", List.of()))
                .extracting(Stray::present)
                .containsExactly(false);
        assertThat(strays().of("d/nothing.odt", List.of())).isEmpty();
    }

    @Test
    void whenTheOriginalIsGoneItComesBackUnderItsRightName() throws IOException {
        byte[] plan = Documents.odt(1, 12);
        p.save("d/plan.odt", plan);
        p.save("d/plan.odt.bak", Documents.odt(1, 13));
        p.capture();
        p.recovery().remove(List.of("d/plan.odt"));
        Stray stray = strays().find("d", List.of()).get(0);
        assertThat(stray.present()).isFalse();
        assertThat(stray.belongsTo()).isEqualTo("d/plan.odt");
        p.recovery().adopt(List.of(strays().revision(stray, true)), Progress.NONE);
        assertThat(p.path("d/plan.odt")).hasBinaryContent(Documents.odt(1, 13));
        assertThat(p.path("d/plan.odt.bak")).doesNotExist();
        assertThat(p.line("d/plan.odt").versions()).hasSize(2);
    }

    @Test
    void aFileThatNobodyKnewComesBackByItsSafetyCopyAlone() throws IOException {
        p.save("other.txt", "x");
        p.capture();
        p.save("map.odt~", Documents.odt(3, 5));
        Stray stray = strays().find("", List.of()).get(0);
        assertThat(stray.belongsTo()).isEqualTo("map.odt");
        assertThat(stray.present()).isFalse();
        p.recovery().adopt(List.of(strays().revision(stray, false)), Progress.NONE);
        assertThat(p.path("map.odt")).exists();
    }

    @Test
    void foldersThatProgramsLeaveCopiesInAreLookedThroughToo() throws IOException {
        p.save("plan.odt", Documents.odt(1, 12));
        p.capture();
        Path recovery = Files.createDirectories(temp.resolve("recovery"));
        Files.write(recovery.resolve("0A3F.autosave"), Documents.odt(1, 11));
        Files.write(recovery.resolve("0A40.autosave"), Documents.odt(5, 11));
        List<Stray> strays = strays().find("", List.of(recovery, temp.resolve("nowhere")));
        assertThat(strays).extracting(s -> s.file().getFileName().toString()).containsExactly("0A3F.autosave");
        assertThat(strays.get(0).belongsTo()).isEqualTo("plan.odt");
    }
}
