package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/** The right to write to a vault: one process at a time, one session at a time within it. Readers need none. */
public final class VaultLock implements AutoCloseable {

    private static final long POLL_MILLIS = 50;

    private final FileChannel channel;
    private final FileLock lock;

    private VaultLock(FileChannel channel, FileLock lock) {
        this.channel = channel;
        this.lock = lock;
    }

    /**
     * Takes the lock, waiting for it up to {@code patience}.
     *
     * @param holder who we are, in words, for the message that others get
     * @throws VaultException.Busy when somebody else still writes then
     */
    public static VaultLock take(VaultFolder vault, String holder, Duration patience) throws IOException {
        Path file = vault.root().resolve("lock");
        long deadline = System.nanoTime() + patience.toNanos();
        FileChannel channel = open(vault, file);
        try {
            while (true) {
                FileLock lock = tryLock(channel);
                if (lock != null) {
                    note(channel, holder);
                    VaultLock taken = new VaultLock(channel, lock);
                    channel = null;
                    return taken;
                }
                if (System.nanoTime() >= deadline) {
                    throw new VaultException.Busy(vault.root(), holderOf(file));
                }
                Thread.sleep(POLL_MILLIS);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new VaultException.Busy(vault.root(), holderOf(file));
        } finally {
            if (channel != null) {
                channel.close();
            }
        }
    }

    private static FileChannel open(VaultFolder vault, Path file) throws IOException {
        try {
            return FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE);
        } catch (IOException e) {
            if (Durable.saysFull(e)) {
                throw new VaultException.Full(vault.root(), e);
            }
            throw new VaultException.Unavailable(Words.of("vault.notWritable", vault.root()), e);
        }
    }

    private static @Nullable FileLock tryLock(FileChannel channel) throws IOException {
        try {
            return channel.tryLock();
        } catch (OverlappingFileLockException e) {
            return null;
        }
    }

    /** The text is a courtesy: a full disk must not keep anyone from reading or from making room. */
    private static void note(FileChannel channel, String holder) {
        try {
            channel.truncate(0);
            Durable.write(channel, ByteBuffer.wrap(holder.getBytes(StandardCharsets.UTF_8)));
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(VaultLock.class).debug("cannot note the holder of the lock", e);
        }
    }

    private static String holderOf(Path file) {
        try {
            return Files.readString(file).strip();
        } catch (IOException e) {
            return Words.of("vault.someone");
        }
    }

    @Override
    public void close() throws IOException {
        lock.release();
        channel.close();
    }
}
