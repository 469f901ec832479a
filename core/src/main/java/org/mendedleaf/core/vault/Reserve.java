package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Set;
import java.util.SplittableRandom;
import org.mendedleaf.core.disk.Durable;

/**
 * A file that keeps some space of the vault's disk: when the disk is full, it is given up so that something can be let go and
 * its space given back, which itself takes some space. Captures never use it.
 */
public final class Reserve {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(Reserve.class);

    /** Enough for the log of the catalogue and for the commits with which packs are let go. Bytes. */
    static final int SIZE = 4 << 20;

    /** It is only made where it takes little of what is free. */
    private static final long FREE_AT_LEAST = 4L * SIZE;

    private final VaultFolder vault;
    private final Path file;

    /** The reserve of this vault. */
    public Reserve(VaultFolder vault) {
        this.vault = vault;
        this.file = vault.root().resolve("reserve");
    }

    private long free() throws IOException {
        return Files.getFileStore(vault.root()).getUsableSpace();
    }

    /** Makes it, when it is not there and the disk has plenty of space. */
    public void keep() {
        try {
            if (Files.exists(file) || free() < FREE_AT_LEAST) {
                return;
            }
            // What a disk could compress would keep no space.
            byte[] noise = new byte[SIZE];
            new SplittableRandom(vault.id().getLeastSignificantBits()).nextBytes(noise);
            try (FileChannel out =
                    vault.access().open(file, Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE))) {
                Durable.write(out, ByteBuffer.wrap(noise));
            }
        } catch (IOException e) {
            log.debug("no reserve for {}", vault.root(), e);
        }
    }

    /** Gives its space up, when the disk has less than that left. */
    public void giveUp() {
        try {
            if (free() < SIZE && Files.deleteIfExists(file)) {
                log.info("the reserve of {} is given up", vault.root());
            }
        } catch (IOException e) {
            log.warn("the reserve of {} cannot be given up", vault.root(), e);
        }
    }
}
