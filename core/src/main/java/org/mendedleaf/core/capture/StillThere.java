package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.EntryKind;

/**
 * Asks the disk once more before a removal is put down. A scan takes place before the vault is taken: what another process
 * captured in between is known to the vault and not to the scan.
 */
final class StillThere implements AutoCloseable {

    private final Path root;
    private final Set<String> folders = new HashSet<>();
    private @Nullable SafeFolder open;
    private String openPath = "";

    StillThere(Path root) {
        this.root = root;
    }

    /** Whether something of this kind has the name. When it cannot be asked, it is taken to be there. */
    boolean is(String folder, String name, EntryKind kind) throws IOException {
        boolean there;
        try {
            SafeFolder in = folder(folder);
            Optional<DiskEntry> entry = in.find(name);
            there = entry.isPresent() && isKind(entry.get(), kind);
        } catch (NoSuchFileException | NotDirectoryException e) {
            there = false;
        } catch (IOException e) {
            there = true;
        }
        if (there) {
            folders.add(folder);
        }
        return there;
    }

    private static boolean isKind(DiskEntry entry, EntryKind kind) {
        return switch (kind) {
            case FOLDER -> entry.type() == DiskEntry.Type.FOLDER;
            case LINK -> entry.type() == DiskEntry.Type.LINK;
            case FILE -> entry.type() == DiskEntry.Type.FILE;
        };
    }

    private SafeFolder folder(String path) throws IOException {
        SafeFolder current = open;
        if (current != null && openPath.equals(path)) {
            return current;
        }
        close();
        SafeFolder next = SafeFolder.open(root, path);
        open = next;
        openPath = path;
        return next;
    }

    /** Folders in which something was there after all; what was seen of them is not to be remembered. */
    Set<String> folders() {
        return folders;
    }

    @Override
    public void close() throws IOException {
        SafeFolder current = open;
        open = null;
        if (current != null) {
            current.close();
        }
    }
}
