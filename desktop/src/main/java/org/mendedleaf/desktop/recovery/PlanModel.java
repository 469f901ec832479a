package org.mendedleaf.desktop.recovery;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.BagArchive;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.Destination;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.FolderRestore;
import org.mendedleaf.core.recovery.PlanReport;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.recovery.Rollback;
import org.mendedleaf.core.recovery.SameVersions;
import org.mendedleaf.core.recovery.Selection;
import org.mendedleaf.core.recovery.ZipArchive;
import org.mendedleaf.core.systems.ContentFetch;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.Navigator;
import org.mendedleaf.desktop.context.OwnJob;
import org.mendedleaf.desktop.context.PlannedWork;
import org.mendedleaf.desktop.context.Reports;

/** A recovery or a roll back without its scene: where to, what on collision, the plan, the run, the result. */
public final class PlanModel implements PlannedWork {

    /** A plan of so many files takes some megabytes. */
    private static final int MANY = 10_000;

    /** A plan of so many files takes a hundred megabytes: there are not to be two. */
    private static final int TOO_MANY_FOR_TWO = 200_000;

    private final AppContext context;
    private final OwnJob job;
    private final Navigator.What what;
    private final Background.Newest question;
    private final ObjectProperty<Where> where = new SimpleObjectProperty<>(Where.BACK);
    private final ObjectProperty<@Nullable Path> target = new SimpleObjectProperty<>();
    private final ObjectProperty<Collision> collision = new SimpleObjectProperty<>(Collision.REPLACE);
    private final BooleanProperty removeLater = new SimpleBooleanProperty();
    private final Map<String, Collision> single = new HashMap<>();
    private final ReadOnlyObjectWrapper<Stage> stage = new ReadOnlyObjectWrapper<>(Stage.PLANNING);
    private final ReadOnlyObjectWrapper<@Nullable RestorePlan> plan = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<@Nullable RestoreResult> result = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");
    private final ReadOnlyObjectWrapper<String> making = new ReadOnlyObjectWrapper<>("");
    private Set<String> only = Set.of();
    private boolean filling;
    private boolean left;

    /** A plan for what was chosen. */
    public PlanModel(AppContext context, Navigator.What what) {
        this.context = context;
        this.job = new OwnJob(context.jobs());
        this.what = what;
        this.question = context.background().new Newest();
        where.addListener((o, a, w) -> {
            filling = true;
            collision.set(w == Where.BACK ? Collision.REPLACE : Collision.KEEP_BOTH);
            target.set(null);
            single.clear();
            filling = false;
            replan();
        });
        target.addListener((o, a, b) -> replan());
        collision.addListener((o, a, b) -> replan());
        removeLater.addListener((o, a, b) -> replan());
        replan();
    }

    /** Where it goes. */
    public enum Where {
        /** Where it was. */
        BACK,
        /** Another folder. */
        FOLDER,
        /** A ZIP file. */
        ZIP,
        /** A BagIt bag. */
        BAG
    }

    /** How far it is. */
    public enum Stage {
        /** The plan is being made. */
        PLANNING,
        /** Somebody has to say where to. */
        NEEDS_TARGET,
        /** It can be carried out. */
        READY,
        /** There is nothing to do. */
        NOTHING,
        /** Something is in the way. */
        BLOCKED,
        /** It is carried out. */
        RUNNING,
        /** It came to its end, whole or not. */
        DONE
    }

    /** What was chosen. */
    public Navigator.What what() {
        return what;
    }

    /** The desk. */
    public AppContext context() {
        return context;
    }

    /** Where it goes. */
    public ObjectProperty<Where> whereProperty() {
        return where;
    }

    /** The folder or file it goes to; null for the original place. */
    public ObjectProperty<@Nullable Path> targetProperty() {
        return target;
    }

    /** What to do where something has the name. */
    public ObjectProperty<Collision> collisionProperty() {
        return collision;
    }

    /** Whether files that came later are removed by rolling back. */
    public BooleanProperty removeLaterProperty() {
        return removeLater;
    }

    /** How far it is. */
    public ReadOnlyObjectProperty<Stage> stageProperty() {
        return stage.getReadOnlyProperty();
    }

    /** The plan; null while it is made. */
    public ReadOnlyObjectProperty<@Nullable RestorePlan> planProperty() {
        return plan.getReadOnlyProperty();
    }

    /** How far the plan is that is being made, as a message; empty when that does not take long. */
    public ReadOnlyObjectProperty<String> makingProperty() {
        return making.getReadOnlyProperty();
    }

    /** What came of it; null before that. */
    public ReadOnlyObjectProperty<@Nullable RestoreResult> resultProperty() {
        return result.getReadOnlyProperty();
    }

    /** What is wrong, as a message; empty when nothing is. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** The job that carries it out. */
    @Override
    public OwnJob job() {
        return job;
    }

    /** Chooses for one file what to do where something has the name. */
    public void collide(String targetPath, Collision choice) {
        single.put(targetPath, choice);
        replan();
    }

    private Collisions collisions() {
        return new Collisions(collision.get(), single);
    }

    private Instant moment() {
        Instant at = what.at();
        return at == null ? Moment.FAR : at;
    }

    private RestoreRequest request(Where to, Collisions collisions, Progress progress, @Nullable RestorePlan shown)
            throws IOException {
        UnaryOperator<Version> same = shown == null ? UnaryOperator.identity() : new SameVersions(shown);
        try (Reading reading = what.openPlace().vault().read()) {
            return new Selection(what.paths(), moment())
                    .request(reading, what.openPlace().place(), to != Where.BACK, collisions, progress, same);
        }
    }

    private Destination destination(Where to, @Nullable Path path) throws IOException {
        if (to == Where.BACK || path == null) {
            return context.work(what.openPlace());
        }
        return switch (to) {
            case FOLDER -> new FolderRestore(what.openPlace().vault(), path);
            case ZIP -> new ZipArchive(what.openPlace().vault(), path);
            default -> new BagArchive(what.openPlace().vault(), path, context.clock());
        };
    }

    private Rollback rollback(boolean remove) {
        return new Rollback(what.paths(), moment(), remove);
    }

    private void replan() {
        if (filling || stage.get() == Stage.RUNNING || stage.get() == Stage.DONE) {
            return;
        }
        Where to = where.get();
        Path path = target.get();
        Collisions choices = collisions();
        boolean remove = removeLater.get();
        letGo(plan.get());
        stage.set(Stage.PLANNING);
        problem.set("");
        making.set("");
        question.ask(
                progress -> what.rollBack()
                        ? context.work(what.openPlace()).plan(rollback(remove), progress)
                        : destination(to, path).plan(request(to, choices, progress, null), progress),
                now -> making.set(makingWords(now)),
                this::planned,
                e -> {
                    plan.set(null);
                    making.set("");
                    problem.set(Failures.words(e));
                    stage.set(Stage.BLOCKED);
                });
    }

    private static String makingWords(Job.Snapshot now) {
        if (now.files() == 0) {
            return Words.of("plan.making");
        }
        if (now.allFiles() == 0) {
            return Words.of("plan.makingSoFar", now.step(), Formats.number(now.files()));
        }
        return Words.of("plan.makingOf", now.step(), Formats.number(now.files()), Formats.number(now.allFiles()));
    }

    /** It is not shown any more: a plan that is being made is not made to its end. */
    public void leave() {
        if (stage.get() == Stage.PLANNING) {
            question.drop();
            left = true;
        }
        RestorePlan made = plan.get();
        if (left || made != null && made.items().size() > MANY) {
            context.memory().muchIsFree();
        }
    }

    /** It is shown, for the first time or again; whether the plan is made anew, since it was left before it was made. */
    public boolean comeBack() {
        boolean anew = left;
        left = false;
        if (anew) {
            replan();
        }
        return anew;
    }

    private void planned(RestorePlan made) {
        making.set("");
        plan.set(made);
        boolean needs = where.get() != Where.BACK && target.get() == null;
        if (needs) {
            stage.set(Stage.NEEDS_TARGET);
        } else if (!made.preflight().isGood()) {
            problem.set(made.preflight().stops());
            stage.set(Stage.BLOCKED);
        } else {
            stage.set(made.acting() == 0 ? Stage.NOTHING : Stage.READY);
        }
    }

    /** Carries the plan out, as a job. */
    @Override
    public void run() {
        if (stage.get() == Stage.READY) {
            start();
        }
    }

    private void start() {
        Where to = where.get();
        Path path = target.get();
        Collisions choices = collisions();
        boolean remove = removeLater.get();
        Set<String> wanted = only;
        if (what.rollBack()) {
            // It looks again at what there is, and makes a plan of its own.
            letGo(plan.get());
        }
        RestorePlan shown = plan.get();
        stage.set(Stage.RUNNING);
        problem.set("");
        job.start(
                title(),
                progress -> what.rollBack()
                        ? context.work(what.openPlace()).rollBack(rollback(remove), progress)
                        : destination(to, path).restore(() -> ready(to, choices, wanted, progress, shown), progress),
                done -> {
                    result.set(done);
                    stage.set(Stage.DONE);
                    context.changed();
                },
                e -> {
                    problem.set(Failures.words(e));
                    stage.set(result.get() == null ? Stage.BLOCKED : Stage.DONE);
                    context.changed();
                });
    }

    /** The order with its contents at hand: what only other systems have is fetched first. */
    private RestoreRequest ready(
            Where to, Collisions choices, Set<String> wanted, Progress progress, @Nullable RestorePlan shown)
            throws IOException {
        RestoreRequest request = request(to, choices, progress, shown);
        boolean fetch = to != Where.BACK || !what.openPlace().place().isOutside();
        List<RestoreItem> requested = new ArrayList<>();
        for (RestoreItem w : request.requested()) {
            if (wanted.isEmpty() || wanted.contains(w.target())) {
                boolean away = fetch && w.version().recipe().isElsewhere();
                requested.add(
                        away
                                ? new RestoreItem(
                                        new ContentFetch(what.openPlace().vault(), context.registry())
                                                .intoVault(w.version(), progress),
                                        w.target())
                                : w);
            }
        }
        return request.with(requested);
    }

    private String title() {
        return Words.of(
                what.rollBack() ? "job.rollBack" : "job.recover",
                what.openPlace().place().label());
    }

    private void letGo(@Nullable RestorePlan before) {
        if (before != null && before.items().size() > TOO_MANY_FOR_TWO) {
            plan.set(null);
        }
    }

    /** Tries again what failed, or was not done when it was cancelled. */
    @Override
    public void retry() {
        RestoreResult before = result.get();
        RestorePlan whole = plan.get();
        if (stage.get() == Stage.DONE && before != null && whole != null) {
            only = new HashSet<>(before.toRetry(whole));
            start();
        }
    }

    /** Whether something is left to be tried again. */
    public boolean canRetry() {
        RestoreResult before = result.get();
        RestorePlan whole = plan.get();
        return before != null && whole != null && !before.toRetry(whole).isEmpty();
    }

    /** Whether what was done can be undone. */
    public boolean canUndo() {
        RestoreResult done = result.get();
        return done != null && done.action() != 0;
    }

    /** Takes the whole back, as a job. */
    @Override
    public void undo(Runnable done) {
        RestoreResult r = result.get();
        if (r == null || r.action() == 0) {
            return;
        }
        context.jobs()
                .start(
                        Words.of("job.undo"),
                        progress -> {
                            Action action;
                            try (Reading reading = what.openPlace().vault().read()) {
                                action =
                                        JournalStore.of(reading).get(r.action()).orElseThrow();
                            }
                            return context.work(what.openPlace()).undo(action, progress);
                        },
                        (FileWork.Undone undone) -> {
                            context.changed();
                            if (undone.failed().isEmpty()) {
                                done.run();
                            } else {
                                problem.set(String.join("; ", undone.failed()));
                            }
                        },
                        e -> problem.set(Failures.words(e)));
    }

    /** Where a restored file is, for opening it; an archive for all that is in it. */
    public Path placed(RestorePlan.Item item) {
        Path to = target.get();
        if (where.get() == Where.BACK || to == null) {
            return what.openPlace().place().isOutside()
                    ? Path.of("")
                    : RawNames.resolve(what.openPlace().place().root(), item.target());
        }
        return switch (where.get()) {
            case FOLDER -> RawNames.resolve(to, item.target());
            case BAG -> to.resolve("data").resolve(item.target());
            default -> to;
        };
    }

    /** What is where a file would go, and what would be there. Slow; never on the thread of the screen. */
    public Pair pair(RestorePlan.Item item) throws IOException {
        Optional<Side> now = there(item);
        if (item.step() == RestorePlan.Step.REMOVE) {
            return new Pair(now, Optional.empty());
        }
        try (Reading reading = what.openPlace().vault().read()) {
            return new Pair(now, Optional.of(Side.version(reading, item.version())));
        }
    }

    private Optional<Side> there(RestorePlan.Item item) throws IOException {
        Path to = target.get();
        if (where.get() == Where.FOLDER && to != null) {
            Path file = RawNames.resolve(to, item.wanted());
            return Files.isRegularFile(file) ? Optional.of(Side.disk(file)) : Optional.empty();
        }
        if (where.get() != Where.BACK) {
            return Optional.empty();
        }
        // What goes back to where it was is compared with what it is now, wherever that is.
        String path =
                item.step() == RestorePlan.Step.MOVE_BACK && !item.other().isEmpty() ? item.other() : item.wanted();
        if (!what.openPlace().place().isOutside()) {
            return Side.live(what.openPlace().place(), path);
        }
        try (Reading reading = what.openPlace().vault().read()) {
            Optional<Version> newest = reading.line(what.openPlace().place(), path)
                    .filter(l -> l.removed().isEmpty())
                    .flatMap(Line::newest);
            return newest.isEmpty() ? Optional.empty() : Optional.of(Side.version(reading, newest.get()));
        }
    }

    /** Writes the plan into a file: a page or JSON when its name ends so, CSV otherwise. */
    public void save(Path file, Runnable done) {
        RestorePlan made = plan.get();
        if (made == null) {
            return;
        }
        if (Reports.isPage(file)) {
            new Reports(context)
                    .write(
                            file,
                            () -> PlanReport.report(
                                    made, heading(), context.clock().instant(), context.zone()),
                            (words, trouble) -> {
                                problem.set(trouble ? words : "");
                                if (!trouble) {
                                    done.run();
                                }
                            });
            return;
        }
        context.background()
                .run(
                        () -> {
                            boolean json =
                                    file.toString().toLowerCase(Locale.ROOT).endsWith(".json");
                            return Files.writeString(
                                    file,
                                    json
                                            ? PlanReport.json(made)
                                            : PlanReport.csv(
                                                    made, context.settings().cells()));
                        },
                        f -> done.run(),
                        e -> problem.set(Failures.words(e)));
    }

    /** What this is, in one line. */
    public String heading() {
        String named = what.paths().size() == 1
                ? (what.paths().get(0).isEmpty()
                        ? what.openPlace().place().label()
                        : what.paths().get(0))
                : Words.of("plan.several", what.paths().size());
        if (what.at() == null) {
            return Words.of("plan.recoverNow", named);
        }
        String at = Formats.full(what.at(), context.zone());
        return Words.of(what.rollBack() ? "plan.rollBackTitle" : "plan.recoverTitle", named, at);
    }
}
