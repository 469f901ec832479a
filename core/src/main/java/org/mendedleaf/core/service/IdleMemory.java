package org.mendedleaf.core.service;

import java.lang.management.ManagementFactory;
import java.time.Duration;
import java.util.function.LongSupplier;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.disk.SystemMemory;

/**
 * Gives memory back to the system once a program that is there all day has nothing to do: what a burst of work took stays the heap's
 * otherwise. It is asked again and again; a collection costs some tens of milliseconds, so that there is one after each burst and no more.
 */
public final class IdleMemory {

    /** Less processor time than that since it was asked last is nothing to do. */
    private static final long IDLE_NANOS = Duration.ofMillis(200).toNanos();

    /** So much processor time since the last collection is worth one. */
    private static final long WORTH_NANOS = Duration.ofSeconds(3).toNanos();

    private final LongSupplier processorNanos;
    private final Runnable collect;
    private long lastAsked;
    private long lastCollected;

    /** Of this process. */
    public IdleMemory() {
        this(IdleMemory::processorNanos, IdleMemory::collect);
    }

    IdleMemory(LongSupplier processorNanos, Runnable collect) {
        this.processorNanos = processorNanos;
        this.collect = collect;
    }

    private static void collect() {
        DocumentCache.shared().forget();
        System.gc();
        SystemMemory.giveBack();
    }

    private static long processorNanos() {
        return ManagementFactory.getOperatingSystemMXBean() instanceof com.sun.management.OperatingSystemMXBean system
                ? system.getProcessCpuTime()
                : 0;
    }

    /** Gives back what is not needed, if a burst of work is over. */
    public void giveBack() {
        long now = processorNanos.getAsLong();
        boolean idle = now - lastAsked < IDLE_NANOS;
        lastAsked = now;
        if (idle && now - lastCollected > WORTH_NANOS) {
            collect.run();
            lastCollected = processorNanos.getAsLong();
            lastAsked = lastCollected;
        }
    }
}
