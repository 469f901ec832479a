package org.mendedleaf.cli.base;

/** What a command returns, as numbers. What they mean is told by {@link Outcome}. */
public final class ExitCodes {

    public static final int DONE = Outcome.DONE.code();
    public static final int SOME_FAILED = Outcome.SOME_FAILED.code();
    public static final int WRONG_USE = Outcome.WRONG_USE.code();
    public static final int NO_VAULT = Outcome.NO_VAULT.code();
    public static final int LATE = Outcome.LATE.code();

    private ExitCodes() {}
}
