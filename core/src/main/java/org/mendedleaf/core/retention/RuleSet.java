package org.mendedleaf.core.retention;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.words.Words;

/**
 * The rules of a vault. For each file the most specific rule that fits it counts; of equally specific ones the first. What no
 * rule fits is kept.
 *
 * @param rules in the order in which they were written
 * @param grace for how long what was let go can be taken back
 * @param standing whether they are carried out by themselves, every day
 */
public record RuleSet(List<Rule> rules, Term grace, boolean standing) {

    /** What counts before anybody sets rules: all is kept. */
    public static final RuleSet NONE = new RuleSet(List.of(), Term.days(7), false);

    /** Copies, and refuses two rules of one name. */
    public RuleSet {
        rules = List.copyOf(rules);
        Set<String> names = new HashSet<>();
        for (Rule r : rules) {
            if (!names.add(r.name())) {
                throw new IllegalArgumentException(Words.of("rule.twice", r.name()));
            }
        }
    }

    /** The same with another rule in the place of one, or behind all others when there is none of its name. */
    public RuleSet with(Rule rule) {
        if (rules.stream().noneMatch(r -> r.name().equals(rule.name()))) {
            return new RuleSet(
                    java.util.stream.Stream.concat(rules.stream(), java.util.stream.Stream.of(rule))
                            .toList(),
                    grace,
                    standing);
        }
        return new RuleSet(
                rules.stream().map(r -> r.name().equals(rule.name()) ? rule : r).toList(), grace, standing);
    }

    /** The same without a rule. */
    public RuleSet without(String name) {
        return new RuleSet(rules.stream().filter(r -> !r.name().equals(name)).toList(), grace, standing);
    }

    /** The same with another grace time, carried out by themselves or not. */
    public RuleSet with(Term otherGrace, boolean byThemselves) {
        return new RuleSet(rules, otherGrace, byThemselves);
    }
}
