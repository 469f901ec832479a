package org.mendedleaf.core.rules;

import java.io.IOException;

/** Somebody may not do what they asked for; the message says who may. */
public final class NotAllowedException extends IOException {

    private static final long serialVersionUID = 1;

    /** With its words. */
    public NotAllowedException(String words) {
        super(words);
    }
}
