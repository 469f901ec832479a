package org.mendedleaf.core.retention;

/** Sums over some versions. */
public final class SpaceShare {

    long versions;
    long versionBytes;
    long takenBytes;
    long onlyBytes;

    /** How many. */
    public long versions() {
        return versions;
    }

    /** Bytes of their contents, each counted whole. */
    public long versionBytes() {
        return versionBytes;
    }

    /** What they really take, shared chunks counted once. */
    public long takenBytes() {
        return takenBytes;
    }

    /** What nothing else needs. */
    public long onlyBytes() {
        return onlyBytes;
    }
}
