package org.mendedleaf.core.document;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/**
 * Reads documents in a process of its own with little memory, kept warm: whatever a document does to it, that costs one
 * answer. Plain text needs no such care, and is read here. Safe for use by several threads, which wait for each other.
 */
public final class DocumentProcess implements AutoCloseable {

    /** The one that all parts of the program share; its process begins when it is first needed. */
    private static final class Shared {
        private static final DocumentProcess ONE = new DocumentProcess(Duration.ofSeconds(20), 512);

        static {
            Runtime.getRuntime().addShutdownHook(new Thread(ONE::end, "documents-end"));
        }
    }

    private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "documents-clock");
        thread.setDaemon(true);
        return thread;
    });

    private final Duration patience;
    private final int megabytes;
    private final ReentrantLock lock = new ReentrantLock();
    private @Nullable RunningWorker running;

    /**
     * One that has no process yet.
     *
     * @param patience how long one answer may take
     * @param megabytes of memory for it
     */
    public DocumentProcess(Duration patience, int megabytes) {
        this.patience = patience;
        this.megabytes = megabytes;
    }

    /** The one that all parts of the program share. */
    public static DocumentProcess shared() {
        return Shared.ONE;
    }

    /** Starts the process, if it does not run; who expects to need it soon does so beforehand. */
    public void warm() {
        Thread thread = new Thread(
                () -> {
                    lock.lock();
                    try {
                        running();
                    } catch (IOException e) {
                        // Who asks first is told.
                        org.slf4j.LoggerFactory.getLogger(DocumentProcess.class).info("no process for documents", e);
                    } finally {
                        lock.unlock();
                    }
                },
                "documents-warm");
        thread.setDaemon(true);
        thread.start();
    }

    /**
     * Reads a content; what cannot be read says why. Never fails but when it is interrupted.
     *
     * @param content all of it, or its first bytes
     * @param cut whether there is more
     */
    public Document read(String name, byte[] content, boolean cut) throws InterruptedIOException {
        if (content.length == 0 || cut || Documents.isPlain(content) && !isReadElsewhere(name)) {
            return Documents.read(name, content, cut);
        }
        try {
            return DocumentWorker.JSON.readValue(ask(DocumentWorker.READ, name, "", 0, 0, content), Document.class);
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            String type = Documents.mediaType(content, name);
            return OtherReader.read(
                    type.startsWith("text/") ? type : "application/octet-stream",
                    content,
                    String.valueOf(e.getMessage()));
        }
    }

    /** Tells whether a content is what its name says, and whole. Never fails but when it is interrupted. */
    public Health health(String name, byte[] content) throws InterruptedIOException {
        if (content.length == 0 || Documents.isPlain(content) && !isReadElsewhere(name) && !isStructured(name)) {
            return HealthReader.read(name, content, Limits.DEFAULT);
        }
        try {
            return DocumentWorker.JSON.readValue(ask(DocumentWorker.HEALTH, name, "", 0, 0, content), Health.class);
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            return Health.notRead(String.valueOf(e.getMessage()));
        }
    }

    private static boolean isStructured(String name) {
        String lower = name.toLowerCase(java.util.Locale.ROOT);
        return lower.endsWith(".json") || lower.endsWith(".xml");
    }

    /** Text whose reading is more than cutting it into lines. */
    private static boolean isReadElsewhere(String name) {
        String lower = name.toLowerCase(java.util.Locale.ROOT);
        return lower.endsWith(".svg") || lower.endsWith(".eml") || lower.endsWith(".md") || lower.endsWith(".markdown");
    }

    /** As {@link Documents#member}. */
    public byte[] member(String name, byte[] content, String path) throws IOException {
        return ask(DocumentWorker.MEMBER, name, path, 0, 0, content);
    }

    /** As {@link Documents#page}. */
    public byte[] page(byte[] content, int page, int width) throws IOException {
        return ask(DocumentWorker.PAGE, "", "", page, width, content);
    }

    private byte[] ask(int operation, String name, String path, int page, int width, byte[] content)
            throws IOException {
        try {
            lock.lockInterruptibly();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        }
        try {
            RunningWorker to = running();
            ScheduledFuture<?> alarm = CLOCK.schedule(to::stop, patience.toMillis(), TimeUnit.MILLISECONDS);
            try {
                return to.ask(operation, name, path, page, width, content);
            } catch (DocumentException e) {
                throw e;
            } catch (IOException e) {
                end();
                throw new DocumentException(Words.of(to.isStopped() ? "document.slow" : "document.crashed"), e);
            } finally {
                alarm.cancel(false);
            }
        } finally {
            lock.unlock();
        }
    }

    private RunningWorker running() throws IOException {
        RunningWorker now = running;
        if (now != null && now.isAlive()) {
            return now;
        }
        List<String> command = new ArrayList<>();
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.add("-Xmx" + megabytes + "m");
        command.add("-XX:+UseSerialGC");
        command.add("-XX:TieredStopAtLevel=1");
        command.add("-Xshare:auto");
        command.add("-XX:-UsePerfData");
        command.add("-Djava.awt.headless=true");
        command.add("-Dfile.encoding=UTF-8");
        command.add(Words.languageFlag());
        command.add("-cp");
        command.add(System.getProperty("java.class.path"));
        command.add(DocumentWorker.class.getName());
        Process process = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        RunningWorker fresh = new RunningWorker(process);
        running = fresh;
        if (!fresh.hasBegun()) {
            end();
            throw new DocumentException(Words.of("document.crashed"));
        }
        return fresh;
    }

    /** Ends the process; the next question starts another one. */
    public void end() {
        RunningWorker now = running;
        running = null;
        if (now != null) {
            now.end();
        }
    }

    @Override
    public void close() {
        lock.lock();
        try {
            end();
        } finally {
            lock.unlock();
        }
    }
}
