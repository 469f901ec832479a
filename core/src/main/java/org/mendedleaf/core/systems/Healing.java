package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.PlaceGoneException;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.LastCheck;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyHealing;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Brings damaged contents back: from copies of the vault, the files that are there, other versions with the same content, and
 * other systems that hold it. A pack that a copy can make whole is replaced by the whole one; anything else is stored anew, and
 * whoever needs it finds it there. Copies are read too, and get again what the vault has.
 */
public final class Healing {

    private final OpenVault vault;
    private final Clock clock;
    private final Authors authors;
    private final VersionHealing versions;

    /** Healing of a vault. */
    public Healing(OpenVault vault, SystemRegistry registry, Clock clock, Authors authors) {
        this.vault = vault;
        this.versions = new VersionHealing(vault, registry);
        this.clock = clock;
        this.authors = authors;
    }

    /**
     * A version that is whole again.
     *
     * @param from where its content was taken from, as a message
     */
    public record Healed(VaultCheck.LostVersion version, String from) {}

    /**
     * What came of it.
     *
     * @param before what was damaged
     * @param healed versions that are whole again
     * @param after what is damaged now
     * @param copies what came of reading every byte of the copies that are there
     */
    public record Result(VaultCheck.Report before, List<Healed> healed, VaultCheck.Report after, List<OfCopy> copies) {
        /** Copies the lists. */
        public Result {
            healed = List.copyOf(healed);
            copies = List.copyOf(copies);
        }

        /** What was read, what was healed and what is lost, a message each. */
        public List<String> words() {
            List<String> said = new ArrayList<>();
            said.add(Words.of("cli.watch.checked", after.versions(), Formats.size(after.bytes())));
            healed.forEach(h -> said.add(
                    Words.of("cli.check.healed", h.version().path(), h.version().label(), h.from())));
            after.lost().forEach(l -> said.add(Words.of("copies.lost", l.path(), l.label())));
            return said;
        }
    }

    /**
     * What came of reading every byte of a copy.
     *
     * @param bytes that it got again from the vault
     * @param trouble what is wrong with it now, as a message; empty when nothing is
     */
    public record OfCopy(VaultCopy copy, long bytes, String trouble) {}

    /** Reads every stored byte of the vault and of its copies, heals what can be healed, and reads it again. */
    public Result run(Progress progress) throws IOException {
        Result result = heal(new VaultCheck(vault).run(true, progress), progress);
        LastCheck.note(vault, result.after(), clock.instant());
        List<OfCopy> copies = result.after().cancelled() ? List.of() : ofCopies(progress);
        return new Result(result.before(), result.healed(), result.after(), copies);
    }

    /**
     * Heals what a check of every byte has found, and reads it again.
     *
     * @param before what it found
     */
    public Result heal(VaultCheck.Report before, Progress progress) throws IOException {
        List<Healed> healed = new ArrayList<>();
        VaultCheck.Report after = before;
        if (!before.isClean() && !before.cancelled()) {
            heal(before, healed, progress);
            after = new VaultCheck(vault).run(true, progress);
        }
        return new Result(before, healed, after, List.of());
    }

    private void heal(VaultCheck.Report before, List<Healed> healed, Progress progress) throws IOException {
        List<VaultCheck.LostVersion> lost = new ArrayList<>(before.lost());
        for (CopyStatus status : copies().list()) {
            fromCopy(status.copy(), before.damagedPacks(), lost, healed);
        }
        if (lost.isEmpty()) {
            return;
        }
        capture(progress);
        for (VaultCheck.LostVersion each : lost) {
            if (progress.isCancelled()) {
                break;
            }
            versions.heal(each, progress).ifPresent(from -> healed.add(new Healed(each, from)));
        }
    }

    private Copies copies() {
        return new Copies(vault, clock, "");
    }

    /** Packs hold the same bytes in a copy: that brings back whatever was in them, change logs too. */
    private void fromCopy(
            VaultCopy copy, Set<Long> damagedPacks, List<VaultCheck.LostVersion> lost, List<Healed> healed)
            throws IOException {
        try {
            if (new CopyHealing(copies()).healVault(copy, damagedPacks) == 0) {
                return;
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(Healing.class).info("nothing comes from {}", copy.folder(), e);
            return;
        }
        for (VaultCheck.LostVersion each : List.copyOf(lost)) {
            Optional<Version> version = versions.version(each);
            if (version.isPresent() && versions.isWhole(version.get())) {
                healed.add(new Healed(each, Words.of("healing.copy", copy.folder())));
                lost.remove(each);
            }
        }
    }

    private List<OfCopy> ofCopies(Progress progress) throws IOException {
        List<OfCopy> found = new ArrayList<>();
        for (CopyStatus status : copies().list()) {
            if (status.standing() == CopyStatus.Standing.AWAY || progress.isCancelled()) {
                continue;
            }
            try {
                CopyHealing.Checked checked = new CopyHealing(copies()).check(status.copy(), progress);
                String trouble = checked.after().isClean()
                        ? ""
                        : Words.of(
                                "copies.damaged",
                                status.copy().folder(),
                                checked.after().lost().size());
                found.add(new OfCopy(status.copy(), checked.healedBytes(), trouble));
            } catch (VaultException e) {
                found.add(new OfCopy(status.copy(), 0, e.words()));
            }
        }
        return found;
    }

    /** Files whose contents are damaged in the vault are read again by the next capture, as the check has noted. */
    private void capture(Progress progress) throws IOException {
        List<Place> places;
        try (Reading reading = vault.read()) {
            places = reading.places();
        }
        for (Place place : places) {
            if (!place.isOutside()) {
                try {
                    new Capture(vault, place, clock, authors).run(CaptureScope.WHOLE, progress);
                } catch (PlaceGoneException e) {
                    // A folder that is away can give nothing.
                    org.slf4j.LoggerFactory.getLogger(Healing.class).info("{} is away", place.where(), e);
                }
            }
        }
    }
}
