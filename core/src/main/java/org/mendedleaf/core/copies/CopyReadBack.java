package org.mendedleaf.core.copies;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.CopyCatalogue;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.PackCopy;
import org.mendedleaf.core.vault.PackReplay;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/** What was written to a copy is read back, and put down in the catalogue of the copy where there is one. */
final class CopyReadBack implements PackReplay.Taker {

    private final VaultFolder to;
    private final PackCopy packs;
    private final @Nullable CopyCatalogue catalogue;

    CopyReadBack(VaultFolder to, PackCopy packs, @Nullable CopyCatalogue catalogue) {
        this.to = to;
        this.packs = packs;
        this.catalogue = catalogue;
    }

    @Override
    public void chunk(ChunkPlace place) throws IOException {
        if (catalogue != null) {
            catalogue.chunk(place);
        }
    }

    @Override
    public void lost(ChunkPlace place) throws IOException {
        if (catalogue != null) {
            catalogue.lost(place);
        }
    }

    @Override
    public void pack(long number, long end, boolean sealed) {
        // How far it counts says the vault.
    }

    @Override
    public void stretch(long pack, long from, long behind) throws IOException {
        // What is damaged in the vault too is copied as it is; the check of the vault says it.
        if (!packs.isSame(pack, from, behind)) {
            throw new VaultException.Damaged(
                    Words.of("copies.readBack", to.pack(pack).getFileName(), to.root()));
        }
    }

    @Override
    public void damaged(String words) {
        org.slf4j.LoggerFactory.getLogger(CopyReadBack.class).info("copied as it is in the vault: {}", words);
    }
}
