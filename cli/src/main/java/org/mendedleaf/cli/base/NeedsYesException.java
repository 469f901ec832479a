package org.mendedleaf.cli.base;

import java.io.IOException;

/** Nothing was done: it cannot be taken back, or may be a mistake, and nobody said yes. */
public final class NeedsYesException extends IOException {

    private static final long serialVersionUID = 1;

    public NeedsYesException(String words) {
        super(words);
    }
}
