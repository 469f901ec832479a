package org.mendedleaf.core.capture;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.words.Words;

/** Reads files on two threads; the thread that calls puts their points down in the order in which they come. */
final class ReadStage {

    private static final int WORKERS = 2;
    private static final int WAITING = 4096;

    private final WriteSession session;
    private final Place place;
    private final PointWriter points;
    private final Progress progress;
    private final AtomicBoolean stop = new AtomicBoolean();
    private final AtomicReference<@Nullable Throwable> died = new AtomicReference<>();

    ReadStage(WriteSession session, Place place, PointWriter points, Progress progress) {
        this.session = session;
        this.place = place;
        this.points = points;
        this.progress = progress;
    }

    /** Reads them all; false when it was cancelled before the end. */
    boolean run(List<ReadTask> tasks) throws IOException {
        long bytes = tasks.stream().mapToLong(t -> t.seen().entry().size()).sum();
        progress.begin(Words.of("capture.reading", place.name()), tasks.size(), bytes);
        BlockingQueue<ReadTask.Result> results = new ArrayBlockingQueue<>(WAITING);
        AtomicInteger next = new AtomicInteger();
        int workers = Math.min(WORKERS, Math.max(1, tasks.size() / 4));
        AtomicInteger running = new AtomicInteger(workers);
        Thread[] threads = new Thread[workers];
        for (int i = 0; i < workers; i++) {
            threads[i] = new Thread(() -> work(tasks, next, results, running), "capture-" + (i + 1));
            threads[i].setDaemon(true);
            threads[i].start();
        }
        try {
            int done = 0;
            while (done < tasks.size() && !stop.get()) {
                ReadTask.Result result = results.poll(100, java.util.concurrent.TimeUnit.MILLISECONDS);
                if (progress.isCancelled()) {
                    stop.set(true);
                }
                Throwable defect = died.get();
                if (defect != null) {
                    throw new IllegalStateException(Words.of("capture.defect", defect), defect);
                }
                if (result == null) {
                    if (running.get() == 0 && results.isEmpty() && done < tasks.size() && !stop.get()) {
                        throw new IllegalStateException("expected a result for each file, readers ended early");
                    }
                    continue;
                }
                IOException error = result.error();
                if (result.outcome() == ReadTask.Outcome.VAULT_FAILED && error != null) {
                    throw error;
                }
                if (stop.get() && result.outcome() != ReadTask.Outcome.STORED) {
                    continue;
                }
                points.take(result);
                progress.advance(1, 0);
                done++;
            }
            return !stop.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        } finally {
            stop.set(true);
            end(threads, results);
        }
    }

    private void work(
            List<ReadTask> tasks, AtomicInteger next, BlockingQueue<ReadTask.Result> results, AtomicInteger running) {
        FileReader reader = new FileReader(place.root(), Clock.systemUTC(), progress, stop::get);
        try (ContentWorker worker = new ContentWorker(session.chunks())) {
            int i = next.getAndIncrement();
            while (i < tasks.size() && !stop.get()) {
                results.put(reader.read(tasks.get(i), worker));
                i = next.getAndIncrement();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException | Error e) {
            // Told to the one who waits for it; a reader that dies in silence looks like one that was cancelled.
            died.compareAndSet(null, e);
        } finally {
            reader.close();
            running.decrementAndGet();
        }
    }

    /** Waits for the readers, taking what they still bring so that none waits for space. */
    private static void end(Thread[] threads, BlockingQueue<ReadTask.Result> results) {
        for (Thread thread : threads) {
            try {
                while (thread.isAlive()) {
                    results.clear();
                    thread.join(20);
                }
            } catch (InterruptedException e) {
                thread.interrupt();
                Thread.currentThread().interrupt();
            }
        }
    }
}
