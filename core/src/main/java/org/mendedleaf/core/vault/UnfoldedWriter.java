package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.mendedleaf.core.deflate.DeflateSettings;

/** Makes the recipe of an unfolded content by its plan: takes its chunks as it is cut, and gives out what is to be stored. */
final class UnfoldedWriter {

    /** Stores chunks. */
    interface Store {
        /** Stores a chunk of the content as it is; its digest is known. */
        long put(byte[] digest, byte[] bytes, int from, int length);

        /** Stores a chunk of something inflated, or of the frame. */
        long putInflated(byte[] bytes, int from, int length);
    }

    private static final Digest UNSEALED = Digest.of(new byte[Digest.LENGTH]);

    private final UnfoldPlan plan;
    private final Store store;
    private final List<Recipe.Part> parts = new ArrayList<>();
    private final MessageDigest made = Digest.sha256();
    private final MessageDigest sha = Digest.sha256();
    private final ByteArrayOutputStream frame = new ByteArrayOutputStream();
    private final ByteArrayOutputStream held = new ByteArrayOutputStream();
    private Recipe.Builder run = new Recipe.Builder();
    private int taken;
    private int region;
    private long at;

    UnfoldedWriter(UnfoldPlan plan, Store store) {
        this.plan = plan;
        this.store = store;
    }

    /** Takes the next chunk of the content; none goes beyond a region. */
    void take(byte[] digest, byte[] bytes, int from, int length) throws IOException {
        UnfoldPlan.Region in = plan.regions().get(region);
        if (in.way() == UnfoldPlan.Way.AS_IT_IS) {
            asItIs(digest, bytes, from, length);
        } else {
            held.write(bytes, from, length);
        }
        at += length;
        if (at >= in.end()) {
            if (in.way() != UnfoldPlan.Way.AS_IT_IS) {
                unfold(in, held.toByteArray());
                held.reset();
            }
            region++;
        }
    }

    private void asItIs(byte[] digest, byte[] bytes, int from, int length) {
        endTake();
        run.add(store.put(digest, bytes, from, length));
    }

    private void unfold(UnfoldPlan.Region in, byte[] bytes) throws IOException {
        int from = 0;
        for (UnfoldPlan.Fold f : in.folds()) {
            int begin = (int) (f.member().begin() - in.begin());
            int end = (int) (f.member().end() - in.begin());
            toFrame(bytes, from, begin);
            if (f.settings().isPresent()) {
                inflated(f, f.settings().get(), Arrays.copyOfRange(bytes, begin, end));
            } else {
                asItIs(bytes, begin, end);
            }
            from = end;
        }
        toFrame(bytes, from, bytes.length);
    }

    private void toFrame(byte[] bytes, int from, int to) {
        if (to > from) {
            endRun();
            frame.write(bytes, from, to - from);
            made.update(bytes, from, to - from);
            taken += to - from;
        }
    }

    /** A member that is not inflated, without the header before it. */
    private void asItIs(byte[] bytes, int begin, int end) {
        int from = begin;
        while (from < end) {
            int to = Chunker.CONTENT.cut(bytes, from, end);
            sha.update(bytes, from, to - from);
            asItIs(sha.digest(), bytes, from, to - from);
            from = to;
        }
    }

    private void inflated(UnfoldPlan.Fold f, DeflateSettings settings, byte[] deflated) throws IOException {
        int length = (int) f.member().length();
        byte[] inflated = UnfoldPlan.inflate(deflated, length)
                .orElseThrow(() -> new IllegalStateException("was inflated when it was proved"));
        endRun();
        endTake();
        made.update(deflated);
        List<Recipe.Run> runs = List.of();
        if (deflated.length < UnfoldPlan.ALONE_MIN) {
            frame.write(inflated, 0, length);
        } else {
            runs = cut(Chunker.inflated(length, deflated.length), inflated, length);
        }
        parts.add(new Recipe.Member(settings, runs, length, deflated.length));
    }

    private List<Recipe.Run> cut(Chunker by, byte[] bytes, int length) {
        Recipe.Builder builder = new Recipe.Builder();
        int from = 0;
        while (from < length) {
            int end = by.cut(bytes, from, length);
            builder.add(store.putInflated(bytes, from, end - from));
            from = end;
        }
        return builder.runs();
    }

    private void endTake() {
        if (taken > 0) {
            parts.add(new Recipe.Take(taken));
        }
        taken = 0;
    }

    private void endRun() {
        parts.addAll(run.runs());
        run = new Recipe.Builder();
    }

    /** The recipe of all that was taken, without its seal. */
    Recipe.Unfolded finish() {
        endRun();
        endTake();
        byte[] bytes = frame.toByteArray();
        return new Recipe.Unfolded(cut(Chunker.FRAME, bytes, bytes.length), parts, Digest.of(made.digest()), UNSEALED);
    }
}
