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
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.words.Words;

/**
 * The right to write to a vault: one process at a time, one session at a time within it. Readers need none.
 *
 * <p>On POSIX systems a process loses its lock of a file as soon as it closes <em>any</em> descriptor of that file. So what
 * this process holds stands in a register, and the file is not opened again while it does; and before each commit it is
 * looked whether the file still says what whoever took the lock last has written into it: {@link #require}.
 */
public final class VaultLock implements AutoCloseable {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(VaultLock.class);
    private static final long POLL_MILLIS = 50;

    /** The text of the file is written over in place, never cut off and written anew: that works on a full disk too. */
    private static final int TEXT = 512;

    /** Who in this process holds which vault, as a message. */
    private static final Map<Object, String> HELD = new HashMap<>();

    private final Path file;
    private final Object key;
    private final FileChannel channel;
    private final FileLock lock;
    private final @Nullable Object fileKey;
    private final byte @Nullable [] note;

    private VaultLock(Path file, Object key, FileChannel channel, FileLock lock, String holder) throws IOException {
        this.file = file;
        this.key = key;
        this.channel = channel;
        this.lock = lock;
        this.fileKey = keyOf(file);
        this.note = note(channel, holder);
    }

    /**
     * Takes the lock, waiting for it up to {@code patience}.
     *
     * @param holder who we are, as a message, for the message that others get
     * @throws VaultException.Busy when somebody else still writes then
     */
    public static VaultLock take(VaultFolder vault, String holder, Duration patience) throws IOException {
        Path file = vault.root().resolve("lock");
        long deadline = System.nanoTime() + patience.toNanos();
        Object key = keyOf(vault.root());
        Object mine = key == null ? vault.root().toRealPath() : key;
        try {
            register(vault, mine, holder, deadline);
        } catch (InterruptedException e) {
            throw interrupted(vault, HELD.getOrDefault(mine, ""));
        }
        VaultLock taken = null;
        try {
            taken = lock(vault, file, mine, holder, deadline);
            return taken;
        } catch (InterruptedException e) {
            throw interrupted(vault, LockHolder.of(file));
        } finally {
            if (taken == null) {
                release(mine);
            }
        }
    }

    private static VaultException interrupted(VaultFolder vault, String holder) {
        Thread.currentThread().interrupt();
        return new VaultException.Busy(vault.root(), holder);
    }

    private static void register(VaultFolder vault, Object key, String holder, long deadline)
            throws InterruptedException, VaultException {
        synchronized (HELD) {
            while (HELD.containsKey(key)) {
                long left = deadline - System.nanoTime();
                if (left <= 0) {
                    throw new VaultException.Busy(vault.root(), HELD.getOrDefault(key, ""));
                }
                HELD.wait(1 + left / 1_000_000);
            }
            HELD.put(key, holder);
        }
    }

    private static void release(Object key) {
        synchronized (HELD) {
            HELD.remove(key);
            HELD.notifyAll();
        }
    }

    private static VaultLock lock(VaultFolder vault, Path file, Object key, String holder, long deadline)
            throws IOException, InterruptedException {
        FileChannel channel = open(vault, file);
        Object opened = keyOf(file);
        try {
            while (true) {
                FileLock lock = tryLock(channel);
                if (lock != null && !Objects.equals(opened, keyOf(file))) {
                    // Another file has its name by now.
                    channel.close();
                    channel = open(vault, file);
                    opened = keyOf(file);
                    continue;
                }
                if (lock != null) {
                    VaultLock taken = new VaultLock(file, key, channel, lock, holder);
                    channel = null;
                    return taken;
                }
                if (System.nanoTime() >= deadline) {
                    throw new VaultException.Busy(vault.root(), LockHolder.of(file));
                }
                Thread.sleep(POLL_MILLIS);
            }
        } finally {
            if (channel != null) {
                channel.close();
            }
        }
    }

    private static FileChannel open(VaultFolder vault, Path file) throws IOException {
        try {
            vault.access().createFile(file);
            return FileChannel.open(file, Set.of(StandardOpenOption.READ, StandardOpenOption.WRITE));
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

    private static @Nullable Object keyOf(Path file) throws IOException {
        return Files.readAttributes(file, BasicFileAttributes.class).fileKey();
    }

    /** The text is a courtesy and a proof: a full disk must not keep anyone from making space. */
    private static byte @Nullable [] note(FileChannel channel, String holder) {
        byte[] text = Arrays.copyOf(LockHolder.text(UUID.randomUUID(), holder).getBytes(StandardCharsets.UTF_8), TEXT);
        try {
            writeAt(channel, text);
            return text;
        } catch (IOException e) {
            log.debug("cannot note the holder of the lock", e);
            return null;
        }
    }

    private static void writeAt(FileChannel channel, byte[] text) throws IOException {
        ByteBuffer bytes = ByteBuffer.wrap(text);
        while (bytes.hasRemaining()) {
            channel.write(bytes, bytes.position());
        }
    }

    /**
     * Makes sure that the lock is still held.
     *
     * @throws VaultException.Busy when somebody else took it meanwhile
     */
    public void require(VaultFolder vault) throws IOException {
        if (!lock.isValid() || !Objects.equals(fileKey, currentKey()) || !saysMine()) {
            throw new VaultException.Busy(vault.root(), Words.of("vault.lockLost"));
        }
    }

    private @Nullable Object currentKey() throws IOException {
        try {
            return keyOf(file);
        } catch (java.nio.file.NoSuchFileException e) {
            return "gone";
        }
    }

    private boolean saysMine() throws IOException {
        byte[] mine = note;
        if (mine == null) {
            return true;
        }
        ByteBuffer now = ByteBuffer.allocate(TEXT);
        int n = 0;
        while (now.hasRemaining() && n >= 0) {
            n = channel.read(now, now.position());
        }
        return Arrays.equals(now.array(), mine);
    }

    @Override
    public void close() throws IOException {
        try {
            lock.release();
            channel.close();
        } finally {
            release(key);
        }
    }
}
