package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.Varint;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * The changes of the catalogue in one commit, as bytes: the decoded content of a commit record in a pack.
 *
 * <pre>
 * ChangeLog = Change*                until the end of the bytes
 * Change    = code, count, Value*    code of an {@link Op} and number of its values, each unsigned LEB128
 * Value     = 0                      null
 *           | 1, number              signed (zigzag) LEB128
 *           | 2, length, bytes       text in UTF-8; length unsigned LEB128
 *           | 3, length, bytes       bytes
 * </pre>
 *
 * <p>Replaying all change logs of all packs in the order of their commit numbers gives the catalogue anew.
 */
public final class ChangeLog {

    private static final Map<Integer, Op> BY_CODE = byCode();

    private ByteBuffer bytes = ByteBuffer.allocate(64 * 1024);

    private static Map<Integer, Op> byCode() {
        Map<Integer, Op> map = new HashMap<>();
        for (Op op : Op.values()) {
            map.put(op.code(), op);
        }
        return map;
    }

    boolean isEmpty() {
        return bytes.position() == 0;
    }

    void add(Op op, @Nullable Object[] values) {
        space(20);
        Varint.put(bytes, op.code());
        Varint.put(bytes, values.length);
        for (Object value : values) {
            addValue(value);
        }
    }

    private void addValue(@Nullable Object value) {
        space(20);
        if (value == null) {
            bytes.put((byte) 0);
        } else if (value instanceof Number n) {
            bytes.put((byte) 1);
            Varint.putSigned(bytes, n.longValue());
        } else if (value instanceof byte[] b) {
            bytes.put((byte) 3);
            addBytes(b);
        } else {
            bytes.put((byte) 2);
            addBytes(value.toString().getBytes(StandardCharsets.UTF_8));
        }
    }

    private void addBytes(byte[] b) {
        Varint.put(bytes, b.length);
        space(b.length);
        bytes.put(b);
    }

    private void space(int n) {
        if (bytes.remaining() < n) {
            ByteBuffer larger = ByteBuffer.allocate(Math.max(bytes.capacity() * 2, bytes.position() + n));
            bytes = larger.put(bytes.flip());
        }
    }

    /** All changes so far; afterwards this is empty again. */
    byte[] drain() {
        byte[] all = Arrays.copyOf(bytes.array(), bytes.position());
        bytes.clear();
        return all;
    }

    /** Takes one change. */
    public interface Taker {
        void take(Op op, @Nullable Object[] values) throws IOException;
    }

    /**
     * Reads what {@link #drain} gave.
     *
     * @throws VaultException.Damaged when the bytes are no change log, or hold a change unknown here
     */
    public static void read(byte[] log, Taker taker) throws IOException {
        ByteBuffer in = ByteBuffer.wrap(log);
        try {
            while (in.hasRemaining()) {
                Op op = BY_CODE.get((int) Varint.get(in));
                long count = Varint.get(in);
                // A value takes a byte at least: a damaged count must not ask for all memory.
                if (op == null || count < 0 || count > in.remaining()) {
                    throw new VaultException.Damaged(Words.of(op == null ? "changeLog.unknown" : "changeLog.damaged"));
                }
                @Nullable Object[] values = new @Nullable Object[(int) count];
                for (int i = 0; i < values.length; i++) {
                    values[i] = value(in);
                }
                taker.take(op, values);
            }
        } catch (BufferUnderflowException | ArithmeticException | NegativeArraySizeException e) {
            throw new VaultException.Damaged(Words.of("changeLog.damaged"), e);
        }
    }

    private static @Nullable Object value(ByteBuffer in) throws VaultException.Damaged {
        byte tag = in.get();
        switch (tag) {
            case 0:
                return null;
            case 1:
                return Varint.getSigned(in);
            case 2, 3:
                long length = Varint.get(in);
                if (length < 0 || length > in.remaining()) {
                    throw new BufferUnderflowException();
                }
                byte[] b = new byte[(int) length];
                in.get(b);
                return tag == 3 ? b : new String(b, StandardCharsets.UTF_8);
            default:
                throw new VaultException.Damaged(Words.of("changeLog.damaged"));
        }
    }
}
