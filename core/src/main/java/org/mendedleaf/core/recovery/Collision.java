package org.mendedleaf.core.recovery;

/** What to do where something has the name already. */
public enum Collision {
    /** Put it in the place of what is there, which stays as a version. */
    REPLACE,
    /** Leave what is there, and put it beside under a numbered name. */
    KEEP_BOTH,
    /** Put it there, and what is there beside it under a numbered name. */
    KEEP_BOTH_RENAME_OTHER,
    /** Leave what is there. */
    SKIP
}
