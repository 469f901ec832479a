package org.mendedleaf.desktop.intake;

import java.nio.file.Path;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.intake.Intake;
import org.mendedleaf.core.intake.IntakePlan;
import org.mendedleaf.core.intake.IntakeRow;
import org.mendedleaf.core.intake.NameTaken;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.OwnJob;
import org.mendedleaf.desktop.context.PlannedWork;
import org.mendedleaf.desktop.context.PutService;

/** Many files that come in, without their scene: the match table, its changes, the run and its result. */
public final class IntakeModel implements PlannedWork {

    private final AppContext context;
    private final OwnJob job;
    private final OpenPlace openPlace;
    private final List<Path> dropped;
    private final String folder;
    private final Background.Newest judging;
    private final ReadOnlyObjectWrapper<Step> step = new ReadOnlyObjectWrapper<>(Step.READING);
    private final ReadOnlyObjectWrapper<@Nullable IntakePlan> plan = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<@Nullable PutResult> result = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");
    private final ObjectProperty<NameTaken> taken = new SimpleObjectProperty<>(NameTaken.VERSION);
    private final StringProperty note = new SimpleStringProperty("");
    private final BooleanProperty take = new SimpleBooleanProperty();
    private final Map<String, String> labels = new LinkedHashMap<>();
    private final Map<String, String> failed = new LinkedHashMap<>();
    private long action;

    /** How far it is. */
    public enum Step {
        /** What comes in is read and compared. */
        READING,
        /** Somebody can change the table, and carry it out. */
        TABLE,
        /** It is carried out. */
        RUNNING,
        /** It came to its end, whole or not. */
        DONE,
        /** It cannot be read. */
        BLOCKED
    }

    /**
     * Files and folders dropped into a folder of a place.
     *
     * @param folder from the place's root
     */
    public IntakeModel(AppContext context, OpenPlace openPlace, List<Path> dropped, String folder) {
        this.context = context;
        this.job = new OwnJob(context.jobs());
        this.openPlace = openPlace;
        this.dropped = List.copyOf(dropped);
        this.folder = folder;
        this.judging = context.background().new Newest();
        context.background()
                .run(
                        this::rule,
                        rule -> {
                            boolean same = rule == taken.get();
                            taken.set(rule);
                            taken.addListener((o, a, b) -> read());
                            if (same || step.get() == Step.READING) {
                                read();
                            }
                        },
                        e -> block(e));
    }

    private NameTaken rule() throws Exception {
        if (openPlace.place().isOutside()) {
            return NameTaken.VERSION;
        }
        try (Reading reading = openPlace.vault().read()) {
            return NameTaken.of(PlaceRules.of(reading, openPlace.place()).settings());
        }
    }

    private void block(Exception e) {
        problem.set(Failures.words(e));
        step.set(Step.BLOCKED);
    }

    /** Reads what comes in and proposes, as a job. */
    private void read() {
        NameTaken rule = taken.get();
        step.set(Step.READING);
        job.start(
                Words.of("job.match"),
                progress -> intake().plan(dropped, folder, rule, progress),
                made -> {
                    plan.set(made);
                    problem.set("");
                    step.set(Step.TABLE);
                },
                this::block);
    }

    private Intake intake() {
        return new Intake(openPlace.vault(), openPlace.place(), PutService.evidence(context, openPlace));
    }

    /** The desk. */
    public AppContext context() {
        return context;
    }

    /** The place. */
    public OpenPlace openPlace() {
        return openPlace;
    }

    /** What it is, in one line. */
    public String heading() {
        String into = folder.isEmpty()
                ? openPlace.place().label()
                : openPlace.place().label() + " › " + folder.replace("/", " › ");
        return Words.of("intake.heading", into);
    }

    /** How far it is. */
    public ReadOnlyObjectProperty<Step> stepProperty() {
        return step.getReadOnlyProperty();
    }

    /** The table; null while it is made. */
    public ReadOnlyObjectProperty<@Nullable IntakePlan> planProperty() {
        return plan.getReadOnlyProperty();
    }

    /** What came of it; null before that. */
    public ReadOnlyObjectProperty<@Nullable PutResult> resultProperty() {
        return result.getReadOnlyProperty();
    }

    /** What is wrong, as a message; empty when nothing is. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** What becomes of files whose name is taken. */
    public ObjectProperty<NameTaken> takenProperty() {
        return taken;
    }

    /** The note for all that have none of their own. */
    public StringProperty noteProperty() {
        return note;
    }

    /** Whether the files are removed from where they were. */
    public BooleanProperty takeProperty() {
        return take;
    }

    /** The job that carries it out. */
    @Override
    public OwnJob job() {
        return job;
    }

    /** Remembers the rule for taken names for this place. */
    public void rememberRule() {
        NameTaken rule = taken.get();
        context.background()
                .run(
                        () -> {
                            PlaceRules before;
                            try (Reading reading = openPlace.vault().read()) {
                                before = PlaceRules.of(reading, openPlace.place());
                            }
                            try (WriteSession session = openPlace.vault().write()) {
                                before.store(
                                        session,
                                        openPlace.place(),
                                        before.settings().with(Setting.COLLISION, rule.text()),
                                        context.clock().instant(),
                                        context.settings().who());
                                session.commit();
                            }
                            return true;
                        },
                        ok -> {},
                        e -> problem.set(Failures.words(e)));
    }

    /** Chooses what becomes of a row. */
    public void choose(int index, IntakeRow.Fate fate, String target) {
        change(index, row(index).choose(fate, target), true);
    }

    /** Gives a row a note of its own. */
    public void note(int index, String words) {
        change(index, row(index).noted(words), false);
    }

    private IntakeRow row(int index) {
        return plan().rows().get(index);
    }

    private IntakePlan plan() {
        IntakePlan made = plan.get();
        if (made == null) {
            throw new IllegalStateException("expected a table");
        }
        return made;
    }

    private void change(int index, IntakeRow row, boolean judge) {
        if (step.get() != Step.TABLE) {
            return;
        }
        plan.set(plan().with(index, row));
        problem.set(plan().problem().orElse(""));
        if (judge && row.fate() == IntakeRow.Fate.NEW_VERSION && row.judgement().isEmpty()) {
            judging.ask(
                    () -> intake().judge(row),
                    judged -> {
                        if (plan().rows().get(index).equals(row)) {
                            plan.set(plan().with(index, judged));
                        }
                    },
                    e -> problem.set(Failures.words(e)));
        }
    }

    /** Whether it can be carried out now. */
    public boolean canRun() {
        return step.get() == Step.TABLE
                && plan.get() != null
                && plan().acting() > 0
                && plan().problem().isEmpty();
    }

    /** Carries it out, as a job. */
    @Override
    public void run() {
        if (canRun()) {
            start(plan().revisions(note.get().strip(), DraftChoice.BY_RULE, take.get()));
        }
    }

    /** What failed, and what was not begun when somebody cancelled. */
    private List<Revision> left() {
        Set<String> done = new HashSet<>(labels.keySet());
        return plan().revisions(note.get().strip(), DraftChoice.BY_RULE, take.get()).stream()
                .filter(r -> !done.contains(r.path()))
                .toList();
    }

    /** Whether something is left to be tried again. */
    public boolean canRetry() {
        return step.get() == Step.DONE && plan.get() != null && !left().isEmpty();
    }

    /** Tries again what failed, or was not begun. */
    @Override
    public void retry() {
        if (canRetry()) {
            start(left());
        }
    }

    private void start(List<Revision> revisions) {
        step.set(Step.RUNNING);
        problem.set("");
        job.start(
                Words.of("job.putMany", revisions.size()),
                progress -> context.work(openPlace).put(revisions, progress),
                done -> {
                    labels.putAll(done.labels());
                    failed.keySet().removeAll(done.labels().keySet());
                    failed.putAll(done.failed());
                    action = done.action() == 0 ? action : done.action();
                    result.set(
                            new PutResult(done.action(), labels, failed, done.same(), done.stayed(), done.cancelled()));
                    problem.set(String.join("\n", done.stayed()));
                    step.set(Step.DONE);
                    context.changed();
                },
                e -> {
                    problem.set(Failures.words(e));
                    step.set(result.get() == null ? Step.TABLE : Step.DONE);
                    context.changed();
                });
    }

    /** Whether what was done last can be undone. */
    public boolean canUndo() {
        return step.get() == Step.DONE && action != 0;
    }

    /** Takes it back, as a job. */
    @Override
    public void undo(Runnable done) {
        long last = action;
        if (last == 0) {
            return;
        }
        context.jobs()
                .start(
                        Words.of("job.undo"),
                        progress -> {
                            Optional<Action> found;
                            try (Reading reading = openPlace.vault().read()) {
                                found = JournalStore.of(reading).get(last);
                            }
                            return context.work(openPlace).undo(found.orElseThrow(), progress);
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
}
