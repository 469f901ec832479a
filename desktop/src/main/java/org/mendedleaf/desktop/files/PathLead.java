package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;

/** Leads to a file or a folder by its path, as a file manager hands it over. */
final class PathLead {

    /** Where a path lies, and its line if it has one. */
    private record Found(
            OpenPlace openPlace,
            String path,
            boolean isFolder,
            @Nullable Line line) {}

    private PathLead() {}

    /** Goes there, and says why where that cannot be. */
    static void go(FilesModel model, Path given) {
        model.context()
                .background()
                .run(
                        () -> find(model, given),
                        found -> found.ifPresentOrElse(
                                there -> show(model, there),
                                () -> model.say(Words.of("files.past.unprotected", given), false, true)),
                        trouble -> model.say(Failures.named(trouble), false, true));
    }

    private static Optional<Found> find(FilesModel model, Path given) throws IOException {
        Path absolute = given.toAbsolutePath().normalize();
        boolean folder = Files.isDirectory(absolute, LinkOption.NOFOLLOW_LINKS);
        Path parent = absolute.getParent();
        // The file itself may be a link, and is meant as one; what leads to it is followed.
        Path real = folder || parent == null
                ? Protect.realOfNew(absolute)
                : Protect.realOfNew(parent).resolve(absolute.getFileName());
        Optional<OpenPlace> in = model.context().places().stream()
                .filter(p -> !p.place().isOutside() && real.startsWith(p.place().root()))
                .max(Comparator.comparingInt(p -> p.place().root().getNameCount()));
        if (in.isEmpty()) {
            return Optional.empty();
        }
        OpenPlace openPlace = in.get();
        String path = RawNames.text(openPlace.place().root().relativize(real));
        try (Reading reading = openPlace.vault().read()) {
            return Optional.of(new Found(
                    openPlace,
                    path,
                    folder,
                    reading.line(openPlace.place(), path).orElse(null)));
        }
    }

    private static void show(FilesModel model, Found found) {
        model.momentProperty().set(null);
        if (found.line() != null) {
            model.lead(found.openPlace(), found.line(), null);
        } else if (found.isFolder()) {
            model.open(found.openPlace(), found.path());
        } else {
            model.open(found.openPlace(), org.mendedleaf.core.disk.RelativePath.parent(found.path()));
            model.say(Words.of("files.past.none", found.path()), false, true);
        }
    }
}
