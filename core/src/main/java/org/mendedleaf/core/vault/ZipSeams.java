package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.SeekableByteChannel;
import java.util.Arrays;

/**
 * The places in a ZIP file where its larger members begin and end. Office documents are ZIP files: cut at these seams,
 * an unchanged picture stays one run of chunks when the text beside it changes.
 *
 * <p>Reads the end record and the central directory (PKWARE APPNOTE 6.3, sections 4.3.12 and 4.3.16) and trusts
 * nothing in them: whatever does not fit gives no seams, and a seam only ever moves a cut.
 */
final class ZipSeams {

    /** Members below this many stored bytes get no seams of their own. */
    static final int MEMBER_MIN = 4 * 1024;

    private static final int END_MAGIC = 0x06054b50;
    private static final int ENTRY_MAGIC = 0x02014b50;
    private static final int END_LENGTH = 22;
    private static final int DIRECTORY_MAX = 8 << 20;
    private static final long[] NONE = {};

    private ZipSeams() {}

    /** Whether these first bytes of a content are those of a ZIP file. */
    static boolean startsLikeZip(byte[] bytes, int length) {
        return length > 30 && bytes[0] == 'P' && bytes[1] == 'K' && bytes[2] == 3 && bytes[3] == 4;
    }

    /** Seams of a content that is wholly in memory, ascending offsets. */
    static long[] of(byte[] bytes, int length) {
        ByteBuffer tail = ByteBuffer.wrap(bytes, 0, length).slice();
        return of(tail, 0, length);
    }

    /** Seams of an open file, ascending offsets; the position of the channel is left where it was. */
    static long[] of(SeekableByteChannel file, long size) throws IOException {
        long start = Math.max(0, size - DIRECTORY_MAX);
        ByteBuffer tail = ByteBuffer.allocate((int) (size - start));
        long position = file.position();
        try {
            file.position(start);
            while (tail.hasRemaining() && file.read(tail) > 0) {
                // until the tail is whole
            }
        } finally {
            file.position(position);
        }
        return of(tail.flip(), start, size);
    }

    private static long[] of(ByteBuffer tail, long start, long size) {
        tail.order(ByteOrder.LITTLE_ENDIAN);
        int end = findEnd(tail);
        if (end < 0) {
            return NONE;
        }
        int entries = tail.getShort(end + 10) & 0xffff;
        long directory = tail.getInt(end + 16) & 0xffffffffL;
        long at = directory - start;
        if (at < 0 || directory >= size) {
            return NONE;
        }
        long[] begins = new long[entries];
        long[] lengths = new long[entries];
        int found = 0;
        for (; found < entries; found++) {
            if (at + 46 > end || tail.getInt((int) at) != ENTRY_MAGIC) {
                break;
            }
            int entry = (int) at;
            lengths[found] = tail.getInt(entry + 20) & 0xffffffffL;
            begins[found] = tail.getInt(entry + 42) & 0xffffffffL;
            at += 46
                    + (tail.getShort(entry + 28) & 0xffff)
                    + (tail.getShort(entry + 30) & 0xffff)
                    + (tail.getShort(entry + 32) & 0xffff);
        }
        return seams(begins, lengths, found, directory);
    }

    private static long[] seams(long[] begins, long[] lengths, int found, long directory) {
        long[] seams = new long[found * 2 + 1];
        int n = 0;
        for (int i = 0; i < found; i++) {
            if (lengths[i] >= MEMBER_MIN && begins[i] < directory) {
                seams[n++] = begins[i];
                long next = directory;
                for (int k = i + 1; k < found; k++) {
                    if (begins[k] > begins[i]) {
                        next = begins[k];
                        break;
                    }
                }
                if (next <= directory) {
                    seams[n++] = next;
                }
            }
        }
        return Arrays.stream(seams, 0, n).filter(s -> s > 0).sorted().distinct().toArray();
    }

    private static int findEnd(ByteBuffer tail) {
        int last = tail.limit() - END_LENGTH;
        int first = Math.max(0, last - 0xffff);
        for (int i = last; i >= first; i--) {
            if (tail.getInt(i) == END_MAGIC) {
                return i;
            }
        }
        return -1;
    }
}
