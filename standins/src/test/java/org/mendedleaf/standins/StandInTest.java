package org.mendedleaf.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What all stand-ins have, seen with a bare HTTP client. */
class StandInTest {

    @TempDir
    Path temp;

    private static final HttpClient CLIENT = HttpClient.newHttpClient();

    private static HttpResponse<String> send(StandIn s, String method, String path, String body, String... headers)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(s.address() + path))
                .header("Authorization", "Bearer " + s.token("ines"))
                .method(method, HttpRequest.BodyPublishers.ofString(body));
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        return CLIENT.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void itListensOnThisComputerOnlyAndIsFoundAgainWhereItWas() throws Exception {
        String address;
        String token;
        try (ObjectStore store = new ObjectStore(temp, "ines")) {
            address = store.address();
            token = store.token("ines");
            assertThat(address).startsWith("http://127.0.0.1:");
            send(store, "PUT", "/containers/c", "{}");
            send(store, "PUT", "/containers/c/objects/a", "one");
        }
        try (ObjectStore store = new ObjectStore(temp, "ines")) {
            assertThat(store.address()).isEqualTo(address);
            assertThat(store.token("ines")).isEqualTo(token);
            assertThat(send(store, "GET", "/containers/c/objects/a", "").body()).isEqualTo("one");
        }
    }

    @Test
    void nobodyElseMayReadTheTokens() throws Exception {
        assumeTrue(Files.getFileStore(temp).supportsFileAttributeView("posix"));
        Path folder = temp.resolve("all");
        try (StandIns all = new StandIns(folder, "ines")) {
            assertThat(all).isNotNull();
            assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(folder)))
                    .isEqualTo("rwx------");
        }
    }

    @Test
    void aRepeatedRequestIsAnsweredAndNotDoneAgainAlsoAfterARestart() throws Exception {
        String first;
        try (ObjectStore store = new ObjectStore(temp, "ines")) {
            send(store, "PUT", "/containers/c", "{}");
            first = send(store, "PUT", "/containers/c/objects/a", "one", "Idempotency-Key", "k")
                    .body();
        }
        try (ObjectStore store = new ObjectStore(temp, "ines")) {
            String again = send(store, "PUT", "/containers/c/objects/a", "one", "Idempotency-Key", "k")
                    .body();
            assertThat(again).isEqualTo(first);
            JsonNode versions = Book.JSON.readTree(
                    send(store, "GET", "/containers/c/versions", "").body());
            assertThat(versions.path("versions")).hasSize(1);
        }
    }

    @Test
    void itsClockGoesOnFromWhereItWasSetAndItsKnobsNeedTheToken() throws Exception {
        try (FileServer server = new FileServer(temp, "ines", 1000)) {
            assertThat(send(server, "POST", "/-/clock", "{\"now\": \"2030-01-01T00:00:00Z\"}")
                            .statusCode())
                    .isEqualTo(200);
            JsonNode state =
                    Book.JSON.readTree(send(server, "GET", "/state", "").body());
            assertThat(Instant.parse(state.path("clock").asText()))
                    .isBetween(Instant.parse("2030-01-01T00:00:00Z"), Instant.parse("2030-01-01T00:01:00Z"));
            assertThat(send(server, "POST", "/-/clock", "{\"now\": \"soon\"}").statusCode())
                    .isEqualTo(400);
            HttpRequest stranger = HttpRequest.newBuilder(URI.create(server.address() + "/-/faults"))
                    .POST(HttpRequest.BodyPublishers.ofString("{\"away\": true}"))
                    .build();
            assertThat(CLIENT.send(stranger, HttpResponse.BodyHandlers.discarding())
                            .statusCode())
                    .isEqualTo(401);
            assertThat(send(server, "GET", "/state", "").statusCode()).isEqualTo(200);
        }
    }

    @Test
    void sharesAreOrdinaryFoldersAndASnapshotDoesNotChangeWithThem() throws Exception {
        try (FileServer server = new FileServer(temp, "ines", 1_000_000)) {
            send(server, "PUT", "/shares/common", "{\"snapshot-keep\": \"3\"}");
            Path live = temp.resolve("shares/common/live");
            Files.createDirectories(live.resolve("sub"));
            Files.writeString(live.resolve("sub/by hand.txt"), "by hand");
            JsonNode snapshot = Book.JSON.readTree(
                    send(server, "POST", "/shares/common/snapshots", "{}").body());
            send(server, "PUT", "/shares/common/files/sub/by%20hand.txt", "over the wire");
            Path kept = temp.resolve("shares/common/snapshots")
                    .resolve(snapshot.path("id").asText())
                    .resolve("sub/by hand.txt");
            assertThat(kept).hasContent("by hand");
            assertThat(live.resolve("sub/by hand.txt")).hasContent("over the wire");
            send(
                    server,
                    "POST",
                    "/shares/common/takeback",
                    "{\"snapshot\": \"" + snapshot.path("id").asText() + "\", \"path\": \"sub\"}");
            assertThat(live.resolve("sub/by hand.txt")).hasContent("by hand");
            assertThat(send(server, "GET", "/shares/common/files/..%2F..%2Fbook.jsonl", "")
                            .statusCode())
                    .isEqualTo(400);
            assertThat(send(server, "PUT", "/shares/common", "{}").statusCode()).isEqualTo(409);
        }
    }

    @Test
    void aFullServerTakesNothingAndSaysSo() throws Exception {
        try (FileServer server = new FileServer(temp, "ines", 10)) {
            send(server, "PUT", "/shares/common", "{}");
            assertThat(send(server, "PUT", "/shares/common/files/a", "0123456789ab")
                            .statusCode())
                    .isEqualTo(507);
            assertThat(send(server, "GET", "/shares/common/files/a", "").statusCode())
                    .isEqualTo(404);
            assertThat(send(server, "PUT", "/shares/common/files/a", "012345").statusCode())
                    .isEqualTo(200);
        }
    }

    @Test
    void anUnpluggedDriveAnswersNothingElseAndForgetsNothing() throws Exception {
        try (BackupDrive drive = new BackupDrive(temp, "ines", 1000)) {
            send(drive, "PUT", "/sets/desk", "{}");
            drive.plug(false);
            HttpResponse<String> away = send(drive, "GET", "/sets", "");
            assertThat(away.statusCode()).isEqualTo(503);
            assertThat(away.body()).contains("unplugged");
        }
        try (BackupDrive drive = new BackupDrive(temp, "ines", 1000)) {
            assertThat(send(drive, "GET", "/sets", "").statusCode())
                    .as("still unplugged")
                    .isEqualTo(503);
            drive.plug(true);
            assertThat(send(drive, "GET", "/sets", "").body()).contains("desk");
        }
    }

    @Test
    void theLibraryIsAWebDavServer() throws Exception {
        try (Library library = new Library(temp, "ines")) {
            send(library, "PUT", "/places/Minutes", "{}");
            assertThat(send(library, "OPTIONS", "/dav/Minutes/", "")
                            .headers()
                            .firstValue("DAV")
                            .orElse(""))
                    .startsWith("1");
            assertThat(send(library, "PUT", "/dav/Minutes/none/a.txt", "x").statusCode())
                    .isEqualTo(409);
            assertThat(send(library, "MKCOL", "/dav/Minutes/2026", "").statusCode())
                    .isEqualTo(201);
            assertThat(send(library, "MKCOL", "/dav/Minutes/2026", "").statusCode())
                    .isEqualTo(409);
            assertThat(send(library, "PUT", "/dav/Minutes/2026/a%20%26%20b.txt", "one")
                            .statusCode())
                    .isEqualTo(201);
            HttpResponse<String> listing = send(library, "PROPFIND", "/dav/Minutes/", "", "Depth", "infinity");
            assertThat(listing.statusCode()).isEqualTo(207);
            assertThat(listing.body())
                    .contains("/dav/Minutes/2026/a%20%26%20b.txt")
                    .contains("<D:getcontentlength>3</D:getcontentlength>");
            assertThat(send(library, "PROPFIND", "/dav/Minutes/", "", "Depth", "1")
                            .body())
                    .doesNotContain("b.txt");
            String tag = send(library, "HEAD", "/dav/Minutes/2026/a%20%26%20b.txt", "")
                    .headers()
                    .firstValue("ETag")
                    .orElseThrow();
            assertThat(send(library, "PUT", "/dav/Minutes/2026/a%20%26%20b.txt", "x", "If-Match", "\"other\"")
                            .statusCode())
                    .isEqualTo(412);
            assertThat(send(library, "PUT", "/dav/Minutes/2026/a%20%26%20b.txt", "two", "If-Match", tag)
                            .statusCode())
                    .isEqualTo(200);
            String there = library.address() + "/dav/Minutes/2026/moved.txt";
            assertThat(send(library, "COPY", "/dav/Minutes/2026/a%20%26%20b.txt", "", "Destination", there)
                            .statusCode())
                    .isEqualTo(201);
            assertThat(send(
                                    library,
                                    "MOVE",
                                    "/dav/Minutes/2026/a%20%26%20b.txt",
                                    "",
                                    "Destination",
                                    there,
                                    "Overwrite",
                                    "F")
                            .statusCode())
                    .isEqualTo(412);
            assertThat(send(
                                    library,
                                    "MOVE",
                                    "/dav/Minutes/2026",
                                    "",
                                    "Destination",
                                    library.address() + "/dav/Minutes/2027")
                            .statusCode())
                    .isEqualTo(201);
            assertThat(send(library, "GET", "/dav/Minutes/2027/moved.txt", "").body())
                    .isEqualTo("two");
            String report = send(
                            library,
                            "REPORT",
                            "/dav/Minutes/2027/a%20%26%20b.txt",
                            "<D:version-tree xmlns:D=\"DAV:\"/>")
                    .body();
            assertThat(report).contains("<D:version-name>1<").contains("<D:version-name>2<");
            assertThat(send(library, "DELETE", "/dav/Minutes/2027", "").statusCode())
                    .isEqualTo(204);
            assertThat(send(library, "GET", "/dav/Minutes/2027/moved.txt", "").statusCode())
                    .isEqualTo(404);
        }
    }

    @Test
    void aNoteIsSetByProppatch() throws Exception {
        try (Library library = new Library(temp, "ines")) {
            send(library, "PUT", "/places/Minutes", "{}");
            send(library, "PUT", "/dav/Minutes/a.txt", "one");
            String body = "<D:propertyupdate xmlns:D=\"DAV:\"><D:set><D:prop><D:comment>signed &amp; sent</D:comment>"
                    + "</D:prop></D:set></D:propertyupdate>";
            assertThat(send(library, "PROPPATCH", "/dav/Minutes/a.txt", body).statusCode())
                    .isEqualTo(207);
            assertThat(send(library, "REPORT", "/dav/Minutes/a.txt", "version-tree")
                            .body())
                    .contains("signed &amp; sent");
        }
    }
}
