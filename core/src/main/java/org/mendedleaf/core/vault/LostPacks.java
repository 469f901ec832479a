package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;

/** Packs that the catalogue knows and that are away, or shorter than what was committed of them. */
final class LostPacks {

    private final Connection connection;
    private final VaultFolder vault;

    LostPacks(Connection connection, VaultFolder vault) {
        this.connection = connection;
        this.vault = vault;
    }

    /** Their numbers, as digits. Looks at lengths only. */
    List<String> numbers() throws SQLException, IOException {
        List<String> found = new ArrayList<>();
        try (Statement ask = connection.createStatement();
                ResultSet rows = ask.executeQuery("SELECT id, committed FROM pack")) {
            while (rows.next()) {
                if (length(rows.getLong(1)) < rows.getLong(2)) {
                    found.add(String.valueOf(rows.getLong(1)));
                }
            }
        }
        return found;
    }

    private long length(long pack) throws IOException {
        try {
            return Files.size(vault.pack(pack));
        } catch (NoSuchFileException e) {
            return 0;
        }
    }
}
