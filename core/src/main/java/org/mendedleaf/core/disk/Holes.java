package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;

/**
 * Writes a file such that stretches of zeros take no space where the file system can leave them out; it reads back the same. To
 * be ended with {@link #end}.
 */
public final class Holes {

    /** What is left out at once; the block of most file systems, bytes. */
    private static final int BLOCK = 4096;

    private final FileChannel out;
    private long at;

    /** Where in the file the bytes begin that are being written. */
    private long start;

    /** Writes into a new, empty file. */
    public Holes(FileChannel out) {
        this.out = out;
    }

    /** Appends bytes; whole blocks of zeros are passed over. */
    public void write(byte[] bytes) throws IOException {
        start = at;
        int done = 0;
        while (done < bytes.length) {
            int end = done;
            while (end < bytes.length && !isHole(bytes, end)) {
                end = next(end, bytes.length);
            }
            writeAt(bytes, done, end);
            at += end - done;
            done = end;
            while (done < bytes.length && isHole(bytes, done)) {
                done += BLOCK;
                at += BLOCK;
            }
        }
    }

    /** The start of the next block behind an index of bytes that begin where the file is written to now. */
    private int next(int index, int length) {
        return Math.min(length, index + BLOCK - (int) ((start + index) % BLOCK));
    }

    private boolean isHole(byte[] bytes, int from) {
        if ((start + from) % BLOCK != 0 || bytes.length - from < BLOCK) {
            return false;
        }
        for (int i = from; i < from + BLOCK; i++) {
            if (bytes[i] != 0) {
                return false;
            }
        }
        return true;
    }

    private void writeAt(byte[] bytes, int from, int to) throws IOException {
        ByteBuffer rest = ByteBuffer.wrap(bytes, from, to - from);
        long position = at;
        while (rest.hasRemaining()) {
            position += out.write(rest, position);
        }
    }

    /** Gives the file its length, also where it ends in zeros. */
    public void end() throws IOException {
        if (out.size() < at) {
            out.write(ByteBuffer.wrap(new byte[1]), at - 1);
        }
    }
}
