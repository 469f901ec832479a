package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.Edition;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.StoredFinding;

/**
 * Gives versions of folders the numbers that people see: whole ones, or drafts between them. A file that somebody has
 * checked out gets drafts until it is checked in; one that was changed by somebody else meanwhile gets a draft and a
 * finding, so that nobody's work is taken for the other's.
 */
public final class Numbering {

    /** Name and value of the rule by which a place has drafts; see {@code Setting.NUMBERING}. */
    private static final String RULE = "numbering";

    private static final String DRAFTS = "drafts";

    private final WriteSession session;
    private final Sql sql;

    Numbering(WriteSession session) {
        this.session = session;
        this.sql = session.sql();
    }

    /** The number that people see of a version. */
    public static Edition of(Sql sql, long line, int number) throws IOException {
        return number == 0
                ? Edition.NONE
                : sql.first(
                                "SELECT major, minor FROM edition WHERE line = ? AND number = ?",
                                r -> new Edition(r.getInt(1), r.getInt(2)),
                                line,
                                number)
                        .orElse(Edition.whole(number));
    }

    /** Notes what a version that was just added is called, and a finding where there is cause. */
    void added(Place place, long line, int number, LineWriter.Arrival arrival) throws IOException {
        if (place.isOutside()) {
            return;
        }
        Edition before = of(sql, line, number - 1);
        Optional<CheckOut> out = CheckOutStore.of(session).get(line);
        boolean others = out.filter(o -> !o.who().equals(arrival.facts().who())).isPresent();
        Edition edition = isDraft(place, arrival, out) ? before.nextDraft() : before.nextPublished();
        if (!edition.equals(Edition.whole(number))) {
            session.apply(Op.EDITION, line, number, edition.major(), edition.minor());
        }
        if (others && arrival.stage() == DraftChoice.BY_RULE) {
            Instant at = arrival.captured();
            FindingStore.add(
                    session,
                    new StoredFinding(
                            0,
                            place.id(),
                            line,
                            number,
                            StoredFinding.Kind.EDITED_WHILE_CHECKED_OUT,
                            at,
                            arrival.facts().who(),
                            out.get().who(),
                            false));
        }
    }

    private boolean isDraft(Place place, LineWriter.Arrival arrival, Optional<CheckOut> out) throws IOException {
        return switch (arrival.stage()) {
            case DRAFT -> true;
            case PUBLISHED -> false;
            // What is there when a place is first seen counts as published.
            case BY_RULE -> arrival.origin() != Origin.FOUND && (out.isPresent() || hasDrafts(place));
        };
    }

    private boolean hasDrafts(Place place) throws IOException {
        return sql.first("SELECT value FROM rule WHERE place = ? AND name = ?", r -> r.getString(1), place.id(), RULE)
                .filter(DRAFTS::equals)
                .isPresent();
    }
}
