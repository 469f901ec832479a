package org.mendedleaf.desktop.intake;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.intake.StrayCopies;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.PutService;

/** Safety copies that programs left in a folder, without their scene. */
public final class StraysModel {

    private final AppContext context;
    private final OpenPlace openPlace;
    private final String folder;
    private final Background.Newest question;
    private final ReadOnlyObjectWrapper<@Nullable List<Stray>> strays = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> message = new ReadOnlyObjectWrapper<>("");

    /** Safety copies in this folder of a place. */
    public StraysModel(AppContext context, OpenPlace openPlace, String folder) {
        this.context = context;
        this.openPlace = openPlace;
        this.folder = folder;
        this.question = context.background().new Newest();
        look();
    }

    /** The desk. */
    public AppContext context() {
        return context;
    }

    /** What it is, in one line. */
    public String heading() {
        return Words.of("strays.heading", folder.isEmpty() ? openPlace.place().label() : RelativePath.name(folder));
    }

    /** The copies; null while they are looked for. */
    public ReadOnlyObjectProperty<@Nullable List<Stray>> straysProperty() {
        return strays.getReadOnlyProperty();
    }

    /** What was done or went wrong; empty for nothing. */
    public ReadOnlyObjectProperty<String> messageProperty() {
        return message.getReadOnlyProperty();
    }

    private StrayCopies copies() {
        return new StrayCopies(
                openPlace.vault(), openPlace.place(), PutService.evidence(context, openPlace), context.clock());
    }

    /** Looks again. */
    public void look() {
        List<Path> others = context.settings().strayFolders();
        question.ask(
                () -> openPlace.place().isOutside() ? List.<Stray>of() : copies().find(folder, others),
                strays::set,
                e -> {
                    message.set(Failures.words(e));
                    strays.set(List.of());
                });
    }

    /** Looks into one folder more from now on. */
    public void addFolder(Path other) {
        List<Path> all = new ArrayList<>(context.settings().strayFolders());
        if (!all.contains(other)) {
            all.add(other);
            try {
                context.settings().strayFolders(all);
            } catch (IOException e) {
                message.set(Failures.words(e));
            }
        }
        look();
    }

    /** Takes a copy in: as a version of its file, or to bring that back under its right name. */
    public void adopt(Stray stray) {
        context.jobs()
                .start(
                        Words.of("job.adopt", RelativePath.name(stray.belongsTo())),
                        progress ->
                                context.recovery(openPlace).adopt(List.of(copies().revision(stray, false)), progress),
                        result -> {
                            String failed = result.failed().get(stray.belongsTo());
                            message.set(
                                    failed != null
                                            ? failed
                                            : Words.of(
                                                    stray.present() ? "cli.strays.adopted" : "cli.strays.back",
                                                    stray.belongsTo(),
                                                    result.labels().getOrDefault(stray.belongsTo(), ""),
                                                    stray.file().getFileName()));
                            context.changed();
                            look();
                        },
                        e -> message.set(Failures.words(e)));
    }
}
