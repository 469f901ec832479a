package org.mendedleaf.desktop.files;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.Renaming;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;

/** What can be done with the folder that is looked at and the files in it, as jobs. */
final class FolderActions {

    private final AppContext context;
    private final Consumer<Message> said;

    FolderActions(AppContext context, Consumer<Message> said) {
        this.context = context;
        this.said = said;
    }

    /** Says what taking a snapshot of the place asks for and costs. */
    void beforeSnapshot(OpenPlace openPlace, Consumer<String> words) {
        context.background()
                .run(
                        () -> {
                            try (Reading reading = openPlace.vault().read()) {
                                return Outlook.snapshotWords(
                                        reading,
                                        openPlace.place(),
                                        context.clock().instant(),
                                        context.zone());
                            }
                        },
                        words,
                        this::failed);
    }

    /** Takes a snapshot of a place. */
    void snapshot(OpenPlace openPlace, String label) {
        context.jobs()
                .start(
                        Words.of("job.snapshot", openPlace.place().where()),
                        progress -> context.outsideErasing(openPlace).snapshot(label),
                        cut -> {
                            said.accept(new Message(
                                    Words.of("files.snapshot", openPlace.place().where()), false, false));
                            context.changed();
                        },
                        this::failed);
    }

    /** Gives a file or folder another name where it lies, and captures that, so that its line goes on. */
    void rename(OpenPlace openPlace, String path, String name) {
        context.jobs()
                .start(
                        Words.of("job.rename", RelativePath.name(path)),
                        progress -> {
                            String to = Renaming.rename(openPlace.place(), path, name);
                            if (openPlace.place().versioning() == Versioning.ON) {
                                new Capture(openPlace.vault(), openPlace.place(), context.clock(), context.authors())
                                        .run(new CaptureScope.Folders(Set.of(RelativePath.parent(path))), progress);
                            }
                            return to;
                        },
                        to -> {
                            said.accept(new Message(
                                    Words.of("files.renamed", RelativePath.name(path), RelativePath.name(to)),
                                    false,
                                    false));
                            context.changed();
                        },
                        this::failed);
    }

    /** Removes a file from its folder. */
    void remove(OpenPlace openPlace, String path) {
        String name = RelativePath.name(path);
        context.jobs()
                .start(
                        Words.of("job.remove", name),
                        progress -> context.work(openPlace).remove(List.of(path)),
                        (FileWork.Removal removal) -> {
                            boolean done = removal.failed().isEmpty();
                            said.accept(
                                    done
                                            ? new Message(Words.of("files.removed", name), true, false)
                                            : new Message(removal.failed().get(0), false, true));
                            context.changed();
                        },
                        this::failed);
    }

    private void failed(Exception e) {
        said.accept(new Message(Failures.words(e), false, true));
        context.changed();
    }
}
