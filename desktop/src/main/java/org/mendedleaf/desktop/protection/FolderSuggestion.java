package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.capture.Exclusions;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.UserFolders;

/**
 * A folder that is there and whose files people mean: with how much is in it, without what is left out anyway.
 *
 * @param files how many; as many as were counted where there are very many
 * @param bytes of them
 */
record FolderSuggestion(Path folder, long files, long bytes) {

    /** What people have there, by the names of xdg-user-dirs and in the home. */
    private static final Map<String, String> USUAL = usual();

    private static Map<String, String> usual() {
        Map<String, String> usual = new LinkedHashMap<>();
        usual.put("DOCUMENTS", "Documents");
        usual.put("DESKTOP", "Desktop");
        usual.put("PICTURES", "Pictures");
        return usual;
    }

    /** The usual folders of this user that are there and hold something, the one that most people mean first. */
    static List<FolderSuggestion> of(Map<String, String> environment) {
        Path home = UserFolders.home(environment);
        return USUAL.entrySet().stream()
                .map(e -> UserFolders.named(environment, e.getKey(), e.getValue()))
                // A desktop that has no such folder names the home itself.
                .filter(f -> !f.equals(home) && Files.isDirectory(f, LinkOption.NOFOLLOW_LINKS))
                .distinct()
                .map(FolderSuggestion::counted)
                .filter(s -> s.files() > 0)
                .toList();
    }

    private static FolderSuggestion counted(Path folder) {
        Counter counter = new Counter(folder, new Exclusions(List.of()));
        try {
            Files.walkFileTree(folder, counter);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(FolderSuggestion.class).debug("{} cannot be counted", folder, e);
        }
        return new FolderSuggestion(folder, counter.files(), counter.bytes());
    }

    /** Counts the files of a folder that would be kept. */
    static final class Counter extends SimpleFileVisitor<Path> {
        private static final int MOST = 2_000_000;

        private final Path root;
        private final Exclusions exclusions;
        private final FileTime since;
        private long files;
        private long bytes;
        private long changed;
        private long changedBytes;

        Counter(Path root, Exclusions exclusions) {
            this(root, exclusions, Instant.MAX);
        }

        /** Counts also what was changed since a moment. */
        Counter(Path root, Exclusions exclusions, Instant since) {
            this.root = root;
            this.exclusions = exclusions;
            this.since = FileTime.from(since);
        }

        /** Files that were changed since then. */
        long changed() {
            return changed;
        }

        /** Bytes of them. */
        long changedBytes() {
            return changedBytes;
        }

        long files() {
            return files;
        }

        long bytes() {
            return bytes;
        }

        private boolean isOut(Path path, boolean isFolder) {
            Path parent = path.getParent();
            String in = parent == null ? "" : RawNames.text(root.relativize(parent));
            Path name = path.getFileName();
            return name != null
                    && exclusions.find(in, RawNames.text(name), isFolder).isPresent();
        }

        @Override
        public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes a) {
            boolean out = !folder.equals(root) && isOut(folder, true);
            return out ? FileVisitResult.SKIP_SUBTREE : FileVisitResult.CONTINUE;
        }

        @Override
        public FileVisitResult visitFile(Path file, BasicFileAttributes a) {
            if (!isOut(file, false)) {
                files++;
                bytes += a.size();
                if (a.lastModifiedTime().compareTo(since) > 0) {
                    changed++;
                    changedBytes += a.size();
                }
            }
            return files > MOST ? FileVisitResult.TERMINATE : FileVisitResult.CONTINUE;
        }

        @Override
        public FileVisitResult visitFileFailed(Path file, IOException e) {
            return FileVisitResult.CONTINUE;
        }
    }
}
