package org.mendedleaf.core.copies;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.VaultCopyStore;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/** Where copies of a vault are, or could be. */
final class CopyFolders {

    private final OpenVault vault;

    CopyFolders(OpenVault vault) {
        this.vault = vault;
    }

    /**
     * Checks whether a copy can be in a folder; changes nothing.
     *
     * @return its real path
     * @throws IllegalArgumentException with a message for the user, when it cannot
     */
    Path check(Path folder) throws IOException {
        Path where = Protect.realOfNew(folder);
        Path root = vault.folder().root().toRealPath();
        if (where.startsWith(root) || root.startsWith(where)) {
            throw new IllegalArgumentException(Words.of("copies.nested", where, root));
        }
        try (Reading reading = vault.read()) {
            for (Place p : reading.places()) {
                if (!p.isOutside() && (where.startsWith(p.root()) || p.root().startsWith(where))) {
                    throw new IllegalArgumentException(Words.of("copies.inPlace", where, p.root()));
                }
            }
            for (VaultCopy c : VaultCopyStore.of(reading).all()) {
                if (where.equals(c.folder())) {
                    throw new IllegalArgumentException(Words.of("copies.already", where));
                }
                if (where.startsWith(c.folder()) || c.folder().startsWith(where)) {
                    throw new IllegalArgumentException(Words.of("copies.nested", where, c.folder()));
                }
            }
        }
        if (VaultFolder.isVault(where) && !isThere(vault, where)) {
            throw new IllegalArgumentException(Words.of("copies.otherVault", where));
        }
        return where;
    }

    /** Whether a folder, or the nearest one above it that is there, is on the drive of the vault. */
    boolean wouldShareDrive(Path folder) throws IOException {
        Path there = Protect.realOfNew(folder);
        for (Path at = there; at != null; at = at.getParent()) {
            if (Files.exists(at)) {
                return isSameDrive(vault.folder().root(), at);
            }
        }
        return false;
    }

    /** Whether this folder holds a copy of the vault: an empty folder where a drive is mounted as a rule holds none. */
    static boolean isThere(OpenVault vault, Path folder) {
        try {
            VaultFolder copy = VaultFolder.open(folder);
            return copy.isCopy() && copy.id().equals(vault.folder().id());
        } catch (IOException e) {
            return false;
        }
    }

    static boolean isSameDrive(Path one, Path other) throws IOException {
        FileStore a = Files.getFileStore(one);
        FileStore b = Files.getFileStore(other);
        return a.equals(b);
    }
}
