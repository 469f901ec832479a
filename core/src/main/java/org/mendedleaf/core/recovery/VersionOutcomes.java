package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Optional;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/** What became of versions and of their files. */
public final class VersionOutcomes {

    private VersionOutcomes() {}

    /** Where the file of a version is now; empty when it is removed. */
    static Optional<String> pathNow(Reading reading, Version version) {
        try {
            return version.number() == 0 ? Optional.empty() : reading.lines().pathAt(version.line(), Moment.FAR);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Why the content of a version cannot be had, as a message; empty when it is here, or other systems hold it. */
    static Optional<String> words(Reading reading, Version version) {
        if (!version.recipe().isElsewhere()) {
            return Optional.empty();
        }
        try {
            PendingDeletion letGo =
                    PendingDeletionStore.of(reading).of(version.line()).get(version.number());
            return letGo != null && letGo.gone().isPresent() ? Optional.of(Words.of("plan.gone")) : Optional.empty();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
