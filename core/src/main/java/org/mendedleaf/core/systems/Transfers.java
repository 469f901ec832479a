package org.mendedleaf.core.systems;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Function;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Progress;

/** Several transfers at once. One that fails does not stop the others; each tries again by itself as its system asks. */
public final class Transfers {

    /** What stands in place of a reason for what was not begun, since somebody cancelled. */
    static final String NOT_STARTED = "\u0000not started";

    private static final int AT_ONCE = 4;

    private Transfers() {}

    /** One transfer. */
    public interface Transfer<T> {
        void run(T item) throws IOException;
    }

    /**
     * Runs them; returns what failed and why, by name, in the order of the items.
     *
     * @throws IOException when a vault, not a system or a file, keeps us from going on
     */
    public static <T> Map<String, String> run(
            List<T> items, Function<T, String> name, Transfer<T> transfer, Progress progress) throws IOException {
        Map<String, String> failed = new LinkedHashMap<>();
        ExecutorService threads = Executors.newFixedThreadPool(Math.max(1, Math.min(AT_ONCE, items.size())), r -> {
            Thread thread = new Thread(r, "transfer");
            thread.setDaemon(true);
            return thread;
        });
        try {
            Map<T, Future<Boolean>> running = new LinkedHashMap<>();
            for (T item : items) {
                running.put(item, threads.submit(() -> {
                    if (progress.isCancelled()) {
                        return false;
                    }
                    transfer.run(item);
                    return true;
                }));
            }
            for (Map.Entry<T, Future<Boolean>> e : running.entrySet()) {
                try {
                    if (!e.getValue().get()) {
                        failed.put(name.apply(e.getKey()), NOT_STARTED);
                    }
                } catch (ExecutionException x) {
                    Throwable cause = x.getCause();
                    if (cause instanceof org.mendedleaf.core.vault.VaultException v
                            && !(v instanceof org.mendedleaf.core.vault.VaultException.Damaged)) {
                        throw v;
                    }
                    if (cause instanceof IOException io) {
                        failed.put(name.apply(e.getKey()), Failures.words(io));
                    } else if (cause instanceof RuntimeException r) {
                        throw r;
                    } else {
                        throw new IllegalStateException(cause);
                    }
                }
            }
            return failed;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new java.io.InterruptedIOException();
        } finally {
            threads.shutdownNow();
        }
    }
}
