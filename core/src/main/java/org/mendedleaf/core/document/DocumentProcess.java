package org.mendedleaf.core.document;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/**
 * Reads documents in processes of its own with little memory, kept warm: whatever a document does to one, that costs one
 * answer. Plain text needs no such care, and is read here. Safe for use by several threads; where as many are asked at a time
 * as there may be, the next one waits.
 */
public final class DocumentProcess implements AutoCloseable {

    /** The one that all parts of the program share; its process begins when it is first needed. */
    private static final class Shared {
        private static final DocumentProcess ONE = new DocumentProcess(
                Duration.ofSeconds(20), 512, Math.min(2, Runtime.getRuntime().availableProcessors()));

        static {
            Runtime.getRuntime().addShutdownHook(new Thread(ONE::end, "documents-end"));
        }
    }

    private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "documents-clock");
        thread.setDaemon(true);
        return thread;
    });

    /** How long what a content is like may take: it is asked of thousands, one of which must not hold up all others. */
    private static final Duration LIKENESS = Duration.ofSeconds(4);

    /** After this time without questions one process is enough. */
    private static final Duration QUIET = Duration.ofSeconds(20);

    private final Duration patience;
    private final int megabytes;
    private final Semaphore free;
    private final Deque<RunningWorker> idle = new ArrayDeque<>();
    private final Set<RunningWorker> all = new HashSet<>();
    private final AtomicLong asked = new AtomicLong();
    private @Nullable ScheduledFuture<?> spare;

    /**
     * One that has no process yet.
     *
     * @param patience how long one answer may take
     * @param megabytes of memory for it
     */
    public DocumentProcess(Duration patience, int megabytes) {
        this(patience, megabytes, 1);
    }

    /**
     * One that has no processes yet.
     *
     * @param patience how long one answer may take
     * @param megabytes of memory for each
     * @param most processes at a time
     */
    public DocumentProcess(Duration patience, int megabytes, int most) {
        this.patience = patience;
        this.megabytes = megabytes;
        this.free = new Semaphore(most);
    }

    /** The one that all parts of the program share. */
    public static DocumentProcess shared() {
        return Shared.ONE;
    }

    /** Starts the process, if it does not run; who expects to need it soon does so beforehand. */
    public void warm() {
        Thread thread = new Thread(
                () -> {
                    free.acquireUninterruptibly();
                    try {
                        giveBack(take());
                    } catch (IOException e) {
                        // Who asks first is told.
                        org.slf4j.LoggerFactory.getLogger(DocumentProcess.class).info("no process for documents", e);
                    } finally {
                        free.release();
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

    /**
     * Who sent a message, and the files in it.
     *
     * @throws DocumentException when it is none that can be read
     */
    public MailMessage mail(byte[] content) throws IOException {
        return DocumentWorker.JSON.readValue(ask(DocumentWorker.MAIL, "", "", 0, 0, content), MailMessage.class);
    }

    /** The content of a file in a message by its index. */
    public byte[] attachment(byte[] content, int index) throws IOException {
        return ask(DocumentWorker.ATTACHMENT, "", "", index, 0, content);
    }

    /** As {@link Documents#page}. */
    public byte[] page(byte[] content, int page, int width) throws IOException {
        return ask(DocumentWorker.PAGE, "", "", page, width, content);
    }

    /**
     * The words of a document, from its beginning; empty where it has none, or none that can be read in time.
     *
     * @param content all of it
     */
    public String words(byte[] content) throws InterruptedIOException {
        return new String(likeness(DocumentWorker.WORDS, content), StandardCharsets.UTF_8);
    }

    /** The colours of a picture; empty where it is none that can be read in time. */
    public Optional<ColourFields> colours(byte[] content) throws InterruptedIOException {
        byte[] encoded = likeness(DocumentWorker.COLOURS, content);
        return encoded.length == 0 ? Optional.empty() : Optional.of(ColourFields.decode(encoded));
    }

    private byte[] likeness(int operation, byte[] content) throws InterruptedIOException {
        try {
            Duration time = LIKENESS.compareTo(patience) < 0 ? LIKENESS : patience;
            return ask(operation, "", "", 0, 0, content, time);
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(DocumentProcess.class).debug("nothing to compare", e);
            return new byte[0];
        }
    }

    private byte[] ask(int operation, String name, String path, int page, int width, byte[] content)
            throws IOException {
        return ask(operation, name, path, page, width, content, patience);
    }

    private byte[] ask(int operation, String name, String path, int page, int width, byte[] content, Duration time)
            throws IOException {
        try {
            free.acquire();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        }
        try {
            RunningWorker to = take();
            ScheduledFuture<?> alarm = CLOCK.schedule(to::stop, time.toMillis(), TimeUnit.MILLISECONDS);
            try {
                byte[] answer = to.ask(operation, name, path, page, width, content);
                giveBack(to);
                return answer;
            } catch (DocumentException e) {
                giveBack(to);
                throw e;
            } catch (IOException e) {
                end(to);
                throw new DocumentException(Words.of(to.isStopped() ? "document.slow" : "document.crashed"), e);
            } catch (RuntimeException | Error e) {
                // What is still in the pipe would be taken for the next answer.
                end(to);
                throw e;
            } finally {
                alarm.cancel(false);
            }
        } finally {
            free.release();
        }
    }

    /** One that nobody else asks meanwhile. */
    private RunningWorker take() throws IOException {
        asked.incrementAndGet();
        synchronized (this) {
            for (RunningWorker one = idle.pollFirst(); one != null; one = idle.pollFirst()) {
                if (one.isAlive()) {
                    return one;
                }
                all.remove(one);
            }
        }
        return begin();
    }

    private synchronized void giveBack(RunningWorker one) {
        if (!all.contains(one)) {
            // All were ended meanwhile.
            one.end();
            return;
        }
        idle.addFirst(one);
        if (idle.size() > 1) {
            long now = asked.get();
            if (spare != null) {
                spare.cancel(false);
            }
            spare = CLOCK.schedule(() -> endSpare(now), QUIET.toMillis(), TimeUnit.MILLISECONDS);
        }
    }

    /** When nobody asked since, all but one go. */
    private synchronized void endSpare(long since) {
        while (asked.get() == since && idle.size() > 1) {
            end(idle.removeLast());
        }
    }

    private synchronized void end(RunningWorker one) {
        all.remove(one);
        one.end();
    }

    private RunningWorker begin() throws IOException {
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
        synchronized (this) {
            all.add(fresh);
        }
        if (!fresh.hasBegun()) {
            end(fresh);
            throw new DocumentException(Words.of("document.crashed"));
        }
        return fresh;
    }

    /** Ends the processes; the next question starts another one. */
    public synchronized void end() {
        all.forEach(RunningWorker::end);
        all.clear();
        idle.clear();
    }

    @Override
    public void close() {
        end();
    }
}
