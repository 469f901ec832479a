package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class NameStemTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "plan.odg",
                "Plan.odg",
                "plan (1).odg",
                "plan(2).odg",
                "plan [3].odg",
                "plan v2.odg",
                "plan_v2.1.odg",
                "plan - v3 FINAL.odg",
                "plan final.odg",
                "plan_FINAL_final.odg",
                "plan 2026-03-02.odg",
                "plan_20260302.odg",
                "plan 02.03.2026.odg",
                "plan 2026-03-02 1530.odg",
                "2026-03-02 plan.odg",
                "copy of plan.odg",
                "Copy (2) of plan.odg",
                "plan - copy.odg",
                "plan copy 2.odg",
                "Kopie van plan.odg",
                "plan rev 4.odg",
                "plan (corrected).odg",
                "plan new (1).odg",
                "old plan.odg"
            })
    void decorationsAreTakenOff(String name) {
        NameStem stem = NameStem.of(name);
        assertThat(stem.base()).isEqualTo("plan");
        assertThat(stem.ending()).isEqualTo(".odg");
        assertThat(stem.sameFile(NameStem.of("plan.odg"))).isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Invoice 001.pdf",
                "Minutes 2026-10.odt",
                "Ledger 2026.ods",
                "Chapter 12.odt",
                "v2.odt",
                "final.odt",
                "2026-03-02.csv",
                "Renewal.odt",
                "Goldfinal.txt",
                ".profile"
            })
    void whatBelongsToTheNameStays(String name) {
        NameStem stem = NameStem.of(name);
        assertThat(stem.decorated()).isFalse();
    }

    @ParameterizedTest
    @CsvSource({"plan v2.odt, 2", "plan v10 final.odt, 10", "plan rev 3 (1).odt, 3", "plan.odt, -1"})
    void aVersionNumberInTheNameTellsTheOrder(String name, int rank) {
        assertThat(NameStem.of(name).rank()).isEqualTo(rank);
    }

    @ParameterizedTest
    @CsvSource({
        "a b.odt, a c.odt",
        "plan.odt, plan.ods",
        "Invoice 001.pdf, Invoice 002.pdf",
        "Minutes 2026-09.odt, Minutes 2026-10.odt"
    })
    void otherFilesHaveOtherStems(String one, String other) {
        assertThat(NameStem.of(one).sameFile(NameStem.of(other))).isFalse();
    }

    @Property
    void everyNameHasAStemThatStaysWhatItIs(@ForAll @StringLength(min = 1, max = 60) String name) {
        NameStem stem = NameStem.of(name);
        NameStem again = NameStem.of(name);
        assertThat(again).isEqualTo(stem);
        if (!name.isBlank()) {
            assertThat(stem.base()).isNotEmpty();
        }
    }

    private static final List<String> ENDINGS = List.of(
            " (1)",
            "[23]",
            " v2",
            "_v3.1",
            " rev. 4",
            "-r7",
            " (v12)",
            " final",
            "_FINAL",
            " - new",
            ".bak",
            " ok",
            " (signed)",
            " copy",
            " copy 3",
            "_kopie2",
            " (copia)",
            " 2026-03-02",
            "_20260302",
            " 02.03.2026",
            " 2026-03-02 1530",
            " (19990131)");

    private static final List<String> BEGINNINGS = List.of(
            "copy of ",
            "Kopie (2) van ",
            "copie de ",
            "old ",
            "final_",
            "neu-",
            "2026-03-02 ",
            "20260302_",
            "1.2.1999 ");

    /** Whatever else a name has, what people add to it goes: no shortcut may pass over a pattern. */
    @Property(tries = 300)
    void everythingThatPeopleAddIsTakenOff(@ForAll Random random) {
        String stem = List.of("plan", "Invoice 001", "minutes of 19 may", "a.b", "grün 7x", "notes (x)", "r2d2 map")
                .get(random.nextInt(7));
        boolean begins = random.nextBoolean();
        String name = begins ? BEGINNINGS.get(random.nextInt(BEGINNINGS.size())) + stem : stem;
        int n = random.nextInt(3) + (begins ? 0 : 1);
        for (int i = 0; i < n; i++) {
            name = name + ENDINGS.get(random.nextInt(ENDINGS.size()));
        }
        NameStem plain = NameStem.of(stem + ".odt");
        NameStem found = NameStem.of(name + ".odt");
        assertThat(found.base()).as(name).isEqualTo(plain.base());
        assertThat(found.decorated()).as(name).isTrue();
        assertThat(NameStem.endingOf(name + ".ODT")).isEqualTo(".odt");
    }
}
