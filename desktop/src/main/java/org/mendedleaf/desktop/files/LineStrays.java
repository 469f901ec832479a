package org.mendedleaf.desktop.files;

import java.nio.file.Path;
import java.util.List;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.intake.StrayCopies;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.PutService;
import org.slf4j.LoggerFactory;

/** Looks for the safety copies of the selected file, so that its line can lead to them. */
final class LineStrays {

    private final AppContext context;
    private final Background.Newest question;
    private final ReadOnlyObjectWrapper<List<Stray>> found = new ReadOnlyObjectWrapper<>(List.of());
    private long of;

    LineStrays(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
    }

    /** Newest first; none while they are looked for. */
    ReadOnlyObjectProperty<List<Stray>> foundProperty() {
        return found.getReadOnlyProperty();
    }

    /** Looks for those of another line; null for none. Those of the same line stay until what is there now is known. */
    void show(@Nullable OpenPlace openPlace, @Nullable Line line) {
        if (openPlace == null || line == null || line.place().isOutside()) {
            question.drop();
            of = 0;
            found.set(List.of());
            return;
        }
        if (of != line.id()) {
            of = line.id();
            found.set(List.of());
        }
        List<Path> others = context.settings().strayFolders();
        question.ask(
                () -> new StrayCopies(
                                openPlace.vault(),
                                openPlace.place(),
                                PutService.evidence(context, openPlace),
                                context.clock())
                        .of(line.path(), others),
                found::set,
                e -> {
                    // A folder that cannot be read is said where it is listed.
                    LoggerFactory.getLogger(LineStrays.class).debug("no safety copies", e);
                    found.set(List.of());
                });
    }
}
