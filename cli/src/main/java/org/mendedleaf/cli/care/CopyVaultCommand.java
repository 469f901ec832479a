package org.mendedleaf.cli.care;

import org.mendedleaf.cli.base.Group;
import picocli.CommandLine.Command;

/** Copies of the vault on other drives. */
@Command(
        name = "copy-vault",
        description = "${bundle:cli.copyVault}",
        subcommands = {
            CopyVaultAdd.class,
            CopyVaultList.class,
            CopyVaultRun.class,
            CopyVaultCheck.class,
            CopyVaultEnd.class,
            CopyVaultUse.class
        })
public final class CopyVaultCommand extends Group {}
