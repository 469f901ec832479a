package org.mendedleaf.cli.base;

import java.nio.file.FileSystemException;
import java.util.Optional;
import org.mendedleaf.core.capture.PlaceGoneException;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.rules.NotAllowedException;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * How a command ended: the code that it returns, and the word that stands for it in JSON. The codes are described in
 * {@code docs/commands.md}; a code never changes its meaning.
 */
public enum Outcome {
    /** It was done. */
    DONE(0, "done"),
    /** Some of it could not be done. */
    SOME_FAILED(1, "someFailed"),
    /** What was typed cannot be meant. */
    WRONG_USE(2, "wrongUse"),
    /** The vault cannot be used now. */
    NO_VAULT(3, "vaultUnavailable"),
    /** Something is late or failing, as {@code status} says, or found, as {@code findings --exit-code} does. */
    LATE(4, "needsAttention"),
    /** Nothing was done, since nobody said yes. */
    NEEDS_YES(5, "needsYes"),
    /** Who works here may not do that. */
    NOT_ALLOWED(6, "notAllowed"),
    /** A system that was named is not connected, or does not answer. */
    NOT_CONNECTED(7, "notConnected");

    private final int code;
    private final String word;

    Outcome(int code, String word) {
        this.code = code;
        this.word = word;
    }

    public int code() {
        return code;
    }

    public String word() {
        return word;
    }

    /**
     * What went wrong.
     *
     * @param outcome of the command
     * @param words what happened, and what to do next
     * @param path of the file or folder that it is about; empty when it is about none
     */
    public record Failure(Outcome outcome, String words, Optional<String> path) {}

    /** What an exception means. */
    public static Failure of(Throwable thrown) {
        Throwable cause = thrown instanceof java.io.UncheckedIOException && thrown.getCause() != null
                ? thrown.getCause()
                : thrown;
        Optional<String> none = Optional.empty();
        String message = String.valueOf(cause.getMessage());
        if (cause instanceof VaultException v) {
            return new Failure(NO_VAULT, v.words(), none);
        }
        if (cause instanceof SystemException s) {
            boolean away = s instanceof SystemException.Unreachable
                    || s instanceof SystemException.Unplugged
                    || s instanceof SystemException.Untrusted;
            boolean refused = s instanceof SystemException.Refused;
            return new Failure(away ? NOT_CONNECTED : refused ? NOT_ALLOWED : SOME_FAILED, s.words(), none);
        }
        if (cause instanceof NotConnectedException) {
            return new Failure(NOT_CONNECTED, message, none);
        }
        if (cause instanceof NeedsYesException) {
            return new Failure(NEEDS_YES, message, none);
        }
        if (cause instanceof NotAllowedException) {
            return new Failure(NOT_ALLOWED, message, none);
        }
        if (Failures.saysNoMemory(cause)) {
            return new Failure(SOME_FAILED, Words.of("failure.memory"), none);
        }
        if (cause instanceof IllegalArgumentException) {
            return new Failure(WRONG_USE, message, none);
        }
        if (cause instanceof java.nio.file.NoSuchFileException missing) {
            return new Failure(
                    SOME_FAILED, Words.of("cli.noSuchFile", missing.getFile()), Optional.ofNullable(missing.getFile()));
        }
        if (cause instanceof PlaceGoneException || cause instanceof java.io.IOException) {
            Optional<String> file = cause instanceof FileSystemException f ? Optional.ofNullable(f.getFile()) : none;
            return new Failure(SOME_FAILED, Failures.words(cause), file);
        }
        return new Failure(SOME_FAILED, Words.of("cli.defect", cause), none);
    }
}
