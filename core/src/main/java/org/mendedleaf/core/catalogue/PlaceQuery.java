package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.line.Space;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.time.Moment;

/** Queries about places. */
final class PlaceQuery {

    private final Sql sql;

    PlaceQuery(Sql sql) {
        this.sql = sql;
    }

    List<Place> all() throws IOException {
        record Raw(long id, String root, String name, String rhythm, int minutes, long created) {}
        List<Raw> raws = sql.list(
                "SELECT id, root, name, rhythm, minutes, created FROM place ORDER BY id",
                r -> new Raw(r.getLong(1), r.getString(2), r.getString(3), r.getString(4), r.getInt(5), r.getLong(6)));
        List<Place> places = new ArrayList<>();
        for (Raw raw : raws) {
            List<String> patterns = sql.list(
                    "SELECT pattern FROM exclusion WHERE place = ? ORDER BY pattern", r -> r.getString(1), raw.id());
            Source source = Source.parse(raw.root());
            Versioning versioning = source instanceof Source.Outside
                    ? Versioning.ON
                    : sql.first(
                                    "SELECT value FROM rule WHERE place = ? AND name = '" + Versioning.RULE + "'",
                                    r -> Versioning.of(r.getString(1)),
                                    raw.id())
                            .orElse(Versioning.ON);
            places.add(new Place(
                    raw.id(),
                    source,
                    raw.name(),
                    new Rhythm(Rhythm.Kind.valueOf(raw.rhythm()), raw.minutes()),
                    patterns,
                    Moment.instant(raw.created()),
                    versioning));
        }
        return places;
    }

    PlaceState state(Place place, PathIds names) throws IOException {
        record Look(long looked, long good, String trouble) {}
        Optional<Look> look = sql.first(
                "SELECT looked, good, trouble FROM look WHERE place = ?",
                r -> new Look(r.getLong(1), r.getLong(2), r.getString(3)),
                place.id());
        record Raw(long folder, String name, int reason, String detail, long since) {}
        List<Skipped> skipped = new ArrayList<>();
        for (Raw raw : sql.list(
                "SELECT folder, name, reason, detail, since FROM skipped WHERE place = ? ORDER BY folder, name",
                r -> new Raw(r.getLong(1), r.getString(2), r.getInt(3), r.getString(4), r.getLong(5)),
                place.id())) {
            String folder = names.path(raw.folder());
            skipped.add(new Skipped(
                    raw.name().isEmpty() ? folder : RelativePath.child(folder, raw.name()),
                    Skipped.Reason.of(raw.reason()),
                    raw.detail(),
                    Moment.instant(raw.since())));
        }
        long files = sql.number("SELECT count(*) FROM line WHERE place = ? AND removed = 0", place.id());
        return new PlaceState(
                look.map(Look::looked).filter(t -> t > 0).map(Moment::instant),
                look.map(Look::good).filter(t -> t > 0).map(Moment::instant),
                look.map(Look::trouble).orElse(""),
                skipped,
                files);
    }

    Space space() throws IOException {
        return sql.first(
                        "SELECT count(*), coalesce(sum(versions), 0), coalesce(sum(bytes), 0),"
                                + " (SELECT coalesce(sum(committed), 0) FROM pack) FROM line WHERE place IN"
                                + " (SELECT id FROM place WHERE root NOT LIKE '" + Source.PREFIX + "%')",
                        r -> new Space(r.getLong(1), r.getLong(2), r.getLong(3), r.getLong(4)))
                .orElseThrow();
    }
}
