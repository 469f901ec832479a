package org.mendedleaf.core.copies;

import java.io.IOException;
import java.time.Duration;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.core.catalogue.CopyCatalogue;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.VaultCopyStore;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.vault.PackHealing;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.vault.VaultLock;
import org.mendedleaf.core.words.Words;

/** A vault and its copy heal each other: what one of them still has, the other gets again. */
public final class CopyHealing {

    private static final Duration PATIENCE = Duration.ofSeconds(10);

    private final Copies copies;

    /** Healing between a vault and these copies of it. */
    public CopyHealing(Copies copies) {
        this.copies = copies;
    }

    /**
     * Brings damaged packs of the vault back from a copy.
     *
     * @param damaged numbers of packs
     * @return bytes that are sound again
     */
    public long healVault(VaultCopy copy, Set<Long> damaged) throws IOException {
        OpenVault vault = copies.vault();
        if (!CopyFolders.isThere(vault, copy.folder())) {
            return 0;
        }
        VaultCopy.Extent extent;
        try (Reading reading = vault.read()) {
            extent = VaultCopyStore.of(reading).extent();
        }
        long healed;
        try (VaultLock lock = VaultLock.take(vault.folder(), Words.of("copies.healing"), PATIENCE)) {
            healed = heal(vault.folder(), VaultFolder.open(copy.folder()), extent, damaged);
        }
        vault.closeIdle();
        return healed;
    }

    private static long heal(VaultFolder ours, VaultFolder theirs, VaultCopy.Extent extent, Set<Long> damaged)
            throws IOException {
        PackHealing.tidy(ours);
        long healed = 0;
        for (Map.Entry<Long, VaultCopy.Pack> pack : extent.packs().entrySet()) {
            if (damaged.contains(pack.getKey())) {
                healed += PackHealing.heal(
                        ours,
                        theirs,
                        pack.getKey(),
                        pack.getValue().committed(),
                        pack.getValue().sealed());
            }
        }
        return healed;
    }

    /**
     * What came of reading every byte of a copy.
     *
     * @param before what was found
     * @param healedBytes that were taken again from the vault
     * @param after what is found now
     */
    public record Checked(VaultCheck.Report before, long healedBytes, VaultCheck.Report after) {}

    /**
     * Reads every byte of a copy, and takes what is damaged again from the vault.
     *
     * @throws VaultException with a message for the user, when the copy is not there
     */
    public Checked check(VaultCopy copy, Progress progress) throws IOException {
        OpenVault vault = copies.vault();
        if (!CopyFolders.isThere(vault, copy.folder())) {
            throw new VaultException.Unavailable(Words.of("copies.away", copy.folder()));
        }
        copies.run(copy, progress);
        VaultFolder folder = VaultFolder.open(copy.folder());
        VaultCheck.Report before = read(folder, progress);
        if (before.cancelled()) {
            return new Checked(before, 0, before);
        }
        VaultCheck.Report after = before;
        long healed = 0;
        if (!before.isClean()) {
            try (VaultLock lock = VaultLock.take(folder, Words.of("copies.healing"), PATIENCE)) {
                VaultCopy.Extent extent;
                try (CopyCatalogue catalogue = CopyCatalogue.open(folder)) {
                    extent = catalogue.extent();
                }
                healed = heal(folder, vault.folder(), extent, before.damagedPacks());
                // Its packs give the whole catalogue again, with the places of what was healed.
                CopyCatalogue.begin(folder);
            }
            copies.run(copy, progress);
            after = read(folder, progress);
        }
        String wrong = after.isClean()
                ? ""
                : Words.of("copies.damaged", folder.root(), after.lost().size());
        VaultCopy.State seen = copies.seen(copy).checked(copies.now());
        copies.note(copy, wrong.isEmpty() ? seen : seen.failed(copies.now(), wrong));
        return new Checked(before, healed, after);
    }

    private static VaultCheck.Report read(VaultFolder folder, Progress progress) throws IOException {
        try (OpenVault copy = OpenVault.open(folder.root(), Words.of("copies.holder"), PATIENCE)) {
            return new VaultCheck(copy).run(true, progress);
        }
    }
}
