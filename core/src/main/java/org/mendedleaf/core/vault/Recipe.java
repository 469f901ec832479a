package org.mendedleaf.core.vault;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.LongUnaryOperator;
import org.mendedleaf.core.deflate.DeflateSettings;

/**
 * How a content is put together from chunks: segments in order.
 *
 * <p>Encoded, a recipe is a row of segments until its end. Each begins with a tag, an unsigned variable-length number
 * (LEB128, 7 bits a byte, low bits first). The lowest two bits of the tag are the kind of the segment:
 *
 * <ul>
 *   <li>kind 0, a run of chunks with ascending ids: the upper bits of the tag are the number of chunks; then the first
 *       id as a zigzag LEB128 difference to the id after the last one of the run before (0 at the start).
 *   <li>kinds 1 and 2 stand only in the recipe of a content that is stored unfolded, see {@link Unfolded}.
 *   <li>kind 3, the content is not in this vault: the upper bits of the tag are 0, and it is the only segment. The
 *       version is known, and other systems hold its bytes; the digest of such a version is its plain SHA-256.
 * </ul>
 *
 * <p>The empty recipe is the empty content.
 *
 * @param runs all chunks that the content needs; where nothing is unfolded, in the order of the content
 * @param unfolded how the content is made from them, when they are not simply its parts
 */
public record Recipe(List<Run> runs, Optional<Unfolded> unfolded) {

    /** The recipe of the empty content. */
    public static final Recipe EMPTY = new Recipe(List.of());

    /** The recipe of a content that only other systems hold. */
    public static final Recipe ELSEWHERE = new Recipe(List.of(new Run(-1, 0)));

    private static final byte ELSEWHERE_TAG = 3;

    /** A part of a content. */
    public sealed interface Part permits Run, Take, Member {}

    /**
     * Chunks with ids from {@code first}, ascending by one.
     *
     * @param first id of the first chunk
     * @param count number of chunks, at least 1
     */
    public record Run(long first, int count) implements Part {}

    /**
     * The next bytes of the frame.
     *
     * @param bytes how many, at least 1
     */
    public record Take(int bytes) implements Part {}

    /**
     * A member of an archive that is stored inflated.
     *
     * @param settings that give its deflated bytes again
     * @param runs its inflated bytes; empty when they are the next bytes of the frame
     * @param length of its inflated bytes
     * @param deflated length of its deflated bytes
     */
    public record Member(DeflateSettings settings, List<Run> runs, int length, int deflated) implements Part {

        /** Copies the list. */
        public Member {
            runs = List.copyOf(runs);
        }
    }

    /**
     * A content of which deflated members are stored inflated. What lies between its larger members, headers and small
     * members, is joined to one content of its own, the frame, so that it makes few chunks.
     *
     * @param frame the chunks of the frame
     * @param parts of the content, in order: {@link Run} as they are, {@link Take} and {@link Member}
     * @param made SHA-256 of all bytes of the content that do not come from a {@link Run}, in order
     * @param seal ties all of this to the content, see {@link RecipeDigest}
     */
    public record Unfolded(List<Run> frame, List<Part> parts, Digest made, Digest seal) {

        /** Copies the lists. */
        public Unfolded {
            frame = List.copyOf(frame);
            parts = List.copyOf(parts);
        }

        Unfolded sealed(Digest by) {
            return new Unfolded(frame, parts, made, by);
        }

        /** The same with other ids for its chunks; without a seal. */
        Unfolded renumbered(LongUnaryOperator id) {
            List<Part> renumbered = new ArrayList<>();
            for (Part part : parts) {
                if (part instanceof Run run) {
                    renumbered.addAll(renumbered(List.of(run), id));
                } else if (part instanceof Member m) {
                    renumbered.add(new Member(m.settings(), renumbered(m.runs(), id), m.length(), m.deflated()));
                } else {
                    renumbered.add(part);
                }
            }
            return new Unfolded(renumbered(frame, id), renumbered, made, seal);
        }

        private static List<Run> renumbered(List<Run> runs, LongUnaryOperator id) {
            Builder builder = new Builder();
            for (Run run : runs) {
                for (long n = run.first(); n < run.first() + run.count(); n++) {
                    builder.add(id.applyAsLong(n));
                }
            }
            return builder.runs();
        }

        private List<Run> runs() {
            List<Run> all = new ArrayList<>(frame);
            for (Part part : parts) {
                if (part instanceof Run run) {
                    all.add(run);
                } else if (part instanceof Member member) {
                    all.addAll(member.runs());
                }
            }
            return all;
        }
    }

    /** Copies the list. */
    public Recipe {
        runs = List.copyOf(runs);
    }

    /** A content of chunks as they are. */
    public Recipe(List<Run> runs) {
        this(runs, Optional.empty());
    }

    /** A content that is stored unfolded. */
    static Recipe of(Unfolded unfolded) {
        return new Recipe(unfolded.runs(), Optional.of(unfolded));
    }

    /** Whether an encoded recipe says that the content is not here. */
    public static boolean isElsewhere(byte[] encoded) {
        return encoded.length == 1 && encoded[0] == ELSEWHERE_TAG;
    }

    /** Whether only other systems hold the content. */
    public boolean isElsewhere() {
        // Asked of each version: what Java makes for comparing records takes a twentieth of a short command to be put
        // together.
        return runs.size() == 1 && runs.get(0).first() == ELSEWHERE.runs.get(0).first();
    }

    /** Number of chunks in the content. */
    public long chunks() {
        return runs.stream().mapToLong(Run::count).sum();
    }

    /** The bytes that stand in the catalogue. */
    public byte[] encode() {
        return isElsewhere() ? new byte[] {ELSEWHERE_TAG} : new RecipeCode.Writer().write(this);
    }

    /**
     * Reads what {@link #encode} wrote.
     *
     * @throws VaultException.Damaged when the bytes are no recipe, or one of a kind unknown here
     */
    public static Recipe decode(byte[] bytes) throws VaultException.Damaged {
        if (isElsewhere(bytes)) {
            return ELSEWHERE;
        }
        return new RecipeCode.Reader(bytes).read();
    }

    /**
     * The same chunks as a recipe that only lists them; for counting what is needed, not for reading a content.
     *
     * @param bytes an encoded recipe
     * @return {@code bytes} themselves when they are such a list already
     */
    public static byte[] listed(byte[] bytes) throws VaultException.Damaged {
        return RecipeCode.isUnfolded(bytes) ? new Recipe(decode(bytes).runs()).encode() : bytes;
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
            return new Recipe(runs());
        }

        /** The runs of all chunks so far. */
        List<Run> runs() {
            flush();
            return runs;
        }
    }
}
