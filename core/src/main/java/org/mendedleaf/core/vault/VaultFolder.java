package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.disk.NativeLibraries;
import org.mendedleaf.core.words.Words;

/**
 * The folder that is a vault, and where its parts stand in it.
 *
 * <pre>
 * VAULT           lines of text: "mended-leaf vault", "format 1", "id" and a UUID; "access group" when it is shared;
 *                 of a copy "format 2", and "copy" as the last line
 * catalogue.db    SQLite 3, in WAL mode (beside it -wal and -shm while in use)
 * packs/          00000001.pack and so on, see {@link PackFormat}
 * lock            held by the process that writes; its text says who
 * </pre>
 *
 * @param root the folder
 * @param id of the vault, written into every pack
 * @param access who else on this computer may open it
 * @param isCopy whether it is kept in step with another vault, and may only be read
 */
public record VaultFolder(Path root, UUID id, Access access, boolean isCopy) {

    static {
        NativeLibraries.ready();
    }

    private static final String MARKER = "VAULT";
    private static final String FIRST_LINE = "mended-leaf vault";
    private static final int FORMAT = 1;

    /** Of a copy: programs that do not know copies, and would write into one, refuse it. */
    private static final int COPY_FORMAT = 2;

    private static final String COPY = "copy";
    private static final String SHARED = "access group";

    /** What a kill while a vault is made may leave before there is one. */
    private static final Set<String> BEGUN = Set.of("packs", MARKER + ".new", "catalogue.new", "lock");

    private static final Pattern PACK = Pattern.compile("(\\d{8,18})\\.pack");

    /** Whether this folder is a vault. */
    public static boolean isVault(Path folder) {
        return Files.isRegularFile(folder.resolve(MARKER));
    }

    /** As {@link #openOrCreate(Path, Access)}, for its owner only. */
    public static VaultFolder openOrCreate(Path folder) throws IOException {
        return openOrCreate(folder, Access.OWNER);
    }

    /**
     * Opens the vault in this folder, or makes one where there is nothing yet, or where making one was cut short.
     *
     * @param access who else may open one that is made
     * @throws VaultException.Unavailable when the folder holds something else
     */
    public static VaultFolder openOrCreate(Path folder, Access access) throws IOException {
        if (isVault(folder)) {
            return open(folder);
        }
        requireUnused(folder);
        VaultFolder vault = new VaultFolder(folder.toAbsolutePath().normalize(), UUID.randomUUID(), access, false);
        if (!vault.packNumbersIfAny().isEmpty()) {
            throw new VaultException.Damaged(Words.of("vault.noMarker", folder));
        }
        access.createFolders(folder);
        access.giveAll(folder);
        access.createFolders(vault.packs());
        vault.writeMarker();
        return vault;
    }

    private static void requireUnused(Path folder) throws IOException {
        if (!Files.exists(folder)) {
            return;
        }
        if (!Files.isDirectory(folder)) {
            throw new VaultException.Unavailable(Words.of("vault.notAFolder", folder));
        }
        try (Stream<Path> inside = Files.list(folder)) {
            if (inside.anyMatch(p -> !BEGUN.contains(p.getFileName().toString()))) {
                throw new VaultException.Unavailable(Words.of("vault.notEmpty", folder));
            }
        }
    }

    private List<Long> packNumbersIfAny() throws IOException {
        return Files.isDirectory(packs()) ? packNumbers() : List.of();
    }

    /** The marker comes last and whole: without it there is no vault yet. */
    private void writeMarker() throws IOException {
        String text = String.join(
                "\n",
                FIRST_LINE,
                "format " + (isCopy ? COPY_FORMAT : FORMAT),
                "id " + id,
                (access == Access.GROUP ? SHARED + "\n" : "") + (isCopy ? COPY + "\n" : ""));
        Path beside = root.resolve(MARKER + ".new");
        Files.deleteIfExists(beside);
        try (FileChannel out = access.open(beside, Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE))) {
            Durable.write(out, java.nio.ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8)));
            out.force(true);
        }
        Files.move(beside, root.resolve(MARKER), java.nio.file.StandardCopyOption.ATOMIC_MOVE);
        Durable.forceFolder(root);
    }

    /**
     * Makes an empty copy of this vault in a folder that is empty, not there yet, or in which making it was cut short.
     *
     * @throws VaultException.Unavailable when the folder holds something else
     */
    public VaultFolder makeCopy(Path folder) throws IOException {
        requireUnused(folder);
        VaultFolder copy = new VaultFolder(folder.toAbsolutePath().normalize(), id, access, true);
        access.createFolders(copy.root());
        access.createFolders(copy.packs());
        copy.writeMarker();
        return copy;
    }

    /** This copy as a vault of its own, into which one can write. */
    public VaultFolder asVault() throws IOException {
        VaultFolder vault = new VaultFolder(root, id, access, false);
        vault.writeMarker();
        return vault;
    }

    /** The same vault, which others may open from now on, or may not any longer. */
    public VaultFolder shared(Access with) throws IOException {
        VaultFolder changed = new VaultFolder(root, id, with, isCopy);
        changed.writeMarker();
        with.giveAll(root);
        return changed;
    }

    /**
     * Takes away what others may do with a vault that is not shared, as one made by an earlier version of this program; it
     * stays as it is when it belongs to somebody else.
     *
     * @return whether others could open it before
     */
    public boolean tighten() {
        try {
            // What stands in a closed folder cannot be opened: its files are looked at when it was open.
            if (!access.tighten(root)) {
                return false;
            }
            access.tightenAll(root);
            return true;
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(VaultFolder.class).debug("permissions of {} stay", root, e);
            return false;
        }
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

    /** The number that the name of a pack file says; empty when it is not the name of one. */
    static Optional<Long> packNumber(Path file) {
        Matcher name = PACK.matcher(String.valueOf(file.getFileName()));
        return name.matches() ? Optional.of(Long.valueOf(name.group(1))) : Optional.empty();
    }

    /** The numbers of the pack files that are there, ascending. */
    public List<Long> packNumbers() throws IOException {
        try (Stream<Path> files = Files.list(packs())) {
            return files.flatMap(f -> packNumber(f).stream()).sorted().toList();
        } catch (NoSuchFileException e) {
            throw new VaultException.Unavailable(Words.of("vault.none", root), e);
        }
    }
}
