package org.mendedleaf.core.disk;

import com.sun.nio.file.ExtendedOpenOption;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.SeekableByteChannel;

/**
 * Reads files back that were just written and synced: from the drive, past what the system keeps of them in memory, where the
 * system and the drive allow that; otherwise as any file is read. So where it does, it proves that the drive gives what it was
 * given; otherwise only that the system has it. One file and one thread at a time.
 */
public final class ReadBack {

    private static final int BYTES = 1 << 17;

    /** Reads past memory go to whole blocks of the drive, none of which is larger. */
    private static final int BLOCK_MOST = 1 << 16;

    private static final ThreadLocal<ByteBuffer> ALIGNED = ThreadLocal.withInitial(
            () -> ByteBuffer.allocateDirect(BYTES + BLOCK_MOST).alignedSlice(BLOCK_MOST));

    private final SafeFolder folder;
    private boolean past = true;

    /** Files of this folder. */
    public ReadBack(SafeFolder folder) {
        this.folder = folder;
    }

    /** Opens a file; a link is refused. */
    public InputStream open(String name) throws IOException {
        Exception refused = null;
        if (past) {
            try {
                return new Uncached(folder.read(name, ExtendedOpenOption.DIRECT), ALIGNED.get());
            } catch (UnsupportedOperationException | IOException e) {
                refused = e;
            }
        }
        SeekableByteChannel usual = folder.read(name);
        if (refused != null) {
            org.slf4j.LoggerFactory.getLogger(ReadBack.class).debug("files are read from memory", refused);
            past = false;
        }
        return Channels.newInputStream(usual);
    }

    /** Whether files are read past what is kept of them in memory, as far as is known by now. */
    public boolean isPastMemory() {
        return past;
    }

    /** Reads whole blocks; one that is not whole is the last. */
    private static final class Uncached extends InputStream {
        private final SeekableByteChannel channel;
        private final ByteBuffer buffer;
        private boolean ended;

        Uncached(SeekableByteChannel channel, ByteBuffer buffer) {
            this.channel = channel;
            this.buffer = buffer;
            buffer.limit(0);
        }

        private boolean fill() throws IOException {
            if (!buffer.hasRemaining() && !ended) {
                buffer.clear().limit(BYTES);
                int n = channel.read(buffer);
                ended = n < BYTES;
                buffer.flip();
            }
            return buffer.hasRemaining();
        }

        @Override
        public int read() throws IOException {
            return fill() ? buffer.get() & 0xff : -1;
        }

        @Override
        public int read(byte[] into, int from, int length) throws IOException {
            if (length == 0) {
                return 0;
            }
            if (!fill()) {
                return -1;
            }
            int n = Math.min(length, buffer.remaining());
            buffer.get(into, from, n);
            return n;
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }
}
