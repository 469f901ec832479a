package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.regex.Pattern;
import org.mendedleaf.core.words.Words;

/** Something about the vault keeps us from going on. The subclasses say what the caller can do about it. */
public abstract sealed class VaultException extends IOException {

    private static final long serialVersionUID = 1;

    private static final Pattern CODED =
            Pattern.compile("^\\[SQLITE_\\w+\\]\\s*(?:[^(]*\\()?(.*?)\\)?$", Pattern.DOTALL);

    private VaultException(String words, Throwable cause) {
        super(words, cause);
    }

    private VaultException(String words) {
        super(words);
    }

    /** What the database said, without its codes. */
    public static String said(SQLException e) {
        // Such as: [SQLITE_CORRUPT]  The database disk image is malformed (database disk image is malformed)
        return CODED.matcher(String.valueOf(e.getMessage())).replaceFirst("$1");
    }

    /** What is wrong, as a message. */
    public String words() {
        return String.valueOf(getMessage());
    }

    /** Another process writes to this vault; wait, or only read. */
    public static final class Busy extends VaultException {
        private static final long serialVersionUID = 1;

        public Busy(Path vault, String holder) {
            super(Words.of("vault.busy", vault, holder));
        }
    }

    /** The vault is not there, or cannot be opened; bring its disk back, or name another. */
    public static final class Unavailable extends VaultException {
        private static final long serialVersionUID = 1;

        public Unavailable(String words) {
            super(words);
        }

        public Unavailable(String words, Throwable cause) {
            super(words, cause);
        }
    }

    /** Stored bytes are not what was stored; a check names them all. */
    public static final class Damaged extends VaultException {
        private static final long serialVersionUID = 1;

        public Damaged(String words) {
            super(words);
        }

        public Damaged(String words, Throwable cause) {
            super(words, cause);
        }

        /** The catalogue of a vault, by what the database said. */
        public static Damaged ofCatalogue(Path vault, SQLException e) {
            return new Damaged(Words.of("catalogue.damaged", vault, said(e)), e);
        }
    }

    /** The content is not in this vault; a system that holds it must be asked. */
    public static final class Elsewhere extends VaultException {
        private static final long serialVersionUID = 1;

        public Elsewhere() {
            super(Words.of("vault.elsewhere"));
        }
    }

    /** Written by a newer version of this program; use that one. */
    public static final class TooNew extends VaultException {
        private static final long serialVersionUID = 1;

        public TooNew(Path where, long found, long known) {
            super(Words.of("vault.tooNew", where, found, known));
        }
    }

    /** The disk of the vault is full; make space, and capture again. */
    public static final class Full extends VaultException {
        private static final long serialVersionUID = 1;

        public Full(Path vault, Throwable cause) {
            super(Words.of("vault.full", vault), cause);
        }
    }
}
