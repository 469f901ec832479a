package org.mendedleaf.core.capture;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.vault.Varint;

/**
 * What a scan saw in one folder, as bytes: names in ascending order, so that an unchanged folder gives the same bytes
 * and need not be looked at any further.
 */
final class ScanBlob {

    private static final byte[] EMPTY = {};

    /** What a blob begins with; one of an earlier version begins with something else and says no time of change. */
    private static final byte SECOND = (byte) 0xff;

    private ScanBlob() {}

    /** Encodes names, which must be sorted. Names in {@code unsettled} are written so that they never look the same. */
    static byte[] encode(List<SeenName> sorted, java.util.Set<String> unsettled) {
        int space = 17;
        byte[][] names = new byte[sorted.size()][];
        for (int i = 0; i < names.length; i++) {
            SeenName seen = sorted.get(i);
            names[i] = seen.name().getBytes(StandardCharsets.UTF_8);
            space += names[i].length + 56 + seen.skip().detail().length() * 3;
        }
        ByteBuffer out = ByteBuffer.allocate(space);
        out.put(SECOND);
        for (int i = 0; i < names.length; i++) {
            SeenName seen = sorted.get(i);
            DiskEntry e = seen.entry();
            out.put((byte) (e.type().ordinal() | (seen.skip().code() << 4)));
            Varint.put(out, names[i].length);
            out.put(names[i]);
            if (seen.isKept()) {
                boolean folder = e.type() == DiskEntry.Type.FOLDER;
                // A folder's own time and size change with each name in it and say nothing more.
                Varint.put(out, folder ? 0 : e.size());
                out.putLong(folder ? 0 : unsettled.contains(seen.name()) ? Long.MIN_VALUE : e.mtimeNanos());
                out.putInt(folder ? 0 : e.key());
                out.putShort((short) e.mode());
                out.putLong(folder ? 0 : e.changedNanos());
            } else {
                byte[] detail = seen.skip().detail().getBytes(StandardCharsets.UTF_8);
                Varint.put(out, detail.length);
                out.put(detail);
            }
        }
        byte[] bytes = new byte[out.position()];
        out.flip().get(bytes);
        return bytes;
    }

    /** Reads what {@link #encode} wrote, by name; bytes that are none give nothing, and all is looked at again. */
    static Map<String, SeenName> decode(byte[] bytes) {
        Map<String, SeenName> found = new HashMap<>();
        ByteBuffer in = ByteBuffer.wrap(bytes);
        boolean second = bytes.length > 0 && bytes[0] == SECOND;
        try {
            in.position(second ? 1 : 0);
            while (in.hasRemaining()) {
                int head = in.get() & 0xff;
                DiskEntry.Type type = DiskEntry.Type.values()[head & 3];
                String name = text(in);
                if (head >> 4 == 0) {
                    long size = Varint.get(in);
                    long mtime = in.getLong();
                    int key = in.getInt();
                    int mode = in.getShort();
                    long changed = second ? in.getLong() : 0;
                    DiskEntry entry = new DiskEntry(type, size, mtime, mode, key, changed);
                    found.put(name, new SeenName(name, entry, SeenName.Skip.NONE));
                } else {
                    SeenName.Skip skip = new SeenName.Skip(head >> 4, text(in));
                    found.put(name, new SeenName(name, new DiskEntry(type, 0, 0, 0, 0), skip));
                }
            }
        } catch (BufferUnderflowException | ArithmeticException | NegativeArraySizeException e) {
            return Map.of();
        }
        return found;
    }

    private static String text(ByteBuffer in) {
        int length = (int) Varint.get(in);
        if (length > in.remaining()) {
            throw new BufferUnderflowException();
        }
        byte[] bytes = length == 0 ? EMPTY : new byte[length];
        in.get(bytes);
        return new String(bytes, StandardCharsets.UTF_8);
    }
}
