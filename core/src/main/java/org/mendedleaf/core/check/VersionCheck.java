package org.mendedleaf.core.check;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.Numbering;
import org.mendedleaf.core.catalogue.PathIds;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.vault.ContentDigest;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.RecipeDigest;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/** Checks that each version adds up: its chunks are there, sound, and together what its digest says. */
final class VersionCheck {

    private final Sql sql;
    private final PathIds names;
    private final Set<Long> lostChunks;
    private final boolean digestsToo;
    private final List<VaultCheck.LostVersion> lost = new ArrayList<>();
    private long looked;

    /**
     * A check.
     *
     * @param lostChunks ids of those that cannot be read
     */
    VersionCheck(Sql sql, Set<Long> lostChunks, boolean digestsToo) {
        this.sql = sql;
        this.names = new PathIds(sql);
        this.lostChunks = lostChunks;
        this.digestsToo = digestsToo;
    }

    List<VaultCheck.LostVersion> lost() {
        return lost;
    }

    /** Number of versions that were looked at. */
    long looked() {
        return looked;
    }

    private record Trouble(long line, int number, long node, String words) {}

    /** Looks at all versions; adds what is wrong, as a message. */
    void run(List<String> damages) throws IOException {
        List<Trouble> troubles = new ArrayList<>();
        try {
            KnownChunks chunks = KnownChunks.of(sql);
            sql.each("SELECT line, number, node, size, digest, recipe FROM version", r -> {
                looked++;
                String words = trouble(chunks, r.getBytes(6), r.getLong(4), r.getBytes(5));
                if (!words.isEmpty()) {
                    troubles.add(new Trouble(r.getLong(1), r.getInt(2), r.getLong(3), words));
                }
            });
            missing(troubles);
        } catch (VaultException e) {
            damages.add(e.words());
        }
        for (Trouble trouble : troubles) {
            String path = path(trouble);
            String label = Numbering.of(sql, trouble.line(), trouble.number()).label();
            lost.add(new VaultCheck.LostVersion(trouble.line(), path, trouble.number(), label));
            damages.add(Words.of("check.version", path, label, trouble.words()));
        }
    }

    private String path(Trouble trouble) {
        try {
            return names.nodePath(trouble.node());
        } catch (IOException | IllegalArgumentException e) {
            return Words.of("rebuild.lostName", String.valueOf(trouble.line()), String.valueOf(trouble.node()));
        }
    }

    /** The versions of a line are numbered without gaps: one that is not told of any longer is lost. */
    private void missing(List<Trouble> troubles) throws IOException {
        record Incomplete(long line, long node, int last) {}
        List<Incomplete> lines = sql.list(
                "SELECT l.id, l.node, l.last FROM line l WHERE l.last <>"
                        + " (SELECT count(*) FROM version v WHERE v.line = l.id AND v.number <= l.last)",
                r -> new Incomplete(r.getLong(1), r.getLong(2), r.getInt(3)));
        for (Incomplete line : lines) {
            Set<Integer> there =
                    Set.copyOf(sql.list("SELECT number FROM version WHERE line = ?", r -> r.getInt(1), line.line()));
            for (int number = 1; number <= line.last(); number++) {
                if (!there.contains(number)) {
                    troubles.add(new Trouble(line.line(), number, line.node(), Words.of("check.versionMissing")));
                }
            }
        }
    }

    private String trouble(KnownChunks chunks, byte[] recipe, long size, byte[] digest) {
        try {
            Recipe decoded = Recipe.decode(recipe);
            if (decoded.isElsewhere()) {
                return "";
            }
            List<KnownChunks.Chunk> found = new ArrayList<>();
            for (Recipe.Run run : decoded.runs()) {
                if (!chunks.find(run, found)) {
                    return Words.of("check.chunkLost");
                }
            }
            if (!lostChunks.isEmpty() && found.stream().anyMatch(c -> lostChunks.contains(c.id()))) {
                return Words.of("check.chunkLost");
            }
            boolean same = decoded.unfolded().isPresent()
                    ? isSealed(decoded.unfolded().get(), found, size, Digest.of(digest))
                    : isWhole(found, size, digestsToo ? Optional.of(Digest.of(digest)) : Optional.empty());
            return same ? "" : Words.of("check.recipe");
        } catch (VaultException e) {
            return String.valueOf(e.getMessage());
        } catch (RuntimeException e) {
            // A digest or recipe of which nothing is right.
            return Words.of("check.recipe");
        }
    }

    private static boolean isWhole(List<KnownChunks.Chunk> chunks, long size, Optional<Digest> digest) {
        ContentDigest computed = new ContentDigest();
        long length = 0;
        for (KnownChunks.Chunk c : chunks) {
            computed.add(c.digest(), c.length());
            length += c.length();
        }
        return length == size && (digest.isEmpty() || computed.finish().equals(digest.get()));
    }

    /** Whether the seal of an unfolded content is right; that its members can be made was proved when they were stored. */
    private static boolean isSealed(Recipe.Unfolded recipe, List<KnownChunks.Chunk> all, long size, Digest digest) {
        RecipeDigest seal = new RecipeDigest(recipe);
        Map<Long, Integer> lengths = new HashMap<>();
        for (KnownChunks.Chunk c : all) {
            seal.add(c.digest());
            lengths.put(c.id(), c.length());
        }
        long length = 0;
        for (Recipe.Part part : recipe.parts()) {
            if (part instanceof Recipe.Run run) {
                for (long id = run.first(); id < run.first() + run.count(); id++) {
                    length += Objects.requireNonNull(lengths.get(id));
                }
            } else if (part instanceof Recipe.Member member) {
                length += member.deflated();
            } else if (part instanceof Recipe.Take take) {
                length += take.bytes();
            }
        }
        return length == size && seal.finish(digest).equals(recipe.seal());
    }

    /** Whether a recipe needs one of these chunks. */
    static boolean needsAny(byte[] recipe, Set<Long> chunks) throws IOException {
        for (Recipe.Run run : Recipe.decode(recipe).runs()) {
            for (long id = run.first(); id < run.first() + run.count(); id++) {
                if (chunks.contains(id)) {
                    return true;
                }
            }
        }
        return false;
    }
}
