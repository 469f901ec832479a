package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.ReadableByteChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
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
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.vault.VaultException;

/** Reads files into the vault, and makes sure that none is stored torn. */
final class FileReader {

    private static final int TRIES = 3;

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
            for (int i = 0; i < TRIES; i++) {
                Optional<DiskEntry> before = folder.find(name);
                if (before.isEmpty() || before.get().type() != entry.type()) {
                    return failed(task, ReadTask.Outcome.VANISHED, entry, null);
                }
                StoredContent content = store(folder, name, before.get(), worker);
                Optional<DiskEntry> after = folder.find(name);
                if (after.isPresent()
                        && after.get().looksSame(before.get())
                        && content.length() == before.get().size()) {
                    return new ReadTask.Result(
                            task,
                            ReadTask.Outcome.STORED,
                            content,
                            after.get(),
                            folder.owner(name),
                            isSettled(after.get()) && after.get().looksSame(entry),
                            null);
                }
            }
            return failed(task, ReadTask.Outcome.BUSY, entry, null);
        } catch (Cancelled e) {
            return failed(task, ReadTask.Outcome.BUSY, entry, null);
        } catch (VaultException e) {
            return failed(task, ReadTask.Outcome.VAULT_FAILED, entry, e);
        } catch (NoSuchFileException e) {
            return failed(task, ReadTask.Outcome.VANISHED, entry, null);
        } catch (AccessDeniedException e) {
            return failed(task, ReadTask.Outcome.NO_PERMISSION, entry, e);
        } catch (IOException e) {
            return failed(task, ReadTask.Outcome.UNREADABLE, entry, e);
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

    private StoredContent store(SafeFolder folder, String name, DiskEntry before, ContentWorker worker)
            throws IOException {
        if (before.type() == DiskEntry.Type.LINK) {
            byte[] target = folder.readLink(name).getBytes(StandardCharsets.UTF_8);
            try (ReadableByteChannel in = Channels.newChannel(new java.io.ByteArrayInputStream(target))) {
                StoredContent stored = worker.store(in, n -> {});
                progress.advance(0, target.length);
                return stored;
            }
        }
        try (SeekableByteChannel in = folder.read(name)) {
            return worker.store(new Source(in), n -> {
                progress.advance(0, n);
                if (stop.getAsBoolean()) {
                    throw new Cancelled();
                }
            });
        }
    }

    /** A file whose read errors are told apart from those of the vault. */
    private record Source(SeekableByteChannel in) implements SeekableByteChannel {
        @Override
        public int read(ByteBuffer into) throws IOException {
            try {
                return in.read(into);
            } catch (FileSystemException e) {
                throw e;
            } catch (IOException e) {
                throw new FileSystemException("", null, e.getMessage());
            }
        }

        @Override
        public int write(ByteBuffer from) {
            throw new java.nio.channels.NonWritableChannelException();
        }

        @Override
        public long position() throws IOException {
            return in.position();
        }

        @Override
        public SeekableByteChannel position(long position) throws IOException {
            in.position(position);
            return this;
        }

        @Override
        public long size() throws IOException {
            return in.size();
        }

        @Override
        public SeekableByteChannel truncate(long size) {
            throw new java.nio.channels.NonWritableChannelException();
        }

        @Override
        public boolean isOpen() {
            return in.isOpen();
        }

        @Override
        public void close() throws IOException {
            in.close();
        }
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
