package org.mendedleaf.core.line;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.words.Words;

/** Everything that people did, in the window, on the command line and by schedules alike: the journal as a whole. */
public final class JournalQuery {

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
     */
    public record Entry(Instant at, String who, String kind, long place, String words, Optional<Action> action) {}

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
        for (Action a : actions.all()) {
            Entry e = new Entry(a.at(), a.who(), a.kind().name(), a.place(), a.words(), Optional.of(a));
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
        return found;
    }

    private static Entry entry(long at, String who, String kind, long place, String reason) {
        return new Entry(
                Moment.instant(at), who, kind, place, Words.of("journal.other." + kind, reason), Optional.empty());
    }
}
