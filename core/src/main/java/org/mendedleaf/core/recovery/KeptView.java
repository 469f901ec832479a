package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.Version;

/** What a plan sees within a session, after what is live was captured. */
record KeptView(InPlace files, Reading reading, Place place) implements Ground {

    @Override
    public Optional<Existing> at(String path) {
        try {
            return files.existing(path);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public List<String> below(String folder) {
        return Below.of(place, folder);
    }

    @Override
    public Optional<String> elsewhere(Version version, String path) {
        return Fates.pathNow(reading, version).filter(now -> !now.equals(path));
    }

    @Override
    public Optional<String> missing(Version version) {
        return Fates.words(reading, version);
    }
}
