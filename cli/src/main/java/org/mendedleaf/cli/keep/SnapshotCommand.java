package org.mendedleaf.cli.keep;

import org.mendedleaf.cli.base.Group;
import picocli.CommandLine.Command;

/** Snapshots of folders and places. */
@Command(
        name = "snapshot",
        description = "${bundle:cli.snapshot}",
        subcommands = {
            SnapshotTake.class,
            SnapshotList.class,
            SnapshotRename.class,
            SnapshotHold.class,
            SnapshotErase.class,
            SnapshotScheduleCommand.class
        })
public final class SnapshotCommand extends Group {}
