package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.MomentReader;
import org.mendedleaf.core.catalogue.Reading;

/** Typed moments of a place. Off the screen's thread. */
public final class TypedMoments {

    private TypedMoments() {}

    /**
     * The moment that a text means in a folder.
     *
     * @param file whose versions can be named; null when none is looked at
     * @throws IllegalArgumentException with a message for the user, when it means none, or one before anything is known
     */
    public static Instant understand(
            AppContext context, OpenPlace openPlace, String folder, @Nullable String file, String typed)
            throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            return new MomentReader(reading, openPlace.place(), folder, file)
                    .read(typed, context.clock().instant(), context.zone());
        }
    }
}
