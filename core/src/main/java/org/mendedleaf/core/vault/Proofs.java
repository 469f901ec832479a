package org.mendedleaf.core.vault;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;

/** Decodes records and computes their digests on two threads, beside the one that reads them. */
final class Proofs implements AutoCloseable {

    private static final int THREADS = 2;

    /** So many records wait at most; each is held in memory. */
    private static final int WAITING = 64;

    private final Semaphore waiting = new Semaphore(WAITING);
    private final List<PackRecord> wrong = Collections.synchronizedList(new ArrayList<>());
    private final Queue<Prover> free = new ConcurrentLinkedQueue<>();
    private @Nullable ExecutorService threads;
    private volatile @Nullable Throwable defect;
    private volatile boolean closed;

    /** Takes a record to be proved; waits when many are. */
    void prove(PackReader.Checked record) throws IOException {
        ExecutorService by = threads;
        if (by == null) {
            by = Executors.newFixedThreadPool(THREADS, r -> {
                Thread thread = new Thread(r, "check");
                thread.setDaemon(true);
                return thread;
            });
            threads = by;
        }
        take(1);
        by.execute(() -> {
            try {
                if (!isProved(record)) {
                    wrong.add(record.head());
                }
            } catch (RuntimeException | Error e) {
                defect = e;
            } finally {
                waiting.release();
            }
        });
    }

    private boolean isProved(PackReader.Checked record) {
        Prover idle = free.poll();
        Prover prover = idle == null ? new Prover() : idle;
        try {
            boolean proved = prover.isProved(record);
            free.add(prover);
            return proved;
        } catch (RuntimeException | Error e) {
            prover.close();
            throw e;
        } finally {
            if (closed) {
                closeFree();
            }
        }
    }

    private void closeFree() {
        for (Prover prover = free.poll(); prover != null; prover = free.poll()) {
            prover.close();
        }
    }

    private void take(int permits) throws IOException {
        try {
            waiting.acquire(permits);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        }
    }

    /** Waits for all, and gives those whose content is not what their digest says, front to back. */
    List<PackRecord> end() throws IOException {
        take(WAITING);
        waiting.release(WAITING);
        Throwable what = defect;
        if (what != null) {
            throw new IllegalStateException("a record could not be proved", what);
        }
        List<PackRecord> found = new ArrayList<>(wrong);
        found.sort(Comparator.comparingLong(PackRecord::offset));
        return found;
    }

    @Override
    public void close() {
        if (threads != null) {
            threads.shutdownNow();
        }
        closed = true;
        closeFree();
    }
}
