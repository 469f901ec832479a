package org.mendedleaf.core.line;

/** Whether a new version is a draft. */
public enum DraftChoice {
    /** As the place's rules say, and whether somebody has the file checked out. */
    BY_RULE,
    /** A draft, whatever the rules say. */
    DRAFT,
    /** Published at once. */
    PUBLISHED
}
