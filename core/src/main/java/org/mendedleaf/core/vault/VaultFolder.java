package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.mendedleaf.core.disk.Access;
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

    /** What a kill while a vault is made may leave before there is one. */
    private static final Set<String> BEGUN = Set.of("packs", VaultMarker.FILE + ".new", "catalogue.new", "lock");

    private static final Pattern PACK = Pattern.compile("(\\d{8,18})\\.pack");

    /** Whether this folder is a vault. */
    public static boolean isVault(Path folder) {
        return Files.isRegularFile(folder.resolve(VaultMarker.FILE));
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
        VaultMarker.write(vault);
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
        VaultMarker.write(copy);
        return copy;
    }

    /** This copy as a vault of its own, into which one can write. */
    public VaultFolder asVault() throws IOException {
        VaultFolder vault = new VaultFolder(root, id, access, false);
        VaultMarker.write(vault);
        return vault;
    }

    /** The same vault, which others may open from now on, or may not any longer. */
    public VaultFolder shared(Access with) throws IOException {
        VaultFolder changed = new VaultFolder(root, id, with, isCopy);
        VaultMarker.write(changed);
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
        return VaultMarker.read(folder);
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
