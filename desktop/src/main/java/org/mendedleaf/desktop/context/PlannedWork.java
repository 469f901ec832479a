package org.mendedleaf.desktop.context;

/** Work that is planned on a screen of its own, carried out there, and can be tried again or taken back afterwards. */
public interface PlannedWork {

    /** Its progress, and whether it is paused. */
    OwnJob job();

    /** Carries it out, when it can be. */
    void run();

    /** Tries again what failed. */
    void retry();

    /** Takes it back, and then runs this. */
    void undo(Runnable done);
}
