package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/** Reads files into the vault, and makes sure that none is stored torn. */
final class FileReader {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(FileReader.class);

    /** A file saved this shortly ago could be saved again without its time showing it. */
    private static final long FRESH_NANOS = TimeUnit.MILLISECONDS.toNanos(100);

    private final Path root;
    private final Clock systemClock;
    private final Progress progress;
    private final BooleanSupplier stop;
    private @Nullable SafeFolder open;

    /** A reader of files below {@code root}; one for each thread. */
    FileReader(Path root, Clock systemClock, Progress progress, BooleanSupplier stop) {
        this.root = root;
        this.systemClock = systemClock;
        this.progress = progress;
        this.stop = stop;
    }

    ReadTask.Result read(ReadTask task, ContentWorker worker) {
        DiskEntry entry = task.seen().entry();
        try {
            SafeFolder folder = folder(task.folder().path());
            String name = task.seen().name();
            Optional<StableRead.Whole> whole = StableRead.read(folder, name, entry.type(), worker, n -> {
                progress.advance(0, n);
                if (stop.getAsBoolean()) {
                    throw new Cancelled();
                }
            });
            if (whole.isPresent()) {
                DiskEntry now = whole.get().entry();
                return new ReadTask.Result(
                        task,
                        ReadTask.Outcome.STORED,
                        whole.get().content(),
                        now,
                        whole.get().owner(),
                        isSettled(now) && now.isUntouched(entry),
                        null);
            }
            return failed(task, ReadTask.Outcome.BUSY, entry, null);
        } catch (Cancelled e) {
            return failed(task, ReadTask.Outcome.BUSY, entry, null);
        } catch (VaultException e) {
            return failed(task, ReadTask.Outcome.VAULT_FAILED, entry, e);
        } catch (StableRead.NoTextException e) {
            return failed(task, ReadTask.Outcome.NO_TEXT, entry, null);
        } catch (NoSuchFileException e) {
            return failed(task, ReadTask.Outcome.VANISHED, entry, null);
        } catch (AccessDeniedException e) {
            return failed(task, ReadTask.Outcome.NO_PERMISSION, entry, e);
        } catch (IOException e) {
            return failed(task, ReadTask.Outcome.UNREADABLE, entry, e);
        } catch (RuntimeException | StackOverflowError | OutOfMemoryError e) {
            // Whatever is in a file, it costs that file and nothing else.
            log.warn("{} cannot be read", task.path(), e);
            return failed(task, ReadTask.Outcome.UNREADABLE, entry, new IOException(Words.of("capture.defect", e), e));
        }
    }

    /** The reading was given up because the capture was cancelled. */
    private static final class Cancelled extends RuntimeException {
        private static final long serialVersionUID = 1;
    }

    private static ReadTask.Result failed(
            ReadTask task, ReadTask.Outcome outcome, DiskEntry entry, @Nullable IOException error) {
        return new ReadTask.Result(task, outcome, null, entry, "", false, error);
    }

    private boolean isSettled(DiskEntry entry) {
        long now = TimeUnit.MILLISECONDS.toNanos(systemClock.millis());
        return Math.abs(now - entry.mtimeNanos()) > FRESH_NANOS;
    }

    private SafeFolder folder(String path) throws IOException {
        SafeFolder current = open;
        if (current != null && current.path().equals(path)) {
            return current;
        }
        close();
        SafeFolder next = SafeFolder.open(root, path);
        open = next;
        return next;
    }

    void close() {
        SafeFolder current = open;
        open = null;
        if (current != null) {
            try {
                current.close();
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(FileReader.class).debug("closing a folder", e);
            }
        }
    }
}
