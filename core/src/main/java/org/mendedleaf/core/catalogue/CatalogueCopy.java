package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.Map;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;

/**
 * Reading a catalogue where nothing can be written: the database opens a log and an index beside itself even to read, which
 * a full disk, or one that may only be read, refuses. Without a log that matters it is opened as it stands; otherwise a private
 * copy of both is opened.
 */
final class CatalogueCopy {

    private static final Map<String, Path> COPIES = new HashMap<>();

    private CatalogueCopy() {}

    /** Whether an error comes from a disk that takes nothing, rather than from what is in the database. */
    static boolean cannotWrite(VaultFolder vault, SQLException e) {
        String text = String.valueOf(e.getMessage());
        boolean said = text.contains("SQLITE_READONLY")
                || text.contains("SQLITE_CANTOPEN")
                || text.contains("SQLITE_FULL")
                || text.contains("SQLITE_PERM")
                || text.contains("SQLITE_IOERR");
        return said && Files.isReadable(vault.catalogue());
    }

    /** Whether the disk of the vault has no space worth the name left. */
    static boolean isFull(VaultFolder vault) {
        try {
            FileStore disk = Files.getFileStore(vault.root());
            return Files.isWritable(vault.root()) && disk.getUsableSpace() < 128 * 1024;
        } catch (IOException e) {
            return false;
        }
    }

    /** Opens the catalogue without writing beside it. */
    static Connection open(VaultFolder vault) throws IOException {
        try {
            if (length(log(vault)) == 0) {
                return SqliteDriver.connect("jdbc:sqlite:" + vault.catalogue().toUri() + "?immutable=1&mode=ro");
            }
            return CatalogueConnection.open(copy(vault));
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }

    /** Opens a private copy whose tables are of the newest version. */
    static Connection upToDate(VaultFolder vault) throws IOException {
        try {
            Path file = copy(vault);
            try (Connection connection = CatalogueConnection.open(file)) {
                Migrations.run(connection);
            }
            return CatalogueConnection.open(file);
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }

    private static Path log(VaultFolder vault) {
        return Path.of(vault.catalogue() + "-wal");
    }

    private static long length(Path file) throws IOException {
        try {
            return Files.size(file);
        } catch (NoSuchFileException e) {
            return 0;
        }
    }

    private static String state(Path file) throws IOException {
        try {
            return Files.size(file) + "@" + Files.getLastModifiedTime(file);
        } catch (NoSuchFileException e) {
            return "-";
        }
    }

    /** The copy of what the catalogue is now; one that was made of the same serves again. Gone with the process. */
    private static synchronized Path copy(VaultFolder vault) throws IOException {
        String key = vault.root() + " " + state(vault.catalogue()) + " " + state(log(vault));
        Path known = COPIES.get(key);
        if (known != null) {
            return known;
        }
        Path folder;
        try {
            // Readable for its owner only, as all temporary folders of Java.
            folder = TemporaryFiles.folder();
        } catch (IOException e) {
            throw new VaultException.Full(vault.root(), e);
        }
        folder.toFile().deleteOnExit();
        Path file = folder.resolve("catalogue.db");
        for (String ending : new String[] {"", "-wal", "-shm"}) {
            Path.of(file + ending).toFile().deleteOnExit();
        }
        Files.copy(vault.catalogue(), file);
        if (length(log(vault)) > 0) {
            Files.copy(log(vault), Path.of(file + "-wal"));
        }
        COPIES.put(key, file);
        return file;
    }
}
