package org.mendedleaf.core.retention;

import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.words.Words;

/** What somebody should know before versions go, as sentences. */
final class ThinWarnings {

    /** So many files are named in a warning. */
    private static final int NAMED = 3;

    private ThinWarnings() {}

    static List<String> of(VersionTable t, List<ThinPlan.OfFile> files) {
        List<String> said = new ArrayList<>();
        List<String> one = new ArrayList<>();
        List<String> none = new ArrayList<>();
        List<String> noted = new ArrayList<>();
        List<String> drafts = new ArrayList<>();
        for (ThinPlan.OfFile f : files) {
            String name = t.name(f.line());
            if (f.left() == 0) {
                none.add(name);
            } else if (f.left() == 1) {
                one.add(name);
                int last = t.first(f.line() + 1) - 1;
                if (t.is(last, VersionColumns.DRAFT)) {
                    drafts.add(name);
                }
            }
            if (f.noted() > 0) {
                noted.add(name);
            }
        }
        warn(said, "thin.warn.none", none);
        warn(said, "thin.warn.one", one);
        warn(said, "thin.warn.draft", drafts);
        warn(said, "thin.warn.noted", noted);
        return said;
    }

    private static void warn(List<String> said, String key, List<String> names) {
        if (!names.isEmpty()) {
            String some = String.join(", ", names.subList(0, Math.min(NAMED, names.size())));
            said.add(Words.of(key, names.size(), names.size() > NAMED ? some + " …" : some));
        }
    }
}
