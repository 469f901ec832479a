package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.Place;

/** Looks for files whose names can be those of safety copies. */
final class StrayCandidates {

    private StrayCandidates() {}

    /** A folder and all below it that can be looked into, as paths in the place. */
    static List<String> below(Place place, String folder) throws IOException {
        List<String> all = new ArrayList<>();
        Path root = place.root();
        if (!Files.isDirectory(RawNames.resolve(root, folder))) {
            return all;
        }
        Files.walkFileTree(RawNames.resolve(root, folder), new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path at, BasicFileAttributes a) {
                if (SafeFolder.isOwnName(String.valueOf(at.getFileName()))) {
                    return FileVisitResult.SKIP_SUBTREE;
                }
                all.add(RawNames.text(root.relativize(at)));
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException e) {
                // One folder that cannot be read does not hide the others.
                org.slf4j.LoggerFactory.getLogger(StrayCandidates.class).debug("{} cannot be looked into", file, e);
                return FileVisitResult.CONTINUE;
            }
        });
        return all;
    }

    /** Whether a name can be that of a safety copy. */
    private static boolean mayBe(String name, boolean beside) {
        return StrayName.original(name).isPresent()
                || (ContentKind.byName(name) == ContentKind.OTHER && (StrayName.isStrayEnding(name) || !beside));
    }

    /** Files in a folder whose names can be those of safety copies; only those are looked at any further. */
    static List<Path> in(Path folder, boolean beside) throws IOException {
        List<Path> files = new ArrayList<>();
        if (Files.isDirectory(folder)) {
            try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
                for (Path p : all) {
                    String name = String.valueOf(p.getFileName());
                    boolean named = mayBe(name, beside) && !SafeFolder.isOwnName(name);
                    if (named && Files.isRegularFile(p, LinkOption.NOFOLLOW_LINKS) && Files.size(p) > 0) {
                        files.add(p);
                    }
                }
            }
        }
        files.sort(Comparator.naturalOrder());
        return files;
    }
}
