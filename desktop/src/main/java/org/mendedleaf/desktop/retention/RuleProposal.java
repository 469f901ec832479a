package org.mendedleaf.desktop.retention;

import java.time.Instant;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.retention.Forecast;
import org.mendedleaf.core.retention.Rule;
import org.mendedleaf.core.retention.RuleScope;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.StandingRules;
import org.mendedleaf.core.retention.Term;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.WhatIf;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;

/** Rules while somebody changes them: what they would do is weighed with each change, and told beside the rules that count. */
public final class RuleProposal {

    private final AppContext context;
    private final RetentionModel model;
    private final Background.Newest effectQuestion;
    private final Background.Newest forecastQuestion;
    private final ObjectProperty<RuleSet> proposed = new SimpleObjectProperty<>(RuleSet.NONE);
    private final ReadOnlyObjectWrapper<@Nullable Effect> effect = new ReadOnlyObjectWrapper<>();
    private @Nullable Made<WhatIf.Side> side;
    private volatile @Nullable Made<Forecast> forecast;
    private RetentionModel.@Nullable Picture picture;
    private boolean touched;

    RuleProposal(AppContext context, RetentionModel model) {
        this.context = context;
        this.model = model;
        this.effectQuestion = context.background().new Newest();
        this.forecastQuestion = context.background().new Newest();
        proposed.addListener((o, a, b) -> weigh());
    }

    /** The vault was looked at: unless somebody changes them, the rules are those that count. */
    void took(RetentionModel.Picture p) {
        picture = p;
        if (!touched) {
            proposed.set(p.rules());
        }
        weigh();
    }

    /** Another vault is looked at: what was proposed for the one before it is let go of. */
    void forget() {
        touched = false;
    }

    /** The rules as they are being changed; those that count while nobody changes them. */
    public ReadOnlyObjectProperty<RuleSet> proposedProperty() {
        return proposed;
    }

    /** What they would do; null while that is not known. */
    public ReadOnlyObjectProperty<@Nullable Effect> effectProperty() {
        return effect.getReadOnlyProperty();
    }

    /** Whether the rules were changed and are not set. */
    public boolean isChanged() {
        RetentionModel.Picture p = picture;
        return p != null && !p.rules().equals(proposed.get());
    }

    /** Proposes other rules. */
    public void propose(RuleSet rules) {
        touched = true;
        proposed.set(rules);
    }

    /** Proposes one more rule, which keeps everything for 30 days; returns what it is called. */
    String add() {
        RuleSet rules = proposed.get();
        String name = Words.of("rules.newName");
        for (int i = 2; isTaken(name); i++) {
            name = Words.of("rules.newNameN", i);
        }
        propose(rules.with(Rule.keepAll(name, RuleScope.ALL).withEverything(Optional.of(Term.days(30)))));
        return name;
    }

    /**
     * Proposes another rule in the place of one.
     *
     * @param name of the one
     * @throws IllegalArgumentException with a message for the user, when the name of the other is that of a third
     */
    void replace(String name, Rule changed) {
        if (!changed.name().equals(name) && isTaken(changed.name())) {
            throw new IllegalArgumentException(Words.of("rename.taken", changed.name()));
        }
        RuleSet rules = proposed.get();
        propose(new RuleSet(
                rules.rules().stream()
                        .map(r -> r.name().equals(name) ? changed : r)
                        .toList(),
                rules.grace(),
                rules.standing()));
    }

    private boolean isTaken(String name) {
        return proposed.get().rules().stream().anyMatch(r -> r.name().equals(name));
    }

    /** Goes back to the rules that count. */
    public void revert() {
        RetentionModel.Picture p = picture;
        touched = false;
        if (p != null) {
            proposed.set(p.rules());
        }
    }

    /** What the proposed rules would do is computed while they are changed. */
    private void weigh() {
        RetentionModel.Picture p = picture;
        RuleSet rules = proposed.get();
        if (p == null) {
            return;
        }
        forecastQuestion.drop();
        Instant now = p.verdicts().now();
        effectQuestion.ask(
                () -> {
                    Verdicts then = StandingRules.outlook(
                            Verdicts.of(p.table(), p.holds(), rules, now, context.calendar()),
                            p.space(),
                            p.report().free());
                    return new Effect(
                            WhatIf.of(p.verdicts(), sideAsItIs(p, now), then, p.space(), now),
                            ThinPlan.of(then, p.space(), ThinPlan.Limits.RULES),
                            Optional.empty());
                },
                e -> {
                    effect.set(e);
                    lookAhead(p, e, now);
                },
                e -> model.say(Failures.words(e)));
    }

    /** The forecast takes longer than all else, and comes after it. */
    private void lookAhead(RetentionModel.Picture p, Effect of, Instant now) {
        Forecast.Asked asked = Forecast.Asked.asItIs(p.report().free());
        forecastQuestion.ask(
                () -> new Ahead(
                        forecastAsItIs(p, now, asked), Forecast.of(of.plan().verdicts(), now, asked)),
                ahead -> effect.set(new Effect(of.whatIf(), of.plan(), Optional.of(ahead))),
                e -> model.say(Failures.words(e)));
    }

    private synchronized WhatIf.Side sideAsItIs(RetentionModel.Picture p, Instant now) {
        Made<WhatIf.Side> made = side;
        if (made == null || made.of() != p.verdicts()) {
            made = new Made<>(p.verdicts(), WhatIf.side(p.verdicts(), p.space(), now));
            side = made;
        }
        return made.value();
    }

    private Forecast forecastAsItIs(RetentionModel.Picture p, Instant now, Forecast.Asked asked) {
        Made<Forecast> made = forecast;
        if (made == null || made.of() != p.verdicts()) {
            made = new Made<>(p.verdicts(), Forecast.of(p.verdicts(), now, asked));
            forecast = made;
        }
        return made.value();
    }

    /** Makes the proposed rules those that count. */
    public void use() {
        RetentionModel.Picture p = picture;
        RuleSet rules = proposed.get();
        if (p == null) {
            return;
        }
        context.background()
                .run(
                        () -> {
                            RuleSets.set(
                                    p.vault(),
                                    rules,
                                    context.clock(),
                                    context.settings().who());
                            return true;
                        },
                        ok -> {
                            touched = false;
                            model.say(Words.of("retention.rulesSet"));
                            context.changed();
                            model.reload();
                        },
                        e -> model.say(Failures.words(e)));
    }

    /**
     * What the proposed rules would do.
     *
     * @param whatIf beside the rules that count
     * @param plan what they would let go now
     * @param ahead how much space the versions will take; empty until that is known
     */
    public record Effect(WhatIf whatIf, ThinPlan plan, Optional<Ahead> ahead) {}

    /**
     * How much space the versions will take.
     *
     * @param now as it is
     * @param then under the proposed rules
     */
    public record Ahead(Forecast now, Forecast then) {}

    /** What was made of verdicts, and does not change while the proposed rules do. */
    private record Made<T>(Verdicts of, T value) {}
}
