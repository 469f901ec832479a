package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.CRC32C;
import org.mendedleaf.core.vault.Varint;

/**
 * Packed listings of folders with a long history. Spans are ordered by their ends, so that the listing of an old moment
 * would go through all spans that ended since. Where many have ended, the listing of a moment among them is kept in one
 * value; an older listing is then that value, without what began later, and the spans that ended in between. Each value
 * stands for about as many ended spans as the folder has files, so that a listing never goes through more than a few
 * times its own size.
 *
 * <p>Layout of a value: CRC-32C of the folder, the moment and what follows; for each entry node, line, child, number, kind, size, modified time, mode, beginning as LEB128
 * (signed), and the name as its length and its bytes in UTF-8.
 */
public final class PackedListing {

    /** Folders in which less has ended are fast anyway. */
    static final int LEAST = 64;

    private static final int FIELDS = 9;

    private PackedListing() {}

    /** One entry: what a span says, with the name and what it names. */
    record Row(
            long node,
            long line,
            long child,
            int number,
            int kind,
            long size,
            long mtimeNanos,
            int mode,
            long from,
            String name) {}

    static final String ROW = "SELECT s.node, n.line, n.child, s.number, s.kind, s.size, s.mtime, s.mode,"
            + " s.valid_from, n.name FROM span s JOIN node n ON n.id = s.node WHERE s.folder = ? AND s.valid_to > ?"
            + " AND s.valid_from <= ?";

    static Row row(java.sql.ResultSet r) throws java.sql.SQLException {
        return new Row(
                r.getLong(1),
                r.getLong(2),
                r.getLong(3),
                r.getInt(4),
                r.getInt(5),
                r.getLong(6),
                r.getLong(7),
                r.getInt(8),
                r.getLong(9),
                r.getString(10));
    }

    /** What a folder held at a moment. */
    static List<Row> at(Sql sql, long folder, long at) throws IOException {
        record Packed(long at, byte[] entries) {}
        Optional<Packed> packed = sql.first(
                "SELECT at, entries FROM packed WHERE folder = ? AND at >= ? ORDER BY at LIMIT 1",
                r -> new Packed(r.getLong(1), r.getBytes(2)),
                folder,
                at);
        if (packed.isEmpty() || !isSound(folder, packed.get().at(), packed.get().entries())) {
            return sql.list(ROW, PackedListing::row, folder, at, at);
        }
        List<Row> later = decode(packed.get().entries());
        Map<Long, Row> byNode = new HashMap<>(later.size() * 2);
        List<Row> found = new ArrayList<>(later.size());
        for (Row r : later) {
            byNode.put(r.node(), r);
            if (r.from() <= at) {
                found.add(r);
            }
        }
        for (Row r : ended(sql, folder, at, packed.get().at())) {
            Row named = byNode.get(r.node());
            found.add(named == null ? named(sql, r) : as(r, named.line(), named.child(), named.name()));
        }
        return found;
    }

    /** Spans that held a moment and ended until another, without their names: most are known from the value. */
    private static List<Row> ended(Sql sql, long folder, long at, long until) throws IOException {
        return sql.list(
                "SELECT node, number, kind, size, mtime, mode, valid_from FROM span"
                        + " WHERE folder = ? AND valid_to > ? AND valid_to <= ? AND valid_from <= ?",
                r -> new Row(
                        r.getLong(1),
                        0,
                        0,
                        r.getInt(2),
                        r.getInt(3),
                        r.getLong(4),
                        r.getLong(5),
                        r.getInt(6),
                        r.getLong(7),
                        ""),
                folder,
                at,
                until,
                at);
    }

    private static Row named(Sql sql, Row r) throws IOException {
        return sql.first(
                        "SELECT line, child, name FROM node WHERE id = ?",
                        n -> as(r, n.getLong(1), n.getLong(2), n.getString(3)),
                        r.node())
                .orElseThrow(() -> new IllegalStateException("expected a name for node " + r.node()));
    }

    private static Row as(Row r, long line, long child, String name) {
        return new Row(r.node(), line, child, r.number(), r.kind(), r.size(), r.mtimeNanos(), r.mode(), r.from(), name);
    }

    /** Whether a value is what was put down for this folder and moment; one that is not is passed over. */
    private static boolean isSound(long folder, long at, byte[] value) {
        return value.length >= Integer.BYTES && ByteBuffer.wrap(value).getInt() == crc(folder, at, value);
    }

    private static int crc(long folder, long at, byte[] value) {
        CRC32C crc = new CRC32C();
        crc.update(
                ByteBuffer.allocate(2 * Long.BYTES).putLong(folder).putLong(at).flip());
        crc.update(value, Integer.BYTES, value.length - Integer.BYTES);
        return (int) crc.getValue();
    }

    /** Folders of which a value is damaged. */
    public static List<Long> damaged(Sql sql) throws IOException {
        List<Long> found = new ArrayList<>();
        sql.list("SELECT folder, at, entries FROM packed", r -> {
            if (!isSound(r.getLong(1), r.getLong(2), r.getBytes(3))) {
                found.add(r.getLong(1));
            }
            return 0;
        });
        return found;
    }

    static byte[] encode(long folder, long at, List<Row> rows) {
        List<byte[]> names = new ArrayList<>(rows.size());
        int space = Integer.BYTES;
        for (Row r : rows) {
            byte[] name = r.name().getBytes(StandardCharsets.UTF_8);
            names.add(name);
            space += name.length + (FIELDS + 1) * 10;
        }
        ByteBuffer out = ByteBuffer.allocate(space).position(Integer.BYTES);
        for (int i = 0; i < rows.size(); i++) {
            Row r = rows.get(i);
            Varint.putSigned(out, r.node());
            Varint.putSigned(out, r.line());
            Varint.putSigned(out, r.child());
            Varint.putSigned(out, r.number());
            Varint.putSigned(out, r.kind());
            Varint.putSigned(out, r.size());
            Varint.putSigned(out, r.mtimeNanos());
            Varint.putSigned(out, r.mode());
            Varint.putSigned(out, r.from());
            Varint.put(out, names.get(i).length);
            out.put(names.get(i));
        }
        byte[] all = new byte[out.position()];
        out.flip().get(all);
        ByteBuffer.wrap(all).putInt(crc(folder, at, all));
        return all;
    }

    private static List<Row> decode(byte[] value) {
        ByteBuffer in = ByteBuffer.wrap(value).position(Integer.BYTES);
        List<Row> rows = new ArrayList<>();
        while (in.hasRemaining()) {
            long node = Varint.getSigned(in);
            long line = Varint.getSigned(in);
            long child = Varint.getSigned(in);
            int number = (int) Varint.getSigned(in);
            int kind = (int) Varint.getSigned(in);
            long size = Varint.getSigned(in);
            long mtime = Varint.getSigned(in);
            int mode = (int) Varint.getSigned(in);
            long from = Varint.getSigned(in);
            int length = (int) Varint.get(in);
            String name = new String(value, in.position(), length, StandardCharsets.UTF_8);
            in.position(in.position() + length);
            rows.add(new Row(node, line, child, number, kind, size, mtime, mode, from, name));
        }
        return rows;
    }
}
