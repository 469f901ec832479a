package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** A drive that takes backup runs. A run that is not finished stays open, also across unplugging, and is gone on with. */
public interface BackupTarget {

    /**
     * An open run.
     *
     * @param id of the run
     * @param at the moment that it keeps
     * @param have paths that are in it already
     */
    record Run(String id, Instant at, Set<String> have) {}

    /** Opens a run, or goes on with the one that was not finished. */
    Run open(String place, Instant at) throws IOException;

    /** Puts files whose contents the drive holds already into the run; returns the paths of those that it does not. */
    Set<String> same(String place, String run, List<OutsideSystem.InTree> files) throws IOException;

    /** Puts a file into the run. */
    void add(String place, String run, OutsideSystem.Put put) throws IOException;

    /**
     * Ends the run: from now on it counts.
     *
     * @param skipped what is not in it though it was there, by path, and why
     */
    void finish(String place, String run, Map<String, String> skipped) throws IOException;

    /** Gives up a run that was not finished: as if it had never been opened. */
    void giveUp(String place, String run) throws IOException;
}
