package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.Labels;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RuleDocument;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.report.Report;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What is kept of files, and until when: for each file the versions that were kept on a day, which of them have gone since, when the next
 * goes, and what keeps the newest; with the rules and the holds as they stood on that day. Until when is told by the rules of now.
 */
public final class KeptReport {

    /** So many files stand on a page; a table and JSON have all. */
    private static final int SHOWN = 300;

    private final Reading reading;
    private final Verdicts verdicts;
    private final Instant day;
    private final Instant now;
    private final ZoneId zone;

    /**
     * A report.
     *
     * @param verdicts on all versions, by the rules of now
     * @param on the moment that it is about; empty for now
     */
    public KeptReport(Reading reading, Verdicts verdicts, Optional<Instant> on, Instant now, ZoneId zone) {
        this.reading = reading;
        this.verdicts = verdicts;
        this.day = on.filter(d -> d.isBefore(now)).orElse(now);
        this.now = now;
        this.zone = zone;
    }

    private static final class Sum {
        private long files;
        private long versions;
        private long bytes;
        private long goneSince;
    }

    /**
     * Of a folder or file, with all below it.
     *
     * @param place id of it; 0 for all places
     * @param path in the place; empty for all of it
     */
    public Report of(long place, String path) throws IOException {
        Optional<Place> only =
                reading.places().stream().filter(p -> p.id() == place).findFirst();
        String named = only.map(p -> path.isEmpty() ? p.label() : path).orElse(Words.of("keeps.everything"));
        boolean isNow = day.equals(now);
        Report report = new Report(
                "kept",
                isNow ? Words.of("keeps.title", named) : Words.of("keeps.titleOn", named, Formats.full(day, zone)),
                now);
        report.fact("place", only.map(Place::where).orElse(""), "");
        report.fact("path", path, "");
        report.fact("on", day.toString(), "");
        rules(report, isNow);
        holds(report, place, isNow);
        Report.Table files = report.table(
                "files",
                Words.of("keeps.files"),
                place == 0 ? Report.text("place", Words.of("keeps.place")) : Report.hidden("place"),
                Report.path("path", Words.of("report.file")),
                Report.number("versions", Words.of("keeps.versions")),
                Report.brief("oldest", Words.of("keeps.oldest")),
                Report.brief("newest", Words.of("keeps.newest")),
                Report.brief("nextGoes", Words.of("keeps.nextGoes")),
                Report.text("newestIs", Words.of("keeps.newestIs")),
                Report.number("goneSince", isNow ? "" : Words.of("keeps.goneSince")),
                Report.hidden("bytes"));
        Sum sum = files(files, place, path);
        files.show(SHOWN, Words.of("report.more", files.rows().size() - SHOWN));
        report.fact("versions", sum.versions, "");
        report.fact("bytes", sum.bytes, "");
        report.paragraph(
                sum.files == 0
                        ? Words.of(isNow ? "keeps.nothing" : "keeps.nothingThen")
                        : Words.of("keeps.sum", sum.files, sum.versions, Formats.size(sum.bytes)));
        if (!isNow && sum.files == 0) {
            report.fact("goneSince", 0, "");
        } else if (!isNow) {
            report.fact("goneSince", sum.goneSince, Words.of("keeps.sumGone", sum.goneSince));
        }
        report.main(files);
        return report;
    }

    private Sum files(Report.Table to, long place, String path) throws IOException {
        VersionTable t = verdicts.table();
        Map<Long, Map<Integer, PendingDeletion>> gone = new HashMap<>();
        for (PendingDeletion d : PendingDeletionStore.of(reading).gone()) {
            gone.computeIfAbsent(d.line(), k -> new HashMap<>()).put(d.number(), d);
        }
        Map<Long, Place> places = new HashMap<>();
        reading.places().forEach(p -> places.put(p.id(), p));
        List<Integer> lines = new ArrayList<>();
        for (int line = 0; line < t.lines(); line++) {
            boolean in = place == 0 || t.place(line) == place && RelativePath.isWithin(t.path(line), path);
            if (in) {
                lines.add(line);
            }
        }
        lines.sort((a, b) -> {
            int byPlace = Long.compare(t.place(a), t.place(b));
            return byPlace != 0 ? byPlace : t.path(a).compareTo(t.path(b));
        });
        Sum sum = new Sum();
        for (int line : lines) {
            file(to, line, places, gone.getOrDefault(t.lineId(line), Map.of()), sum);
        }
        return sum;
    }

    private void file(Report.Table to, int line, Map<Long, Place> places, Map<Integer, PendingDeletion> gone, Sum sum) {
        VersionTable t = verdicts.table();
        long at = Moment.micros(day);
        int oldest = -1;
        int newest = -1;
        int count = 0;
        int since = 0;
        long bytes = 0;
        long next = Moment.OPEN;
        boolean goesNow = false;
        for (int row = t.first(line); row < t.first(line + 1); row++) {
            @Nullable PendingDeletion d = gone.get(t.number(row));
            boolean here = !t.is(row, VersionColumns.ELSEWHERE);
            boolean wentLater = d != null && d.gone().orElse(Instant.MIN).isAfter(day);
            if (t.saved(row) > at || !here && !wentLater) {
                continue;
            }
            oldest = oldest < 0 ? row : oldest;
            newest = row;
            count++;
            bytes += t.bytes(row);
            if (!here) {
                since++;
                continue;
            }
            goesNow |= verdicts.goes(row) || t.is(row, VersionColumns.WAITING);
            long until = verdicts.goes(row) ? Moment.OPEN : verdicts.until(row);
            next = Math.min(next, until == Long.MIN_VALUE ? Moment.OPEN : until);
        }
        if (count == 0) {
            return;
        }
        sum.files++;
        sum.versions += count;
        sum.bytes += bytes;
        sum.goneSince += since;
        Place place = places.get(t.place(line));
        to.row(
                Report.Cell.of(place == null ? "" : place.label()),
                Report.Cell.of(t.path(line)),
                ReportFile.number(count),
                moment(Moment.instant(t.saved(oldest))),
                moment(Moment.instant(t.saved(newest))),
                nextGoes(goesNow, next),
                new Report.Cell(newestIs(newest), newestIs(newest)),
                ReportFile.number(since),
                ReportFile.size(bytes));
    }

    private Report.Cell moment(Instant at) {
        return new Report.Cell(at, Formats.day(at, now, zone));
    }

    private Report.Cell nextGoes(boolean now, long next) {
        if (now) {
            return new Report.Cell(this.now, Words.of("keeps.now"));
        }
        return next == Moment.OPEN ? new Report.Cell(null, Words.of("keeps.never")) : moment(Moment.instant(next));
    }

    private String newestIs(int row) {
        return verdicts.table().is(row, VersionColumns.ELSEWHERE)
                ? Words.of("keeps.gone")
                : verdicts.at(row).words(now, zone);
    }

    /** The rules that counted on the day, and that others count now. */
    private void rules(Report report, boolean isNow) throws IOException {
        Optional<RuleDocument> then = RuleDocument.asOf(reading, day);
        Optional<RuleDocument> newest = RuleDocument.newest(reading);
        Report.Table table = report.table(
                "rules",
                Words.of("keeps.rules"),
                Report.text("name", Words.of("keeps.rule")),
                Report.text("sentence", Words.of("keeps.says")),
                Report.brief("since", Words.of("keeps.since")),
                Report.brief("by", Words.of("keeps.by")));
        if (then.isPresent()) {
            RuleDocument d = then.get();
            for (Rule rule : RuleFile.read(d.text()).rules()) {
                table.row(
                        Report.Cell.of(rule.name()),
                        Report.Cell.of(rule.sentence()),
                        moment(d.at()),
                        Report.Cell.of(d.who()));
            }
        }
        if (table.rows().isEmpty()) {
            report.paragraph(Words.of(isNow ? "keeps.noRules" : "keeps.noRulesThen"));
        }
        if (newest.isPresent() && !newest.equals(then)) {
            report.warning(Words.of(
                    "keeps.rulesChanged",
                    Formats.full(newest.get().at(), zone),
                    newest.get().who()));
        }
    }

    /** What was held on the day. */
    private void holds(Report report, long place, boolean isNow) throws IOException {
        Report.Table table = report.table(
                "holds",
                Words.of("keeps.holds"),
                Report.text("what", Words.of("hold.what")),
                Report.text("reason", Words.of("keeps.reason")),
                Report.brief("by", Words.of("keeps.by")),
                Report.brief("since", Words.of("keeps.since")),
                Report.brief("until", Words.of("hold.untilName")),
                Report.brief("lifted", isNow ? "" : Words.of("keeps.lifted")));
        Map<Long, Place> places = new HashMap<>();
        reading.places().forEach(p -> places.put(p.id(), p));
        for (Hold h : HoldStore.of(reading).asOf(day)) {
            Place of = places.get(h.place());
            if (of != null && (place == 0 || h.place() == place)) {
                Labels labels = Labels.of(reading, of);
                String where = h.path().isEmpty() ? of.label() : h.path();
                table.row(
                        Report.Cell.of(Words.of("hold.what." + h.kind(), where, labels.of(h.line(), h.number()))),
                        Report.Cell.of(h.reason()),
                        Report.Cell.of(h.who()),
                        moment(h.at()),
                        h.until().map(this::moment).orElse(new Report.Cell(null, Words.of("keeps.untilLifted"))),
                        h.lifted().map(this::moment).orElse(new Report.Cell(null, "")));
            }
        }
    }
}
