package org.mendedleaf.core.systems.wire;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.systems.OutsideSystem.Bytes;

/**
 * One request with a body, for as long as it makes headway: however long it takes in all, it is given up only when nothing of
 * it was taken for some time. What the buffers of both ends took at once still has to go over the line, so the wait grows with
 * it: they are filled again only when much of them is through.
 */
final class Upload {

    /** What the buffers of both ends may hold between them. */
    private static final long BUFFERED = 4L << 20;

    /** So much of it is given one more wait. */
    private static final long PER_WAIT = 1L << 20;

    private final Bytes bytes;
    private final Duration patience;
    private volatile long moved = System.nanoTime();
    private final AtomicLong sent = new AtomicLong();
    private volatile @Nullable IOException unreadable;

    /**
     * An upload of these.
     *
     * @param patience how long nothing may be taken
     */
    Upload(Bytes bytes, Duration patience) {
        this.bytes = bytes;
        this.patience = patience;
    }

    BodyPublisher publisher() throws IOException {
        long size = bytes.size();
        if (size == 0) {
            return BodyPublishers.noBody();
        }
        return BodyPublishers.fromPublisher(
                BodyPublishers.ofInputStream(() -> {
                    try {
                        return new Counting(bytes.open());
                    } catch (IOException e) {
                        unreadable = e;
                        throw new UncheckedIOException(e);
                    }
                }),
                size);
    }

    /**
     * Sends it.
     *
     * @throws SourceFailed when the bytes cannot be read here, which no other try mends
     */
    HttpResponse<InputStream> send(HttpClient client, HttpRequest request) throws IOException, InterruptedException {
        CompletableFuture<HttpResponse<InputStream>> answer =
                client.sendAsync(request, HttpResponse.BodyHandlers.ofInputStream());
        long step = Math.max(10, patience.toMillis() / 8);
        try {
            while (true) {
                try {
                    return answer.get(step, TimeUnit.MILLISECONDS);
                } catch (TimeoutException e) {
                    if (System.nanoTime() - moved > most().toNanos()) {
                        throw new HttpTimeoutException("nothing was taken for " + most());
                    }
                }
            }
        } catch (ExecutionException e) {
            IOException here = unreadable;
            if (here != null) {
                throw new SourceFailed(here);
            }
            throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
        } finally {
            answer.cancel(true);
        }
    }

    private Duration most() {
        return patience.multipliedBy(1 + Math.min(sent.get(), BUFFERED) / PER_WAIT);
    }

    /** What is to be sent cannot be read. */
    static final class SourceFailed extends IOException {
        private static final long serialVersionUID = 1;
        private final IOException why;

        SourceFailed(IOException why) {
            super(why);
            this.why = why;
        }

        IOException why() {
            return why;
        }
    }

    private final class Counting extends FilterInputStream {
        Counting(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            try {
                int n = super.read(buffer, offset, length);
                moved = System.nanoTime();
                sent.addAndGet(Math.max(n, 0));
                return n;
            } catch (IOException e) {
                unreadable = e;
                throw e;
            }
        }
    }
}
