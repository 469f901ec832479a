package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.mendedleaf.core.words.Words;

/**
 * Who holds the lock of a vault in another process: as the system says where it says (Linux), or else as whoever took it last
 * has written into its file, when that process still runs.
 */
final class LockHolder {

    /** The lines of /proc/locks that matter: the process, and the number of the file. */
    private static final Pattern SYSTEM = Pattern.compile("\\d+: \\S+\\s+\\S+\\s+\\S+ (\\d+) \\w+:\\w+:(\\d+) .*");

    private static final Path LOCKS = Path.of("/proc/locks");

    private LockHolder() {}

    /** What stands in the file of a lock. */
    static String text(UUID token, String words) {
        return token + "\n" + ProcessHandle.current().pid() + "\n" + words + "\n";
    }

    /** Who holds the lock of this file, as a message. Must not be called while this process holds it. */
    static String of(Path file) {
        Optional<Long> process = bySystem(file);
        try {
            String[] lines = Files.readString(file).split("\n");
            long noted = lines.length > 2 ? Long.parseLong(lines[1]) : 0;
            boolean same = process.map(p -> p == noted)
                    .orElseGet(() -> ProcessHandle.of(noted).isPresent());
            if (same) {
                return lines[2];
            }
        } catch (IOException | NumberFormatException e) {
            org.slf4j.LoggerFactory.getLogger(LockHolder.class).debug("cannot read the holder of the lock", e);
        }
        return process.map(p -> Words.of("vault.otherProgram", name(p), String.valueOf(p)))
                .orElse(Words.of("vault.someone"));
    }

    private static String name(long process) {
        return ProcessHandle.of(process)
                .flatMap(h -> h.info().command())
                .map(c -> c.substring(c.lastIndexOf('/') + 1))
                .orElse("?");
    }

    private static Optional<Long> bySystem(Path file) {
        if (!Files.isReadable(LOCKS)) {
            return Optional.empty();
        }
        try {
            String number = String.valueOf(Files.getAttribute(file, "unix:ino"));
            for (String line : Files.readAllLines(LOCKS)) {
                Matcher lock = SYSTEM.matcher(line);
                if (lock.matches() && lock.group(2).equals(number)) {
                    return Optional.of(Long.valueOf(lock.group(1)));
                }
            }
        } catch (IOException | UnsupportedOperationException | IllegalArgumentException e) {
            org.slf4j.LoggerFactory.getLogger(LockHolder.class).debug("the system says no locks", e);
        }
        return Optional.empty();
    }
}
