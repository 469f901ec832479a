package org.mendedleaf.core.line;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.ContentDigest;
import org.mendedleaf.core.vault.Damage;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.PackCheck;
import org.mendedleaf.core.vault.PackReader;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.Seal;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/** Checks a vault and names what is damaged, version by version. Changes nothing. */
public final class VaultCheck {

    private final OpenVault vault;

    /** A check of this vault. */
    public VaultCheck(OpenVault vault) {
        this.vault = vault;
    }

    /**
     * What a check found.
     *
     * @param full whether every stored byte was read
     * @param packs that were looked at
     * @param versions that were looked at
     * @param bytes of packs that were read
     * @param damages what is wrong
     * @param lost versions that cannot be brought back whole
     * @param cancelled whether somebody stopped it before its end
     */
    public record Report(
            boolean full,
            long packs,
            long versions,
            long bytes,
            List<String> damages,
            List<LostVersion> lost,
            boolean cancelled) {

        /** Copies the lists. */
        public Report {
            damages = List.copyOf(damages);
            lost = List.copyOf(lost);
        }

        /** Whether nothing is wrong. */
        public boolean isClean() {
            return damages.isEmpty() && lost.isEmpty();
        }
    }

    /** A version that cannot be brought back whole. */
    public record LostVersion(String path, int number) {}

    /**
     * Checks.
     *
     * @param full whether to read every stored byte; otherwise packs are looked at from outside
     */
    public Report run(boolean full, Progress progress) throws IOException {
        try (Reading reading = vault.read();
                PackReader packs = new PackReader(vault.folder())) {
            Sql sql = reading.sql();
            List<String> damages = new ArrayList<>(catalogue(sql, full));
            Set<Long> lostChunks = new HashSet<>();
            List<PackCheck.Expected> expected = expected(sql);
            long all =
                    expected.stream().mapToLong(PackCheck.Expected::committed).sum();
            progress.begin(Words.of("check.step"), 0, full ? all : 0);
            PackCheck check = new PackCheck(vault.folder(), packs);
            long[] bytes = {0};
            boolean cancelled = false;
            for (PackCheck.Expected pack : expected) {
                cancelled = cancelled || progress.isCancelled();
                if (cancelled) {
                    break;
                }
                List<Damage> found = full
                        ? check.full(pack, n -> {
                            bytes[0] += n;
                            progress.advance(0, n);
                        })
                        : check.quick(pack);
                for (Damage damage : found) {
                    damages.add(damage.words());
                    lostChunks.addAll(damage.chunks());
                }
            }
            List<LostVersion> lost = new ArrayList<>();
            long versions = versions(reading, full, expected, lostChunks, damages, lost);
            return new Report(full, expected.size(), versions, bytes[0], damages, lost, cancelled);
        }
    }

    private static List<String> catalogue(Sql sql, boolean full) {
        try {
            return sql.list(full ? "PRAGMA integrity_check" : "PRAGMA quick_check", r -> r.getString(1)).stream()
                    .filter(line -> !"ok".equals(line))
                    .map(line -> Words.of("check.catalogue", line))
                    .toList();
        } catch (VaultException e) {
            return List.of(String.valueOf(e.getMessage()));
        }
    }

    private static List<PackCheck.Expected> expected(Sql sql) throws IOException {
        TreeMap<Long, NavigableMap<Long, ChunkPlace>> chunks = new TreeMap<>();
        sql.list("SELECT id, hash, pack, off, clen, len FROM chunk", r -> {
            ChunkPlace c =
                    new ChunkPlace(r.getLong(1), r.getLong(3), r.getLong(4), r.getInt(5), r.getInt(6), r.getBytes(2));
            return chunks.computeIfAbsent(c.pack(), p -> new TreeMap<>()).put(c.offset(), c) == null;
        });
        List<PackCheck.Expected> packs = new ArrayList<>(sql.list(
                "SELECT id, sealed, committed FROM pack ORDER BY id",
                r -> new PackCheck.Expected(
                        r.getLong(1),
                        r.getInt(2) == 1,
                        r.getLong(3),
                        chunks.getOrDefault(r.getLong(1), new TreeMap<>()))));
        return packs;
    }

    private long versions(
            Reading reading,
            boolean full,
            List<PackCheck.Expected> packs,
            Set<Long> lostChunks,
            List<String> damages,
            List<LostVersion> lost)
            throws IOException {
        java.util.Map<Long, ChunkPlace> chunks = new java.util.HashMap<>();
        packs.forEach(p -> p.chunks().values().forEach(c -> chunks.put(c.id(), c)));
        record Raw(long line, int number, long node, long size, byte[] digest, byte[] recipe) {}
        List<Raw> raws = reading.sql()
                .list(
                        "SELECT line, number, node, size, digest, recipe FROM version",
                        r -> new Raw(
                                r.getLong(1), r.getInt(2), r.getLong(3), r.getLong(4), r.getBytes(5), r.getBytes(6)));
        Names names = new Names(reading.sql());
        for (Raw raw : raws) {
            String trouble = trouble(raw.recipe(), raw.size(), raw.digest(), chunks, lostChunks, full);
            if (!trouble.isEmpty()) {
                String path = names.nodePath(raw.node());
                lost.add(new LostVersion(path, raw.number()));
                damages.add(Words.of("check.version", path, raw.number(), trouble));
            }
        }
        return raws.size();
    }

    private static String trouble(
            byte[] recipe,
            long size,
            byte[] digest,
            java.util.Map<Long, ChunkPlace> chunks,
            Set<Long> lostChunks,
            boolean full) {
        try {
            Recipe decoded = Recipe.decode(recipe);
            if (decoded.isElsewhere()) {
                return "";
            }
            List<ChunkPlace> found = new ArrayList<>();
            for (Recipe.Run run : decoded.runs()) {
                for (long id = run.first(); id < run.first() + run.count(); id++) {
                    ChunkPlace chunk = chunks.get(id);
                    if (chunk == null || lostChunks.contains(id)) {
                        return Words.of("check.chunkLost");
                    }
                    found.add(chunk);
                }
            }
            boolean same = decoded.unfolded().isPresent()
                    ? isSealed(decoded.unfolded().get(), found, chunks, size, Digest.of(digest))
                    : isWhole(found, size, full ? Optional.of(Digest.of(digest)) : Optional.empty());
            return same ? "" : Words.of("check.recipe");
        } catch (VaultException e) {
            return String.valueOf(e.getMessage());
        }
    }

    private static boolean isWhole(List<ChunkPlace> chunks, long size, Optional<Digest> digest) {
        ContentDigest computed = new ContentDigest();
        long length = 0;
        for (ChunkPlace c : chunks) {
            computed.add(c.digest(), c.length());
            length += c.length();
        }
        return length == size && (digest.isEmpty() || computed.finish().equals(digest.get()));
    }

    /** Whether the seal of an unfolded content is right; that its members can be made was proved when they were stored. */
    private static boolean isSealed(
            Recipe.Unfolded recipe,
            List<ChunkPlace> all,
            java.util.Map<Long, ChunkPlace> chunks,
            long size,
            Digest digest) {
        Seal seal = new Seal(recipe);
        all.forEach(c -> seal.add(c.digest()));
        long length = 0;
        for (Recipe.Part part : recipe.parts()) {
            if (part instanceof Recipe.Run run) {
                for (long id = run.first(); id < run.first() + run.count(); id++) {
                    length += java.util.Objects.requireNonNull(chunks.get(id)).length();
                }
            } else if (part instanceof Recipe.Member member) {
                length += member.deflated();
            } else if (part instanceof Recipe.Take take) {
                length += take.bytes();
            }
        }
        return length == size && seal.finish(digest).equals(recipe.seal());
    }
}
