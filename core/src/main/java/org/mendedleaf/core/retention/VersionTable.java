package org.mendedleaf.core.retention;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.catalogue.OutsideQuery;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;

/**
 * All versions of a vault in columns, with what the settings of their places say: which versions go beyond those that are kept.
 *
 * <p>A picture of one moment; it does not change.
 */
public final class VersionTable extends VersionColumns {

    /** It goes beyond the published versions that its place keeps. */
    public static final byte BEYOND_PUBLISHED = 16;
    /** It is a draft beyond those that its place keeps. */
    public static final byte BEYOND_DRAFTS = 32;

    private VersionTable(Reading reading, long only) throws IOException {
        super(reading, only);
        markBeyond(p -> PlaceRules.of(reading, p).settings());
    }

    private VersionTable(WriteSession session, long only, boolean chunks) throws IOException {
        super(session, only, chunks);
        markBeyond(p -> PlaceRules.of(session, p).settings());
    }

    /** All versions as a reader sees them. */
    public static VersionTable of(Reading reading) throws IOException {
        return new VersionTable(reading, 0);
    }

    /**
     * All versions as another system sees them: what it holds counts as there, though the vault may not have its bytes.
     *
     * @param held what the system holds
     */
    public static VersionTable of(Reading reading, List<OutsideQuery.HeldPoint> held) throws IOException {
        VersionTable table = of(reading);
        for (OutsideQuery.HeldPoint h : held) {
            int row = table.row(h.line(), h.number());
            if (row >= 0) {
                table.unmark(row, ELSEWHERE);
            }
        }
        return table;
    }

    /** All versions as a session sees them. */
    public static VersionTable of(WriteSession session) throws IOException {
        return new VersionTable(session, 0, true);
    }

    /** All versions as a session sees them, without their chunks: enough for what protects them, and half as large. */
    static VersionTable ofProtection(WriteSession session) throws IOException {
        return new VersionTable(session, 0, false);
    }

    /** The versions of one line only, as a reader sees them; its chunks are not counted. */
    public static VersionTable ofLine(Reading reading, long line) throws IOException {
        return new VersionTable(reading, line);
    }

    /** The versions of one line only, as a session sees them; its chunks are not counted. */
    static VersionTable ofLine(WriteSession session, long line) throws IOException {
        return new VersionTable(session, line, false);
    }

    private interface Settings {
        PlaceSettings of(Place place) throws IOException;
    }

    private void markBeyond(Settings settings) throws IOException {
        Map<Long, PlaceSettings> limited = new HashMap<>();
        for (Place place : places()) {
            if (!place.isOutside()) {
                PlaceSettings s = settings.of(place);
                if (s.number(Setting.KEEP_VERSIONS) > 0 || s.number(Setting.KEEP_DRAFTS_OF) > 0) {
                    limited.put(place.id(), s);
                }
            }
        }
        for (int line = 0; line < lines() && !limited.isEmpty(); line++) {
            PlaceSettings s = limited.get(place(line));
            if (s != null) {
                markBeyond(s, line);
            }
        }
    }

    /** As {@code PublishedKeep} says it for one line. */
    private void markBeyond(PlaceSettings s, int line) {
        long keep = s.number(Setting.KEEP_VERSIONS);
        long draftsOf = s.get(Setting.NUMBERING).equals("drafts") ? s.number(Setting.KEEP_DRAFTS_OF) : 0;
        int end = first(line + 1);
        int published = 0;
        int last = 0;
        for (int i = first(line); i < end; i++) {
            if (!is(i, DRAFT)) {
                published++;
                last = Math.max(last, major(i));
            }
        }
        long over = keep > 0 ? published - keep : 0;
        for (int i = first(line); i + 1 < end; i++) {
            if (!is(i, DRAFT) && over-- > 0) {
                mark(i, BEYOND_PUBLISHED);
            } else if (is(i, DRAFT) && draftsOf > 0 && major(i) < last - draftsOf) {
                mark(i, BEYOND_DRAFTS);
            }
        }
    }
}
