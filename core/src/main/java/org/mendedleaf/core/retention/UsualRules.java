package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.words.Words;

/** What most people want kept when they begin; each is one rule that can be changed later. */
public enum UsualRules {
    /** Everything, for good: no rule. */
    EVERYTHING,
    /** All of three months, the days of a year, and the months for good. */
    LONG,
    /** All of a month, the days of three months, and the months of two years. */
    SHORT;

    /** As a rule for these files; empty where nothing has to be said. */
    public Optional<Rule> rule(String name, RuleScope scope) {
        return switch (this) {
            case EVERYTHING -> Optional.empty();
            case LONG ->
                Optional.of(Rule.keepAll(name, scope)
                        .withEverything(Optional.of(Term.days(90)))
                        .withLast(Level.DAILY, Optional.of(Term.parse("P1Y")))
                        .withLast(Level.MONTHLY, Optional.of(Term.FOREVER))
                        .withCounts(2, 0));
            case SHORT ->
                Optional.of(Rule.keepAll(name, scope)
                        .withEverything(Optional.of(Term.days(30)))
                        .withLast(Level.DAILY, Optional.of(Term.days(90)))
                        .withLast(Level.MONTHLY, Optional.of(Term.parse("P2Y")))
                        .withCounts(2, 0)
                        .withEnds(Optional.empty(), Optional.of(Term.parse("P1Y"))));
        };
    }

    /** In one sentence. */
    public String sentence() {
        return rule(name(), RuleScope.ALL)
                .map(Rule::sentence)
                .orElseGet(() -> Words.of("usualRules.EVERYTHING.sentence"));
    }

    /**
     * Has this count for a place from now on, carried out by itself where no other rule was there before. Other rules stay.
     *
     * @throws org.mendedleaf.core.rules.NotAllowedException when this person does not own one of the folders of the vault
     */
    public void set(OpenVault vault, Place place, Clock clock, String who) throws IOException {
        Optional<Rule> rule = rule(place.name(), new RuleScope(List.of(place.label()), List.of(), List.of(), Set.of()));
        if (rule.isEmpty()) {
            return;
        }
        RuleSet before;
        try (Reading reading = vault.read()) {
            before = RuleSets.of(reading);
        }
        RuleSet after = before.with(rule.get());
        RuleSets.set(vault, before.rules().isEmpty() ? after.with(before.grace(), true) : after, clock, who);
    }
}
