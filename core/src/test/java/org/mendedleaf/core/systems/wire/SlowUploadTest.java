package org.mendedleaf.core.systems.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.NoSuchFileException;
import java.time.Duration;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemException;

/** Uploads are given up when they make no headway, and not because they take long. */
class SlowUploadTest {

    private static final int BIG = 16 << 20;
    private static final Duration PATIENCE = Duration.ofMillis(400);

    private final ExecutorService threads = Executors.newCachedThreadPool();
    private final AtomicInteger tries = new AtomicInteger();
    private final AtomicLong taken = new AtomicLong();
    private volatile int pauseMillis;
    private volatile long stopsAfter = Long.MAX_VALUE;
    private HttpServer server;
    private Http http;

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(threads);
        server.createContext("/", this::take);
        server.start();
        http = http(PATIENCE);
    }

    private Http http(Duration patience) {
        URI base = URI.create("http://127.0.0.1:" + server.getAddress().getPort());
        return new Http(
                "slow",
                new Endpoint(base.toString(), ""),
                new Retry(2, Duration.ofMillis(1), Duration.ofMillis(2), patience));
    }

    @AfterEach
    void end() {
        server.stop(0);
        threads.shutdownNow();
    }

    private void take(HttpExchange exchange) throws IOException {
        tries.incrementAndGet();
        long had = 0;
        byte[] buffer = new byte[64 << 10];
        InputStream in = exchange.getRequestBody();
        for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
            had += n;
            pause(had < stopsAfter ? pauseMillis : 60_000);
        }
        taken.set(had);
        exchange.sendResponseHeaders(200, -1);
        exchange.close();
    }

    private static void pause(int millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static Http.Call put(OutsideSystem.Bytes bytes) {
        return Http.Call.of("PUT", "/file").with(bytes);
    }

    /** A file of this size that can be read up to its middle, or not at all. */
    private record Torn(boolean opens) implements OutsideSystem.Bytes {
        @Override
        public long size() {
            return 1 << 20;
        }

        @Override
        public InputStream open() throws IOException {
            if (!opens) {
                throw new NoSuchFileException("gone.txt");
            }
            return new InputStream() {
                private int had;

                @Override
                public int read() throws IOException {
                    if (++had > size() / 2) {
                        throw new IOException("a bad block");
                    }
                    return 0;
                }
            };
        }
    }

    @Test
    void anUploadThatTakesFarLongerThanTheWaitForAnAnswerSucceeds() throws IOException {
        // Long enough that a busy machine is not taken for a slow server.
        Duration patience = Duration.ofMillis(1500);
        pauseMillis = 2;
        long began = System.nanoTime();
        http(patience).send(put(Http.bytes(new byte[BIG])));
        assertThat(Duration.ofNanos(System.nanoTime() - began)).isGreaterThan(patience);
        assertThat(taken).hasValue(BIG);
        assertThat(tries).hasValue(1);
    }

    @Test
    void anUploadThatStandsStillIsGivenUpAndSaysSo() {
        stopsAfter = 1 << 20;
        assertThatThrownBy(() -> http.send(put(Http.bytes(new byte[2 * BIG]))))
                .isInstanceOf(SystemException.Unreachable.class)
                .hasMessageContaining("slow");
        assertThat(tries).hasValue(2);
    }

    @Test
    void nothingCanBeSentToo() throws IOException {
        http.send(put(Http.bytes(new byte[0])));
        assertThat(tries).hasValue(1);
        assertThat(taken).hasValue(0);
    }

    @Test
    void aFileThatIsGoneIsNoFaultOfTheSystemAndIsNotTriedAgain() {
        assertThatThrownBy(() -> http.send(put(new Torn(false))))
                .isInstanceOf(NoSuchFileException.class)
                .hasMessage("gone.txt");
        assertThat(tries.get()).isLessThanOrEqualTo(1);
    }

    @Test
    void aFileThatCannotBeReadToItsEndIsNoFaultOfTheSystem() {
        assertThatThrownBy(() -> http.send(put(new Torn(true))))
                .isInstanceOf(IOException.class)
                .isNotInstanceOf(SystemException.class)
                .hasMessage("a bad block");
        assertThat(tries.get()).isLessThanOrEqualTo(1);
    }
}
