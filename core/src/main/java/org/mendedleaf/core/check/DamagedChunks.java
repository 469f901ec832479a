package org.mendedleaf.core.check;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.VaultException;

/**
 * Chunks that cannot be read. No content refers to one of them any longer: the next one that has it stores it anew, under its
 * id, and with that every version is whole again that needs it. The live files that could bring one are read again by the
 * next capture.
 */
public final class DamagedChunks {

    private DamagedChunks() {}

    private static Set<Long> noted(Sql sql) throws IOException {
        return new HashSet<>(sql.list("SELECT chunk FROM damaged", r -> r.getLong(1)));
    }

    /** Whether a content needs something that is known to be damaged; nothing is read for that. */
    public static boolean isKnownFor(Reading reading, Recipe recipe) throws IOException {
        Set<Long> known = noted(reading.sql());
        return !known.isEmpty() && reading.contents().places(recipe).stream().anyMatch(p -> known.contains(p.id()));
    }

    /** The versions that need something that is known to be damaged, by path; no byte of them is read for that. */
    public static List<VaultCheck.LostVersion> lost(Reading reading) throws IOException {
        Set<Long> known = noted(reading.sql());
        if (known.isEmpty()) {
            return List.of();
        }
        record Of(long line, int number, byte[] recipe) {}
        List<VaultCheck.LostVersion> lost = new ArrayList<>();
        for (Of v : reading.sql()
                .list(
                        "SELECT line, number, recipe FROM version ORDER BY line, number",
                        r -> new Of(r.getLong(1), r.getInt(2), r.getBytes(3)))) {
            if (VersionCheck.needsAny(v.recipe(), known)) {
                Optional<Line> line = reading.line(v.line());
                lost.add(new VaultCheck.LostVersion(
                        v.line(),
                        line.map(Line::path).orElse(""),
                        v.number(),
                        line.map(l -> l.label(v.number())).orElse(String.valueOf(v.number()))));
            }
        }
        return lost;
    }

    /**
     * Reads a content, and notes what of it cannot be read.
     *
     * @return whether all of it can
     */
    public static boolean isWhole(OpenVault vault, Recipe recipe) throws IOException {
        Set<Long> lost;
        try (Reading reading = vault.read()) {
            lost = reading.contents().damaged(recipe);
        } catch (VaultException.Damaged e) {
            return false;
        }
        if (!lost.isEmpty() && !isNoted(vault, lost, false)) {
            try (WriteSession session = vault.write()) {
                note(session, lost, false);
                session.commit();
            }
        }
        return lost.isEmpty();
    }

    /**
     * Whether all of this is known already.
     *
     * @param all whether these are all that there are
     */
    static boolean isNoted(OpenVault vault, Set<Long> chunks, boolean all) throws IOException {
        try (Reading reading = vault.read()) {
            Set<Long> known = noted(reading.sql());
            return all ? known.equals(chunks) : known.containsAll(chunks);
        }
    }

    /**
     * Notes them.
     *
     * @param all whether these are all that there are, so that others are sound
     */
    static void note(WriteSession session, Set<Long> chunks, boolean all) throws IOException {
        if (all) {
            session.applyUnlogged("DELETE FROM damaged");
        }
        for (long chunk : chunks) {
            session.applyUnlogged(
                    "INSERT OR IGNORE INTO damaged(chunk, since) SELECT id, 0 FROM chunk WHERE id = ?", chunk);
        }
        readAgain(session, chunks);
    }

    /** A file whose content has such a chunk does not look changed: the next capture is told to read it. */
    private static void readAgain(WriteSession session, Set<Long> chunks) throws IOException {
        if (chunks.isEmpty()) {
            return;
        }
        record Live(long folder, byte[] recipe) {}
        List<Live> live = session.sql()
                .list(
                        "SELECT n.folder, v.recipe FROM line l JOIN node n ON n.id = l.node JOIN version v ON v.line = l.id"
                                + " AND v.number = l.last WHERE l.removed = 0",
                        r -> new Live(r.getLong(1), r.getBytes(2)));
        Set<Long> folders = new HashSet<>();
        for (Live file : live) {
            if (!folders.contains(file.folder()) && VersionCheck.needsAny(file.recipe(), chunks)) {
                folders.add(file.folder());
            }
        }
        for (long folder : folders) {
            session.applyUnlogged("DELETE FROM scan WHERE folder = ?", folder);
        }
    }
}
