package org.mendedleaf.core.systems;

/** How well a place is covered. The worse ones come first. */
public enum CoverageState {
    /** Nothing keeps it. */
    UNCOVERED,
    /** The last scan or run went wrong. */
    FAILING,
    /** There is no space for the next run. */
    FULL,
    /** Its system is unplugged or does not answer. */
    AWAY,
    /** A run began and did not come to its end. */
    INTERRUPTED,
    /** It should have been looked at, or backed up, before now. */
    LATE,
    /** It was never looked at. */
    NEVER,
    /** Its system keeps no earlier contents. */
    OFF,
    /** What exists is kept, and nothing is added. */
    PAUSED,
    /** All is well, but some files are not kept. */
    GAPS,
    /** All is well. */
    GOOD
}
