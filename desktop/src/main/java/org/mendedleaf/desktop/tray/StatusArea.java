package org.mendedleaf.desktop.tray;

/** Where a desktop shows small icons of programs that run; some have none. */
interface StatusArea {

    /** Whether there is one now; it may come later than what a session starts. */
    boolean isThere();

    /** Whether there is a desktop at all, so that one may come. */
    boolean mayCome();

    /** Shows this from now on. */
    void show(TrayModel.View view);

    /** Takes it away. */
    void close();
}
