package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.io.TempDir;

/** A model without its scene; the thread of the screen is the one of the test. */
public abstract class ModelTest {

    @TempDir
    protected Path temp;

    protected final BlockingQueue<Runnable> screen = new LinkedBlockingQueue<>();

    protected void until(BooleanSupplier condition) throws InterruptedException {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
        while (!condition.getAsBoolean() && System.nanoTime() < deadline) {
            Runnable next = screen.poll(50, TimeUnit.MILLISECONDS);
            if (next != null) {
                next.run();
            }
        }
        assertThat(condition.getAsBoolean()).isTrue();
    }
}
