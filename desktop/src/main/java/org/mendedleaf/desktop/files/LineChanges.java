package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.find.FindIndex;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.desktop.context.OpenPlace;

/** What changed from version to version of a line, in a few words each. */
final class LineChanges {

    private LineChanges() {}

    /** Changes are computed in words for the newest so many versions. */
    private static final int CHANGES_MOST = 40;

    /** Larger contents are not read for this. Bytes. */
    private static final long READ_MOST = 8 << 20;

    /** What changed in words, newest first; what cannot be looked into is left to its size. */
    static Map<Integer, String> compute(OpenPlace of, Line line) throws IOException {
        // What was found once is kept; the rest is found now.
        Map<Integer, String> found = new HashMap<>(FindIndex.words(of.vault().folder(), line.id()));
        List<Version> versions = line.versions();
        try (Reading reading = of.vault().read()) {
            for (int i = 0; i + 1 < Math.min(versions.size(), CHANGES_MOST); i++) {
                Version after = versions.get(i);
                Version before = versions.get(i + 1);
                boolean known = found.containsKey(after.number());
                if (!known
                        && DocumentCache.canCompare(before)
                        && DocumentCache.canCompare(after)
                        && after.size() < READ_MOST) {
                    found.put(
                            after.number(),
                            DocumentCache.shared()
                                    .between(reading, before, after)
                                    .words());
                }
            }
        }
        return found;
    }
}
