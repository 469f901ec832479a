package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.deflate.DeflateSettings;
import org.mendedleaf.core.words.Words;

/**
 * The bytes of a recipe, see {@link Recipe} for kinds 0 and 3. A recipe of an unfolded content is
 *
 * <pre>
 * Frame, Part*
 *
 * Frame  = 2, n, 32 bytes made, 32 bytes seal, n runs (kind 0)
 * Part   = run (kind 0)
 *        | bytes &lt;&lt; 2 | 2                                      the next bytes of the frame, at least 1
 *        | settings &lt;&lt; 2 | 1, n, deflated, length, n runs        a member; its inflated bytes are its runs, or, when n
 *                                                              is 0, the next bytes of the frame
 * </pre>
 *
 * Numbers are LEB128. Differences of ids go on from run to run, wherever they stand.
 */
final class RecipeCode {

    private static final int RUN = 0;
    private static final int MEMBER = 1;
    private static final int FRAME = 2;

    private RecipeCode() {}

    static boolean isUnfolded(byte[] bytes) {
        return bytes.length > 0 && bytes[0] == FRAME;
    }

    static final class Writer {
        private final ByteArrayOutputStream out = new ByteArrayOutputStream();
        private final ByteBuffer number = ByteBuffer.allocate(10);
        private long expected;

        byte[] write(Recipe recipe) {
            if (recipe.unfolded().isEmpty()) {
                recipe.runs().forEach(this::run);
            } else {
                unfolded(recipe.unfolded().get());
            }
            return out.toByteArray();
        }

        private void unfolded(Recipe.Unfolded u) {
            put(FRAME);
            put(u.frame().size());
            out.writeBytes(u.made().bytes());
            out.writeBytes(u.seal().bytes());
            u.frame().forEach(this::run);
            for (Recipe.Part part : u.parts()) {
                if (part instanceof Recipe.Run run) {
                    run(run);
                } else if (part instanceof Recipe.Take take) {
                    put((long) take.bytes() << 2 | FRAME);
                } else if (part instanceof Recipe.Member member) {
                    put((long) member.settings().code() << 2 | MEMBER);
                    put(member.runs().size());
                    put(member.deflated());
                    put(member.length());
                    member.runs().forEach(this::run);
                }
            }
        }

        private void run(Recipe.Run run) {
            put((long) run.count() << 2);
            Varint.putSigned(number, run.first() - expected);
            drain();
            expected = run.first() + run.count();
        }

        private void put(long value) {
            Varint.put(number, value);
            drain();
        }

        private void drain() {
            out.write(number.array(), 0, number.position());
            number.clear();
        }
    }

    static final class Reader {
        private final ByteBuffer in;
        private long expected;

        Reader(byte[] bytes) {
            in = ByteBuffer.wrap(bytes);
        }

        Recipe read() throws VaultException.Damaged {
            try {
                if (isUnfolded(in.array())) {
                    return unfolded();
                }
                List<Recipe.Run> runs = new ArrayList<>();
                while (in.hasRemaining()) {
                    runs.add(run(Varint.get(in)));
                }
                return new Recipe(runs);
            } catch (BufferUnderflowException | ArithmeticException e) {
                throw new VaultException.Damaged(Words.of("vault.recipe.damaged"), e);
            }
        }

        private Recipe unfolded() throws VaultException.Damaged {
            Varint.get(in);
            long count = Varint.get(in);
            Digest made = digest();
            Digest seal = digest();
            List<Recipe.Run> frame = runs(count);
            List<Recipe.Part> parts = new ArrayList<>();
            while (in.hasRemaining()) {
                long tag = Varint.get(in);
                switch ((int) (tag & 3)) {
                    case MEMBER -> parts.add(member(tag >>> 2));
                    case FRAME -> parts.add(new Recipe.Take(Math.toIntExact(tag >>> 2)));
                    default -> parts.add(run(tag));
                }
            }
            return Recipe.of(new Recipe.Unfolded(frame, parts, made, seal));
        }

        private Recipe.Member member(long settings) throws VaultException.Damaged {
            DeflateSettings by = DeflateSettings.of(settings)
                    .orElseThrow(() -> new VaultException.Damaged(Words.of("vault.recipe.settings", settings)));
            long count = Varint.get(in);
            int deflated = Math.toIntExact(Varint.get(in));
            int length = Math.toIntExact(Varint.get(in));
            return new Recipe.Member(by, runs(count), length, deflated);
        }

        private List<Recipe.Run> runs(long count) throws VaultException.Damaged {
            List<Recipe.Run> runs = new ArrayList<>();
            for (long i = 0; i < count; i++) {
                runs.add(run(Varint.get(in)));
            }
            return runs;
        }

        private Recipe.Run run(long tag) throws VaultException.Damaged {
            if ((tag & 3) != RUN) {
                throw new VaultException.Damaged(Words.of("vault.recipe.unknown", tag & 3));
            }
            long first = expected + Varint.getSigned(in);
            int count = Math.toIntExact(tag >>> 2);
            expected = first + count;
            return new Recipe.Run(first, count);
        }

        private Digest digest() {
            byte[] bytes = new byte[Digest.LENGTH];
            in.get(bytes);
            return Digest.of(bytes);
        }
    }
}
