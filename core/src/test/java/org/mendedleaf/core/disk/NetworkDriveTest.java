package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Which drives are written to by others, as systems call them. */
class NetworkDriveTest {

    @Test
    void sharesOfServersAndWhatProgramsFetchFromElsewhereAre() {
        for (String type : new String[] {"nfs4", "cifs", "smb3", "SMBFS", "fuse.sshfs", "fuse.rclone", "9p"}) {
            assertThat(NetworkDrive.isType(type)).as(type).isTrue();
        }
    }

    @Test
    void drivesOfThisComputerAreNot(@TempDir Path here) {
        for (String type :
                new String[] {"ext4", "btrfs", "NTFS", "apfs", "tmpfs", "fuseblk", "exfat", "fuse.unknown"}) {
            assertThat(NetworkDrive.isType(type)).as(type).isFalse();
        }
        assertThat(NetworkDrive.holds(here)).isFalse();
        assertThat(NetworkDrive.holds(here.resolve("is not there"))).isFalse();
    }
}
