package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Optional;
import java.util.function.Function;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Version;

/**
 * What a plan sees where nobody keeps anything: in another folder, or an archive that is made.
 *
 * @param vault whose versions go there
 * @param existing what is at a path
 */
record TargetView(OpenVault vault, Function<String, Optional<Existing>> existing) implements PlanTarget {

    /** Where nothing is yet. */
    static TargetView empty(OpenVault vault) {
        return new TargetView(vault, path -> Optional.empty());
    }

    @Override
    public Optional<Existing> at(String path) {
        return existing.apply(path);
    }

    @Override
    public Optional<String> missing(Version version) {
        if (!version.recipe().isElsewhere()) {
            return Optional.empty();
        }
        try (Reading reading = vault.read()) {
            return VersionOutcomes.words(reading, version);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
