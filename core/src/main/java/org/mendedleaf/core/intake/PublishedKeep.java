package org.mendedleaf.core.intake;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Words;

/**
 * Which versions go beyond what a place is meant to keep of published versions and drafts, and why. Pure. It lets nothing
 * go: these are reasons for whoever decides on what is kept.
 */
public final class PublishedKeep {

    private PublishedKeep() {}

    /**
     * The versions that go beyond, by number, with the reason in words. The newest version never does.
     *
     * @param versions of one file
     */
    public static Map<Integer, String> beyond(List<Version> versions, PlaceSettings settings) {
        long keep = settings.number(Setting.KEEP_VERSIONS);
        boolean drafts = settings.get(Setting.NUMBERING).equals("drafts");
        long draftsOf = drafts ? settings.number(Setting.KEEP_DRAFTS_OF) : 0;
        List<Integer> published = versions.stream()
                .filter(v -> !v.edition().isDraft())
                .map(v -> v.edition().major())
                .sorted()
                .toList();
        int newest = versions.stream().mapToInt(Version::number).max().orElse(0);
        int oldestKept = keep > 0 && published.size() > keep ? published.get((int) (published.size() - keep)) : 0;
        int last = published.isEmpty() ? 0 : published.get(published.size() - 1);
        Map<Integer, String> beyond = new HashMap<>();
        for (Version v : versions) {
            if (v.number() == newest) {
                continue;
            }
            if (!v.edition().isDraft() && v.edition().major() < oldestKept) {
                beyond.put(v.number(), Words.of("keep.published", keep));
            } else if (v.edition().isDraft() && draftsOf > 0 && v.edition().major() < last - draftsOf) {
                beyond.put(v.number(), Words.of("keep.drafts", draftsOf));
            }
        }
        return beyond;
    }
}
