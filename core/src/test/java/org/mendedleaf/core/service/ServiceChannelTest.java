package org.mendedleaf.core.service;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** How the service is asked and ended, and by whom not. */
class ServiceChannelTest {

    @TempDir
    private Path settings;

    private final CountDownLatch ended = new CountDownLatch(1);

    private ServiceChannel open() throws IOException {
        return ServiceChannel.open(settings, () -> ServiceChannel.answer().put("process", 42), ended::countDown)
                .orElseThrow();
    }

    @Test
    void itSaysHowItStandsAndEndsWhenItIsAsked() throws Exception {
        assertThat(ServiceChannel.status(settings)).as("before it runs").isEmpty();
        try (ServiceChannel channel = open()) {
            assertThat(ServiceChannel.status(settings)
                            .orElseThrow()
                            .path("process")
                            .asInt())
                    .isEqualTo(42);
            assertThat(ended.getCount()).isEqualTo(1);
            assertThat(ServiceChannel.stop(settings)).isPresent();
            assertThat(ended.await(20, TimeUnit.SECONDS)).isTrue();
        }
        assertThat(ServiceChannel.status(settings)).as("after it ended").isEmpty();
        assertThat(settings.resolve("service.json")).doesNotExist();
    }

    @Test
    void oneUserHasOneServiceAndItsPlaceIsFreeOnceItEnded() throws Exception {
        try (ServiceChannel channel = open()) {
            assertThat(ServiceChannel.open(settings, ServiceChannel::answer, () -> {}))
                    .isEmpty();
            assertThat(ServiceChannel.status(settings))
                    .as("the first still answers")
                    .isPresent();
        }
        open().close();
    }

    @Test
    void whoCannotReadTheWordIsToldNothingAndEndsNothing() throws Exception {
        try (ServiceChannel channel = open()) {
            Path file = settings.resolve("service.json");
            assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                    .isEqualTo("rw-------");
            JsonNode at = new ObjectMapper().readTree(Files.readString(file));
            for (String line : new String[] {"stop\n", "wrong stop\n", " stop\n", "\n", "x".repeat(5_000) + "\n"}) {
                assertThat(answer(at.path("port").asInt(), line)).as(line).isEmpty();
            }
            assertThat(answer(at.path("port").asInt(), at.path("word").asText() + " status\n"))
                    .contains("42");
            assertThat(ended.getCount()).as("it goes on").isEqualTo(1);
        }
    }

    @Test
    void whatAKilledServiceLeftBehindAnswersNobodyAndHoldsNobodyUp() throws Exception {
        Files.writeString(settings.resolve("service.json"), "{\"port\": 1, \"word\": \"old\"}");
        assertThat(ServiceChannel.status(settings)).isEmpty();
        Files.writeString(settings.resolve("service.json"), "not JSON at all");
        assertThat(ServiceChannel.status(settings)).isEmpty();
        try (ServiceChannel channel = open()) {
            assertThat(ServiceChannel.status(settings)).isPresent();
        }
    }

    private static String answer(int port, String line) throws IOException {
        try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port)) {
            socket.setSoTimeout(20_000);
            socket.getOutputStream().write(line.getBytes(StandardCharsets.UTF_8));
            socket.shutdownOutput();
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        } catch (java.net.SocketException e) {
            // It was closed before all of it was read.
            return "";
        }
    }
}
