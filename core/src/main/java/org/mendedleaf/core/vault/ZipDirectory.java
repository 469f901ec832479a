package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Where the members of a ZIP file lie. Office documents are ZIP files: cut at the seams of their larger members, an
 * unchanged picture stays one run of chunks when the text beside it changes; and what is deflated in them may be stored
 * inflated.
 *
 * <p>Reads the end record, the central directory and the local headers (PKWARE APPNOTE 6.3, sections 4.3.7, 4.3.12 and
 * 4.3.16) and trusts nothing in them: whatever does not fit gives no members, and a seam only ever moves a cut.
 */
final class ZipDirectory {

    /** Members below this many stored bytes get no seams of their own. */
    static final int MEMBER_MIN = 4 * 1024;

    private static final int END_MAGIC = 0x06054b50;
    private static final int ENTRY_MAGIC = 0x02014b50;
    private static final int LOCAL_MAGIC = 0x04034b50;
    private static final int END_LENGTH = 22;
    private static final int LOCAL_LENGTH = 30;
    private static final int DIRECTORY_MAX = 8 << 20;
    private static final int ENCRYPTED = 1;
    private static final int DEFLATED = 8;

    private static final ZipDirectory NONE = new ZipDirectory(List.of(), 0);

    private final List<Entry> entries;
    private final long directory;

    private record Entry(long begin, long stored, long length, int method, int flags) {}

    /**
     * A member.
     *
     * @param begin where its stored bytes begin
     * @param end where they end
     * @param length of its content, as the directory says
     * @param isDeflated whether it is deflated, and not encrypted
     */
    record Member(long begin, long end, long length, boolean isDeflated) {

        long stored() {
            return end - begin;
        }
    }

    private ZipDirectory(List<Entry> entries, long directory) {
        this.entries = entries;
        this.directory = directory;
    }

    /** Whether these first bytes of a content are those of a ZIP file. */
    static boolean startsLikeZip(byte[] bytes, int length) {
        return length > 30 && bytes[0] == 'P' && bytes[1] == 'K' && bytes[2] == 3 && bytes[3] == 4;
    }

    /** The directory of a content; empty when there is none that can be understood. */
    static ZipDirectory of(ByteSource content) throws IOException {
        long size = content.size();
        long start = Math.max(0, size - DIRECTORY_MAX);
        byte[] bytes = new byte[(int) (size - start)];
        content.read(start, bytes, bytes.length);
        ByteBuffer tail = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        int end = findEnd(tail);
        if (end < 0) {
            return NONE;
        }
        int count = tail.getShort(end + 10) & 0xffff;
        long directory = tail.getInt(end + 16) & 0xffffffffL;
        long at = directory - start;
        if (at < 0 || directory >= size) {
            return NONE;
        }
        List<Entry> found = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            if (at + 46 > end || tail.getInt((int) at) != ENTRY_MAGIC) {
                break;
            }
            int entry = (int) at;
            found.add(new Entry(
                    tail.getInt(entry + 42) & 0xffffffffL,
                    tail.getInt(entry + 20) & 0xffffffffL,
                    tail.getInt(entry + 24) & 0xffffffffL,
                    tail.getShort(entry + 10) & 0xffff,
                    tail.getShort(entry + 8) & 0xffff));
            at += 46
                    + (tail.getShort(entry + 28) & 0xffff)
                    + (tail.getShort(entry + 30) & 0xffff)
                    + (tail.getShort(entry + 32) & 0xffff);
        }
        return new ZipDirectory(found, directory);
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

    /**
     * A stretch of the content between two seams, or before the first or behind the last one.
     *
     * @param isMember whether it is one of the larger members, with its local header
     */
    record Region(long begin, long end, boolean isMember) {}

    /** Where the larger members begin and end, ascending offsets. */
    long[] seams() {
        long[] seams = new long[entries.size() * 2];
        int n = 0;
        for (int i = 0; i < entries.size(); i++) {
            Entry e = entries.get(i);
            if (isLarge(e)) {
                seams[n++] = e.begin();
                long next = directory;
                for (int k = i + 1; k < entries.size(); k++) {
                    if (entries.get(k).begin() > e.begin()) {
                        next = entries.get(k).begin();
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

    private boolean isLarge(Entry e) {
        return e.stored() >= MEMBER_MIN && e.begin() < directory;
    }

    /**
     * The whole content by its seams.
     *
     * @param size of the content
     */
    List<Region> regions(long size) {
        Set<Long> large = new HashSet<>();
        entries.stream().filter(this::isLarge).forEach(e -> large.add(e.begin()));
        List<Region> found = new ArrayList<>();
        long from = 0;
        for (long seam : seams()) {
            found.add(new Region(from, seam, large.contains(from)));
            from = seam;
        }
        found.add(new Region(from, size, large.contains(from)));
        return found;
    }

    /**
     * The members, in the order in which they lie.
     *
     * @param content that this is the directory of
     * @return empty when members overlap, or their headers do not stand where the directory says
     */
    List<Member> members(ByteSource content) throws IOException {
        List<Entry> ordered = new ArrayList<>(entries);
        ordered.sort(java.util.Comparator.comparingLong(Entry::begin));
        List<Member> found = new ArrayList<>();
        byte[] bytes = new byte[LOCAL_LENGTH];
        ByteBuffer head = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        long before = 0;
        for (Entry e : ordered) {
            if (e.begin() < before || e.begin() + LOCAL_LENGTH > directory) {
                return List.of();
            }
            content.read(e.begin(), bytes, LOCAL_LENGTH);
            long begin = e.begin() + LOCAL_LENGTH + (head.getShort(26) & 0xffff) + (head.getShort(28) & 0xffff);
            before = begin + e.stored();
            if (head.getInt(0) != LOCAL_MAGIC || before > directory) {
                return List.of();
            }
            boolean isDeflated = e.method() == DEFLATED && (e.flags() & ENCRYPTED) == 0;
            found.add(new Member(begin, before, e.length(), isDeflated));
        }
        return found;
    }
}
