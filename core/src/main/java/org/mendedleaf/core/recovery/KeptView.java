package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;

/** What a plan sees within a session, after what is live was captured. */
final class KeptView extends PlacePlanTarget {

    private final InPlace files;

    KeptView(InPlace files, Reading reading, Place place) {
        super(reading, place);
        this.files = files;
    }

    @Override
    public Optional<Existing> at(String path) {
        try {
            return files.existing(path);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What has another content although nothing showed it is captured, so that it can be replaced. */
    @Override
    public boolean isReallyThere(String path, Version version) {
        if (super.isReallyThere(path, version)) {
            return true;
        }
        try {
            files.captureAnew(path);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return false;
    }
}
