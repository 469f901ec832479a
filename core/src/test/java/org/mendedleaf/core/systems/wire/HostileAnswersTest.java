package org.mendedleaf.core.systems.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.systems.Budget;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;

/** Whatever another system answers, it comes to an end soon, is said clearly, and leads nowhere else. */
@Timeout(value = 60, unit = TimeUnit.SECONDS)
class HostileAnswersTest {

    private static final Duration PATIENCE = Duration.ofMillis(400);
    private static final Budget SMALL = new Budget(1000, 200_000, Duration.ofSeconds(20), 500);
    private static final Retry QUICK = new Retry(2, Duration.ofMillis(1), Duration.ofMillis(2), PATIENCE, SMALL);

    private RawServer server;

    @BeforeEach
    void start() throws IOException {
        server = new RawServer();
    }

    @AfterEach
    void stop() throws IOException {
        server.close();
    }

    private OutsideSystem open(SystemKind kind) {
        return Systems.open("far", kind, new Endpoint(server.address(), "secret"), QUICK, Clock.systemUTC());
    }

    private Http http() {
        return new Http("far", new Endpoint(server.address(), "secret"), QUICK);
    }

    /** Asks for everything that can be listed; what the first question fails with. */
    private static Throwable listed(OutsideSystem system) {
        return catchThrowable(() -> {
            system.state();
            system.places();
            switch (system.kind()) {
                case OBJECT_STORE, LIBRARY -> system.files("p", Map.of(), f -> {});
                case WEBDAV -> system.tree("p", RemoteSnapshot.LIVE);
                default -> {
                    system.cuts("p");
                    system.tree("p", "c");
                }
            }
        });
    }

    private static void body(OutputStream out, int status, String type, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        RawServer.head(out, status, "Content-Type: " + type, "Content-Length: " + bytes.length);
        out.write(bytes);
        out.flush();
    }

    private static void endless(OutputStream out, byte[] again, int pauseMillis) throws IOException {
        while (true) {
            out.write(again);
            out.flush();
            RawServer.pause(pauseMillis);
        }
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void anAnswerThatComesByteByByteIsGivenUp(SystemKind kind) {
        server.answer = (line, out) -> {
            RawServer.head(out, 200, "Content-Type: application/json");
            endless(out, new byte[] {' '}, 20);
        };
        assertThat(listed(open(kind))).isInstanceOf(SystemException.Unreachable.class);
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void anAnswerWithoutEndIsNotTaken(SystemKind kind) {
        server.answer = (line, out) -> {
            RawServer.head(out, 200);
            endless(out, "[".repeat(10_000).getBytes(StandardCharsets.US_ASCII), 0);
        };
        assertThat(listed(open(kind)))
                .isInstanceOf(SystemException.Garbled.class)
                .hasMessageContaining("answered with more than 200 kB");
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void aRefusalWithoutEndIsNotReadToItsEnd(SystemKind kind) {
        server.answer = (line, out) -> {
            RawServer.head(out, 500);
            endless(out, "no ".repeat(1000).getBytes(StandardCharsets.US_ASCII), 0);
        };
        assertThat(listed(open(kind))).isInstanceOf(SystemException.class);
        assertThatThrownBy(() -> http().download("/f", Optional.empty(), OutputStream.nullOutputStream()))
                .isInstanceOf(SystemException.Unreachable.class);
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void noAnswerAtAllIsGivenUp(SystemKind kind) {
        server.answer = (line, out) -> RawServer.pause(60_000);
        assertThat(listed(open(kind)))
                .isInstanceOf(SystemException.Unreachable.class)
                .hasMessageContaining("no answer in time");
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void elementsThatLieInEachOtherWithoutEndAreNotFollowed(SystemKind kind) {
        server.answer = (line, out) -> {
            boolean xml = kind == SystemKind.WEBDAV || kind == SystemKind.LIBRARY && line.contains("/dav/");
            body(
                    out,
                    line.startsWith("GET") ? 200 : 207,
                    "text/plain",
                    xml ? "<m>" + "<response>".repeat(15_000) : "[".repeat(150_000));
        };
        assertThat(listed(open(kind))).isInstanceOf(SystemException.Garbled.class);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "\"at\": \"+999999999-12-31T23:59:59Z\"",
                "\"at\": \"-999999999-01-01T00:00:00Z\"",
                "\"at\": \"tomorrow\"",
                "\"at\": null",
                "\"at\": [[[]]]"
            })
    void aMomentThatNoCalendarHasIsRefused(String at) {
        server.answer = (line, out) -> body(out, 200, "application/json", "[{\"id\": \"a\", " + at + "}]");
        assertThatThrownBy(() -> open(SystemKind.FILE_SERVER).cuts("p")).isInstanceOf(SystemException.Garbled.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"-1", "1e400", "99999999999999999999", "\"much\"", "1.5", "true"})
    void aSizeThatNothingHasIsRefused(String size) {
        String sha = "0".repeat(64);
        server.answer = (line, out) -> body(
                out,
                200,
                "application/json",
                "[{\"path\": \"a\", \"sha256\": \"" + sha + "\", \"modified\": \"2026-05-04T08:00:00Z\", \"size\": "
                        + size + "}]");
        assertThatThrownBy(() -> open(SystemKind.FILE_SERVER).tree("p", RemoteSnapshot.LIVE))
                .isInstanceOf(SystemException.Garbled.class);
    }

    @Test
    void aRoleThatNobodyHasIsRefused() {
        server.answer = (line, out) ->
                body(out, 200, "application/json", "[{\"name\": \"p\", \"role\": \"emperor\", \"settings\": {}}]");
        assertThatThrownBy(() -> open(SystemKind.LIBRARY).places()).isInstanceOf(SystemException.Garbled.class);
    }

    @Test
    void aKindThatDoesNotExistIsRefused() {
        server.answer = (line, out) -> body(out, 200, "application/json", "{\"kind\": \"oracle\"}");
        assertThat(catchThrowable(() -> Systems.kindOf("far", new Endpoint(server.address(), ""), QUICK)))
                .isInstanceOf(SystemException.class);
    }

    private static String files(String... hrefs) {
        StringBuilder all = new StringBuilder("<m>");
        for (String href : hrefs) {
            all.append("<response><href>")
                    .append(href)
                    .append("</href><propstat><status>HTTP/1.1 200 OK</status><prop><file-id>1</file-id>")
                    .append("<history-tag>t</history-tag></prop></propstat></response>");
        }
        return all.append("</m>").toString();
    }

    @ParameterizedTest
    @ValueSource(strings = {"/dav/p/%zz", "/dav/p/a b", "/dav/p/%"})
    void anAddressThatIsNoneIsRefused(String href) {
        server.answer = (line, out) -> body(out, 207, "text/xml", files(href));
        assertThat(catchThrowable(() -> open(SystemKind.LIBRARY).files("p", Map.of(), f -> {})))
                .isInstanceOf(SystemException.Garbled.class);
    }

    @Test
    void whatASystemSaysOfItsFilesLeadsToNoOtherSystem() throws IOException {
        try (RawServer other = new RawServer()) {
            other.answer = (line, out) -> body(out, 207, "text/xml", files());
            String host = other.address().substring("http:".length());
            for (String href : List.of(other.address() + "/dav/p/a", host + "/dav/p/a")) {
                server.answer = (line, out) -> body(out, 207, "text/xml", files(href));
                assertThat(catchThrowable(() -> open(SystemKind.LIBRARY).files("p", Map.of(), f -> {})))
                        .satisfiesAnyOf(
                                e -> assertThat(e).isNull(),
                                e -> assertThat(e).isInstanceOf(SystemException.Garbled.class));
            }
            assertThat(other.asked).as("who has no business with the token").hasValue(0);
        }
    }

    @Test
    void aDocumentTypeIsNotRead() {
        assertThatThrownBy(() -> Dav.read(
                        "<!DOCTYPE m [<!ENTITY e SYSTEM \"file:///etc/passwd\">]><m><response><href>&e;</href></response></m>"
                                .getBytes(StandardCharsets.UTF_8)))
                .isInstanceOf(SystemException.Garbled.class);
    }

    @Test
    void anAnswerIsReadWithWhateverStandsBetween() throws IOException {
        List<Dav.Resource> read =
                Dav.read(("<?xml version='1.0'?><D:multistatus xmlns:D='DAV:'><!-- a --><D:sync-token>t"
                                + "</D:sync-token><D:response><D:href> /a/ </D:href><D:propstat><D:prop><D:resourcetype>"
                                + "<D:collection/></D:resourcetype><D:getetag><![CDATA[\"e\"]]></D:getetag></D:prop>"
                                + "<D:status>HTTP/1.1 200 OK</D:status></D:propstat><D:propstat><D:prop><D:getcontentlength>7"
                                + "</D:getcontentlength></D:prop><D:status>HTTP/1.1 404 Not Found</D:status></D:propstat>"
                                + "</D:response></D:multistatus>")
                        .getBytes(StandardCharsets.UTF_8));
        assertThat(read).singleElement().satisfies(r -> {
            assertThat(r.href()).isEqualTo("/a/");
            assertThat(r.folder()).isTrue();
            assertThat(r.get("getetag")).isEqualTo("\"e\"");
            assertThat(r.size()).as("it was not found").isEqualTo(-1);
        });
    }

    @Test
    void aContentThatDropsAfterEachByteIsGivenUp() {
        server.answer = (line, out) -> {
            RawServer.head(out, line.contains("range") ? 206 : 200, "Content-Length: 100000", "ETag: \"e\"");
            out.write('a');
            out.flush();
        };
        assertThatThrownBy(() -> http().download("/f", Optional.empty(), OutputStream.nullOutputStream()))
                .isInstanceOf(SystemException.Unreachable.class);
        assertThat(server.asked.get()).isLessThan(10);
    }

    @Test
    void aContentThatDripsIsGivenUp() {
        server.answer = (line, out) -> {
            RawServer.head(out, 200, "Content-Length: 100000");
            endless(out, new byte[] {'a'}, 20);
        };
        assertThatThrownBy(() -> http().download("/f", Optional.empty(), OutputStream.nullOutputStream()))
                .isInstanceOf(SystemException.Unreachable.class);
    }

    @Test
    void aContentThatStartsAnewEachTimeIsTakenOnce() throws IOException {
        byte[] content = new byte[100_000];
        new Random(5).nextBytes(content);
        server.answer = (line, out) -> {
            // It knows no ranges, and drops the first try in the middle.
            RawServer.head(out, 200, "Content-Length: " + content.length);
            out.write(content, 0, server.asked.get() == 1 ? 60_000 : content.length);
            out.flush();
        };
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        http().download("/f", Optional.empty(), out);
        assertThat(out.toByteArray()).isEqualTo(content);
    }

    @Test
    void aContentThatIsPassedOverAndStandsStillIsGivenUp() {
        server.answer = (line, out) -> {
            RawServer.head(out, 200, "Content-Length: 100000");
            out.write(new byte[server.asked.get() == 1 ? 50_000 : 10]);
            out.flush();
            if (server.asked.get() > 1) {
                RawServer.pause(60_000);
            }
        };
        assertThatThrownBy(() -> http().download("/f", Optional.empty(), OutputStream.nullOutputStream()))
                .isInstanceOf(SystemException.Unreachable.class);
    }

    @Test
    void anythingAtAllIsAnAnswerOrATroubleOfTheSystem() {
        String sound =
                "[{\"id\": \"a\", \"at\": \"2026-05-04T08:00:00Z\", \"name\": \"p\", \"path\": \"a/b\", \"size\": 3,"
                        + " \"role\": \"owner\", \"settings\": {\"keep\": \"3\"}, \"versions\": [{}], \"sha256\": \"ab\"}]";
        Random random = new Random(11);
        for (int i = 0; i < 60; i++) {
            StringBuilder text = new StringBuilder(i % 2 == 0 ? sound : files("/dav/p/a", "/dav/p/b"));
            for (int n = random.nextInt(12); n >= 0; n--) {
                int at = random.nextInt(text.length());
                switch (random.nextInt(3)) {
                    case 0 -> text.deleteCharAt(at);
                    case 1 -> text.insert(at, (char) random.nextInt(0x300));
                    default -> text.setCharAt(at, "[]{}<>\",:0&%".charAt(random.nextInt(12)));
                }
            }
            int status = List.of(200, 207, 204, 301, 404, 418).get(random.nextInt(6));
            server.answer = (line, out) -> body(out, status, "text/plain", text.toString());
            for (SystemKind kind : SystemKind.values()) {
                Throwable thrown = listed(open(kind));
                if (thrown != null) {
                    assertThat(thrown).as("%s answers %s", kind, text).isInstanceOf(SystemException.class);
                }
            }
        }
    }
}
