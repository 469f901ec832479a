package org.mendedleaf.core.rules;

/** What somebody may or may not do in a place. */
public enum Permission {
    /** See drafts, besides what is published. */
    SEE_DRAFTS,
    /** Put in, restore, remove, bring back, roll back, fold, adopt. */
    CHANGE,
    /** Take a file to work on it alone, and hand it back. */
    CHECK_OUT,
    /** End what somebody else has checked out. */
    END_CHECK_OUT,
    /** Make a draft a published version. */
    PUBLISH,
    /** Write the note of a version, and what a file is filed under. */
    NOTE,
    /** Say something of a version. */
    COMMENT,
    /** Change settings and members. */
    SETTINGS,
    /** Erase versions for good. */
    ERASE
}
