package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.security.MessageDigest;
import java.util.List;
import org.mendedleaf.core.deflate.DeflateEncoder;
import org.mendedleaf.core.words.Words;

/** Makes the content of a recipe from what was inflated: deflates members again, and puts the frame between them. */
final class UnfoldedReader {

    private final DeflateEncoder encoder = new DeflateEncoder();

    /** Gives the chunks of runs, in order. */
    interface Chunks {
        void read(List<Recipe.Run> runs, Sink sink) throws IOException;
    }

    /** Takes bytes, in order; says whether it wants more. */
    interface Sink {
        boolean take(byte[] bytes) throws IOException;
    }

    /**
     * Makes it.
     *
     * @throws VaultException.Damaged when the result is not what was stored; what was handed on before is then worthless
     */
    void read(Recipe.Unfolded recipe, Chunks chunks, Sink sink) throws IOException {
        ByteBuffer frame = ByteBuffer.wrap(whole(recipe.frame(), chunks));
        MessageDigest made = Digest.sha256();
        for (Recipe.Part part : recipe.parts()) {
            byte[] bytes;
            if (part instanceof Recipe.Run run) {
                boolean[] more = {true};
                chunks.read(List.of(run), c -> {
                    more[0] = sink.take(c);
                    return more[0];
                });
                if (!more[0]) {
                    return;
                }
                continue;
            } else if (part instanceof Recipe.Member member) {
                bytes = member(member, frame, chunks);
            } else {
                bytes = next(frame, ((Recipe.Take) part).bytes());
            }
            made.update(bytes);
            if (!sink.take(bytes)) {
                return;
            }
        }
        if (frame.hasRemaining() || !Digest.of(made.digest()).equals(recipe.made())) {
            throw damaged();
        }
    }

    private byte[] member(Recipe.Member member, ByteBuffer frame, Chunks chunks) throws IOException {
        byte[] inflated = member.runs().isEmpty() ? next(frame, member.length()) : whole(member.runs(), chunks);
        if (inflated.length != member.length()) {
            throw damaged();
        }
        byte[] padded = java.util.Arrays.copyOf(inflated, inflated.length + DeflateEncoder.PAD);
        byte[] deflated = new byte[member.deflated()];
        if (!encoder.write(member.settings(), padded, member.length(), deflated)) {
            throw damaged();
        }
        return deflated;
    }

    private static byte[] next(ByteBuffer frame, int length) throws VaultException.Damaged {
        if (length > frame.remaining()) {
            throw damaged();
        }
        byte[] bytes = new byte[length];
        frame.get(bytes);
        return bytes;
    }

    private static byte[] whole(List<Recipe.Run> runs, Chunks chunks) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        chunks.read(runs, c -> {
            out.write(c);
            return true;
        });
        return out.toByteArray();
    }

    private static VaultException.Damaged damaged() {
        return new VaultException.Damaged(Words.of("vault.recipe.remade"));
    }
}
