package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Everything that people did, in the window, on the command line and by schedules alike: the journal as a whole. */
public final class JournalQuery {

    /** What took less was done at once. */
    private static final Duration WORTH_SAYING = Duration.ofMillis(500);

    private final Sql sql;
    private final JournalStore actions;

    private JournalQuery(Reading reading) {
        this.sql = reading.sql();
        this.actions = JournalStore.of(reading);
    }

    /** The journal as a reader sees it. */
    public static JournalQuery of(Reading reading) {
        return new JournalQuery(reading);
    }

    /**
     * An entry.
     *
     * @param at when
     * @param who did it
     * @param kind of it, such as {@code RESTORED} or {@code HELD}
     * @param place id of its place; 0 when it is about the whole vault
     * @param words what was done
     * @param action with its files, and by which it is undone; empty for what has neither
     * @param end how it came out; empty where that was not noted
     * @param cutShort whether it began and never came to its end
     */
    public record Entry(
            Instant at,
            String who,
            String kind,
            long place,
            String words,
            Optional<Action> action,
            Optional<JournalEnds.End> end,
            boolean cutShort) {

        /** How it came out, as a message; empty where there is nothing to say. */
        public String outcome() {
            if (cutShort) {
                return Words.of("journal.cutShort");
            }
            boolean isLong =
                    end.filter(e -> e.took().compareTo(WORTH_SAYING) >= 0).isPresent();
            String took = isLong
                    ? Words.of(
                            "journal.took", Formats.duration(end.orElseThrow().took()))
                    : "";
            int failed = end.map(JournalEnds.End::failed).orElse(0);
            String files = failed == 0 ? "" : Words.of("journal.failed", failed);
            return files.isEmpty() || took.isEmpty() ? files + took : files + ", " + took;
        }
    }

    /**
     * Which entries are wanted; what is empty narrows nothing.
     *
     * @param file part of a path
     * @param who part of a name
     * @param kind of the entry
     * @param from the first moment
     * @param to the first moment that is too late
     */
    public record Wanted(String file, String who, String kind, Optional<Instant> from, Optional<Instant> to) {
        /** All of them. */
        public static final Wanted ALL = new Wanted("", "", "", Optional.empty(), Optional.empty());

        private static boolean holds(String text, String part) {
            return text.toLowerCase(Locale.ROOT).contains(part.strip().toLowerCase(Locale.ROOT));
        }

        boolean fits(Entry e) {
            return holds(e.who(), who)
                    && (kind.isEmpty() || kind.equalsIgnoreCase(e.kind()))
                    && from.map(f -> !e.at().isBefore(f)).orElse(true)
                    && to.map(t -> e.at().isBefore(t)).orElse(true)
                    && (file.isBlank()
                            || e.action().stream()
                                    .flatMap(a -> a.items().stream())
                                    .anyMatch(i -> holds(RelativePath.child(i.folder(), i.name()), file)));
        }
    }

    /** Entries, the latest first. */
    public List<Entry> entries(Wanted wanted, int most) throws IOException {
        List<Entry> found = new ArrayList<>();
        Map<Long, JournalEnds.End> ends = JournalEnds.all(sql);
        long first = JournalEnds.first(sql);
        for (Action a : actions.all()) {
            Optional<JournalEnds.End> end = Optional.ofNullable(ends.get(a.id()));
            boolean cutShort = end.isEmpty() && a.id() >= first;
            Entry e = new Entry(a.at(), a.who(), a.kind().name(), a.place(), a.words(), Optional.of(a), end, cutShort);
            if (wanted.fits(e)) {
                found.add(e);
            }
        }
        others().stream().filter(wanted::fits).forEach(found::add);
        found.sort(Comparator.comparing(Entry::at).reversed());
        return found.size() <= most ? found : List.copyOf(found.subList(0, most));
    }

    /** Holds, retention rules, and what was decided about findings stand in tables of their own. */
    private List<Entry> others() throws IOException {
        List<Entry> found = new ArrayList<>(sql.list(
                "SELECT at, who, place, reason FROM hold",
                r -> entry(r.getLong(1), r.getString(2), "HELD", r.getLong(3), r.getString(4))));
        found.addAll(sql.list(
                "SELECT lifted, who, place, reason FROM hold WHERE lifted <> 0",
                r -> entry(r.getLong(1), "", "HOLD_LIFTED", r.getLong(3), r.getString(4))));
        found.addAll(
                sql.list("SELECT at, who FROM ruleset", r -> entry(r.getLong(1), r.getString(2), "RULES_SET", 0, "")));
        found.addAll(sql.list(
                "SELECT at, who, place, reason FROM decision WHERE what = 'DISMISSED'",
                r -> entry(r.getLong(1), r.getString(2), "FINDING_DISMISSED", r.getLong(3), r.getString(4))));
        found.addAll(sql.list(
                "SELECT at, who, place, reason FROM fine",
                r -> entry(r.getLong(1), r.getString(2), "FINDING_FINE", r.getLong(3), r.getString(4))));
        found.addAll(sql.list(
                "SELECT at, who, folder FROM vault_copy",
                r -> entry(r.getLong(1), r.getString(2), "COPY_BEGUN", 0, r.getString(3))));
        found.addAll(sql.list(
                "SELECT ended, ended_by, folder FROM vault_copy WHERE ended <> 0",
                r -> entry(r.getLong(1), r.getString(2), "COPY_ENDED", 0, r.getString(3))));
        found.addAll(sql.list(
                "SELECT at, who, place, name, was, became FROM setting_change",
                r -> said(
                        r.getLong(1),
                        r.getString(2),
                        "SETTING_CHANGED",
                        r.getLong(3),
                        SettingChanges.words(r.getString(4), r.getString(5), r.getString(6)))));
        return found;
    }

    private static Entry entry(long at, String who, String kind, long place, String reason) {
        return said(at, who, kind, place, Words.of("journal.other." + kind, reason));
    }

    private static Entry said(long at, String who, String kind, long place, String words) {
        return new Entry(Moment.instant(at), who, kind, place, words, Optional.empty(), Optional.empty(), false);
    }
}
