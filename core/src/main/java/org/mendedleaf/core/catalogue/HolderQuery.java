package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;

/**
 * Queries about who holds what. Of a cut nothing is stored but its moment: it holds each version that was current then.
 */
final class HolderQuery {

    private final Sql sql;

    HolderQuery(Sql sql) {
        this.sql = sql;
    }

    List<RemoteSnapshot> cuts(long place) throws IOException {
        return sql.list(
                "SELECT key, at, label, expires FROM cut WHERE place = ? ORDER BY at, id",
                r -> new RemoteSnapshot(
                        r.getString(1), Moment.instant(r.getLong(2)), r.getString(3), moment(r.getLong(4))),
                place);
    }

    private static Optional<java.time.Instant> moment(long micros) {
        return micros == 0 ? Optional.empty() : Optional.of(Moment.instant(micros));
    }

    Map<Integer, List<Holder>> of(Line line) throws IOException {
        Map<Integer, List<Holder>> found = new HashMap<>();
        for (Version v : line.versions()) {
            if (!v.recipe().isElsewhere()) {
                add(found, v.number(), new Holder(Holder.Kind.VAULT, line.place(), "", "", Optional.empty()));
            }
        }
        if (!line.place().isOutside()) {
            return found;
        }
        sql.list(
                        "SELECT number, point, label, expires FROM holding WHERE line = ? ORDER BY number, point",
                        r -> Map.entry(
                                r.getInt(1),
                                new Holder(
                                        Holder.Kind.POINT,
                                        line.place(),
                                        r.getString(2),
                                        r.getString(3),
                                        moment(r.getLong(4)))),
                        line.id())
                .forEach(e -> add(found, e.getKey(), e.getValue()));
        List<RemoteSnapshot> cuts = cuts(line.place().id());
        if (!cuts.isEmpty()) {
            inCuts(line, cuts, found);
        }
        return found;
    }

    private void inCuts(Line line, List<RemoteSnapshot> cuts, Map<Integer, List<Holder>> found) throws IOException {
        record Stay(int number, long from, long to) {}
        List<Stay> stays = sql.list(
                Spans.of("s.number, s.valid_from, s.valid_to", Spans.NODES_OF_LINE, ""),
                r -> new Stay(r.getInt(1), r.getLong(2), r.getLong(3)),
                line.id());
        for (RemoteSnapshot cut : cuts) {
            long at = Moment.micros(cut.at());
            for (Stay s : stays) {
                if (s.from() <= at && at < s.to()) {
                    Holder.Kind kind = cut.isLive() ? Holder.Kind.LIVE : Holder.Kind.CUT;
                    add(found, s.number(), new Holder(kind, line.place(), cut.key(), cut.label(), cut.expires()));
                }
            }
        }
    }

    private static void add(Map<Integer, List<Holder>> into, int number, Holder holder) {
        into.computeIfAbsent(number, n -> new ArrayList<>()).add(holder);
    }
}
