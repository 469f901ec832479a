package org.mendedleaf.core.vault;

import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.SeekableByteChannel;

/** A content of which any stretch can be read, in any order. */
interface ByteSource {

    /** Length of the content, bytes. */
    long size();

    /**
     * Reads a stretch.
     *
     * @throws EOFException when the content ends before it
     */
    void read(long at, byte[] into, int length) throws IOException;

    /** A content in memory. */
    static ByteSource of(byte[] bytes, int length) {
        return new ByteSource() {
            @Override
            public long size() {
                return length;
            }

            @Override
            public void read(long at, byte[] into, int n) throws IOException {
                if (at < 0 || at + n > length) {
                    throw new EOFException();
                }
                System.arraycopy(bytes, (int) at, into, 0, n);
            }
        };
    }

    /** An open file; the position of the channel is left where it is. */
    static ByteSource of(SeekableByteChannel file) throws IOException {
        long size = file.size();
        return new ByteSource() {
            @Override
            public long size() {
                return size;
            }

            @Override
            public void read(long at, byte[] into, int n) throws IOException {
                ByteBuffer buffer = ByteBuffer.wrap(into, 0, n);
                long position = file.position();
                try {
                    file.position(at);
                    while (buffer.hasRemaining()) {
                        if (file.read(buffer) < 0) {
                            throw new EOFException();
                        }
                    }
                } finally {
                    file.position(position);
                }
            }
        };
    }
}
