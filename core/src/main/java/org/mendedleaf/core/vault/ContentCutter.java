package org.mendedleaf.core.vault;

import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.ReadableByteChannel;
import java.nio.channels.SeekableByteChannel;
import java.util.function.LongConsumer;

/** Reads a content and hands out its chunks in order; the same content is always cut into the same chunks. */
final class ContentCutter {

    private static final int WINDOW = 2 << 20;

    private final byte[] window;

    /** For contents of any length. */
    ContentCutter() {
        this(WINDOW);
    }

    private ContentCutter(int window) {
        this.window = new byte[window];
    }

    /** For one content of this length, bytes. */
    static ContentCutter of(long length) {
        return new ContentCutter((int) Math.min(WINDOW, length + 1));
    }

    /** Takes a chunk: {@code length} bytes from {@code from} on, which are good until it returns. */
    @FunctionalInterface
    interface Taker {
        void chunk(byte[] bytes, int from, int length) throws IOException;

        /** Told before the first chunk that the content is a ZIP file. */
        default void zip(ZipDirectory directory, ByteSource content) throws IOException {}
    }

    /**
     * Cuts what a channel gives, up to its end.
     *
     * @param read told the number of bytes after each part that was read
     * @return the length of the content, bytes
     */
    long cut(ReadableByteChannel in, LongConsumer read, Taker taker) throws IOException {
        long total = 0;
        int have = fill(in, 0, read);
        boolean ended = have < window.length;
        long[] seams = seams(in, have, ended, taker);
        int seam = 0;
        int from = 0;
        while (from < have) {
            while (seam < seams.length && seams[seam] <= total) {
                seam++;
            }
            int to = have;
            if (seam < seams.length) {
                to = (int) Math.min(to, from + (seams[seam] - total));
            }
            int end = Chunker.CONTENT.cut(window, from, to);
            taker.chunk(window, from, end - from);
            total += end - from;
            from = end;
            if (!ended && have - from < Chunker.CONTENT.max()) {
                System.arraycopy(window, from, window, 0, have - from);
                have = fill(in, have - from, read);
                ended = have < window.length;
                from = 0;
            }
        }
        return total;
    }

    private int fill(ReadableByteChannel in, int from, LongConsumer read) throws IOException {
        ByteBuffer buffer = ByteBuffer.wrap(window, from, window.length - from);
        while (buffer.hasRemaining()) {
            int n = in.read(buffer);
            if (n < 0) {
                break;
            }
            read.accept(n);
        }
        return buffer.position();
    }

    private long[] seams(ReadableByteChannel in, int have, boolean ended, Taker taker) throws IOException {
        if (!ZipDirectory.startsLikeZip(window, have)) {
            return new long[0];
        }
        ByteSource content;
        if (ended) {
            content = ByteSource.of(window, have);
        } else if (in instanceof SeekableByteChannel file) {
            content = ByteSource.of(file);
        } else {
            return new long[0];
        }
        try {
            ZipDirectory directory = ZipDirectory.of(content);
            taker.zip(directory, content);
            return directory.seams();
        } catch (EOFException e) {
            // It has become shorter meanwhile; whoever asked for it to be read will notice.
            return new long[0];
        }
    }
}
