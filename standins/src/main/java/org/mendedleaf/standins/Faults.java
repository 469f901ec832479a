package org.mendedleaf.standins;

import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;

/** What goes wrong with the next requests to a stand-in. */
public final class Faults {

    private final Deque<Fault> next = new ArrayDeque<>();
    private volatile long delayMillis;
    private volatile boolean away;
    private volatile String refused = "";

    /** Lets the next requests meet with these, one each. */
    public synchronized void schedule(Collection<Fault> faults) {
        next.addAll(faults);
    }

    /** Nothing goes wrong any more. */
    public synchronized void clear() {
        next.clear();
        delayMillis = 0;
        away = false;
        refused = "";
    }

    /** What is sent to a path with this end is refused from now on; nothing with the empty end. */
    public void refuse(String end) {
        refused = end;
    }

    boolean refuses(String method, String path) {
        return !refused.isEmpty() && method.equals("PUT") && path.endsWith(refused);
    }

    synchronized Fault take() {
        Fault fault = next.poll();
        return fault == null ? Fault.NONE : fault;
    }

    /** How long each answer takes. */
    public void delay(long millis) {
        delayMillis = millis;
    }

    long delayMillis() {
        return delayMillis;
    }

    /** Whether nobody answers. */
    public void away(boolean isAway) {
        away = isAway;
    }

    boolean isAway() {
        return away;
    }
}
