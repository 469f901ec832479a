package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.FolderRestore;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.systems.ContentFetch;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.OpenedCopies;

/**
 * What can be done with one version: restoring, copying, opening and erasing it. Each is a job, and jobs wait for each
 * other; what a job works on is what was chosen when it was asked for, whatever is chosen by the time it runs.
 */
final class VersionActions {

    private final AppContext context;
    private final LineModel line;
    private final Consumer<Message> said;

    VersionActions(AppContext context, LineModel line, Consumer<Message> said) {
        this.context = context;
        this.line = line;
        this.said = said;
    }

    /**
     * What was chosen.
     *
     * @param lineId of the file that it is done to
     * @param path of that file
     * @param label what the version is called
     * @param from the place that a version of another line is from
     */
    private record Asked(OpenPlace openPlace, Version version, long lineId, String path, String label, String from) {
        String name() {
            return RelativePath.name(path);
        }
    }

    private Asked asked(OpenPlace openPlace, Version version) {
        String from = line.chosenPoint().map(p -> p.line().place().where()).orElse("");
        return new Asked(openPlace, version, line.lineId(), line.path(), line.labelOf(version), from);
    }

    void restore(OpenPlace openPlace, Version version) {
        Asked asked = asked(openPlace, version);
        context.jobs()
                .start(
                        Words.of("job.restore", asked.name()),
                        progress -> context.work(openPlace)
                                .restore(
                                        List.of(new RestoreItem(here(asked, progress), asked.path())),
                                        Collision.REPLACE,
                                        progress),
                        result -> restored(asked, result),
                        this::failed);
    }

    /** What is restored into a folder must be in the vault; of another line it is a content without a number. */
    private Version here(Asked asked, Progress progress) throws IOException {
        boolean outside = asked.openPlace().place().isOutside();
        Version version = asked.version();
        Version fetched = outside ? version : fetched(asked, progress);
        return version.line() == asked.lineId()
                ? fetched
                : fetched.borrowed(asked.lineId(), Words.of("restore.fromNote", asked.from(), version.label()));
    }

    private Version fetched(Asked asked, Progress progress) throws IOException {
        return new ContentFetch(asked.openPlace().vault(), context.registry()).intoVault(asked.version(), progress);
    }

    private void restored(Asked asked, RestoreResult result) {
        if (result.items().isEmpty()) {
            said.accept(new Message(Words.of("restore.cancelled"), false, false));
            return;
        }
        RestoreResult.Item item = result.items().get(0);
        said.accept(
                switch (item.outcome()) {
                    case DONE ->
                        new Message(Words.of("files.restored", asked.name(), asked.label(), item.label()), true, false);
                    case LEFT -> new Message(Words.of("files.same", asked.name(), asked.label()), false, false);
                    case FAILED -> new Message(Words.of("files.notRestored", asked.name(), item.why()), false, true);
                });
        context.changed();
    }

    void erase(OpenPlace openPlace, Version version) {
        Asked asked = asked(openPlace, version);
        context.jobs()
                .start(
                        Words.of("job.erase", asked.name()),
                        progress -> {
                            context.outsideErasing(openPlace).erase(version, progress);
                            return version;
                        },
                        v -> {
                            context.openedCopies().forget(openPlace, version.line(), List.of(version.number()));
                            said.accept(new Message(
                                    Words.of(
                                            "files.erased",
                                            asked.label(),
                                            asked.name(),
                                            openPlace.place().where()),
                                    false,
                                    false));
                            context.changed();
                        },
                        this::failed);
    }

    void copy(OpenPlace openPlace, Version version, Path into, Consumer<Path> done) {
        Asked asked = asked(openPlace, version);
        context.jobs()
                .start(
                        Words.of("job.copy", asked.name()),
                        progress -> new FolderRestore(openPlace.vault(), into)
                                .copy(fetched(asked, progress), context.zone(), progress),
                        copy -> {
                            said.accept(new Message(Words.of("files.copied", copy), false, false));
                            done.accept(copy);
                        },
                        this::failed);
    }

    void openCopy(OpenPlace openPlace, Version version, Consumer<Path> done) {
        Asked asked = asked(openPlace, version);
        context.jobs()
                .start(
                        Words.of("job.copy", asked.name()),
                        progress -> {
                            OpenedCopies opened = context.openedCopies();
                            Path copy = new FolderRestore(openPlace.vault(), opened.folder())
                                    .copy(fetched(asked, progress), context.zone(), progress);
                            opened.add(openPlace, version, copy);
                            return copy;
                        },
                        done,
                        this::failed);
    }

    private void failed(Exception e) {
        said.accept(new Message(Failures.words(e), false, true));
        context.changed();
    }
}
