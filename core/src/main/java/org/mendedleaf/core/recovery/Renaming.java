package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.words.Words;

/**
 * Gives a file or folder of a protected folder another name where it lies. What has that name already is never replaced; the next
 * capture finds the same file under its new name, and its line goes on.
 */
public final class Renaming {

    private Renaming() {}

    /**
     * Renames.
     *
     * @param path from the root of the place
     * @param name the new one, without a folder
     * @return the new path
     * @throws IllegalArgumentException with a message for the user, when that is no name
     * @throws IOException with a message for the user, when something has that name or nothing has the old one; nothing was changed then
     */
    public static String rename(Place place, String path, String name) throws IOException {
        String wanted = name.strip();
        String is = RelativePath.name(path);
        if (wanted.isEmpty()
                || wanted.equals(".")
                || wanted.equals("..")
                || wanted.contains("/")
                || wanted.contains("\0")
                || SafeFolder.isOwnName(wanted)) {
            throw new IllegalArgumentException(Words.of("rename.noName", wanted));
        }
        String parent = RelativePath.parent(path);
        String to = RelativePath.child(parent, wanted);
        if (wanted.equals(is)) {
            return to;
        }
        try (SafeFolder folder = SafeFolder.open(place.root(), parent)) {
            if (isOnlyWrittenOtherwise(place, path, to)) {
                folder.rename(is, wanted);
            } else {
                folder.renameNew(is, wanted);
            }
            folder.force();
        } catch (FileAlreadyExistsException e) {
            throw new IOException(Words.of("rename.taken", wanted), e);
        } catch (NoSuchFileException e) {
            throw new IOException(Words.of("rename.gone", path), e);
        }
        return to;
    }

    /** Where large and small letters are the same to the disk, both names may be of this very file. */
    private static boolean isOnlyWrittenOtherwise(Place place, String path, String to) throws IOException {
        var one = RawNames.resolve(place.root(), path);
        var other = RawNames.resolve(place.root(), to);
        return path.equalsIgnoreCase(to)
                && Files.exists(one)
                && Files.exists(other)
                && Files.isSameFile(one, other)
                && one.toRealPath().equals(other.toRealPath());
    }
}
