package org.mendedleaf.core.service;

import java.lang.management.ManagementFactory;
import java.time.Duration;
import java.util.function.LongSupplier;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.disk.SystemMemory;

/**
 * Gives memory back to the system once a program that is there all day has nothing to do: what a burst of work took stays the heap's
 * otherwise. It is asked again and again; a collection costs some tens of milliseconds, so that there is one after each burst and no more,
 * or when somebody says that much was let go. Safe for several threads.
 */
public final class IdleMemory {

    /** Less processor time than that since it was asked last is nothing to do. */
    private static final long IDLE_NANOS = Duration.ofMillis(200).toNanos();

    /** So much processor time in what was no rest, since the last collection, is worth one. */
    private static final long WORTH_NANOS = Duration.ofSeconds(3).toNanos();

    private final LongSupplier processorNanos;
    private final Runnable collect;
    private long lastAsked;
    private long worked;
    private boolean muchIsFree;

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
    public synchronized void giveBack() {
        long now = processorNanos.getAsLong();
        long since = now - lastAsked;
        lastAsked = now;
        if (since >= IDLE_NANOS) {
            worked += since;
        } else if (worked > WORTH_NANOS || muchIsFree) {
            collect.run();
            lastAsked = processorNanos.getAsLong();
            worked = 0;
            muchIsFree = false;
        }
    }

    /** Something large is not needed any longer: it is given back when there is nothing to do next, however little was done since. */
    public synchronized void muchIsFree() {
        muchIsFree = true;
    }
}
