package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;
import org.mendedleaf.core.words.Words;

/**
 * The folder that is a vault, and where its parts stand in it.
 *
 * <pre>
 * VAULT           three lines of text: "mended-leaf vault", "format 1", "id" and a UUID
 * catalogue.db    SQLite 3, in WAL mode (beside it -wal and -shm while in use)
 * packs/          00000001.pack and so on, see {@link PackFormat}
 * lock            held by the process that writes; its text says who
 * </pre>
 *
 * @param root the folder
 * @param id of the vault, written into every pack
 */
public record VaultFolder(Path root, UUID id) {

    private static final String MARKER = "VAULT";
    private static final String FIRST_LINE = "mended-leaf vault";
    private static final int FORMAT = 1;

    /** Whether this folder is a vault. */
    public static boolean isVault(Path folder) {
        return Files.isRegularFile(folder.resolve(MARKER));
    }

    /**
     * Opens the vault in this folder, or makes one where there is nothing yet.
     *
     * @throws VaultException.Unavailable when the folder holds something else
     */
    public static VaultFolder openOrCreate(Path folder) throws IOException {
        if (isVault(folder)) {
            return open(folder);
        }
        if (Files.exists(folder)) {
            if (!Files.isDirectory(folder)) {
                throw new VaultException.Unavailable(Words.of("vault.notAFolder", folder));
            }
            try (Stream<Path> inside = Files.list(folder)) {
                if (inside.anyMatch(p -> !p.getFileName().toString().equals("packs"))) {
                    throw new VaultException.Unavailable(Words.of("vault.notEmpty", folder));
                }
            }
        }
        VaultFolder vault = new VaultFolder(folder.toAbsolutePath().normalize(), UUID.randomUUID());
        Files.createDirectories(vault.packs());
        // The marker comes last and whole: without it there is no vault yet.
        String text = String.join("\n", FIRST_LINE, "format " + FORMAT, "id " + vault.id(), "");
        Path beside = folder.resolve(MARKER + ".new");
        try (FileChannel out = FileChannel.open(
                beside, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING, StandardOpenOption.WRITE)) {
            Durable.write(out, java.nio.ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8)));
            out.force(true);
        }
        Files.move(beside, folder.resolve(MARKER), java.nio.file.StandardCopyOption.ATOMIC_MOVE);
        Durable.forceFolder(folder);
        return vault;
    }

    /**
     * Opens the vault in this folder.
     *
     * @throws VaultException.Unavailable when there is none
     * @throws VaultException.TooNew when a newer version of this program made it
     * @throws VaultException.Damaged when the marker is not readable as one
     */
    public static VaultFolder open(Path folder) throws IOException {
        List<String> lines;
        try {
            lines = Files.readAllLines(folder.resolve(MARKER));
        } catch (NoSuchFileException e) {
            throw new VaultException.Unavailable(Words.of("vault.none", folder), e);
        } catch (IOException e) {
            throw new VaultException.Unavailable(Words.of("vault.unreadable", folder, e.getMessage()), e);
        }
        try {
            if (!lines.get(0).equals(FIRST_LINE)) {
                throw new VaultException.Damaged(Words.of("vault.marker", folder));
            }
            int format = Integer.parseInt(lines.get(1).substring("format ".length()));
            if (format > FORMAT) {
                throw new VaultException.TooNew(folder, format, FORMAT);
            }
            UUID id = UUID.fromString(lines.get(2).substring("id ".length()));
            return new VaultFolder(folder.toAbsolutePath().normalize(), id);
        } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
            throw new VaultException.Damaged(Words.of("vault.marker", folder), e);
        }
    }

    /** The catalogue's database file. */
    public Path catalogue() {
        return root.resolve("catalogue.db");
    }

    /** The folder of the packs. */
    public Path packs() {
        return root.resolve("packs");
    }

    /** The file of one pack. */
    public Path pack(long number) {
        return packs().resolve("%08d.pack".formatted(number));
    }

    /** The numbers of the pack files that are there, ascending. */
    public List<Long> packNumbers() throws IOException {
        try (Stream<Path> files = Files.list(packs())) {
            return files.map(f -> f.getFileName().toString())
                    .filter(n -> n.matches("\\d{8,}\\.pack"))
                    .map(n -> Long.valueOf(n.substring(0, n.length() - ".pack".length())))
                    .sorted()
                    .toList();
        } catch (NoSuchFileException e) {
            throw new VaultException.Unavailable(Words.of("vault.none", root), e);
        }
    }
}
