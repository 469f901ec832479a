package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Comparator;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.mendedleaf.core.TestPlace;

/** Random work in a folder, and what a folder looks like to the last bit. */
final class Trees {

    private Trees() {}

    /** Saves, removes, moves, touches or protects something, at random. */
    static void change(TestPlace p, Random random) throws IOException {
        String path = (random.nextBoolean() ? "" : "d" + random.nextInt(3) + "/") + "f" + random.nextInt(5);
        Path file = p.path(path);
        Path parent = file.getParent();
        if (Files.isDirectory(file) || (Files.exists(parent) && !Files.isDirectory(parent))) {
            return;
        }
        switch (random.nextInt(10)) {
            case 0 -> Files.deleteIfExists(file);
            case 8, 9 -> {
                // Files and folders take each other's names.
                Path from = p.path(topName(random));
                Path to = p.path(topName(random));
                if (Files.exists(from) && !Files.exists(to)) {
                    Files.move(from, to);
                }
            }
            case 1 -> {
                Path to = p.path("d" + random.nextInt(3) + "/f" + random.nextInt(5));
                if (Files.exists(file) && !Files.exists(to) && !Files.isRegularFile(to.getParent())) {
                    Files.createDirectories(to.getParent());
                    Files.move(file, to);
                }
            }
            case 2 -> {
                if (Files.exists(file)) {
                    Files.setLastModifiedTime(file, FileTime.from(p.later(1).plusNanos(random.nextInt(1_000_000_000))));
                }
            }
            case 3 -> {
                if (Files.exists(file)) {
                    Files.setPosixFilePermissions(
                            file, PosixFilePermissions.fromString(random.nextBoolean() ? "rw-------" : "rwxr-x---"));
                }
            }
            case 4 -> Files.createDirectories(p.path("empty" + random.nextInt(3)));
            // Few contents, so that some files are alike.
            default -> p.save(path, "content " + random.nextInt(5));
        }
    }

    private static String topName(Random random) {
        return random.nextBoolean() ? "d" + random.nextInt(3) : "f" + random.nextInt(5);
    }

    /** Path to content, time and permissions of each file and link; folders by their names. */
    static Map<String, String> look(Path folder) throws IOException {
        Map<String, String> found = new TreeMap<>();
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path path : all.toList()) {
                String name = folder.relativize(path).toString();
                if (Files.isDirectory(path, LinkOption.NOFOLLOW_LINKS)) {
                    found.put(name + "/", "");
                } else {
                    found.put(
                            name,
                            Files.readString(path) + " " + Files.getLastModifiedTime(path) + " "
                                    + PosixFilePermissions.toString(Files.getPosixFilePermissions(path)));
                }
            }
        }
        return found;
    }

    static void delete(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        }
    }
}
