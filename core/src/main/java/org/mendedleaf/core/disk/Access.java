package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.EnumSet;
import java.util.Set;

/**
 * Who of the people on this computer may open what the program writes for itself. Where a file system knows no owners, as on
 * many sticks, nothing is set and nothing fails.
 */
public enum Access {
    /** Only whom the file belongs to. */
    OWNER("rwx------", "rw-------"),
    /** Whom it belongs to, and the members of its group. */
    GROUP("rwxrwx---", "rw-rw----");

    private static final boolean POSIX =
            FileSystems.getDefault().supportedFileAttributeViews().contains("posix");

    private final Set<PosixFilePermission> folder;
    private final Set<PosixFilePermission> file;

    Access(String folder, String file) {
        this.folder = PosixFilePermissions.fromString(folder);
        this.file = PosixFilePermissions.fromString(file);
    }

    private FileAttribute<?>[] attributes(Set<PosixFilePermission> permissions) {
        return POSIX
                ? new FileAttribute<?>[] {PosixFilePermissions.asFileAttribute(permissions)}
                : new FileAttribute<?>[0];
    }

    /** The permissions of a file, to make one with. */
    public FileAttribute<?>[] ofFiles() {
        return attributes(file);
    }

    /** Makes a folder with all above it that are missing; each has these permissions from its first moment on. */
    public void createFolders(Path path) throws IOException {
        if (Files.isDirectory(path)) {
            return;
        }
        Path parent = path.toAbsolutePath().getParent();
        if (parent != null) {
            createFolders(parent);
        }
        try {
            Files.createDirectory(path, attributes(folder));
            set(path, folder);
        } catch (FileAlreadyExistsException e) {
            if (!Files.isDirectory(path)) {
                throw e;
            }
        } catch (UnsupportedOperationException e) {
            Files.createDirectories(path);
        }
    }

    /** Opens a file; when it is made by that, it has these permissions from its first byte on. */
    public FileChannel open(Path path, Set<? extends OpenOption> options) throws IOException {
        try {
            return FileChannel.open(path, options, attributes(file));
        } catch (UnsupportedOperationException e) {
            return FileChannel.open(path, options);
        }
    }

    /** Makes an empty file when there is none. */
    public void createFile(Path path) throws IOException {
        try {
            Files.createFile(path, attributes(file));
            set(path, file);
        } catch (FileAlreadyExistsException e) {
            return;
        } catch (UnsupportedOperationException e) {
            Files.createFile(path);
        }
    }

    /** The mask of the process may have taken away what a group needs. */
    private void set(Path path, Set<PosixFilePermission> permissions) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(path, PosixFileAttributeView.class);
        if (view != null && !view.readAttributes().permissions().equals(permissions)) {
            view.setPermissions(permissions);
        }
    }

    /**
     * Takes away what others than these may do with a file or folder.
     *
     * @return whether anything was taken away
     */
    public boolean tighten(Path path) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(path, PosixFileAttributeView.class);
        if (view == null) {
            return false;
        }
        Set<PosixFilePermission> now = view.readAttributes().permissions();
        Set<PosixFilePermission> kept = EnumSet.noneOf(PosixFilePermission.class);
        kept.addAll(now);
        kept.retainAll(Files.isDirectory(path) ? folder : file);
        if (kept.equals(now)) {
            return false;
        }
        view.setPermissions(kept);
        return true;
    }

    /** As {@link #tighten}, for a folder and all files in it and in folders below; true when anything was taken away. */
    public boolean tightenAll(Path path) throws IOException {
        return each(path, this::tighten);
    }

    /** Gives a folder and all in it exactly these permissions. */
    public void giveAll(Path path) throws IOException {
        each(path, p -> {
            set(p, Files.isDirectory(p) ? folder : file);
            return true;
        });
    }

    /** Changes a path; true when anything was other than it should be. */
    private interface Change {
        boolean of(Path path) throws IOException;
    }

    private static boolean each(Path path, Change change) throws IOException {
        boolean changed = false;
        for (Path p : FilesBelow.paths(path)) {
            try {
                changed |= change.of(p);
            } catch (NoSuchFileException e) {
                org.slf4j.LoggerFactory.getLogger(Access.class).debug("{} went meanwhile", p, e);
            }
        }
        return changed;
    }
}
