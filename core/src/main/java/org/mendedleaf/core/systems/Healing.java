package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.PlaceGoneException;
import org.mendedleaf.core.capture.Scope;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.DamagedChunks;
import org.mendedleaf.core.line.LastCheck;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.OutsideWriter;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.VaultCheck;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.line.WriteSession;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Brings damaged contents back: from the files that are there, from other versions with the same content, and from other systems
 * that hold it. What is damaged is never written over; it is stored anew, and whoever needs it finds it there.
 */
public final class Healing {

    private final OpenVault vault;
    private final SystemBook book;
    private final Clock clock;
    private final Authors authors;

    /** Healing of a vault. */
    public Healing(OpenVault vault, SystemBook book, Clock clock, Authors authors) {
        this.vault = vault;
        this.book = book;
        this.clock = clock;
        this.authors = authors;
    }

    /**
     * A version that is whole again.
     *
     * @param from where its content was taken from, in words
     */
    public record Healed(VaultCheck.LostVersion version, String from) {}

    /**
     * What came of it.
     *
     * @param before what was damaged
     * @param healed versions that are whole again
     * @param after what is damaged now
     */
    public record Result(VaultCheck.Report before, List<Healed> healed, VaultCheck.Report after) {
        /** Copies the list. */
        public Result {
            healed = List.copyOf(healed);
        }
    }

    /** Reads every stored byte, heals what can be healed, and reads it again. */
    public Result run(Progress progress) throws IOException {
        VaultCheck.Report before = new VaultCheck(vault).run(true, progress);
        if (before.lost().isEmpty() || before.cancelled()) {
            LastCheck.note(vault, before, clock.instant());
            return new Result(before, List.of(), before);
        }
        capture(progress);
        List<Healed> healed = new ArrayList<>();
        for (VaultCheck.LostVersion lost : before.lost()) {
            if (progress.isCancelled()) {
                break;
            }
            heal(lost, progress).ifPresent(from -> healed.add(new Healed(lost, from)));
        }
        VaultCheck.Report after = new VaultCheck(vault).run(true, progress);
        LastCheck.note(vault, after, clock.instant());
        return new Result(before, healed, after);
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
                    new Capture(vault, place, clock, authors).run(Scope.WHOLE, progress);
                } catch (PlaceGoneException e) {
                    // A folder that is away can give nothing.
                    org.slf4j.LoggerFactory.getLogger(Healing.class).info("{} is away", place.where(), e);
                }
            }
        }
    }

    /** Where the content came from, if it is whole again. */
    private Optional<String> heal(VaultCheck.LostVersion lost, Progress progress) throws IOException {
        Optional<Version> found = version(lost);
        if (found.isEmpty()) {
            return Optional.empty();
        }
        if (isWhole(found.get())) {
            return Optional.of(Words.of("healing.live"));
        }
        Optional<String> other = fromAnother(found.get());
        if (other.isPresent()) {
            return other;
        }
        try {
            new Fetch(vault, book).intoVault(found.get(), progress);
        } catch (SystemException | VaultException e) {
            org.slf4j.LoggerFactory.getLogger(Healing.class).info("{} is not healed", lost.path(), e);
            return Optional.empty();
        }
        Optional<Version> now = version(lost);
        return now.isPresent() && isWhole(now.get()) ? Optional.of(Words.of("healing.system")) : Optional.empty();
    }

    private Optional<Version> version(VaultCheck.LostVersion lost) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.version(lost.line(), lost.number());
        }
    }

    private boolean isWhole(Version version) throws IOException {
        return !version.recipe().isElsewhere() && DamagedChunks.isWhole(vault, version.recipe());
    }

    /** Another version with the same content, that is stored otherwise and whole. */
    private Optional<String> fromAnother(Version version) throws IOException {
        List<Version> same;
        try (Reading reading = vault.read()) {
            same = reading.versionsWith(version.digest());
        }
        for (Version other : same) {
            boolean itself = other.line() == version.line() && other.number() == version.number();
            if (!itself && isWhole(other)) {
                try (WriteSession session = vault.write()) {
                    OutsideWriter.fill(
                            session,
                            version.line(),
                            version.number(),
                            new StoredContent(
                                    other.recipe(),
                                    other.size(),
                                    other.digest(),
                                    other.sha256().orElse(null)));
                    session.commit();
                }
                return Optional.of(Words.of("healing.version", other.path(), other.label()));
            }
        }
        return Optional.empty();
    }
}
