package org.mendedleaf.core.systems;

import java.io.IOException;

/** Another system did not do what was asked. The subclasses say what the caller can do about it. */
public abstract sealed class SystemException extends IOException {

    private static final long serialVersionUID = 1;

    private SystemException(String words, Throwable cause) {
        super(words, cause);
    }

    private SystemException(String words) {
        super(words);
    }

    /** What is wrong, as a message. */
    public String words() {
        return String.valueOf(getMessage());
    }

    /** It does not answer, also after several tries; try later. */
    public static final class Unreachable extends SystemException {
        private static final long serialVersionUID = 1;

        public Unreachable(String words, Throwable cause) {
            super(words, cause);
        }

        public Unreachable(String words) {
            super(words);
        }
    }

    /** The drive is not plugged in; plug it in. */
    public static final class Unplugged extends SystemException {
        private static final long serialVersionUID = 1;

        public Unplugged(String words) {
            super(words);
        }
    }

    /** It does not allow that to us. */
    public static final class Refused extends SystemException {
        private static final long serialVersionUID = 1;

        public Refused(String words) {
            super(words);
        }
    }

    /** Its certificate is not enough to know that it is the one that was meant. */
    public static final class Untrusted extends SystemException {
        private static final long serialVersionUID = 1;
        private final String fingerprint;

        /**
         * It showed a certificate.
         *
         * @param fingerprint of that, see {@link Endpoint}
         */
        public Untrusted(String words, String fingerprint, Throwable cause) {
            super(words, cause);
            this.fingerprint = fingerprint;
        }

        /** Of the certificate that it showed. */
        public String fingerprint() {
            return fingerprint;
        }
    }

    /** There is no such thing there. */
    public static final class Missing extends SystemException {
        private static final long serialVersionUID = 1;

        public Missing(String words) {
            super(words);
        }
    }

    /** Something is in the way: it exists already, somebody has it checked out, it changed meanwhile. */
    public static final class Conflict extends SystemException {
        private static final long serialVersionUID = 1;

        public Conflict(String words) {
            super(words);
        }
    }

    /** There is no space for it. */
    public static final class Full extends SystemException {
        private static final long serialVersionUID = 1;

        public Full(String words) {
            super(words);
        }
    }

    /** It answered something that it should not, or gave bytes that are not what it said. */
    public static final class Garbled extends SystemException {
        private static final long serialVersionUID = 1;

        public Garbled(String words) {
            super(words);
        }
    }

    /** Systems of this kind cannot do that. */
    public static final class Unable extends SystemException {
        private static final long serialVersionUID = 1;

        public Unable(String words) {
            super(words);
        }
    }
}
