package org.mendedleaf.core.systems;

/** Something that a system can do. Screens and commands offer exactly what a place's system can. */
public enum Capability {
    /** It keeps earlier contents of a file, each with an id. */
    VERSIONS,
    /** Keeping versions can be paused: what exists stays, nothing is added. */
    PAUSING,
    /** Drafts between published versions. */
    DRAFTS,
    /** A file can be checked out by one person. */
    CHECK_OUT,
    /** A note can stand at a version. */
    NOTES,
    /** Places have members with roles. */
    MEMBERS,
    /** A removal is a point that can be taken away again. */
    DELETION_POINTS,
    /** A single version can be erased. */
    ERASING,
    /** The whole place can be cut at a moment. */
    SNAPSHOTS,
    /** It does something by itself at set times. */
    SCHEDULES,
    /** It tells how much space there is. */
    CAPACITY,
    /** It can be unplugged. */
    UNPLUGGING,
    /** Single files can be put in and removed. */
    WRITING
}
