package org.mendedleaf.desktop.intake;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Family;
import org.mendedleaf.core.intake.ScatteredCopies;
import org.mendedleaf.core.recovery.FoldResult;
import org.mendedleaf.core.recovery.Folding;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.PutService;

/** Scattered copies of a folder, without their scene: the families, their order, which of them are folded. */
public final class FoldModel {

    private final AppContext context;
    private final OpenPlace openPlace;
    private final String folder;
    private final ReadOnlyObjectWrapper<@Nullable List<Family>> families = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");
    private final ReadOnlyObjectWrapper<Boolean> running = new ReadOnlyObjectWrapper<>(false);
    private final Set<Integer> leftOut = new HashSet<>();

    /** Copies in a folder of a place and below it. */
    public FoldModel(AppContext context, OpenPlace openPlace, String folder) {
        this.context = context;
        this.openPlace = openPlace;
        this.folder = folder;
        context.jobs()
                .start(
                        Words.of("job.findCopies"),
                        progress -> new ScatteredCopies(
                                        openPlace.vault(), openPlace.place(), PutService.evidence(context, openPlace))
                                .find(folder, progress),
                        families::set,
                        e -> {
                            problem.set(Failures.words(e));
                            families.set(List.of());
                        });
    }

    /** The desk. */
    public AppContext context() {
        return context;
    }

    /** What it is, in one line. */
    public String heading() {
        String in = folder.isEmpty()
                ? openPlace.place().label()
                : openPlace.place().label() + " › " + folder.replace("/", " › ");
        return Words.of("fold.heading", in);
    }

    /** The families; null while they are looked for. */
    public ReadOnlyObjectProperty<@Nullable List<Family>> familiesProperty() {
        return families.getReadOnlyProperty();
    }

    /** What went wrong; empty when nothing did. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Whether it is carried out. */
    public ReadOnlyObjectProperty<Boolean> runningProperty() {
        return running.getReadOnlyProperty();
    }

    private List<Family> all() {
        List<Family> found = families.get();
        return found == null ? List.of() : found;
    }

    private void set(int index, Family family) {
        List<Family> changed = new ArrayList<>(all());
        changed.set(index, family);
        families.set(changed);
        problem.set("");
    }

    /** Puts a copy at another place in the order. */
    public void move(int family, int from, int to) {
        Family f = all().get(family);
        if (from != to && to >= 0 && to < f.members().size()) {
            set(family, f.moved(from, to));
        }
    }

    /** Takes a copy out of a family; it stays as it is. */
    public void takeOut(int family, String path) {
        set(family, all().get(family).without(path));
    }

    /** Chooses the name to keep, in the folder of the family. */
    public void keep(int family, String name) {
        Family f = all().get(family);
        try {
            set(family, f.keeping(RelativePath.child(RelativePath.parent(f.keep()), RelativePath.requireName(name))));
        } catch (IllegalArgumentException e) {
            problem.set(Failures.named(e));
        }
    }

    /** Folds a family, or leaves it. */
    public void include(int family, boolean on) {
        if (on) {
            leftOut.remove(family);
        } else {
            leftOut.add(family);
        }
        families.set(new ArrayList<>(all()));
    }

    /** Whether a family is folded. */
    public boolean isIncluded(int family) {
        return !leftOut.contains(family);
    }

    /** What is to be folded. */
    public List<Folding> foldings() {
        List<Folding> chosen = new ArrayList<>();
        for (int i = 0; i < all().size(); i++) {
            Folding f = all().get(i).folding();
            if (isIncluded(i) && f.acts()) {
                chosen.add(f);
            }
        }
        return chosen;
    }

    /** Folds, as one step; {@code done} gets the words for it. */
    public void run(Consumer<String> done) {
        List<Folding> chosen = foldings();
        if (chosen.isEmpty() || running.get()) {
            return;
        }
        running.set(true);
        context.jobs()
                .start(
                        Words.of("job.fold"),
                        progress -> context.work(openPlace).fold(chosen, progress),
                        result -> {
                            running.set(false);
                            context.changed();
                            ended(result, done);
                        },
                        e -> {
                            running.set(false);
                            problem.set(Failures.words(e));
                        });
    }

    private void ended(FoldResult result, Consumer<String> done) {
        if (!result.failed().isEmpty()) {
            List<String> words = new ArrayList<>();
            result.failed().forEach((path, why) -> words.add(path + ": " + why));
            problem.set(String.join("\n", words));
        } else {
            done.accept(Words.of(
                    "fold.done",
                    result.versions().size(),
                    result.removed().size(),
                    result.versions().values().stream()
                            .mapToInt(Integer::intValue)
                            .sum()));
        }
    }
}
