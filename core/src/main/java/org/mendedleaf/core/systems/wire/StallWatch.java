package org.mendedleaf.core.systems.wire;

import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Watches that an answer keeps coming: the client's own time limit ends with the first bytes of it, and a body that
 * stands still, or comes byte by byte, would be waited for without end. Closes the stream when hardly anything came for
 * that long, which its reader sees as a dropped connection.
 */
final class StallWatch implements AutoCloseable {

    private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "stalled answers");
        thread.setDaemon(true);
        return thread;
    });

    /** What comes more slowly than this in the time that is waited does not come. Bytes. */
    private static final long LEAST = 4096;

    private final InputStream in;
    private final long most;
    private final ScheduledFuture<?> watch;
    private volatile long last = System.nanoTime();
    private volatile long since = last;
    private final AtomicLong came = new AtomicLong();

    StallWatch(InputStream in, Duration most) {
        this.in = in;
        this.most = most.toNanos();
        long step = Math.max(10, most.toMillis() / 4);
        this.watch = CLOCK.scheduleWithFixedDelay(this::look, step, step, TimeUnit.MILLISECONDS);
    }

    /** So many bytes came. */
    void moved(int bytes) {
        last = System.nanoTime();
        came.addAndGet(bytes);
    }

    private void look() {
        long now = System.nanoTime();
        boolean drips = false;
        if (now - since > most) {
            drips = came.getAndSet(0) < LEAST;
            since = now;
        }
        if (drips || now - last > most) {
            try {
                in.close();
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(StallWatch.class).debug("closing", e);
            }
        }
    }

    @Override
    public void close() {
        watch.cancel(false);
    }
}
