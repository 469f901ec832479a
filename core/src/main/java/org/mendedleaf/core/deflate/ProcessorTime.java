package org.mendedleaf.core.deflate;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;

/**
 * The processor time that the current thread has used, so that a budget of time is the same work on a machine that has much
 * else to do. Where the platform does not tell, the time that went by.
 */
final class ProcessorTime {

    private static final ThreadMXBean THREADS = ManagementFactory.getThreadMXBean();
    private static final boolean KNOWN = THREADS.isCurrentThreadCpuTimeSupported() && THREADS.isThreadCpuTimeEnabled();

    private ProcessorTime() {}

    /** Nanoseconds; only differences within one thread say anything. */
    static long nanos() {
        return KNOWN ? THREADS.getCurrentThreadCpuTime() : System.nanoTime();
    }
}
