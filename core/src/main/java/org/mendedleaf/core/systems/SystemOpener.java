package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;

/** Speaks the protocols of other systems; nothing else in this package knows them. */
public interface SystemOpener {

    /**
     * Checks an address without asking anybody.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    void checkAddress(String address);

    /** Asks a system of what kind it is. */
    SystemKind kindOf(String name, Endpoint at, Retry retry) throws IOException;

    /** A connection to a system of a known kind. Nothing is sent yet. */
    OutsideSystem open(String name, SystemKind kind, Endpoint at, Retry retry, Clock clock);
}
