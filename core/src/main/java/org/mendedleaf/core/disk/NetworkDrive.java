package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Set;

/** Drives that other computers write to as well: what they save there, this computer's system tells nobody of. */
public final class NetworkDrive {

    /** What systems call them. Those that programs provide (FUSE) are told by their second name. */
    private static final Set<String> TYPES = Set.of(
            "nfs",
            "nfs3",
            "nfs4",
            "cifs",
            "smb",
            "smb2",
            "smb3",
            "smbfs",
            "ncpfs",
            "afs",
            "afpfs",
            "webdav",
            "davfs",
            "9p",
            "virtiofs",
            "vboxsf",
            "prl_fs",
            "vmhgfs",
            "ceph",
            "glusterfs",
            "lustre",
            "gfs2",
            "ocfs2",
            "coda",
            "drvfs");

    private static final Set<String> PROVIDED = Set.of(
            "sshfs",
            "rclone",
            "davfs",
            "glusterfs",
            "s3fs",
            "gvfsd-fuse",
            "smbnetfs",
            "vmhgfs-fuse",
            "curlftpfs",
            "gcsfuse");

    private NetworkDrive() {}

    /** Whether a folder lies on one; not where that cannot be told. */
    public static boolean holds(Path folder) {
        try {
            return folder.toString().startsWith("\\\\")
                    || isType(Files.getFileStore(folder).type());
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(NetworkDrive.class).debug("{} tells nothing", folder, e);
            return false;
        }
    }

    /** Whether a file system of this type is one. */
    static boolean isType(String type) {
        String name = type.toLowerCase(Locale.ROOT);
        return TYPES.contains(name) || name.startsWith("fuse.") && PROVIDED.contains(name.substring("fuse.".length()));
    }
}
