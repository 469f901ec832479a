package org.mendedleaf.core.disk;

import com.sun.jna.LastErrorException;
import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.Platform;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.FileSystems;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * What Linux can do with names and Java cannot: let two names change places at once, and give a name only where nothing has
 * it (renameat2(2)); ask whether a file is open for writing (leases of fcntl(2)). All of it within a folder that is reached
 * name by name without following a link. Whoever calls this has a portable way beside it.
 */
final class LinuxNames {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(LinuxNames.class);

    /** Set to true, nothing of this is used. */
    static final String OFF = "mendedleaf.portable-names";

    private static final @Nullable C LIBRARY = load();

    private static final int AT_FDCWD = -100;
    private static final int O_RDONLY = 0;
    private static final int O_NONBLOCK = 0x800;
    private static final int O_CLOEXEC = 0x80000;
    private static final int O_DIRECTORY = Platform.isARM() ? 0x4000 : 0x10000;
    private static final int O_NOFOLLOW = Platform.isARM() ? 0x8000 : 0x20000;

    private static final int RENAME_NOREPLACE = 1;
    private static final int RENAME_EXCHANGE = 2;

    private static final int F_SETLEASE = 1024;
    private static final int F_RDLCK = 0;
    private static final int F_UNLCK = 2;

    private static final int ENOENT = 2;
    private static final int EAGAIN = 11;
    private static final int EEXIST = 17;
    private static final int ENOTDIR = 20;
    private static final int EINVAL = 22;
    private static final int ENOSYS = 38;
    private static final int ELOOP = 40;
    private static final int EOPNOTSUPP = 95;

    private LinuxNames() {}

    private interface C extends Library {
        int openat(int folder, byte[] name, int flags, int mode) throws LastErrorException;

        int close(int file) throws LastErrorException;

        int renameat2(int fromFolder, byte[] from, int toFolder, byte[] to, int flags) throws LastErrorException;

        int fcntl(int file, int command, int argument) throws LastErrorException;
    }

    private static @Nullable C load() {
        if (!Platform.isLinux()) {
            return null;
        }
        try {
            NativeLibraries.readyForSystemCalls();
            return Native.load("c", C.class);
        } catch (UnsatisfiedLinkError | RuntimeException e) {
            log.info("the portable ways are used: {}", String.valueOf(e.getMessage()));
            return null;
        }
    }

    /** Whether the portable ways are to be used, also where there are others. */
    static boolean isOff() {
        return Boolean.getBoolean(OFF);
    }

    private static @Nullable C library() {
        return isOff() ? null : LIBRARY;
    }

    /** The bytes of a name with the zero that ends it. */
    private static byte[] asC(String name) {
        byte[] bytes = RawNames.bytes(name);
        return Arrays.copyOf(bytes, bytes.length + 1);
    }

    private interface Work<T> {
        @Nullable
        T in(C c, int folder);
    }

    /** Does something in a folder; null where the system cannot. */
    private static <T> @Nullable T with(Path root, String path, String about, Work<T> work) throws IOException {
        C c = library();
        if (c == null || !root.getFileSystem().equals(FileSystems.getDefault())) {
            return null;
        }
        int folder = -1;
        try {
            int flags = O_RDONLY | O_DIRECTORY | O_CLOEXEC;
            folder = c.openat(AT_FDCWD, asC(RawNames.text(root)), flags, 0);
            for (String name : RelativePath.names(path)) {
                int next = c.openat(folder, asC(name), flags | O_NOFOLLOW, 0);
                c.close(folder);
                folder = next;
            }
            return work.in(c, folder);
        } catch (LastErrorException e) {
            refused(e, RelativePath.child(path, about));
            return null;
        } catch (UnsatisfiedLinkError e) {
            // An older C library does not have it.
            return null;
        } finally {
            if (folder >= 0) {
                c.close(folder);
            }
        }
    }

    /** Throws what the system said, unless it said that it has no such call. */
    private static void refused(LastErrorException e, String path) throws IOException {
        switch (e.getErrorCode()) {
            case EINVAL, ENOSYS, EOPNOTSUPP -> {}
            case ENOENT -> throw new NoSuchFileException(path);
            case EEXIST -> throw new FileAlreadyExistsException(path);
            case ENOTDIR, ELOOP -> throw new NotDirectoryException(path);
            default -> throw new FileSystemException(path, null, e.getMessage());
        }
    }

    /** Whether two names changed places; false where the system or the file system cannot do it. */
    static boolean exchange(Path root, String path, String one, String other) throws IOException {
        Boolean done = with(root, path, other, (c, folder) -> {
            c.renameat2(folder, asC(one), folder, asC(other), RENAME_EXCHANGE);
            return true;
        });
        return done != null;
    }

    /**
     * Whether a file got a name that nothing had; false where the system or the file system cannot do it.
     *
     * @throws FileAlreadyExistsException when something has the name
     */
    static boolean renameNew(Path root, String path, String from, String to) throws IOException {
        Boolean done = with(root, path, to, (c, folder) -> {
            c.renameat2(folder, asC(from), folder, asC(to), RENAME_NOREPLACE);
            return true;
        });
        return done != null;
    }

    /** Whether any program has a file open for writing; null where that cannot be asked. */
    static @Nullable Boolean isBeingWritten(Path root, String path, String name) throws IOException {
        return with(root, path, name, (c, folder) -> {
            int file = c.openat(folder, asC(name), O_RDONLY | O_NOFOLLOW | O_CLOEXEC | O_NONBLOCK, 0);
            try {
                // Given only while nobody has it open for writing.
                c.fcntl(file, F_SETLEASE, F_RDLCK);
                c.fcntl(file, F_SETLEASE, F_UNLCK);
                return false;
            } catch (LastErrorException e) {
                return e.getErrorCode() == EAGAIN ? true : null;
            } finally {
                c.close(file);
            }
        });
    }
}
