package org.mendedleaf.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whatever is asked of a stand-in, nothing is read or written outside its folder, and it goes on answering others. */
@Timeout(value = 60, unit = TimeUnit.SECONDS)
class HostileRequestsTest {

    @TempDir
    Path temp;

    private Path folder;
    private StandIns all;

    @BeforeEach
    void start() throws IOException {
        Files.writeString(temp.resolve("secret.txt"), "not theirs");
        folder = temp.resolve("all");
        all = new StandIns(folder, "ines");
        for (StandIn s : all.all()) {
            Asking ask = new Asking(s, "ines");
            ask.ask("PUT", "/" + root(s) + "/p", "{}", Map.of());
        }
    }

    @AfterEach
    void end() throws IOException {
        all.close();
    }

    private static String root(StandIn s) {
        return switch (s.kind()) {
            case "library" -> "places";
            case "object-store" -> "containers";
            case "file-server" -> "shares";
            default -> "sets";
        };
    }

    private Asking server() {
        return new Asking(all.files(), "ines");
    }

    private Path live() throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(f -> f.endsWith("shares/p/live")).findFirst().orElseThrow();
        }
    }

    /** All files that are not the stand-ins' own. */
    private TreeSet<String> outside() throws IOException {
        TreeSet<String> found = new TreeSet<>();
        try (Stream<Path> files = Files.walk(temp)) {
            files.filter(f -> !f.startsWith(folder))
                    .forEach(f -> found.add(temp.relativize(f).toString()));
        }
        return found;
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"%2Ftmp%2Fx", "x%2F..%2F..%2Fx", "..", "%2E%2E", ".", "", "%2F", "a%00b", "%2e%2e%2fsecret.txt"})
    void noNameLeadsOutOfItsFolder(String name) throws IOException {
        TreeSet<String> before = outside();
        for (StandIn s : all.all()) {
            Asking ask = new Asking(s, "ines");
            for (String path : List.of(
                    "/" + root(s) + "/" + name,
                    "/" + root(s) + "/" + name + "/files/a.txt",
                    "/" + root(s) + "/p/files/" + name,
                    "/" + root(s) + "/p/files/" + name + "/b.txt",
                    "/" + root(s) + "/p/objects/" + name + "/b.txt",
                    "/dav/p/" + name + "/b.txt",
                    "/dav/" + name + "/b.txt")) {
                for (String method : List.of("GET", "PUT", "DELETE")) {
                    assertThat(ask.ask(method, path, method.equals("PUT") ? "{}" : "", Map.of())
                                    .status())
                            .as("%s %s %s", s.kind(), method, path)
                            .isBetween(200, 499);
                }
            }
        }
        assertThat(outside()).isEqualTo(before);
        assertThat(temp.resolve("secret.txt")).hasContent("not theirs");
    }

    @Test
    void aLinkInAShareIsNotFollowed() throws IOException {
        Path live = live();
        try {
            Files.createSymbolicLink(live.resolve("out"), temp);
            Files.createSymbolicLink(live.resolve("file.txt"), temp.resolve("secret.txt"));
        } catch (UnsupportedOperationException e) {
            assumeTrue(false, "no links here");
        }
        Asking ask = server();
        assertThat(ask.get("/shares/p/files/out/secret.txt").status()).isEqualTo(404);
        assertThat(ask.get("/shares/p/files/file.txt").status()).isEqualTo(404);
        assertThat(ask.put("/shares/p/files/out/new.txt", "theirs", Map.of()).status())
                .isEqualTo(404);
        assertThat(ask.ask("DELETE", "/shares/p/files/out/secret.txt", "", Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(ask.post("/shares/p/takeback", "{\"path\": \"out/secret.txt\", \"snapshot\": \"\"}")
                        .status())
                .isEqualTo(404);
        assertThat(temp.resolve("secret.txt")).hasContent("not theirs");
        assertThat(temp.resolve("new.txt")).doesNotExist();
        assertThat(ask.get("/shares/p/tree").text()).doesNotContain("secret");
    }

    @Test
    void whatIsTakenBackStaysInItsShare() throws IOException {
        Asking ask = server();
        ask.put("/shares/p/files/a..b.txt", "two dots in a name are no step", Map.of());
        String id = ask.post("/shares/p/snapshots", "{}").json().path("id").asText();
        for (String path : List.of("../../../secret.txt", "/etc/hostname", "a/../../x", "")) {
            assertThat(ask.post("/shares/p/takeback", "{\"path\": \"" + path + "\", \"snapshot\": \"../" + id + "\"}")
                            .status())
                    .isBetween(400, 499);
        }
        assertThat(ask.ask("DELETE", "/shares/p/files/a..b.txt", "", Map.of()).status())
                .isEqualTo(200);
        assertThat(ask.post("/shares/p/takeback", "{\"path\": \"a..b.txt\", \"snapshot\": \"" + id + "\"}")
                        .status())
                .isEqualTo(200);
        assertThat(live().resolve("a..b.txt")).hasContent("two dots in a name are no step");
    }

    @Test
    void aDigestThatIsNoneNamesNoFile() throws IOException {
        Asking drive = new Asking(all.drive(), "ines");
        String run = drive.post("/sets/p/runs", "{\"at\": \"2026-05-04T08:00:00Z\"}")
                .json()
                .path("id")
                .asText();
        String step = "../".repeat(18) + "../x/etc/x";
        String sha = (step + "a".repeat(64)).substring(0, 64);
        String missing = drive.post("/sets/p/runs/" + run + "/same", "[{\"path\": \"a\", \"sha256\": \"" + sha + "\"}]")
                .text();
        assertThat(missing).contains("\"a\"");
    }

    @Test
    void aRequestThatIsTooLargeIsRefusedAndTheNextOneIsAnswered() throws IOException {
        Asking ask = server();
        String large = "[" + " ".repeat(Ask.BODY_MOST) + "]";
        assertThat(ask.post("/shares/p/snapshots", large).status()).isEqualTo(413);
        assertThat(ask.post("/shares/p/snapshots", "[".repeat(100_000)).status())
                .isEqualTo(400);
        assertThat(ask.get("/state").status()).isEqualTo(200);
    }

    @Test
    void whoConnectsAndSaysNothingKeepsNobodyOut() throws Exception {
        StandIn s = all.all().get(0);
        URI address = URI.create(s.address());
        List<Socket> idle = new ArrayList<>();
        try {
            for (int i = 0; i < 40; i++) {
                Socket socket = new Socket(address.getHost(), address.getPort());
                socket.getOutputStream().write("GET /state HTTP/1.1\r\nX: ".getBytes(StandardCharsets.US_ASCII));
                socket.getOutputStream().flush();
                idle.add(socket);
            }
            assertThat(new Asking(s, "ines").get("/state").status()).isEqualTo(200);
        } finally {
            for (Socket socket : idle) {
                socket.close();
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"Bearer", "Bearer ", "Basic", "Basic !!!", "Basic OjpA", "bearer x", "\u00e4"})
    void whatIsNoTokenOpensNothing(String header) throws IOException {
        for (StandIn s : all.all()) {
            URI address = URI.create(s.address());
            try (Socket socket = new Socket(address.getHost(), address.getPort())) {
                OutputStream out = socket.getOutputStream();
                out.write(
                        ("GET /state HTTP/1.1\r\nHost: x\r\nConnection: close\r\nAuthorization: " + header + "\r\n\r\n")
                                .getBytes(StandardCharsets.UTF_8));
                out.flush();
                InputStream in = socket.getInputStream();
                assertThat(new String(in.readAllBytes(), StandardCharsets.US_ASCII))
                        .startsWith("HTTP/1.1 401");
            }
        }
    }

    @Test
    void anyRequestAtAllIsAnsweredAndLeavesTheServerWell() throws Exception {
        Random random = new Random(3);
        List<String> parts = List.of(
                "p",
                "files",
                "objects",
                "versions",
                "snapshots",
                "runs",
                "tree",
                "same",
                "finish",
                "removed",
                "..",
                "a",
                "takeback",
                "%00",
                "x%2Fy",
                "");
        List<String> bodies =
                List.of("", "{}", "[]", "null", "3", "{\"label\": [1]}", "{\"at\": 5}", "nonsense", "[[{}]]");
        for (StandIn s : all.all()) {
            Asking ask = new Asking(s, "ines");
            for (int i = 0; i < 60; i++) {
                StringBuilder path = new StringBuilder("/").append(random.nextInt(4) == 0 ? "dav" : root(s));
                for (int n = random.nextInt(4); n > 0; n--) {
                    path.append('/').append(parts.get(random.nextInt(parts.size())));
                }
                String method = List.of("GET", "PUT", "POST", "DELETE", "PROPFIND", "REPORT", "MKCOL", "HEAD")
                        .get(random.nextInt(8));
                try {
                    assertThat(ask.ask(method, path.toString(), bodies.get(random.nextInt(bodies.size())), Map.of())
                                    .status())
                            .as("%s %s %s", s.kind(), method, path)
                            .isLessThan(600);
                } catch (IOException e) {
                    // A request that makes no sense at all may be answered by closing the connection.
                    assertThat(e).as("%s %s %s", s.kind(), method, path).isNotNull();
                }
            }
            assertThat(ask.get("/state").status()).as(s.kind()).isEqualTo(200);
        }
    }
}
