package org.mendedleaf.core.systems.wire;

import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;

/**
 * Watches that an answer keeps coming: the client's own time limit ends with the first bytes of it, and a body that
 * stands still would be waited for without end. Closes the stream when nothing came for that long, which its reader sees
 * as a dropped connection.
 */
final class StallWatch implements AutoCloseable {

    private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "stalled answers");
        thread.setDaemon(true);
        return thread;
    });

    private final InputStream in;
    private final long most;
    private final ScheduledFuture<?> watch;
    private volatile long last = System.nanoTime();

    StallWatch(InputStream in, Duration most) {
        this.in = in;
        this.most = most.toNanos();
        long step = Math.max(10, most.toMillis() / 4);
        this.watch = CLOCK.scheduleWithFixedDelay(this::look, step, step, TimeUnit.MILLISECONDS);
    }

    /** Something came. */
    void moved() {
        last = System.nanoTime();
    }

    private void look() {
        if (System.nanoTime() - last > most) {
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
