package org.mendedleaf.core.capture;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a scan found in a folder that is not as it was, or is new.
 *
 * @param path from the place's root
 * @param sorted the names, ascending
 * @param known what the scan before saw; null when there was none
 */
record FolderScan(String path, List<SeenName> sorted, byte @Nullable [] known) {}
