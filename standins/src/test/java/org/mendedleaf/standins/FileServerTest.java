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

/** Shares and their snapshots, as a client meets them. */
class FileServerTest {

    private static final Instant START = Instant.parse("2026-05-04T08:00:00Z");

    @TempDir
    Path temp;

    private FileServer server;
    private Asking ask;

    @BeforeEach
    void start() throws IOException {
        server = new FileServer(temp.resolve("server"), "ines", 1000);
        server.setClock(START);
        ask = new Asking(server, "ines");
        assertThat(ask.ask("PUT", "/shares/Harvest", "{\"snapshot-every\":\"hand\"}", Map.of())
                        .status())
                .isEqualTo(201);
    }

    @AfterEach
    void end() throws IOException {
        server.close();
    }

    private Asking.Said put(String path, String content, Map<String, String> headers) throws IOException {
        return ask.put("/shares/Harvest/files/" + path, content, headers);
    }

    private JsonNode tree(String query) throws IOException {
        return ask.get("/shares/Harvest/tree" + query).json();
    }

    private String snapshot(String label) throws IOException {
        return ask.post("/shares/Harvest/snapshots", "{\"label\":\"" + label + "\"}")
                .json()
                .path("id")
                .asText();
    }

    @Test
    void aFileThatIsPutIsThereWithItsDigestAndWho() throws IOException {
        assertThat(put("sub/plan.txt", "the plan", Map.of()).status()).isEqualTo(200);
        JsonNode file = tree("").get(0);
        assertThat(file.path("path").asText()).isEqualTo("sub/plan.txt");
        assertThat(file.path("sha256").asText()).isEqualTo(Asking.hex("the plan"));
        assertThat(file.path("who").asText()).isEqualTo("ines");
        assertThat(ask.get("/shares/Harvest/files/sub/plan.txt").text()).isEqualTo("the plan");
    }

    @Test
    void aSnapshotHoldsWhatWasThereWhateverComesLater() throws IOException {
        put("plan.txt", "first", Map.of());
        String id = snapshot("before the press");
        server.setClock(START.plus(Duration.ofHours(1)));
        put("plan.txt", "second", Map.of());
        put("new.txt", "later", Map.of());
        assertThat(tree("?snapshot=" + id)).hasSize(1);
        assertThat(ask.get("/shares/Harvest/files/plan.txt?snapshot=" + id).text())
                .isEqualTo("first");
        assertThat(ask.get("/shares/Harvest/files/plan.txt").text()).isEqualTo("second");
        JsonNode all = ask.get("/shares/Harvest/snapshots").json();
        assertThat(all).hasSize(1);
        assertThat(all.at("/0/label").asText()).isEqualTo("before the press");
        assertThat(ask.ask("DELETE", "/shares/Harvest/snapshots/" + id, "", Map.of())
                        .status())
                .isEqualTo(200);
        assertThat(ask.get("/shares/Harvest/tree?snapshot=" + id).status()).isEqualTo(404);
    }

    @Test
    void aFileIsTakenBackFromASnapshot() throws IOException {
        put("plan.txt", "first", Map.of());
        String id = snapshot("");
        put("plan.txt", "second", Map.of());
        assertThat(ask.post("/shares/Harvest/takeback", "{\"snapshot\":\"" + id + "\",\"path\":\"plan.txt\"}")
                        .status())
                .isEqualTo(200);
        assertThat(ask.get("/shares/Harvest/files/plan.txt").text()).isEqualTo("first");
        assertThat(ask.post("/shares/Harvest/takeback", "{\"snapshot\":\"" + id + "\",\"path\":\"none.txt\"}")
                        .status())
                .isEqualTo(404);
    }

    @Test
    void whatIsAskedOfAFileThatIsAnotherIsRefused() throws IOException {
        put("plan.txt", "first", Map.of());
        String first = '"' + Asking.hex("first") + '"';
        assertThat(put("plan.txt", "second", Map.of("If-Match", first)).status())
                .isEqualTo(200);
        assertThat(put("plan.txt", "third", Map.of("If-Match", first)).status()).isEqualTo(412);
        assertThat(put("plan.txt", "third", Map.of("If-None-Match", "*")).status())
                .isEqualTo(412);
        assertThat(put("new.txt", "new", Map.of("If-None-Match", "*")).status()).isEqualTo(200);
        assertThat(put("gone.txt", "x", Map.of("If-Match", first)).status()).isEqualTo(412);
        assertThat(ask.ask("DELETE", "/shares/Harvest/files/plan.txt", "", Map.of("If-Match", first))
                        .status())
                .isEqualTo(412);
        assertThat(ask.get("/shares/Harvest/files/plan.txt").text()).isEqualTo("second");
    }

    @Test
    void aFolderAndAFileAreNotTakenForEachOther() throws IOException {
        put("sub/plan.txt", "x", Map.of());
        assertThat(put("sub", "x", Map.of()).status()).isEqualTo(409);
        assertThat(put("sub/plan.txt/more.txt", "x", Map.of()).status()).isEqualTo(409);
        assertThat(ask.ask("DELETE", "/shares/Harvest/files/sub", "", Map.of()).status())
                .isEqualTo(404);
    }

    @Test
    void aServerWithoutRoomSaysSo() throws IOException {
        assertThat(put("a.bin", "x".repeat(900), Map.of()).status()).isEqualTo(200);
        assertThat(put("b.bin", "x".repeat(200), Map.of()).status()).isEqualTo(507);
        assertThat(ask.get("/state").json().path("used").asLong()).isEqualTo(900);
        assertThat(ask.get("/state").json().path("total").asLong()).isEqualTo(1000);
    }

    @Test
    void theSameRequestTwiceIsDoneOnce() throws IOException {
        put("plan.txt", "first", Map.of("Idempotency-Key", "k1"));
        put("plan.txt", "second", Map.of("Idempotency-Key", "k2"));
        assertThat(put("plan.txt", "first", Map.of("Idempotency-Key", "k1")).status())
                .isEqualTo(200);
        assertThat(ask.get("/shares/Harvest/files/plan.txt").text()).isEqualTo("second");
    }
}
