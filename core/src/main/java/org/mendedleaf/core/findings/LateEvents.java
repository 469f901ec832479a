package org.mendedleaf.core.findings;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What happened last in a place, as far as many of it together would be a finding. With it few changes are judged without going
 * through all that ever happened there: either they cannot have made a finding, or everything is judged anew. Pure.
 */
final class LateEvents {

    /** So many of each kind are remembered; more than any detector asks for. */
    static final int REMEMBERED = 32;

    /** Kinds of events that are a finding when many of them come within minutes. */
    enum Kind {
        /** A file was removed. */
        REMOVED(RemovedInBulk.FEWEST),
        /** A file got another ending. */
        ENDING(NewEndings.FEWEST),
        /** A version has little in common with the one before it. */
        LITTLE_SHARED(ManyChanged.FEWEST);

        private final int fewest;

        Kind(int fewest) {
            this.fewest = fewest;
        }
    }

    /** Something that happened to a file. */
    record Event(Kind kind, long line, Instant at) {}

    private LateEvents() {}

    /** The last events of all kinds in a history. */
    static List<Event> last(History history) {
        return last(events(history));
    }

    /** The last of these, of each kind. */
    static List<Event> last(List<Event> events) {
        List<Event> last = new ArrayList<>();
        for (Kind kind : Kind.values()) {
            List<Event> of = events.stream()
                    .filter(e -> e.kind() == kind)
                    .distinct()
                    .sorted(Comparator.comparing(Event::at))
                    .toList();
            last.addAll(of.subList(Math.max(0, of.size() - REMEMBERED), of.size()));
        }
        return last;
    }

    /** The events of the versions that came, and of what happened to them. */
    static List<Event> fresh(History history, Map<Long, Set<Integer>> came) {
        History part = new History(
                history.place(),
                history.saves().stream()
                        .filter(s -> came.getOrDefault(s.line(), Set.of()).contains(s.number()))
                        .toList(),
                history.turns().stream()
                        .filter(t -> came.getOrDefault(t.line(), Set.of()).contains(t.number()))
                        .toList());
        return events(part);
    }

    private static List<Event> events(History history) {
        List<Event> events = new ArrayList<>();
        for (SavedVersion s : history.saves()) {
            if (!s.hasBefore() || s.ours()) {
                continue;
            }
            if (s.shared() >= 0 && s.shared() < ManyChanged.LITTLE) {
                events.add(new Event(Kind.LITTLE_SHARED, s.line(), s.at()));
            }
            if (isOtherEnding(s.pathBefore(), s.path())) {
                events.add(new Event(Kind.ENDING, s.line(), s.at()));
            }
        }
        for (NameChange t : history.turns()) {
            if (t.isRemoval()) {
                events.add(new Event(Kind.REMOVED, t.line(), t.at()));
            } else if (isOtherEnding(t.from(), t.to())) {
                events.add(new Event(Kind.ENDING, t.line(), t.at()));
            }
        }
        return events;
    }

    private static boolean isOtherEnding(String from, String to) {
        return !SavedVersion.ending(from).equals(SavedVersion.ending(to));
    }

    /**
     * Whether what came may be part of a finding together with what was before it.
     *
     * @param before the last events before, as {@link #last} gives them
     * @param fresh what came
     */
    static boolean mayMatter(List<Event> before, List<Event> fresh) {
        Set<Event> came = new HashSet<>(fresh);
        for (Kind kind : Kind.values()) {
            List<Event> old = before.stream().filter(e -> e.kind() == kind).toList();
            List<Event> all = new ArrayList<>(old);
            fresh.stream().filter(e -> e.kind() == kind && !old.contains(e)).forEach(all::add);
            boolean full = old.size() >= REMEMBERED;
            Instant oldest =
                    old.stream().map(Event::at).min(Comparator.naturalOrder()).orElse(Instant.MAX);
            for (List<Event> run : Clusters.of(all, Event::at)) {
                boolean isFresh = run.stream().anyMatch(came::contains);
                // Of what is older than what is remembered nobody knows what happened beside it.
                boolean unknown = full && !run.get(0).at().isAfter(oldest);
                if (isFresh && (run.size() >= kind.fewest || unknown)) {
                    return true;
                }
            }
        }
        return false;
    }
}
