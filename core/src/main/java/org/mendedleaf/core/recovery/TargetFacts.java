package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What a target can hold.
 *
 * @param where it is, as a message
 * @param freeBytes space; {@link Long#MAX_VALUE} when nobody knows
 * @param writable whether something can be put there at all
 * @param caseInsensitive whether names that differ only by case are the same there
 * @param portableNames whether it refuses the names that Windows refuses
 * @param links whether it can hold symbolic links
 * @param largestFile bytes that one file can have
 * @param backslashes whether a name can have a backslash in it; archives take that for the end of a folder's name
 */
public record TargetFacts(
        String where,
        long freeBytes,
        boolean writable,
        boolean caseInsensitive,
        boolean portableNames,
        boolean links,
        long largestFile,
        boolean backslashes) {

    /** Somewhere that holds everything, as far as anybody knows. */
    public static final TargetFacts ANYTHING =
            new TargetFacts("", Long.MAX_VALUE, true, false, false, true, Long.MAX_VALUE, true);

    private static final int MOST_BYTES = 255;

    /** The longest path that programs of Windows open which know no other way. Characters. */
    private static final int OPENED_MOST = 259;

    /** What a drive is called there, such as {@code E:\\}. Characters. */
    private static final int DRIVE = 3;

    private static final long FAT_MOST = (1L << 32) - 1;
    private static final Set<String> FAT = Set.of("vfat", "msdos", "fat", "fat32");
    private static final Set<String> PORTABLE = Set.of("exfat", "ntfs", "ntfs3", "fuseblk", "cifs", "smb3", "smb2");
    private static final Set<String> RESERVED = Set.of("con", "prn", "aux", "nul");

    /** The facts of a folder that is there or will be made: those of the nearest one above that is there. */
    public static TargetFacts of(Path folder) {
        Path there = folder.toAbsolutePath();
        while (there.getParent() != null && !Files.exists(there)) {
            there = there.getParent();
        }
        try {
            FileStore store = Files.getFileStore(there);
            String type = store.type().toLowerCase(Locale.ROOT);
            boolean fat = FAT.contains(type);
            boolean portable = fat || PORTABLE.contains(type) || isWindows(there);
            boolean folds = portable || type.startsWith("hfs") || type.startsWith("apfs") || folds(there);
            return new TargetFacts(
                    folder.toString(),
                    store.getUsableSpace(),
                    Files.isDirectory(there) && Files.isWritable(there) && !store.isReadOnly(),
                    folds,
                    portable,
                    !portable,
                    fat ? FAT_MOST : Long.MAX_VALUE,
                    !portable);
        } catch (IOException e) {
            return new TargetFacts(folder.toString(), Long.MAX_VALUE, true, false, false, true, Long.MAX_VALUE, true);
        }
    }

    /** Whether its file system belongs to Windows, whatever it calls itself. */
    private static boolean isWindows(Path folder) {
        return folder.getFileSystem().getSeparator().equals("\\");
    }

    /** Whether a folder that is there is found by its name in other letters too. */
    private static boolean folds(Path there) throws IOException {
        Path name = there.getFileName();
        String text = name == null ? "" : name.toString();
        String other = text.equals(text.toUpperCase(Locale.ROOT))
                ? text.toLowerCase(Locale.ROOT)
                : text.toUpperCase(Locale.ROOT);
        return !other.equals(text)
                && Files.exists(there.resolveSibling(other))
                && Files.isSameFile(there, there.resolveSibling(other));
    }

    /** Whether many programs of Windows cannot open a file there, since its path is longer than they take. */
    boolean isTooLongForMany(String path) {
        return portableNames
                && path.length() + Math.max(DRIVE, where.contains("\\") ? where.length() + 1 : 0) > OPENED_MOST;
    }

    /** The same for names within a ZIP file, however the disk below it is: it holds every name without a backslash. */
    TargetFacts inZip() {
        return new TargetFacts(where, freeBytes, writable, false, false, true, Long.MAX_VALUE, false);
    }

    /** The same for a bag: no links, and no names with a backslash. */
    TargetFacts inBag() {
        return new TargetFacts(where, freeBytes, writable, caseInsensitive, portableNames, false, largestFile, false);
    }

    /** Why this target cannot hold a file, as a message; empty when it can. */
    Optional<String> problem(String path, EntryKind kind, long size) {
        if (kind == EntryKind.LINK && !links) {
            return Optional.of(Words.of("preflight.link"));
        }
        for (String name : RelativePath.names(path)) {
            Optional<String> problem = name(name);
            if (problem.isPresent()) {
                return problem;
            }
        }
        return size > largestFile
                ? Optional.of(Words.of("preflight.tooLarge", Formats.size(largestFile)))
                : Optional.empty();
    }

    private Optional<String> name(String name) {
        if (name.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES) {
            return Optional.of(Words.of("preflight.nameTooLong", name));
        }
        if (!backslashes && name.indexOf('\\') >= 0) {
            return Optional.of(Words.of("preflight.backslash", name));
        }
        if (!portableNames) {
            return Optional.empty();
        }
        String stem = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
        String lower = stem.toLowerCase(Locale.ROOT).strip();
        boolean bad = name.chars().anyMatch(c -> c < 32 || "<>:\"\\|?*".indexOf(c) >= 0)
                || name.endsWith(" ")
                || name.endsWith(".")
                || RESERVED.contains(lower)
                || lower.matches("(com|lpt)[1-9]");
        return bad ? Optional.of(Words.of("preflight.name", name)) : Optional.empty();
    }

    /** What stands for a path where names that differ only by case, or by how accents are written, are the same. */
    static String folded(String path) {
        return Normalizer.normalize(path, Normalizer.Form.NFC)
                .toUpperCase(Locale.ROOT)
                .toLowerCase(Locale.ROOT);
    }
}
