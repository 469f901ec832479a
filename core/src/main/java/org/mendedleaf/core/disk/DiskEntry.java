package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileOwnerAttributeView;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFileAttributes;
import java.nio.file.attribute.PosixFilePermission;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * What the file system says of a name, without following a link.
 *
 * @param type what it is
 * @param size bytes
 * @param mtimeNanos modified time, nanoseconds since 1970
 * @param mode the nine permission bits of POSIX; 0644 where the file system has none
 * @param key a hash of device and inode; equal for the same file under another name
 * @param changedNanos when the content or anything about the file was changed last, as the system keeps it for itself and no
 *     program can set it back, nanoseconds since 1970; 0 where the system does not say
 */
public record DiskEntry(Type type, long size, long mtimeNanos, int mode, int key, long changedNanos) {

    /** An entry of which the system does not say when it was changed. */
    public DiskEntry(Type type, long size, long mtimeNanos, int mode, int key) {
        this(type, size, mtimeNanos, mode, key, 0);
    }

    /** What a name can be. */
    public enum Type {
        /** An ordinary file. */
        FILE,
        /** A symbolic link. */
        LINK,
        /** A folder. */
        FOLDER,
        /** A pipe, a socket, a device. */
        SPECIAL
    }

    private static final PosixFilePermission[] BITS = {
        PosixFilePermission.OTHERS_EXECUTE,
        PosixFilePermission.OTHERS_WRITE,
        PosixFilePermission.OTHERS_READ,
        PosixFilePermission.GROUP_EXECUTE,
        PosixFilePermission.GROUP_WRITE,
        PosixFilePermission.GROUP_READ,
        PosixFilePermission.OWNER_EXECUTE,
        PosixFilePermission.OWNER_WRITE,
        PosixFilePermission.OWNER_READ
    };

    static final int PLAIN_MODE = 0b110_100_100;

    static DiskEntry of(BasicFileAttributes a) {
        Type type = a.isRegularFile()
                ? Type.FILE
                : a.isDirectory() ? Type.FOLDER : a.isSymbolicLink() ? Type.LINK : Type.SPECIAL;
        int mode = a instanceof PosixFileAttributes p ? mode(p.permissions()) : PLAIN_MODE;
        Object key = a.fileKey();
        return new DiskEntry(
                type, a.size(), a.lastModifiedTime().to(TimeUnit.NANOSECONDS), mode, key == null ? 0 : key.hashCode());
    }

    /** What is asked of a system that has the view "unix". */
    static final String UNIX = "unix:size,lastModifiedTime,ctime,mode,fileKey,isRegularFile,isDirectory,isSymbolicLink";

    private static final int PERMISSIONS = 0b111_111_111;

    /** An entry by the answers to {@link #UNIX}. */
    static DiskEntry of(Map<String, Object> unix) {
        Type type = Boolean.TRUE.equals(unix.get("isRegularFile"))
                ? Type.FILE
                : Boolean.TRUE.equals(unix.get("isDirectory"))
                        ? Type.FOLDER
                        : Boolean.TRUE.equals(unix.get("isSymbolicLink")) ? Type.LINK : Type.SPECIAL;
        Object key = unix.get("fileKey");
        return new DiskEntry(
                type,
                ((Number) unix.getOrDefault("size", 0L)).longValue(),
                nanos(unix.get("lastModifiedTime")),
                ((Number) unix.getOrDefault("mode", PLAIN_MODE)).intValue() & PERMISSIONS,
                key == null ? 0 : key.hashCode(),
                nanos(unix.get("ctime")));
    }

    private static long nanos(@Nullable Object time) {
        return time instanceof FileTime t ? t.to(TimeUnit.NANOSECONDS) : 0;
    }

    static int mode(Set<PosixFilePermission> permissions) {
        int mode = 0;
        for (PosixFilePermission p : permissions) {
            mode |= 1 << (8 - p.ordinal());
        }
        return mode;
    }

    static Set<PosixFilePermission> permissions(int mode) {
        Set<PosixFilePermission> set = EnumSet.noneOf(PosixFilePermission.class);
        for (int i = 0; i < BITS.length; i++) {
            if ((mode & (1 << i)) != 0) {
                set.add(BITS[i]);
            }
        }
        return set;
    }

    static String owner(FileOwnerAttributeView view) throws IOException {
        return view.getOwner().getName();
    }

    /** As {@link #looksSame}, and nothing about the file was changed either, as far as both say. */
    public boolean isUntouched(DiskEntry other) {
        return looksSame(other) && (changedNanos == 0 || other.changedNanos == 0 || changedNanos == other.changedNanos);
    }

    /** Whether size, modified time and file are the same. */
    public boolean looksSame(DiskEntry other) {
        return type == other.type && size == other.size && mtimeNanos == other.mtimeNanos && key == other.key;
    }
}
