package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.mendedleaf.core.capture.Exclusions;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.vault.ContentScan;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/** Reads the files that somebody dropped, to be matched with what is known. */
final class DroppedFiles {

    private final Place place;

    DroppedFiles(Place place) {
        this.place = place;
    }

    /**
     * Reads them; of folders, all that is below them.
     *
     * @param hidden whether hidden folders are looked into too
     * @param passedOver gets what is left out
     * @throws IOException with a message for the user, when one cannot be read
     * @throws java.io.InterruptedIOException when somebody cancelled
     */
    List<Matcher.Incoming> read(List<Path> dropped, boolean hidden, List<String> passedOver, Progress progress)
            throws IOException {
        List<Found> found = new ArrayList<>();
        for (Path path : dropped) {
            if (Files.isDirectory(path)) {
                found.addAll(below(path, hidden, passedOver));
            } else if (Files.isRegularFile(path)) {
                found.add(new Found(path, String.valueOf(path.getFileName())));
            } else {
                throw new IOException(Words.of("put.noFile", path));
            }
        }
        long bytes = 0;
        for (Found f : found) {
            bytes += Files.size(f.file());
        }
        progress.begin(Words.of("intake.reading"), found.size(), bytes);
        List<Matcher.Incoming> incoming = new ArrayList<>();
        for (Found f : found) {
            progress.stopIfCancelled();
            long size = Files.size(f.file());
            incoming.add(new Matcher.Incoming(
                    f.file(),
                    f.relative(),
                    size,
                    Files.getLastModifiedTime(f.file()).toInstant(),
                    digest(f.file())));
            progress.advance(1, size);
        }
        return incoming;
    }

    private Digest digest(Path file) throws IOException {
        if (place.isOutside()) {
            return Evidence.sha256(file);
        }
        try (FileChannel in = FileChannel.open(file)) {
            return ContentScan.of(in).digest();
        }
    }

    private record Found(Path file, String relative) {}

    /**
     * All files below a folder, without links, without what is always left out, and without hidden folders, in which programs
     * keep what is theirs, such as versions of other tools.
     */
    private static List<Found> below(Path folder, boolean hidden, List<String> passedOver) throws IOException {
        Exclusions exclusions = new Exclusions(List.of());
        List<Found> found = new ArrayList<>();
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            private boolean isLeftOut(Path path, boolean isFolder) {
                return exclusions
                        .find("", String.valueOf(path.getFileName()), isFolder)
                        .isPresent();
            }

            @Override
            public FileVisitResult preVisitDirectory(Path at, BasicFileAttributes a) {
                String name = String.valueOf(at.getFileName());
                if (!at.equals(folder) && (isLeftOut(at, true) || !hidden && name.startsWith("."))) {
                    passedOver.add(path(at) + "/");
                    return FileVisitResult.SKIP_SUBTREE;
                }
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes a) {
                if (!a.isRegularFile() || isLeftOut(file, false)) {
                    passedOver.add(path(file));
                } else {
                    found.add(new Found(file, path(file)));
                }
                return FileVisitResult.CONTINUE;
            }

            private String path(Path at) {
                List<String> names = new ArrayList<>();
                folder.relativize(at).forEach(n -> names.add(RawNames.text(n)));
                return String.join("/", names);
            }
        });
        found.sort(Comparator.comparing(Found::relative));
        return found;
    }
}
