package org.mendedleaf.core.service;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.VaultFolder;

/** Whoever watches over a vault has it, so that a second one can say so. It goes with its process, however that ends. */
public final class WatchLock implements AutoCloseable {

    private static final String NAME = "watch.lock";

    private final @Nullable FileChannel channel;

    private WatchLock(@Nullable FileChannel channel) {
        this.channel = channel;
    }

    /** Takes it; empty when somebody else has it. Where no file can be locked nobody can say, and it is taken. */
    public static Optional<WatchLock> take(VaultFolder vault) {
        Path file = vault.root().resolve(NAME);
        try {
            vault.access().createFile(file);
            FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE);
            try {
                FileLock lock = channel.tryLock();
                if (lock == null) {
                    channel.close();
                    return Optional.empty();
                }
                return Optional.of(new WatchLock(channel));
            } catch (OverlappingFileLockException e) {
                channel.close();
                return Optional.empty();
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(WatchLock.class).info("{} cannot be locked", file, e);
            return Optional.of(new WatchLock(null));
        }
    }

    @Override
    public void close() throws IOException {
        if (channel != null) {
            channel.close();
        }
    }
}
