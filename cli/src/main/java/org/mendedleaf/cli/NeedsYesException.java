package org.mendedleaf.cli;

import java.io.IOException;

/** Nothing was done: it cannot be taken back, or may be a mistake, and nobody said yes. */
final class NeedsYesException extends IOException {

    private static final long serialVersionUID = 1;

    NeedsYesException(String words) {
        super(words);
    }
}
