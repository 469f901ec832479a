package org.mendedleaf.cli.base;

import org.mendedleaf.core.words.Words;

/** The user is not connected to a system that was named. */
public final class NotConnectedException extends IllegalArgumentException {

    private static final long serialVersionUID = 1;

    public NotConnectedException(String system) {
        super(Words.of("system.notConnected", system));
    }
}
