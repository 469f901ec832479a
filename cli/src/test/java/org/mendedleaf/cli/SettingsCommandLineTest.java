package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.ExitCodes;

class SettingsCommandLineTest extends TerminalTest {

    @BeforeEach
    void office() throws IOException {
        save("ledger.csv", "one");
        protect();
    }

    private JsonNode place() throws IOException {
        return json("status").get(0).get("places").get(0);
    }

    @Test
    void oneSettingIsChangedAndTheOthersStay() throws IOException {
        assertThat(run("set", desk.toString(), "--every", "daily", "--at", "17.30"))
                .isZero();
        assertThat(out).contains("Captured: on every save -> every day at 17:30");
        assertThat(run("set", desk.toString(), "--exclude", "*.iso")).isZero();
        assertThat(out).contains("Captured: every day at 17:30").contains("Left out: nothing of yours -> *.iso");
        assertThat(run("set", desk.toString(), "--at", "8")).isZero();
        assertThat(place().get("every").asText()).isEqualTo("daily 08:00");
        assertThat(place().get("exclusions").get(0).asText()).isEqualTo("*.iso");
        run("set", desk.toString(), "--every", "weekly", "--at", "tue 9:15");
        run("set", desk.toString(), "--at", "10:00");
        assertThat(place().get("every").asText()).isEqualTo("weekly tue 10:00");
        run("set", desk.toString(), "--include", "*.iso");
        assertThat(place().get("exclusions")).isEmpty();
    }

    @Test
    void aPlanChangesNothing() throws IOException {
        JsonNode plan = json("set", desk.toString(), "--every", "60", "--versions", "off", "--plan");
        assertThat(plan.get("after").get("every").asText()).isEqualTo("60");
        assertThat(plan.get("after").get("versions").asText()).isEqualTo("off");
        assertThat(plan.get("changed").asBoolean()).isFalse();
        assertThat(place().get("every").asText()).isEqualTo("save");
        assertThat(place().get("versions").asText()).isEqualTo("on");
        run("set", desk.toString());
        assertThat(out).contains("It is set like that already.");
    }

    @Test
    void theNextRunStandsInTheStatus() throws IOException {
        run("set", desk.toString(), "--every", "daily", "--at", "18:00");
        run("status");
        assertThat(out).contains("captured every day at 18:00, last").contains("next Mon 4 May 18:00");
        assertThat(place().get("next").asText()).isEqualTo("2026-05-04T18:00:00Z");
        later(60 * 24 * 2);
        run("status");
        assertThat(out).contains("next now");
        assertThat(err).contains("late");
    }

    @Test
    void whatIsPausedIsNotCapturedAndSaysWhatWasMissedWhenItGoesOn() throws IOException {
        assertThat(run("set", desk.toString(), "--versions", "paused")).isZero();
        assertThat(out).contains("Versions: kept -> paused").contains("nothing is added");
        save("ledger.csv", "two");
        run("capture");
        assertThat(out).contains("is paused: nothing is captured");
        assertThat(run("capture", desk.toString())).isNotZero();
        assertThat(run("status")).as("whoever paused it meant it").isZero();
        assertThat(out).contains("1 file, paused, last captured");
        save("ledger.csv", "three");
        run("set", desk.toString(), "--versions", "on");
        assertThat(out)
                .contains("Versions: paused -> kept")
                .contains("1 file has changed since then")
                .contains("saved over meanwhile is not there");
        run("line", desk.resolve("ledger.csv").toString());
        assertThat(out).contains("2 versions").doesNotContain("3 versions");
    }

    @Test
    void whatARestoreWouldOverwriteIsKeptAlsoWhilePaused() throws IOException {
        run("set", desk.toString(), "--versions", "paused");
        String ledger = save("ledger.csv", "written while it was paused");
        assertThat(run("restore", ledger, "--version", "1")).as(err).isZero();
        assertThat(Path.of(ledger)).hasContent("one");
        assertThat(run("undo")).as(err).isZero();
        assertThat(Path.of(ledger)).hasContent("written while it was paused");
    }

    @Test
    void afterTheEndOfProtectionThePastIsThereAndItCanBeTakenUpAgain() throws IOException {
        save("ledger.csv", "two");
        run("capture");
        assertThat(run("unprotect", desk.toString(), "--plan")).isZero();
        assertThat(out).contains("would no longer be protected").contains("2 versions stay");
        assertThat(place().get("versions").asText()).isEqualTo("on");
        assertThat(run("unprotect", desk.toString())).isZero();
        assertThat(out).contains("is no longer protected").contains("They stay until somebody lets them go");
        save("ledger.csv", "three");
        run("capture");
        assertThat(out).isEmpty();
        Files.delete(desk.resolve("ledger.csv"));
        assertThat(run("restore", desk.resolve("ledger.csv").toString(), "--version", "2"))
                .as(err)
                .isZero();
        assertThat(desk.resolve("ledger.csv")).hasContent("two");
        run("unprotect", desk.toString());
        assertThat(out).contains("is not protected already");
        protect();
        assertThat(out).contains("it goes on now");
        assertThat(place().get("versions").asText()).isEqualTo("on");
    }

    @Test
    void whatCannotBeIsRefusedInWords() throws IOException {
        Files.createDirectories(desk.resolve("sub"));
        assertThat(run("set", desk.toString(), "--at", "9")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("\"daily\" or \"weekly\"");
        assertThat(run("set", desk.toString(), "--include", "*.zip")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("\"*.zip\" is not left out");
        assertThat(run("set", desk.resolve("sub").toString(), "--every", "hand"))
                .isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("whole folder");
        assertThat(run("unprotect", temp.resolve("elsewhere").toString())).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(place().get("every").asText()).isEqualTo("save");
    }

    @Test
    void whatEverySettingMeansIsTold() throws IOException {
        assertThat(run("place", "settings")).as(err).isZero();
        assertThat(out)
                .contains("Protected folders:")
                .contains("office library:")
                .contains("drafts")
                .doesNotContain("{0}");
        JsonNode folder = json("place", "settings", "folder");
        assertThat(folder).hasSizeGreaterThan(10);
        assertThat(folder)
                .allMatch(s -> s.get("kind").asText().equals("folder")
                        && !s.get("means").asText().isBlank());
        assertThat(folder).filteredOn(s -> s.get("isDefault").asBoolean()).hasSize(8);
        assertThat(run("place", "settings", "cupboard")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("library");
        run("place", "set", desk.toString(), "--set", "colour=red");
        assertThat(err).contains("numbering").contains("quota-mb");
        run("place", "set", desk.toString(), "--set", "quota-mb=5");
        assertThat(err).contains("It has: versioning, numbering").doesNotContain("There are");
        run("place", "set", desk.toString(), "--set", "keep-versions=5000000");
        assertThat(err).contains("from 0 to 1,000,000");
    }

    @Test
    void settingsStandInTheJournal() throws IOException {
        run("set", desk.toString(), "--every", "60");
        run("unprotect", desk.toString());
        run("journal");
        assertThat(out).contains("Captured: on every save -> every 60 minutes").contains("Versions: kept -> off");
    }

    @Test
    void whatIsDamagedIsNamedWithWhereAndWhatWasExpected() throws IOException {
        save("a.txt", "1");
        assertThat(protect()).isZero();
        Path rules = temp.resolve("rules.yaml");
        Files.write(rules, new byte[] {(byte) 0xff, (byte) 0xfe, 'r', 0});
        assertThat(run("rules", "set", rules.toString())).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("rules.yaml is not text in UTF-8");
        Files.writeString(rules, "rules:\n  - name: All\n    capBytes: -3\n");
        assertThat(run("rules", "set", rules.toString())).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("rules[0].capBytes", "a whole number of bytes");
        Files.writeString(temp.resolve("home/settings.json"), "{\n \"vaults\": [\n");
        assertThat(run("status")).isNotZero();
        assertThat(err).contains("settings.json cannot be read (line 3: ");
    }
}
