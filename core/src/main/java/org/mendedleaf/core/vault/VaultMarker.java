package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.words.Words;

/** The file that makes a folder a vault: what form it has, which vault it is, who may open it, and whether it is a copy. */
final class VaultMarker {

    /** Its name. */
    static final String FILE = "VAULT";

    private static final String FIRST_LINE = "mended-leaf vault";
    private static final int FORMAT = 1;

    /** Of a copy: programs that do not know copies, and would write into one, refuse it. */
    private static final int COPY_FORMAT = 2;

    private static final String COPY = "copy";
    private static final String SHARED = "access group";

    private VaultMarker() {}

    /** The marker comes last and whole: without it there is no vault yet. */
    static void write(VaultFolder vault) throws IOException {
        String text = String.join(
                "\n",
                FIRST_LINE,
                "format " + (vault.isCopy() ? COPY_FORMAT : FORMAT),
                "id " + vault.id(),
                (vault.access() == Access.GROUP ? SHARED + "\n" : "") + (vault.isCopy() ? COPY + "\n" : ""));
        Path beside = vault.root().resolve(FILE + ".new");
        Files.deleteIfExists(beside);
        try (FileChannel out =
                vault.access().open(beside, Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE))) {
            Durable.write(out, java.nio.ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8)));
            out.force(true);
        }
        Files.move(beside, vault.root().resolve(FILE), java.nio.file.StandardCopyOption.ATOMIC_MOVE);
        Durable.forceFolder(vault.root());
    }

    /** The vault in a folder, as {@link VaultFolder#open} has it. */
    static VaultFolder read(Path folder) throws IOException {
        List<String> lines;
        try {
            lines = Files.readAllLines(folder.resolve(FILE));
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
            if (format > COPY_FORMAT) {
                throw new VaultException.TooNew(folder, format, COPY_FORMAT);
            }
            UUID id = UUID.fromString(lines.get(2).substring("id ".length()));
            List<String> more = lines.subList(3, lines.size());
            Access access = more.contains(SHARED) ? Access.GROUP : Access.OWNER;
            return new VaultFolder(folder.toAbsolutePath().normalize(), id, access, more.contains(COPY));
        } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
            throw new VaultException.Damaged(Words.of("vault.marker", folder), e);
        }
    }
}
