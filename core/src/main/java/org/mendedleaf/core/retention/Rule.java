package org.mendedleaf.core.retention;

import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * One rule of retention. Times count from when a version was replaced by a newer one, or its file was removed: what somebody
 * overwrote today can be had back for the whole time, however old it is.
 *
 * <p>The newest version of a file that is there is kept by every rule.
 *
 * @param name by which people tell it from others
 * @param scope which files it is for
 * @param everything for how long every version is kept
 * @param last for how long the last version of each hour, day, week, month, year is kept
 * @param atLeast so many of the newest versions are kept whatever the times say, while the file is there
 * @param atMost no more versions than these are kept; 0 for no such limit
 * @param dropAfter what is older than this goes, whatever else would keep it
 * @param removed for how long a removed file is kept; empty for its newest version for good
 * @param capBytes what the versions of all these files may really take; 0 for no such limit
 * @param whenNeeded whether what may go stays until the space is needed
 */
public record Rule(
        String name,
        RuleScope scope,
        Optional<Term> everything,
        Map<Level, Term> last,
        int atLeast,
        int atMost,
        Optional<Term> dropAfter,
        Optional<Term> removed,
        long capBytes,
        boolean whenNeeded) {

    /** Copies, and refuses what contradicts itself. */
    public Rule {
        EnumMap<Level, Term> copy = new EnumMap<>(Level.class);
        copy.putAll(last);
        last = Collections.unmodifiableMap(copy);
        if (name.isBlank()) {
            throw new IllegalArgumentException(Words.of("rule.noName"));
        }
        if (atLeast < 0 || atMost < 0 || capBytes < 0) {
            throw new IllegalArgumentException(Words.of("rule.negative", name));
        }
        if (atMost > 0 && atMost < atLeast) {
            throw new IllegalArgumentException(Words.of("rule.mostBelowLeast", name, atMost, atLeast));
        }
    }

    /** One that keeps everything. */
    public static Rule keepAll(String name, RuleScope scope) {
        return new Rule(name, scope, Optional.empty(), Map.of(), 1, 0, Optional.empty(), Optional.empty(), 0, false);
    }

    /** Whether times say what is kept; without any, all is. */
    boolean hasTimes() {
        return everything.isPresent() || !last.isEmpty();
    }

    /** The same with other times for every version. */
    public Rule withEverything(Optional<Term> other) {
        return new Rule(name, scope, other, last, atLeast, atMost, dropAfter, removed, capBytes, whenNeeded);
    }

    /** The same with another time for one level; empty for none. */
    public Rule withLast(Level level, Optional<Term> term) {
        EnumMap<Level, Term> other = new EnumMap<>(Level.class);
        other.putAll(last);
        other.remove(level);
        term.ifPresent(t -> other.put(level, t));
        return new Rule(name, scope, everything, other, atLeast, atMost, dropAfter, removed, capBytes, whenNeeded);
    }

    /** The same with other limits of number. */
    public Rule withCounts(int least, int most) {
        return new Rule(name, scope, everything, last, least, most, dropAfter, removed, capBytes, whenNeeded);
    }

    /** The same with other ends. */
    public Rule withEnds(Optional<Term> drop, Optional<Term> gone) {
        return new Rule(name, scope, everything, last, atLeast, atMost, drop, gone, capBytes, whenNeeded);
    }

    /** The same with another limit of space. */
    public Rule withSpace(long cap, boolean needed) {
        return new Rule(name, scope, everything, last, atLeast, atMost, dropAfter, removed, cap, needed);
    }

    /** The same for other files. */
    public Rule withScope(String other, RuleScope otherScope) {
        return new Rule(other, otherScope, everything, last, atLeast, atMost, dropAfter, removed, capBytes, whenNeeded);
    }

    /** The rule in one sentence. */
    public String sentence() {
        List<String> parts = new ArrayList<>();
        everything.ifPresent(t -> parts.add(Words.of("rule.everything", t.words())));
        last.forEach((level, term) -> parts.add(Words.of("rule.last." + level, term.words())));
        if (!hasTimes()) {
            parts.add(Words.of("rule.all"));
        }
        String times = Words.of("rule.sentence", scope.words(), list(parts));
        List<String> more = new ArrayList<>();
        if (atLeast > 1) {
            more.add(Words.of("rule.atLeast", atLeast));
        }
        if (atMost > 0) {
            more.add(Words.of("rule.atMost", atMost));
        }
        dropAfter.ifPresent(t -> more.add(Words.of("rule.dropAfter", t.words())));
        removed.ifPresent(t -> more.add(Words.of("rule.removed", t.words())));
        if (capBytes > 0) {
            more.add(Words.of("rule.cap", Formats.size(capBytes)));
        }
        if (whenNeeded) {
            more.add(Words.of("rule.whenNeeded"));
        }
        return more.isEmpty() ? times + "." : times + "; " + String.join("; ", more) + ".";
    }

    private static String list(List<String> parts) {
        if (parts.size() == 1) {
            return parts.get(0);
        }
        String all = String.join(", ", parts.subList(0, parts.size() - 1));
        return Words.of("rule.and", all, parts.get(parts.size() - 1));
    }
}
