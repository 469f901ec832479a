package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.WritableByteChannel;
import java.nio.file.FileSystemException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Locale;

/** Writing so that it stays written. */
public final class Durable {

    private Durable() {}

    /** Writes all of a buffer. */
    public static void write(WritableByteChannel out, ByteBuffer bytes) throws IOException {
        while (bytes.hasRemaining()) {
            out.write(bytes);
        }
    }

    /** Makes the names in a folder durable; where a folder cannot be synced, its file system does it by itself. */
    public static void forceFolder(Path folder) {
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(Durable.class).debug("cannot sync folder {}", folder, e);
        }
    }

    /** Whether an I/O error says that a disk is full (or a quota used up). */
    public static boolean saysFull(Throwable error) {
        for (Throwable t = error; t != null; t = t.getCause()) {
            String text = String.valueOf(t instanceof FileSystemException f ? f.getReason() : t.getMessage());
            String lower = text.toLowerCase(Locale.ROOT);
            if (lower.contains("no space left") || lower.contains("sqlite_full") || lower.contains("quota exceeded")) {
                return true;
            }
        }
        return false;
    }

    /**
     * Brings everything of a file system to its disk at once, by the tool of the system: for thousands of small files that
     * is a fraction of what syncing each of them takes.
     *
     * @param within a folder on it
     * @return whether it was done; where not, each file has to be synced by itself
     */
    public static boolean syncAll(Path within) {
        try {
            Process sync = new ProcessBuilder("sync", "-f", within.toString())
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            return sync.waitFor() == 0;
        } catch (IOException e) {
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}
