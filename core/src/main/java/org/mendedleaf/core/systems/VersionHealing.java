package org.mendedleaf.core.systems;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.DamagedChunks;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/** Brings the content of one version back from other versions with the same content, or from another system. */
final class VersionHealing {

    private final OpenVault vault;
    private final SystemRegistry registry;

    VersionHealing(OpenVault vault, SystemRegistry registry) {
        this.vault = vault;
        this.registry = registry;
    }

    /** Where the content came from, if it is whole again. */
    Optional<String> heal(VaultCheck.LostVersion lost, Progress progress) throws IOException {
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
            new ContentFetch(vault, registry).intoVault(found.get(), progress);
        } catch (SystemException | VaultException e) {
            org.slf4j.LoggerFactory.getLogger(VersionHealing.class).info("{} is not healed", lost.path(), e);
            return Optional.empty();
        }
        Optional<Version> now = version(lost);
        return now.isPresent() && isWhole(now.get()) ? Optional.of(Words.of("healing.system")) : Optional.empty();
    }

    Optional<Version> version(VaultCheck.LostVersion lost) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.version(lost.line(), lost.number());
        }
    }

    boolean isWhole(Version version) throws IOException {
        return !version.recipe().isElsewhere() && DamagedChunks.isWhole(vault, version.recipe());
    }

    /** Another version with the same content, that is stored otherwise and whole. */
    private Optional<String> fromAnother(Version version) throws IOException {
        List<Version> same;
        try (Reading reading = vault.read()) {
            same = reading.content().versions(version.digest());
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
