package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.mendedleaf.core.deflate.DeflateSettings;

/**
 * Stores a content by its plan: takes its chunks as it is cut, and makes the recipe. What a plan says was proved for the
 * bytes that were there then; a member that is not the same any more is stored as it is.
 */
final class UnfoldedWriter {

    /** Stores chunks. */
    interface Store {
        /** Stores a chunk of a content as it is; its digest is known. */
        long put(byte[] digest, byte[] bytes, int from, int length) throws IOException;

        /** Stores a chunk of something inflated, or of the frame; tells its digest. */
        Stored putInflated(byte[] bytes, int from, int length) throws IOException;
    }

    record Stored(long id, byte[] digest) {}

    private final UnfoldPlan plan;
    private final Store store;
    private final List<Recipe.Part> parts = new ArrayList<>();
    private final List<List<byte[]>> digests = new ArrayList<>();
    private final MessageDigest made = Digest.sha256();
    private final MessageDigest check = Digest.sha256();
    private final ByteArrayOutputStream frame = new ByteArrayOutputStream();
    private final ByteArrayOutputStream held = new ByteArrayOutputStream();
    private final List<Held> cuts = new ArrayList<>();
    private Recipe.Builder run = new Recipe.Builder();
    private List<byte[]> runDigests = new ArrayList<>();
    private int taken;
    private int region;
    private long at;

    /** A chunk of a member that is being collected. */
    private record Held(byte[] digest, int from, int length) {}

    UnfoldedWriter(UnfoldPlan plan, Store store) {
        this.plan = plan;
        this.store = store;
    }

    /** Takes the next chunk of the content; none goes beyond a region. */
    void take(byte[] digest, byte[] bytes, int from, int length) throws IOException {
        UnfoldPlan.Region in =
                plan.regions().get(Math.min(region, plan.regions().size() - 1));
        if (in.way() == UnfoldPlan.Way.AS_IT_IS || at >= in.end()) {
            asItIs(digest, bytes, from, length);
        } else {
            cuts.add(new Held(digest, held.size(), length));
            held.write(bytes, from, length);
        }
        at += length;
        if (at >= in.end()) {
            end(in);
            region++;
        }
    }

    private void asItIs(byte[] digest, byte[] bytes, int from, int length) throws IOException {
        endTake();
        run.add(store.put(digest, bytes, from, length));
        runDigests.add(digest);
    }

    private void end(UnfoldPlan.Region in) throws IOException {
        byte[] bytes = held.toByteArray();
        held.reset();
        if (in.way() == UnfoldPlan.Way.MEMBER && !isProved(in, in.folds().get(0), bytes)) {
            for (Held c : cuts) {
                asItIs(c.digest(), bytes, c.from(), c.length());
            }
        } else if (in.way() != UnfoldPlan.Way.AS_IT_IS) {
            frame(in, bytes);
        }
        cuts.clear();
    }

    private void frame(UnfoldPlan.Region in, byte[] bytes) throws IOException {
        int from = 0;
        for (UnfoldPlan.Fold f : in.folds()) {
            if (isProved(in, f, bytes)) {
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
        }
        toFrame(bytes, from, bytes.length);
    }

    private boolean isProved(UnfoldPlan.Region in, UnfoldPlan.Fold f, byte[] bytes) {
        long end = f.member().end() - in.begin();
        if (end > bytes.length) {
            return false;
        }
        check.update(
                bytes, (int) (f.member().begin() - in.begin()), (int) f.member().stored());
        return f.proved().equals(Digest.of(check.digest()));
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
    private void asItIs(byte[] bytes, int begin, int end) throws IOException {
        int from = begin;
        while (from < end) {
            int to = Chunker.CONTENT.cut(bytes, from, end);
            check.update(bytes, from, to - from);
            asItIs(check.digest(), bytes, from, to - from);
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
        List<byte[]> own = new ArrayList<>();
        if (deflated.length < UnfoldPlan.ALONE_MIN) {
            frame.write(inflated, 0, length);
        } else {
            runs = cut(Chunker.inflated(length, deflated.length), inflated, length, own);
        }
        parts.add(new Recipe.Member(settings, runs, length, deflated.length));
        digests.add(own);
    }

    private List<Recipe.Run> cut(Chunker by, byte[] bytes, int length, List<byte[]> into) throws IOException {
        Recipe.Builder builder = new Recipe.Builder();
        int from = 0;
        while (from < length) {
            int end = by.cut(bytes, from, length);
            Stored stored = store.putInflated(bytes, from, end - from);
            builder.add(stored.id());
            into.add(stored.digest());
            from = end;
        }
        return builder.runs();
    }

    private void endTake() {
        if (taken > 0) {
            parts.add(new Recipe.Take(taken));
            digests.add(List.of());
        }
        taken = 0;
    }

    private void endRun() {
        if (!runDigests.isEmpty()) {
            parts.addAll(run.runs());
            digests.add(runDigests);
            run = new Recipe.Builder();
            runDigests = new ArrayList<>();
        }
    }

    /**
     * The recipe of all that was taken.
     *
     * @param content digest of the content
     */
    Recipe finish(Digest content) throws IOException {
        // A content that ends within a region is shorter than when it was looked at.
        byte[] left = held.toByteArray();
        for (Held c : cuts) {
            asItIs(c.digest(), left, c.from(), c.length());
        }
        endRun();
        endTake();
        byte[] bytes = frame.toByteArray();
        List<byte[]> frameDigests = new ArrayList<>();
        List<Recipe.Run> runs = cut(Chunker.FRAME, bytes, bytes.length, frameDigests);
        Recipe.Unfolded unfolded = new Recipe.Unfolded(runs, parts, Digest.of(made.digest()), content);
        RecipeDigest seal = new RecipeDigest(unfolded);
        frameDigests.forEach(seal::add);
        digests.forEach(part -> part.forEach(seal::add));
        return Recipe.of(unfolded.sealed(seal.finish(content)));
    }
}
