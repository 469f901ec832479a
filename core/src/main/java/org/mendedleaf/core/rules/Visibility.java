package org.mendedleaf.core.rules;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Version;

/** What somebody sees of a line: who may not see drafts sees the published versions, the newest of them first. */
public final class Visibility {

    private Visibility() {}

    /** What they see of a line; pure. A file that they may not see is an empty line to them. */
    public static Line see(Line line, Rights rights, FileProperties card) {
        if (!rights.sees(card.visibility())) {
            return with(line, List.of());
        }
        if (rights.may(Permission.SEE_DRAFTS)) {
            return line;
        }
        return with(line, line.points().stream().filter(p -> isPublic(p, line)).toList());
    }

    private static boolean isPublic(LinePoint p, Line line) {
        if (p instanceof Version v) {
            return !v.edition().isDraft();
        }
        Event e = (Event) p;
        boolean work = e.kind() == EventKind.CHECKED_OUT
                || e.kind() == EventKind.CHECKED_IN
                || e.kind() == EventKind.GIVEN_UP
                || e.kind() == EventKind.CHECK_OUT_ENDED;
        boolean ofDraft =
                line.version(e.number()).map(v -> v.edition().isDraft()).orElse(false);
        return !work && !(ofDraft && e.kind() == EventKind.PUBLISHED);
    }

    private static Line with(Line line, List<LinePoint> points) {
        return new Line(line.id(), line.place(), line.path(), line.removed(), line.bytes(), points);
    }

    /**
     * What they see of a line of a folder. Of a place in another system, that system has shown no more than they may see.
     *
     * @return empty when they may not see the file at all
     */
    public static Optional<Line> see(Reading reading, Line line, String who) throws IOException {
        if (line.place().isOutside()) {
            return Optional.of(line);
        }
        Rights rights = PlaceRules.of(reading, line.place()).rights(who, line.place());
        FileProperties card = RemarkStore.of(reading).card(line.id());
        return rights.sees(card.visibility()) ? Optional.of(see(line, rights, card)) : Optional.empty();
    }
}
