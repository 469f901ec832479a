package org.mendedleaf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Runs, room and unplugging, as a client meets them. */
class BackupDriveTest {

    private static final Instant START = Instant.parse("2026-05-04T08:00:00Z");

    @TempDir
    Path temp;

    private BackupDrive drive;
    private Asking ask;

    @BeforeEach
    void start() throws IOException {
        open(100);
        assertThat(ask.ask("PUT", "/sets/office", "{\"backup-keep\":\"1-month\"}", Map.of())
                        .status())
                .isEqualTo(201);
    }

    private void open(long bytes) throws IOException {
        drive = new BackupDrive(temp.resolve("drive"), "ines", bytes);
        drive.setClock(START);
        ask = new Asking(drive, "ines");
    }

    @AfterEach
    void end() throws IOException {
        drive.close();
    }

    private String begin(Instant at) throws IOException {
        return ask.post("/sets/office/runs", "{\"at\":\"" + at + "\"}")
                .json()
                .path("id")
                .asText();
    }

    private Asking.Said add(String run, String path, String content) throws IOException {
        return ask.put("/sets/office/runs/" + run + "/files/" + path, content, Map.of());
    }

    private void finish(String run) throws IOException {
        assertThat(ask.post("/sets/office/runs/" + run + "/finish", "{}").status())
                .isEqualTo(200);
    }

    private JsonNode runs() throws IOException {
        return ask.get("/sets/office/runs").json();
    }

    @Test
    void aRunCountsWhenItIsFinishedAndIsGoneOnWithUntilThen() throws IOException {
        String run = begin(START);
        add(run, "a.txt", "one");
        assertThat(runs()).isEmpty();
        assertThat(ask.get("/sets").json().at("/0/unfinished").asText()).isEqualTo(START.toString());
        JsonNode again = ask.post("/sets/office/runs", "{\"at\":\"" + START.plusSeconds(60) + "\"}")
                .json();
        assertThat(again.path("id").asText()).isEqualTo(run);
        assertThat(again.path("at").asText()).isEqualTo(START.toString());
        assertThat(again.path("have")).hasSize(1);
        finish(run);
        assertThat(runs()).hasSize(1);
        assertThat(add(run, "late.txt", "x").status()).isEqualTo(409);
    }

    @Test
    void aContentThatIsThereAlreadyIsOnlyNamed() throws IOException {
        String first = begin(START);
        add(first, "a.txt", "one");
        finish(first);
        String second = begin(START.plusSeconds(60));
        JsonNode missing = ask.post(
                        "/sets/office/runs/" + second + "/same",
                        "[{\"path\":\"b.txt\",\"sha256\":\"" + Asking.hex("one")
                                + "\"},{\"path\":\"c.txt\",\"sha256\":\"" + Asking.hex("two") + "\"}]")
                .json()
                .path("missing");
        assertThat(missing).hasSize(1);
        assertThat(missing.get(0).asText()).isEqualTo("c.txt");
        finish(second);
        assertThat(ask.get("/sets/office/runs/" + second + "/files/b.txt").text())
                .isEqualTo("one");
        assertThat(ask.get("/sets/office/runs/" + second + "/tree").json()).hasSize(1);
    }

    @Test
    void whatARunLeftOutIsTold() throws IOException {
        String run = begin(START);
        ask.post("/sets/office/runs/" + run + "/finish", "{\"skipped\":{\"huge.bin\":\"too large\"}}");
        assertThat(ask.get("/sets/office/runs/" + run)
                        .json()
                        .at("/skipped/huge.bin")
                        .asText())
                .isEqualTo("too large");
        String whole = begin(START.plusSeconds(60));
        finish(whole);
        assertThat(ask.get("/sets/office/runs/" + whole).json().has("skipped")).isFalse();
    }

    @Test
    void aRunCanBeGivenUpAndItsContentsGo() throws IOException {
        String run = begin(START);
        add(run, "a.txt", "one");
        assertThat(ask.ask("DELETE", "/sets/office/runs/" + run, "", Map.of()).status())
                .isEqualTo(200);
        assertThat(ask.get("/sets/office/runs/" + run).status()).isEqualTo(404);
        assertThat(begin(START.plusSeconds(60))).isNotEqualTo(run);
        assertThat(ask.get("/state").json().path("used").asLong()).isZero();
    }

    @Test
    void whatDoesNotFitIsRefusedAndTheRunStays() throws IOException {
        String run = begin(START);
        assertThat(add(run, "a.txt", "x".repeat(60)).status()).isEqualTo(200);
        Asking.Said full = add(run, "b.txt", "y".repeat(60));
        assertThat(full.status()).isEqualTo(507);
        assertThat(full.json().path("error").asText()).isEqualTo("full");
        assertThat(add(run, "c.txt", "z".repeat(40)).status()).isEqualTo(200);
        finish(run);
        assertThat(ask.get("/sets/office/runs/" + run + "/tree").json()).hasSize(2);
    }

    @Test
    void whereTheSetAllowsItTheOldestRunGoesForRoomButNeverTheNewest() throws IOException {
        ask.ask("PUT", "/sets/loose", "{\"backup-keep\":\"until-full\"}", Map.of());
        String[] runs = new String[3];
        for (int i = 0; i < 3; i++) {
            runs[i] = ask.post("/sets/loose/runs", "{\"at\":\"" + START.plusSeconds(60L * i) + "\"}")
                    .json()
                    .path("id")
                    .asText();
            assertThat(ask.put("/sets/loose/runs/" + runs[i] + "/files/a.txt", (i + "").repeat(45), Map.of())
                            .status())
                    .isEqualTo(200);
            ask.post("/sets/loose/runs/" + runs[i] + "/finish", "{}");
        }
        assertThat(ask.get("/sets/loose/runs").json()).hasSize(2);
        assertThat(ask.get("/sets/loose/runs/" + runs[0]).status()).isEqualTo(404);
    }

    @Test
    void aRunGoesWhenItsTimeIsOverButNeverTheNewest() throws IOException {
        finish(begin(START));
        drive.setClock(START.plus(Duration.ofDays(10)));
        finish(begin(START.plus(Duration.ofDays(10))));
        assertThat(runs()).hasSize(2);
        assertThat(runs().get(0).path("expires").asText()).isEqualTo("2026-06-04T08:00:00Z");
        assertThat(runs().get(1).has("expires")).as("the newest never goes").isFalse();
        drive.setClock(START.plus(Duration.ofDays(400)));
        assertThat(runs()).hasSize(1);
    }

    @Test
    void anUnpluggedDriveAnswersNothingAndIsAsItWasWhenItIsBack() throws IOException {
        finish(begin(START));
        drive.plug(false);
        assertThat(ask.get("/sets").status()).isEqualTo(503);
        assertThat(ask.get("/state").json().path("error").asText()).isEqualTo("unplugged");
        drive.close();
        open(100);
        assertThat(ask.get("/sets").status()).as("also after a start").isEqualTo(503);
        drive.plug(true);
        assertThat(runs()).hasSize(1);
    }

    @Test
    void whatIsAskedForWronglyIsRefusedByNumber() throws IOException {
        assertThat(ask.ask("PUT", "/sets/office", "{}", Map.of()).status())
                .as("twice")
                .isEqualTo(409);
        assertThat(ask.ask("PUT", "/sets/a:b", "{}", Map.of()).status()).isEqualTo(400);
        assertThat(ask.get("/sets/nowhere/runs").status()).isEqualTo(404);
        assertThat(ask.get("/sets/office/runs/none/tree").status()).isEqualTo(404);
        assertThat(ask.post("/sets/office/runs", "no json").status()).isEqualTo(400);
        assertThat(ask.get("/elsewhere").status()).isEqualTo(404);
    }

    @Test
    void anUploadThatIsNotWholeIsRefused() throws IOException {
        String run = begin(START);
        Asking.Said torn = ask.ask(
                "PUT",
                "/sets/office/runs/" + run + "/files/a.txt",
                "half",
                Map.of("Repr-Digest", "sha-256=:" + "A".repeat(43) + "=:"));
        assertThat(torn.status()).isEqualTo(422);
        finish(run);
        assertThat(ask.get("/sets/office/runs/" + run + "/tree").json()).isEmpty();
    }
}
