package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.systems.wire.Systems;

/** What never comes to its end elsewhere comes to an end here, and is told. */
class EndlessListingTest {

    private static final Budget SMALL = new Budget(100, 20_000, Duration.ofSeconds(60), 500);

    @TempDir
    Path temp;

    private HttpServer server;
    private final AtomicInteger asked = new AtomicInteger();
    private Function<HttpExchange, String> answer = e -> "";

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", e -> {
            asked.incrementAndGet();
            e.getRequestBody().readAllBytes();
            byte[] body = answer.apply(e).getBytes(StandardCharsets.UTF_8);
            e.sendResponseHeaders(e.getRequestMethod().equals("PROPFIND") ? 207 : 200, body.length);
            e.getResponseBody().write(body);
            e.close();
        });
        server.start();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private OutsideSystem open(SystemKind kind, Budget budget) {
        Retry retry = new Retry(1, Duration.ofMillis(1), Duration.ofMillis(1), Duration.ofSeconds(10), budget);
        return Systems.open(
                "far",
                kind,
                new Endpoint("http://127.0.0.1:" + server.getAddress().getPort(), ""),
                retry,
                Clock.systemUTC());
    }

    /** A folder of a WebDAV server that holds one folder more, and a file. */
    private static String oneMore(HttpExchange e) {
        String at = e.getRequestURI().getRawPath();
        String folder = at.endsWith("/") ? at : at + "/";
        return multistatus(folder, true) + multistatus(folder + "a/", true) + multistatus(folder + "f.txt", false);
    }

    private static String multistatus(String href, boolean folder) {
        return "<D:response><D:href>" + href + "</D:href><D:propstat><D:prop><D:resourcetype>"
                + (folder ? "<D:collection/>" : "")
                + "</D:resourcetype><D:getcontentlength>1</D:getcontentlength></D:prop>"
                + "<D:status>HTTP/1.1 200 OK</D:status></D:propstat></D:response>";
    }

    private static String wrapped(String responses) {
        return "<?xml version=\"1.0\"?><D:multistatus xmlns:D=\"DAV:\">" + responses + "</D:multistatus>";
    }

    @Test
    void foldersInEachOtherWithoutEndStopAtTheNumberOfEntries() {
        answer = e -> wrapped(oneMore(e));
        assertThatThrownBy(() -> open(SystemKind.WEBDAV, SMALL).tree("files", RemoteSnapshot.LIVE))
                .isInstanceOf(SystemException.Garbled.class)
                .hasMessageContaining("far lists more than 100 files and folders");
        assertThat(asked.get()).isLessThan(60);
    }

    @Test
    void foldersThatLieTooDeepAreGapsOfThatPlaceAndTheRestIsTakenIn() throws Exception {
        answer = e -> e.getRequestMethod().equals("GET") ? "x" : wrapped(oneMore(e));
        Budget shallow = new Budget(100_000, 1_000_000, Duration.ofSeconds(60), 40);
        OutsideSystem system = open(SystemKind.WEBDAV, shallow);
        try (Rig rig = new Rig(temp)) {
            Place place = rig.connecting()
                    .takeIn(
                            rig.connecting()
                                    .connect(
                                            "far",
                                            SystemKind.WEBDAV,
                                            new Endpoint(
                                                    "http://127.0.0.1:"
                                                            + server.getAddress()
                                                                    .getPort(),
                                                    ""),
                                            rig.vault(),
                                            Rig.QUICK),
                            rig.vault())
                    .get(0);
            Mirror.Result result = new Mirror(rig.vault(), place, system, rig.clock()).run(Progress.NONE);
            assertThat(result.files()).isEqualTo(41);
            try (Reading reading = rig.vault().read()) {
                assertThat(reading.line(place, "f.txt")).isPresent();
                assertThat(reading.state(place).skipped())
                        .singleElement()
                        .satisfies(s -> assertThat(s.reason()).isEqualTo(Skipped.Reason.TOO_DEEP));
            }
        }
    }

    @Test
    void aContentLargerThanItWasAnnouncedIsNotTakenUntilItIsSound() throws Exception {
        String listing = wrapped(multistatus("/", true) + multistatus("/f.txt", false));
        String[] content = {"x".repeat(1_000_000)};
        answer = e -> e.getRequestMethod().equals("GET") ? content[0] : listing;
        OutsideSystem system = open(SystemKind.WEBDAV, Budget.DEFAULT);
        try (Rig rig = new Rig(temp)) {
            String address = "http://127.0.0.1:" + server.getAddress().getPort();
            Place place = rig.connecting()
                    .takeIn(
                            rig.connecting()
                                    .connect(
                                            "far",
                                            SystemKind.WEBDAV,
                                            new Endpoint(address, ""),
                                            rig.vault(),
                                            Rig.QUICK),
                            rig.vault())
                    .get(0);
            new Mirror(rig.vault(), place, system, rig.clock()).run(Progress.NONE);
            try (Reading reading = rig.vault().read()) {
                assertThat(reading.line(place, "f.txt"))
                        .as("more than the one byte it says")
                        .isEmpty();
            }
            content[0] = "y";
            new Mirror(rig.vault(), place, system, rig.clock()).run(Progress.NONE);
            try (Reading reading = rig.vault().read()) {
                assertThat(reading.line(place, "f.txt").flatMap(org.mendedleaf.core.line.Line::newest))
                        .hasValueSatisfying(v -> assertThat(v.size()).isEqualTo(1));
            }
        }
    }

    @Test
    void theSamePageAgainAndAgainIsSeen() {
        answer = e -> "{\"versions\": [], \"next\": \"here\"}";
        assertThatThrownBy(() -> open(SystemKind.OBJECT_STORE, SMALL).files("c", Map.of(), f -> {}))
                .isInstanceOf(SystemException.Garbled.class)
                .hasMessageContaining("again and again");
        assertThat(asked.get()).isEqualTo(2);
    }

    @Test
    void pagesWithoutEndStopWhenTheTimeIsOver() {
        answer = e -> "{\"versions\": [], \"next\": \"" + asked.get() + "\"}";
        Budget brief = new Budget(100, 20_000, Duration.ofMillis(200), 500);
        assertThatThrownBy(() -> open(SystemKind.OBJECT_STORE, brief).files("c", Map.of(), f -> {}))
                .isInstanceOf(SystemException.Garbled.class)
                .hasMessageContaining("still answering");
    }

    @Test
    void anAnswerOfTooManyBytesOrEntriesIsNotTaken() {
        answer = e -> "[" + "{\"id\": \"a\", \"at\": \"2026-05-04T08:00:00Z\"},".repeat(300) + "{}]";
        OutsideSystem server = open(SystemKind.FILE_SERVER, SMALL);
        assertThatThrownBy(() -> server.cuts("s")).hasMessageContaining("lists more than 100");
        answer = e -> "[" + " ".repeat(30_000) + "]";
        assertThatThrownBy(() -> server.tree("s", RemoteSnapshot.LIVE))
                .hasMessageContaining("answered with more than 20.0 kB");
        answer = e -> "[]";
        assertThat(Optional.of(server))
                .hasValueSatisfying(s -> assertThat(cuts(s)).isEmpty());
    }

    private static java.util.List<RemoteSnapshot> cuts(OutsideSystem system) {
        try {
            return system.cuts("s");
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }
}
