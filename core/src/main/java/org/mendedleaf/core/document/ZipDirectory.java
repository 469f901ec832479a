package org.mendedleaf.core.document;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.mendedleaf.core.document.Document.Member;

/**
 * The first entries of a ZIP directory, and whether there are more, without reading all of it: an archive of a million
 * members costs no more than what is shown of it. The headers are those of PKWARE's APPNOTE, 4.3.12 and 4.3.14 to 4.3.16.
 */
final class ZipDirectory {

    private static final int END = 0x06054b50;
    private static final int END_SIZE = 22;
    private static final int WIDE_LOCATOR = 0x07064b50;
    private static final int WIDE_LOCATOR_SIZE = 20;
    private static final int WIDE_END = 0x06064b50;
    private static final int HEADER = 0x02014b50;
    private static final int HEADER_SIZE = 46;
    private static final int COMMENT_MOST = 0xffff;
    private static final long WIDE = 0xffffffffL;
    /** So much is unpacked to pass by what is of no interest. Bytes. */
    private static final long UNPACKED_MOST = 32L << 20;

    private static final int UTF8_FLAG = 1 << 11;

    private final ByteBuffer bytes;
    private final int start;

    private ZipDirectory(ByteBuffer bytes, int start) {
        this.bytes = bytes;
        this.start = start;
    }

    /** The directory of these bytes; empty ones where none is found, which a thorough reader may still do. */
    static ZipDirectory of(byte[] content) {
        ByteBuffer bytes = ByteBuffer.wrap(content).order(ByteOrder.LITTLE_ENDIAN);
        for (int at = content.length - END_SIZE; at >= Math.max(0, content.length - END_SIZE - COMMENT_MOST); at--) {
            if (bytes.getInt(at) == END) {
                return new ZipDirectory(bytes, start(bytes, at));
            }
        }
        return new ZipDirectory(bytes, content.length);
    }

    private static int start(ByteBuffer bytes, int end) {
        long start = bytes.getInt(end + 16) & WIDE;
        int locator = end - WIDE_LOCATOR_SIZE;
        if (start == WIDE && locator >= 0 && bytes.getInt(locator) == WIDE_LOCATOR) {
            long wide = bytes.getLong(locator + 8);
            if (wide >= 0 && wide <= bytes.limit() - 56L && bytes.getInt((int) wide) == WIDE_END) {
                start = bytes.getLong((int) wide + 48);
            }
        }
        return start >= 0 && start < bytes.limit() ? (int) start : bytes.limit();
    }

    private boolean isHeader(long at) {
        return at <= bytes.limit() - HEADER_SIZE && bytes.getInt((int) at) == HEADER;
    }

    private long next(long at) {
        int i = (int) at;
        return at + HEADER_SIZE + unsigned(i + 28) + unsigned(i + 30) + unsigned(i + 32);
    }

    private int unsigned(int at) {
        return bytes.getShort(at) & 0xffff;
    }

    /** Whether there are more entries than these. Only so many are counted. */
    boolean hasMoreThan(int most) {
        long at = start;
        for (int i = 0; i <= most; i++) {
            if (!isHeader(at)) {
                return false;
            }
            at = next(at);
        }
        return true;
    }

    /** The first entries, in the order of the directory. */
    List<Member> first(int most) {
        List<Member> members = new ArrayList<>();
        for (long at = start; members.size() < most && isHeader(at); at = next(at)) {
            int i = (int) at;
            int length = Math.min(unsigned(i + 28), bytes.limit() - i - HEADER_SIZE);
            Charset charset = (unsigned(i + 8) & UTF8_FLAG) != 0 ? StandardCharsets.UTF_8 : Charset.forName("IBM437");
            String name = new String(bytes.array(), i + HEADER_SIZE, length, charset);
            boolean folder = name.endsWith("/");
            members.add(new Member(
                    name,
                    folder,
                    bytes.getInt(i + 24) & WIDE,
                    millis(unsigned(i + 14), unsigned(i + 12)),
                    folder ? "" : Long.toHexString(bytes.getInt(i + 16) & WIDE)));
        }
        return members;
    }

    /** The names of the first members, in the order of the content, until too much was unpacked to pass by them. */
    static List<String> namesByUnpacking(byte[] content, int most) {
        List<String> names = new ArrayList<>();
        byte[] buffer = new byte[1 << 16];
        long left = UNPACKED_MOST;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content))) {
            for (ZipEntry e = zip.getNextEntry(); e != null && names.size() < most; e = zip.getNextEntry()) {
                names.add(e.getName());
                for (int n = zip.read(buffer); n >= 0; n = zip.read(buffer)) {
                    left -= n;
                    if (left < 0) {
                        return names;
                    }
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            // Damaged, or only its first bytes are here: these are the names that can be read.
            org.slf4j.LoggerFactory.getLogger(ZipDirectory.class).trace("broken off", e);
        }
        return names;
    }

    /** Date and time of MS-DOS, in the zone of this machine, as all readers of ZIP take them; 0 where they are none. */
    private static long millis(int date, int time) {
        try {
            return LocalDateTime.of(
                            1980 + (date >> 9), date >> 5 & 15, date & 31, time >> 11, time >> 5 & 63, (time & 31) * 2)
                    .atZone(ZoneId.systemDefault())
                    .toInstant()
                    .toEpochMilli();
        } catch (DateTimeException e) {
            return 0;
        }
    }
}
