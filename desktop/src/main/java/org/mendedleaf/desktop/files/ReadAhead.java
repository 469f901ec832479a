package org.mendedleaf.desktop.files;

import java.util.List;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** Reads the neighbours of the version that is looked at, so that they are there when somebody steps to them. */
final class ReadAhead {

    /** Larger contents are read when somebody looks at them, not before. Bytes. */
    private static final long MOST = 8 << 20;

    private final Background.Newest question;

    ReadAhead(AppContext context) {
        this.question = context.background().new Newest();
    }

    /** Reads what is beside this version. */
    void from(OpenPlace of, Line l, Version version) {
        List<Version> versions = l.versions();
        int at = versions.indexOf(version);
        if (at < 0) {
            return;
        }
        question.ask(
                () -> {
                    try (Reading reading = of.vault().read()) {
                        for (int i : new int[] {at + 1, at + 2, at - 1}) {
                            boolean there = i >= 0 && i < versions.size();
                            if (there
                                    && DocumentCache.canCompare(versions.get(i))
                                    && versions.get(i).size() < MOST) {
                                DocumentCache.shared().document(reading, versions.get(i));
                            }
                        }
                    }
                    return true;
                },
                done -> {
                    // They are kept where they are looked for.
                },
                e -> org.slf4j.LoggerFactory.getLogger(ReadAhead.class).debug("nothing read ahead", e));
    }
}
