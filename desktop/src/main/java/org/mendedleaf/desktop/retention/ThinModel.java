package org.mendedleaf.desktop.retention;

import java.io.File;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.ThinReport;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.systems.OutsideThinning;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.Background;

/** One thinning without its scene: what it is limited to, what would go, and what came of it. */
final class ThinModel {

    private final RetentionModel model;
    private final RetentionModel.Picture picture;
    private final RuleSet rules;
    private final Optional<Place> system;
    private final Background.Newest question;
    private final ObjectProperty<ThinPlan.Limits> limits;
    private final ReadOnlyObjectWrapper<@Nullable ThinPlan> plan = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> words = new ReadOnlyObjectWrapper<>("");
    private Optional<Thinning.Done> done = Optional.empty();
    private boolean started;

    /**
     * A thinning by the rules as they are proposed, within limits that can be changed until it starts.
     *
     * @param system the place in another system that it is for; empty for what the vault holds
     * @param within what it is limited to at first
     */
    ThinModel(RetentionModel model, Optional<Place> system, ThinPlan.Limits within) {
        this.model = model;
        this.picture = Objects.requireNonNull(model.pictureProperty().get());
        this.rules = model.proposal().proposedProperty().get();
        this.system = system;
        this.question = model.context().background().new Newest();
        this.limits = new SimpleObjectProperty<>(within);
        limits.addListener((o, a, b) -> weigh());
        weigh();
    }

    /** What it is limited to. */
    ObjectProperty<ThinPlan.Limits> limitsProperty() {
        return limits;
    }

    /** What would go; null while that is not known. */
    ReadOnlyObjectProperty<@Nullable ThinPlan> planProperty() {
        return plan.getReadOnlyProperty();
    }

    /** What would go, what went, or what is wrong, as a message. */
    ReadOnlyObjectProperty<String> wordsProperty() {
        return words.getReadOnlyProperty();
    }

    /** Whether it was started; then its limits count no more. */
    boolean isStarted() {
        return started;
    }

    /** The place in another system that it is for. */
    Optional<Place> system() {
        return system;
    }

    /** For how long what goes can be taken back. */
    String graceWords() {
        return rules.grace().words();
    }

    /** Where it can be limited to. */
    ThinScopes scopes() {
        return new ThinScopes(picture, system);
    }

    /** Limits it to a place, or a folder or file in one. */
    void in(long place, String path) {
        limits.set(limits.get().in(place, path));
    }

    /** Limits it to these kinds; none means all. */
    void kinds(Set<org.mendedleaf.core.intake.ContentKind> kinds) {
        ThinPlan.Limits l = limits.get();
        limits.set(new ThinPlan.Limits(
                l.place(), l.path(), kinds, l.keepLast(), l.leaveChangedAfter(), l.olderThan(), l.byRules()));
    }

    /** Lets all but so many of each file go; 0 for what the rules let go. */
    void keepLast(int count) {
        ThinPlan.Limits l = limits.get();
        limits.set(new ThinPlan.Limits(
                l.place(), l.path(), l.kinds(), count, l.leaveChangedAfter(), l.olderThan(), count == 0));
    }

    /** Only what was replaced before this day, and nothing of a file that was changed on the other day or after. */
    void days(Optional<LocalDate> replacedBefore, Optional<LocalDate> unchangedSince) {
        ThinPlan.Limits l = limits.get();
        limits.set(new ThinPlan.Limits(
                l.place(),
                l.path(),
                l.kinds(),
                l.keepLast(),
                unchangedSince.map(d -> start(d).minusNanos(1000)),
                replacedBefore.map(this::start),
                l.byRules()));
    }

    private Instant start(LocalDate day) {
        return day.atStartOfDay(model.context().zone()).toInstant();
    }

    private void weigh() {
        if (started) {
            return;
        }
        ThinPlan.Limits within = limits.get();
        plan.set(null);
        words.set(Words.of("space.reading"));
        Instant now = model.context().clock().instant();
        question.ask(
                () -> {
                    if (system.isPresent()) {
                        return thinning(system.get())
                                .plan(rules, within, model.context().calendar());
                    }
                    Verdicts verdicts = Verdicts.of(
                            picture.table(),
                            picture.holds(),
                            rules,
                            now,
                            model.context().calendar());
                    return ThinPlan.of(verdicts, picture.space(), within);
                },
                p -> {
                    plan.set(p);
                    words.set(system.map(s -> thinning(s).words(p)).orElseGet(p::words));
                },
                e -> words.set(Failures.words(e)));
    }

    private OutsideThinning thinning(Place place) {
        return new OutsideThinning(
                picture.vault(),
                place,
                model.context().registry(),
                model.context().clock(),
                model.context().settings().who());
    }

    /** Carries the plan out, as a job; in another system what goes is erased there and waits in the vault. */
    void go() {
        ThinPlan p = plan.get();
        if (p == null || started) {
            return;
        }
        started = true;
        String who = model.context().settings().who();
        if (system.isPresent()) {
            Place place = system.get();
            OutsideThinning thinning = thinning(place);
            model.job(
                    "job.thin",
                    progress -> thinning.run(p, progress),
                    d -> {
                        done = d.letGo();
                        List<String> said = new ArrayList<>();
                        said.add(Words.of("cli.thin.erased", d.erased(), place.where()));
                        d.failed().forEach((what, why) -> said.add(Words.of("cli.thin.notErased", what, why)));
                        d.letGo().ifPresent(l -> said.add(waits(l)));
                        words.set(String.join(" ", said));
                    },
                    e -> words.set(Failures.words(e)));
        } else {
            model.job(
                    "job.thin",
                    progress -> new Thinning(picture.vault(), model.context().clock(), who).thin(p, progress),
                    d -> {
                        done = Optional.of(d);
                        words.set(waits(d));
                    },
                    e -> words.set(Failures.words(e)));
        }
    }

    private String waits(Thinning.Done d) {
        return Words.of(
                "retention.thinned",
                d.versions(),
                Formats.full(d.due(), model.context().zone()));
    }

    /** Writes a report on the plan, or on what came of it. */
    void report(File to) {
        ThinPlan p = plan.get();
        if (p != null) {
            RetentionModel.Picture newest =
                    Objects.requireNonNull(model.pictureProperty().get());
            model.write(
                    to,
                    file -> new ThinReport(
                                    p,
                                    done,
                                    done.isPresent() ? newest.report() : picture.report(),
                                    model.context().clock().instant(),
                                    model.context().zone(),
                                    model.context().settings().cells())
                            .write(file.toPath()));
        }
    }
}
