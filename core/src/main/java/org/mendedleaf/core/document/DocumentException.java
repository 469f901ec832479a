package org.mendedleaf.core.document;

import java.io.IOException;

/** A content that cannot be read as what it is, with the reason in words. */
public final class DocumentException extends IOException {

    private static final long serialVersionUID = 1;

    /** One that says why. */
    public DocumentException(String words) {
        super(words);
    }

    /** Why. */
    public String words() {
        return String.valueOf(getMessage());
    }

    /** One that says why, and was caused by another. */
    public DocumentException(String words, Throwable cause) {
        super(words, cause);
    }
}
