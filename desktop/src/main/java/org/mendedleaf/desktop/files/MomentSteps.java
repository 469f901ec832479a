package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.time.Instant;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.TypedMoments;

/** Ways to another moment in the folder that is looked at: change by change, and as somebody types it. */
public final class MomentSteps {

    private final AppContext context;
    private final FilesModel files;
    private final ReadOnlyObjectWrapper<@Nullable Instant> beginning = new ReadOnlyObjectWrapper<>();

    MomentSteps(AppContext context, FilesModel files) {
        this.context = context;
        this.files = files;
    }

    /** Finds out when the first capture of a place was, before which there is nothing to step to. */
    void begin(OpenPlace openPlace) {
        context.background()
                .run(
                        () -> FilesModel.read(openPlace, r -> r.changes().firstCapture(openPlace.place())),
                        first -> beginning.set(first.orElse(null)),
                        e -> {});
    }

    /** Goes to the change before the moment that is looked at, in this folder. */
    public void earlier() {
        step((reading, at) -> reading.changes()
                .changeBefore(files.openPlace().place(), files.folderProperty().get(), at)
                // Just before a change is the moment at which it had not happened.
                .map(t -> t.minusNanos(1000)));
    }

    /** Goes to the change after the moment that is looked at, in this folder; after the last one to now. */
    public void later() {
        step((reading, at) -> reading.changes()
                .changeAfter(files.openPlace().place(), files.folderProperty().get(), at));
    }

    private interface Neighbour {
        Optional<Instant> find(Reading reading, Instant at) throws IOException;
    }

    /** What is found, unless it lies before anything is known. */
    private record Found(Optional<Instant> moment, boolean tooEarly) {}

    private void step(Neighbour neighbour) {
        OpenPlace openPlace = files.placeProperty().get();
        if (openPlace == null) {
            return;
        }
        Instant past = files.momentProperty().get();
        Instant at = past == null ? context.clock().instant() : past;
        context.background()
                .run(
                        () -> FilesModel.read(openPlace, r -> {
                            Optional<Instant> moment = neighbour.find(r, at);
                            Optional<Instant> first = r.changes().firstCapture(openPlace.place());
                            boolean tooEarly = moment.isPresent()
                                    && first.isPresent()
                                    && moment.get().isBefore(first.get());
                            return new Found(moment, tooEarly);
                        }),
                        found -> {
                            if (!found.tooEarly()) {
                                files.momentProperty().set(found.moment().orElse(null));
                            }
                        },
                        e -> files.say(Failures.named(e), false, true));
    }

    /**
     * What a typed moment means here; asked off the screen's thread.
     *
     * @throws IllegalArgumentException with a message for the user, when it means none, or one before anything is known
     */
    public Instant understand(String typed) throws IOException {
        FileRow row = files.selectedProperty().get();
        String file = row == null || row.isFolder()
                ? null
                : RelativePath.child(files.folderProperty().get(), row.entry().name());
        return TypedMoments.understand(
                context, files.openPlace(), files.folderProperty().get(), file, typed);
    }
}
