package org.mendedleaf.core.findings;

import java.util.List;

/** Finds one kind of harm in what happened. Pure. */
public interface Detector {
    /** What it finds, each event once. */
    List<Finding> detect(History history);
}
