package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.mendedleaf.core.line.Version;

/**
 * Copies of versions that were made for other programs to open. They lie in one folder, cannot be written to, and go when the
 * window begins and ends, and when what they are copies of is erased. One that somebody made writable is theirs, and stays.
 */
public final class OpenedCopies {

    private record Of(Path vault, long line, int number) {}

    private final Path folder;
    private final Map<Of, List<Path>> copies = new ConcurrentHashMap<>();

    OpenedCopies(Path folder) {
        this.folder = folder;
    }

    /** Where they are made. */
    public Path folder() {
        return folder;
    }

    /** Takes a copy over: from now on it cannot be written to. */
    public void add(OpenPlace openPlace, Version version, Path copy) {
        if (!copy.toFile().setReadOnly()) {
            org.slf4j.LoggerFactory.getLogger(OpenedCopies.class).debug("{} stays writable", copy);
        }
        copies.computeIfAbsent(of(openPlace, version.line(), version.number()), k -> new CopyOnWriteArrayList<>())
                .add(copy);
    }

    private static Of of(OpenPlace openPlace, long line, int number) {
        return new Of(openPlace.vault().folder().root(), line, number);
    }

    /** Removes the copies of versions that were erased. */
    public void forget(OpenPlace openPlace, long line, Collection<Integer> numbers) {
        for (int number : numbers) {
            List<Path> all = copies.remove(of(openPlace, line, number));
            if (all != null) {
                all.forEach(OpenedCopies::remove);
            }
        }
    }

    /** Removes all that nobody made writable. */
    void clean() {
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
            all.forEach(OpenedCopies::remove);
        } catch (NoSuchFileException e) {
            return;
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(OpenedCopies.class).debug("{} cannot be listed", folder, e);
        }
        copies.clear();
    }

    private static void remove(Path copy) {
        try {
            if (Files.isRegularFile(copy, LinkOption.NOFOLLOW_LINKS) && !isWritable(copy)) {
                // Windows keeps what cannot be written to from being removed.
                boolean may = copy.toFile().setWritable(true);
                org.slf4j.LoggerFactory.getLogger(OpenedCopies.class).trace("{} goes, {}", copy, may);
                Files.deleteIfExists(copy);
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(OpenedCopies.class).debug("{} stays", copy, e);
        }
    }

    /** By what the file says of itself: whoever may do everything can write to any file. */
    private static boolean isWritable(Path copy) throws IOException {
        try {
            return Files.getPosixFilePermissions(copy, LinkOption.NOFOLLOW_LINKS).stream()
                    .anyMatch(p -> p.name().endsWith("_WRITE"));
        } catch (UnsupportedOperationException e) {
            return Files.isWritable(copy);
        }
    }
}
