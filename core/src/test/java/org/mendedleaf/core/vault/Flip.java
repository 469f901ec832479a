package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Version;

/** Damage in the packs of a vault. */
public final class Flip {

    private Flip() {}

    /** Flips a bit in the first chunk of a version. */
    public static void in(OpenVault vault, Version version) throws IOException {
        try (Reading r = vault.read()) {
            ChunkPlace chunk = r.contents().places(version.recipe()).get(0);
            Path pack = vault.folder().pack(chunk.pack());
            byte[] bytes = Files.readAllBytes(pack);
            bytes[(int) chunk.offset() + PackFormat.RECORD_HEAD + 10] ^= 1;
            Files.write(pack, bytes);
        }
        vault.closeIdle();
    }
}
