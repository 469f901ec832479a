package org.mendedleaf.core.vault;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;

/**
 * How a content is put together from chunks: segments in order.
 *
 * <p>Encoded, a recipe is a row of segments until its end. Each begins with a tag, an unsigned variable-length number
 * (LEB128, 7 bits a byte, low bits first). The lowest two bits of the tag are the kind of the segment:
 *
 * <ul>
 *   <li>kind 0, a run of chunks with ascending ids: the upper bits of the tag are the number of chunks; then the first
 *       id as a zigzag LEB128 difference to the id after the last one of the run before (0 at the start).
 *   <li>kinds 1 and 2 are kept free for segments that reproduce bytes instead of storing them; a reader that does not
 *       know a kind must refuse the recipe.
 *   <li>kind 3, the content is not in this vault: the upper bits of the tag are 0, and it is the only segment. The
 *       version is known, and other systems hold its bytes; the digest of such a version is its plain SHA-256.
 * </ul>
 *
 * <p>The empty recipe is the empty content.
 *
 * @param runs the runs of chunks, in the order of the content
 */
public record Recipe(List<Run> runs) {

    /** The recipe of the empty content. */
    public static final Recipe EMPTY = new Recipe(List.of());

    /** The recipe of a content that only other systems hold. */
    public static final Recipe ELSEWHERE = new Recipe(List.of(new Run(-1, 0)));

    private static final byte ELSEWHERE_TAG = 3;

    /**
     * Chunks with ids from {@code first}, ascending by one.
     *
     * @param first id of the first chunk
     * @param count number of chunks, at least 1
     */
    public record Run(long first, int count) {}

    /** Copies the list. */
    public Recipe {
        runs = List.copyOf(runs);
    }

    /** Whether only other systems hold the content. */
    public boolean isElsewhere() {
        return equals(ELSEWHERE);
    }

    /** Number of chunks in the content. */
    public long chunks() {
        return runs.stream().mapToLong(Run::count).sum();
    }

    /** The bytes that stand in the catalogue. */
    public byte[] encode() {
        if (isElsewhere()) {
            return new byte[] {ELSEWHERE_TAG};
        }
        ByteBuffer out = ByteBuffer.allocate(runs.size() * 15);
        long expected = 0;
        for (Run run : runs) {
            Varint.put(out, ((long) run.count()) << 2);
            Varint.putSigned(out, run.first() - expected);
            expected = run.first() + run.count();
        }
        byte[] bytes = new byte[out.position()];
        out.flip().get(bytes);
        return bytes;
    }

    /**
     * Reads what {@link #encode} wrote.
     *
     * @throws VaultException.Damaged when the bytes are no recipe, or one of a kind unknown here
     */
    public static Recipe decode(byte[] bytes) throws VaultException.Damaged {
        if (bytes.length == 1 && bytes[0] == ELSEWHERE_TAG) {
            return ELSEWHERE;
        }
        ByteBuffer in = ByteBuffer.wrap(bytes);
        List<Run> runs = new ArrayList<>();
        long expected = 0;
        try {
            while (in.hasRemaining()) {
                long tag = Varint.get(in);
                if ((tag & 3) != 0) {
                    throw new VaultException.Damaged(
                            org.mendedleaf.core.words.Words.of("vault.recipe.unknown", tag & 3));
                }
                long first = expected + Varint.getSigned(in);
                int count = Math.toIntExact(tag >>> 2);
                runs.add(new Run(first, count));
                expected = first + count;
            }
        } catch (java.nio.BufferUnderflowException | ArithmeticException e) {
            throw new VaultException.Damaged(org.mendedleaf.core.words.Words.of("vault.recipe.damaged"), e);
        }
        return new Recipe(runs);
    }

    /** Puts a recipe together, chunk by chunk. */
    public static final class Builder {
        private final List<Run> runs = new ArrayList<>();
        private long first = -1;
        private int count;

        /** Adds the next chunk of the content. */
        public void add(long chunkId) {
            if (count > 0 && first + count == chunkId) {
                count++;
                return;
            }
            flush();
            first = chunkId;
            count = 1;
        }

        private void flush() {
            if (count > 0) {
                runs.add(new Run(first, count));
            }
            count = 0;
        }

        /** The recipe of all chunks so far. */
        public Recipe build() {
            flush();
            return new Recipe(runs);
        }
    }
}
