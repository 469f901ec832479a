package org.mendedleaf.core.check;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PackTables;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.PackCheck;
import org.mendedleaf.core.vault.PackFiles;
import org.mendedleaf.core.vault.PackReader;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/** The packs that the catalogue knows, beside those that are there now. */
final class KnownPacks {

    private final OpenVault vault;

    KnownPacks(OpenVault vault) {
        this.vault = vault;
    }

    /** What each pack should hold, in the state that is read. */
    static List<PackCheck.Expected> expected(Sql sql) throws IOException {
        return sql.list("SELECT id, sealed, committed FROM pack ORDER BY id", r -> {
            long number = r.getLong(1);
            return new PackCheck.Expected(number, r.getInt(2) == 1, r.getLong(3), () -> PackTables.places(sql, number));
        });
    }

    /** Whether a pack was emptied since; then its chunks are looked at where they are now. */
    boolean follow(PackCheck.Expected pack, PackReader packs, Set<Long> lostChunks) throws IOException {
        try (Reading now = vault.read()) {
            if (now.sql().number("SELECT count(*) FROM pack WHERE id = ?", pack.number()) > 0) {
                return false;
            }
            for (ChunkPlace c : pack.chunks().find()) {
                List<ChunkPlace> moved = now.sql()
                        .list(
                                "SELECT id, hash, pack, off, clen, len FROM chunk WHERE id = ?",
                                PackTables::place,
                                c.id());
                for (ChunkPlace place : moved) {
                    try {
                        packs.read(place);
                    } catch (VaultException.Damaged e) {
                        lostChunks.add(place.id());
                    }
                }
            }
        }
        return true;
    }

    /** Files among the packs that are none of ours, or of which the catalogue does not know. */
    List<String> strayFiles(List<PackCheck.Expected> expected) throws IOException {
        Set<Long> known = new HashSet<>();
        expected.forEach(p -> known.add(p.number()));
        List<String> found = new ArrayList<>();
        Set<Long> now = new HashSet<>();
        for (PackFiles.PackFile file : PackFiles.of(vault.folder())) {
            // Another process begins a pack just now, or did so before a crash: not even its header is written.
            boolean begun = file.state() == PackFiles.State.HEADER_DAMAGED && file.bytes() < PackCheck.EMPTY;
            if (begun && !known.contains(file.named())) {
                continue;
            }
            if (file.state() != PackFiles.State.SOUND && !known.contains(file.named())) {
                file.words().ifPresent(found::add);
            } else if (!known.contains(file.number())) {
                if (now.isEmpty()) {
                    try (Reading reading = vault.read()) {
                        now.addAll(reading.sql()
                                .list("SELECT id FROM pack UNION SELECT pack FROM emptied", r -> r.getLong(1)));
                    }
                }
                // A pack without a record was begun just now, or before a crash.
                if (!now.contains(file.number()) && file.bytes() > PackCheck.EMPTY) {
                    found.add(Words.of("check.unknownPack", file.file().getFileName()));
                }
            }
        }
        return found;
    }
}
