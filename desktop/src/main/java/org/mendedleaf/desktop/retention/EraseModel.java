package org.mendedleaf.desktop.retention;

import java.util.List;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;

/** Erasing versions of a line, without its scene: what would be lost, and doing it. */
public final class EraseModel {

    private final AppContext context;
    private final OpenPlace openPlace;
    private final Line line;
    private final Erasing.What what;
    private final int number;
    private final ReadOnlyObjectWrapper<Erasing.@Nullable Consequences> consequences = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");

    /** Erasing this of a line. */
    public EraseModel(AppContext context, OpenPlace openPlace, Line line, Erasing.What what, int number) {
        this.context = context;
        this.openPlace = openPlace;
        this.line = line;
        this.what = what;
        this.number = number;
        context.background()
                .run(
                        () -> erasing().consequences(line.id(), what, number),
                        consequences::set,
                        e -> problem.set(Failures.words(e)));
    }

    private Erasing erasing() {
        return new Erasing(context.workContext(openPlace));
    }

    /** What it is, in one line. */
    public String heading() {
        return Words.of("erase.heading." + what, line.name(), line.label(number));
    }

    /** What would be lost; null while that is not known. */
    public ReadOnlyObjectProperty<Erasing.@Nullable Consequences> consequencesProperty() {
        return consequences.getReadOnlyProperty();
    }

    /** In sentences. */
    public List<String> words() {
        Erasing.Consequences c = consequences.get();
        return c == null ? List.of() : c.words(line);
    }

    /** What went wrong; empty for nothing. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Erases, as a job. */
    public void erase(Consumer<String> done) {
        context.jobs()
                .start(
                        Words.of("job.erase", line.name()),
                        progress -> erasing().erase(line.id(), what, number, progress),
                        d -> {
                            context.openedCopies()
                                    .forget(
                                            openPlace,
                                            line.id(),
                                            d.consequences().numbers());
                            done.accept(Words.of(
                                    "erase.done",
                                    d.consequences().numbers().size(),
                                    line.name(),
                                    Formats.full(d.due(), context.zone())));
                            context.changed();
                        },
                        e -> problem.set(Failures.words(e)));
    }
}
