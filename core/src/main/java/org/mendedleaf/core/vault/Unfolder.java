package org.mendedleaf.core.vault;

import com.github.luben.zstd.Zstd;
import java.io.IOException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.deflate.SettingsFinder;

/**
 * Unfolds contents that are stored as they are: finds out which deflated members of an archive can be made again bit for bit,
 * and makes what is to be stored in place of the content. Nothing is written here, so that nobody who writes has to wait;
 * that is for {@link UnfoldedContent#store}. What was made is made into the content again and compared with it, byte for byte,
 * before it is given out: the content itself may be forgotten afterwards.
 *
 * <p>One thread at a time.
 */
public final class Unfolder implements AutoCloseable {

    /** A smaller content is not worth it: see {@link UnfoldPlan#ALONE_MIN}. */
    private static final int SIZE_MIN = UnfoldPlan.ALONE_MIN;

    private final ContentCutter cutter = new ContentCutter();
    private final SettingsFinder finder = new SettingsFinder();
    private final ChunkPacker plain = new ChunkPacker(ChunkPacker.LEVEL);
    private final ChunkPacker thorough = new ChunkPacker(ChunkPacker.LEVEL_INFLATED);
    private final Map<Digest, UnfoldedContent.Chunk> made = new HashMap<>();
    private long held;

    /** Begins anew: what was unfolded so far is in the vault by now, or is not stored. */
    public void begin() {
        made.clear();
        held = 0;
    }

    /** So much memory is held by what was unfolded since {@link #begin}, bytes. */
    public long heldBytes() {
        return held;
    }

    /** Whether a content that is stored so could perhaps be unfolded. */
    static boolean mayUnfold(Recipe recipe, long length) {
        return length >= SIZE_MIN && !recipe.isElsewhere() && recipe.unfolded().isEmpty();
    }

    /**
     * Unfolds a content.
     *
     * @param contents reads it
     * @param recipe of a content that is stored as it is
     * @param digest of the content
     * @return empty when there is nothing to unfold in it
     * @throws VaultException.Damaged when it cannot be read
     */
    public Optional<UnfoldedContent> unfold(ContentReader contents, Recipe recipe, Digest digest) throws IOException {
        if (recipe.isElsewhere() || recipe.unfolded().isPresent()) {
            return Optional.empty();
        }
        List<ChunkPlace> places = contents.places(recipe);
        ContentChannel content = contents.open(places);
        ByteSource source = ByteSource.of(content);
        byte[] head = new byte[(int) Math.min(content.size(), SIZE_MIN)];
        source.read(0, head, head.length);
        if (!ZipDirectory.startsLikeZip(head, head.length)) {
            return Optional.empty();
        }
        Optional<UnfoldPlan> plan = UnfoldPlan.of(ZipDirectory.of(source), source, finder);
        if (plan.isEmpty()) {
            return Optional.empty();
        }
        Pass pass = new Pass(plan.get(), places);
        cutter.cut(content, n -> {}, pass);
        Recipe.Unfolded by = pass.writer.finish();
        UnfoldedContent unfolded = new UnfoldedContent(by, pass.chunks, digest, pass.givenUpBytes());
        // A content that was not read from a file was cut otherwise; it stays as it is.
        if (!pass.digest.finish().equals(digest) || !isSame(unfolded, content, contents)) {
            return Optional.empty();
        }
        return Optional.of(unfolded);
    }

    /** Makes the content from what is to be stored, and compares. */
    private static boolean isSame(UnfoldedContent made, ContentChannel content, ContentReader contents)
            throws IOException {
        ByteSource source = ByteSource.of(content);
        long[] at = {0};
        boolean[] same = {true};
        byte[][] buffer = {new byte[0]};
        try {
            new UnfoldedReader().read(made.recipe(), (runs, sink) -> made.read(runs, contents, sink), bytes -> {
                same[0] = at[0] + bytes.length <= source.size();
                if (same[0]) {
                    buffer[0] = buffer[0].length < bytes.length ? new byte[bytes.length] : buffer[0];
                    source.read(at[0], buffer[0], bytes.length);
                    same[0] = java.util.Arrays.equals(bytes, 0, bytes.length, buffer[0], 0, bytes.length);
                    at[0] += bytes.length;
                }
                return same[0];
            });
        } catch (VaultException.Damaged e) {
            return false;
        }
        return same[0] && at[0] == source.size();
    }

    /** The content as it is cut: what is made of it, and its digest. */
    private final class Pass implements ContentCutter.Taker, UnfoldedWriter.Store {
        private final UnfoldedWriter writer;
        private final List<UnfoldedContent.Chunk> chunks = new ArrayList<>();
        private final Map<Digest, Integer> numbers = new HashMap<>();
        private final Map<Digest, ChunkPlace> there = new HashMap<>();
        private final MessageDigest sha = Digest.sha256();
        private final ContentDigest digest = new ContentDigest();

        Pass(UnfoldPlan plan, List<ChunkPlace> places) {
            writer = new UnfoldedWriter(plan, this);
            places.forEach(p -> there.put(Digest.of(p.digest()), p));
        }

        @Override
        public void chunk(byte[] bytes, int from, int length) throws IOException {
            sha.update(bytes, from, length);
            byte[] one = sha.digest();
            digest.add(one, length);
            writer.take(one, bytes, from, length);
        }

        @Override
        public long put(byte[] of, byte[] bytes, int from, int length) {
            return number(Digest.of(of), plain, bytes, from, length);
        }

        @Override
        public long putInflated(byte[] bytes, int from, int length) {
            sha.update(bytes, from, length);
            return number(Digest.of(sha.digest()), thorough, bytes, from, length);
        }

        private long number(Digest of, ChunkPacker by, byte[] bytes, int from, int length) {
            Integer known = numbers.get(of);
            if (known != null) {
                return known;
            }
            ChunkPlace place = there.get(of);
            UnfoldedContent.Chunk chunk = place == null
                    ? made.computeIfAbsent(of, d -> fresh(d, by, bytes, from, length))
                    : new UnfoldedContent.Chunk(of, length, PackFormat.RAW, new byte[0], place);
            int number = chunks.size();
            numbers.put(of, number);
            chunks.add(chunk);
            return number;
        }

        private UnfoldedContent.Chunk fresh(Digest of, ChunkPacker by, byte[] bytes, int from, int length) {
            ChunkPacker.Packed p = by.pack(bytes, from, length);
            byte[] stored = java.util.Arrays.copyOfRange(p.bytes(), p.from(), p.from() + p.storedBytes());
            held += stored.length;
            return new UnfoldedContent.Chunk(of, length, p.encoding(), stored, null);
        }

        /** Bytes of records that the content needs as it is stored, and not when it is unfolded. */
        long givenUpBytes() {
            return there.values().stream()
                    .filter(p -> !numbers.containsKey(Digest.of(p.digest())))
                    .mapToLong(p -> PackFormat.recordLength(p.storedBytes()))
                    .sum();
        }
    }

    /** The bytes of a stored chunk. */
    static byte[] decode(byte encoding, byte[] stored, int length) {
        return encoding == PackFormat.ZSTD ? Zstd.decompress(stored, length) : stored;
    }

    @Override
    public void close() {
        plain.close();
        thorough.close();
    }
}
