package org.mendedleaf.cli;

import org.mendedleaf.core.words.Words;

/** The user is not connected to a system that was named. */
final class NotConnectedException extends IllegalArgumentException {

    private static final long serialVersionUID = 1;

    NotConnectedException(String system) {
        super(Words.of("system.notConnected", system));
    }
}
