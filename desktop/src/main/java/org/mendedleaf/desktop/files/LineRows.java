package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.LineVerdicts;
import org.mendedleaf.core.retention.Reason;
import org.mendedleaf.core.retention.Verdict;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Makes the rows of a drawn line from its points. Pure. */
final class LineRows {

    /** Versions of one day are folded from the fifth on, but for the newest ones of the line. */
    private static final int FOLD_FROM = 4;

    private static final int NEVER_FOLDED = 12;

    private final MergedLine merged;
    private final Line line;
    private final Optional<LineRemarks> said;
    private final Instant now;
    private final ZoneId zone;

    LineRows(MergedLine merged, Optional<LineRemarks> said, Instant now, ZoneId zone) {
        this.merged = merged;
        this.said = said;
        this.line = merged.own();
        this.now = now;
        this.zone = zone;
    }

    /**
     * The rows, newest first.
     *
     * @param unfolded keys of the runs that are shown whole
     * @param changes words for what changed, by number of the version, as far as they are known
     */
    List<LineRow> rows(Set<String> unfolded, Map<Integer, String> changes) {
        List<Version> versions = line.versions();
        Map<Digest, Integer> firstWith = new HashMap<>();
        for (int i = versions.size() - 1; i >= 0; i--) {
            firstWith.putIfAbsent(versions.get(i).digest(), versions.get(i).number());
        }
        Map<LocalDate, Integer> foldable = foldable();
        List<LineRow> rows = new ArrayList<>();
        LocalDate folding = null;
        int seen = 0;
        for (MergedPoint point : merged.points()) {
            if (!(point.point() instanceof Version v)) {
                rows.add(new LineRow.OfEvent((Event) point.point(), LineRow.Lane.NONE));
                folding = null;
                continue;
            }
            if (v.line() != line.id()) {
                LineRow.Held heldBy = heldBy(point);
                rows.add(new LineRow.OfVersion(
                        v, "", false, LineRow.Lane.NONE, 0, heldBy, words(v, 0, heldBy), LineRow.Kept.NOTHING, ""));
                folding = null;
                continue;
            }
            LocalDate day = v.saved().atZone(zone).toLocalDate();
            boolean fold = seen++ >= NEVER_FOLDED
                    && foldable.getOrDefault(day, 0) >= FOLD_FROM
                    && !unfolded.contains(day.toString())
                    && v.origin() != Origin.RESTORED;
            if (fold && day.equals(folding) && rows.get(rows.size() - 1) instanceof LineRow.Folded f) {
                rows.set(rows.size() - 1, new LineRow.Folded(f.key(), f.count() + 1, f.day(), LineRow.Lane.NONE));
            } else if (fold && day.equals(folding)) {
                rows.add(new LineRow.Folded(day.toString(), 1, Formats.day(v.saved(), now, zone), LineRow.Lane.NONE));
            } else {
                rows.add(version(point, v, versions, changes, firstWith));
                folding = fold ? day : null;
            }
        }
        return withLanes(rows);
    }

    private Map<LocalDate, Integer> foldable() {
        Map<LocalDate, Integer> days = new HashMap<>();
        line.versions().forEach(v -> days.merge(v.saved().atZone(zone).toLocalDate(), 1, Integer::sum));
        return days;
    }

    private LineRow.Held heldBy(MergedPoint point) {
        boolean foreign = point.line().id() != line.id();
        String where = foreign ? point.line().place().label() : "";
        boolean onlyVault = point.copies().stream().allMatch(c -> c.holder().kind() == Holder.Kind.VAULT);
        if (!point.copies().isEmpty() && onlyVault && !foreign) {
            return LineRow.Held.VAULT;
        }
        if (point.copies().isEmpty()) {
            boolean unknown =
                    point.version().map(v -> !v.recipe().isElsewhere()).orElse(true);
            return unknown
                    ? LineRow.Held.VAULT
                    : new LineRow.Held(where, point.label(), Words.of("holders.nobody"), true);
        }
        String words = String.join(", ", point.holders(Words.of("holders.vault")));
        boolean soon = point.forgottenSoon(now);
        if (soon) {
            words += " "
                    + Words.of(
                            "holders.until", Formats.moment(point.forgottenAt().orElseThrow(), now, zone));
        } else if (point.onlyOne() && !point.inVault()) {
            words = Words.of("holders.only", words);
        }
        return new LineRow.Held(where, point.label(), words, soon || (point.onlyOne() && !point.inVault()));
    }

    private LineRow version(
            MergedPoint point,
            Version v,
            List<Version> versions,
            Map<Integer, String> changes,
            Map<Digest, Integer> firstWith) {
        int at = versions.indexOf(v);
        boolean oldest = at == versions.size() - 1;
        String change = "";
        if (!oldest) {
            Version before = versions.get(at + 1);
            change = changes.getOrDefault(v.number(), sizeWords(before, v));
        }
        int equal = firstWith.getOrDefault(v.digest(), v.number());
        boolean current = at == 0 && line.removed().isEmpty();
        LineRow.Kept kept = kept(v);
        boolean letGo =
                said.map(x -> x.verdicts().letGo().containsKey(v.number())).orElse(false);
        LineRow.Held heldBy = letGo && v.recipe().isElsewhere() ? LineRow.Held.VAULT : heldBy(point);
        int equalTo = equal == v.number() ? 0 : equal;
        String trouble =
                said.map(s -> s.troubles().getOrDefault(v.number(), "")).orElse("");
        return new LineRow.OfVersion(
                v, change, current, LineRow.Lane.NONE, equalTo, heldBy, words(v, equalTo, heldBy), kept, trouble);
    }

    /** Until when a version is kept, that it may go, or that it is gone; at length in its tooltip. */
    private LineRow.Kept kept(Version v) {
        if (said.isEmpty()) {
            return LineRow.Kept.NOTHING;
        }
        LineVerdicts all = said.get().verdicts();
        String why = all.words(v.number(), now, zone);
        PendingDeletion letGo = all.letGo().get(v.number());
        if (letGo != null) {
            String day = Formats.day(letGo.gone().orElse(letGo.due()), now, zone);
            return new LineRow.Kept(
                    Words.of(letGo.gone().isPresent() ? "kept.gone" : "kept.goes", day), "badge-clay", why);
        }
        Verdict verdict = all.verdicts().get(v.number());
        if (verdict != null && verdict.reason() == Reason.NEWEST) {
            return new LineRow.Kept(Words.of("kept.newest"), "badge-moss", verdict.words(now, zone));
        }
        if (verdict == null || why.isEmpty()) {
            return LineRow.Kept.NOTHING;
        }
        return switch (verdict.reason()) {
            case HELD -> new LineRow.Kept(Words.of("kept.held"), "badge-gold", why);
            case SNAPSHOT -> new LineRow.Kept(Words.of("kept.snapshot"), "badge-slate", why);
            default -> {
                if (!verdict.keeps()) {
                    yield new LineRow.Kept(Words.of("kept.mayGo"), "badge-clay", why);
                }
                yield verdict.until()
                        .map(u ->
                                new LineRow.Kept(Words.of("kept.until", Formats.day(u, now, zone)), "badge-moss", why))
                        .orElse(new LineRow.Kept("", "", why));
            }
        };
    }

    /** Who, how, and what is said of a version, in one line. */
    private String words(Version v, int equalTo, LineRow.Held heldBy) {
        boolean foreign = !heldBy.foreign().isEmpty();
        List<String> parts = new ArrayList<>();
        if (!v.who().isEmpty()) {
            parts.add(v.who());
        }
        boolean draft = !foreign && (v.edition().isDraft() || heldBy.label().contains("."));
        parts.add(line.originWords(v) + (draft ? " " + Words.of("line.draft") : ""));
        if (foreign) {
            parts.add(Words.of("line.foreign", heldBy.foreign(), v.label()));
        }
        if (equalTo > 0 && v.origin() != Origin.RESTORED) {
            parts.add(Words.of("line.equal", line.label(equalTo)));
        }
        if (!v.note().isEmpty()) {
            parts.add("“" + v.note() + "”");
        }
        if (!foreign && said.isPresent()) {
            int comments = said.get().comments(v.number()).size();
            if (comments > 0) {
                parts.add(Words.of("line.comments", comments));
            }
            String beyond = said.get().beyond().get(v.number());
            if (beyond != null) {
                parts.add(beyond);
            }
        }
        return String.join(" · ", parts);
    }

    private static String sizeWords(Version before, Version v) {
        if (v.size() == 0 && before.size() > 0) {
            return Words.of("change.emptied");
        }
        if (v.sameContent(before)) {
            return Words.of("compare.equal");
        }
        return Formats.sizeChange(v.size() - before.size());
    }

    /** Draws a thread from each restored version that is shown to the one it came from, the newest of them first. */
    private static List<LineRow> withLanes(List<LineRow> rows) {
        LineRow.Lane[] lanes = new LineRow.Lane[rows.size()];
        java.util.Arrays.fill(lanes, LineRow.Lane.NONE);
        for (int i = 0; i < rows.size(); i++) {
            if (rows.get(i) instanceof LineRow.OfVersion v
                    && v.heldBy().foreign().isEmpty()
                    && v.version().origin() == Origin.RESTORED) {
                int to = find(rows, v.version().source());
                boolean free = to > i && (lanes[i] == LineRow.Lane.NONE || lanes[i] == LineRow.Lane.TO);
                if (free) {
                    lanes[i] = lanes[i] == LineRow.Lane.TO ? LineRow.Lane.THROUGH : LineRow.Lane.FROM;
                    for (int k = i + 1; k < to; k++) {
                        lanes[k] = LineRow.Lane.PAST;
                    }
                    lanes[to] = LineRow.Lane.TO;
                }
            }
        }
        List<LineRow> drawn = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            drawn.add(withLane(rows.get(i), lanes[i]));
        }
        return drawn;
    }

    private static int find(List<LineRow> rows, int number) {
        for (int i = 0; i < rows.size(); i++) {
            if (rows.get(i) instanceof LineRow.OfVersion v
                    && v.heldBy().foreign().isEmpty()
                    && v.version().number() == number) {
                return i;
            }
        }
        return -1;
    }

    private static LineRow withLane(LineRow row, LineRow.Lane lane) {
        if (row instanceof LineRow.OfVersion v) {
            return new LineRow.OfVersion(
                    v.version(),
                    v.change(),
                    v.current(),
                    lane,
                    v.equalTo(),
                    v.heldBy(),
                    v.words(),
                    v.kept(),
                    v.trouble());
        }
        if (row instanceof LineRow.OfEvent e) {
            return new LineRow.OfEvent(e.event(), lane);
        }
        LineRow.Folded f = (LineRow.Folded) row;
        return new LineRow.Folded(f.key(), f.count(), f.day(), lane);
    }
}
