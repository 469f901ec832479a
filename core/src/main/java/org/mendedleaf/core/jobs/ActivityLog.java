package org.mendedleaf.core.jobs;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.mendedleaf.core.disk.Access;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What went on by itself, a line each, for whoever asks later what was done at night: when, by which program, and in words; no
 * contents and no tokens. Several programs write to one log. It is kept in a few files of limited size, of which the oldest goes.
 *
 * <p>That it cannot be written to stops nobody.
 */
public final class ActivityLog {

    private static final Logger log = LoggerFactory.getLogger(ActivityLog.class);

    private static final String NAME = "activity.log";
    private static final long BYTES_MOST = 1 << 20;
    private static final int FILES = 5;

    /** A line is no longer. Characters. */
    private static final int LINE_MOST = 2_000;

    /** A lock on a file holds off other processes only. */
    private static final Object WRITING = new Object();

    private final Path folder;
    private final Clock clock;
    private final String program;
    private final long bytesMost;

    /**
     * The log of a user, beside the settings.
     *
     * @param settings the folder of the settings
     * @param program that writes, such as {@code watch}
     */
    public static ActivityLog beside(Path settings, Clock clock, String program) {
        return new ActivityLog(settings.resolve("log"), clock, program, BYTES_MOST);
    }

    ActivityLog(Path folder, Clock clock, String program, long bytesMost) {
        this.folder = folder;
        this.clock = clock;
        this.program = program;
        this.bytesMost = bytesMost;
    }

    /** Where the newest lines are. */
    public Path file() {
        return folder.resolve(NAME);
    }

    private Path file(int age) {
        return age == 0 ? file() : folder.resolve(NAME + "." + age);
    }

    /** Writes a line. */
    public void add(String words) {
        String line = clock.instant().truncatedTo(ChronoUnit.SECONDS) + "  " + program + "["
                + ProcessHandle.current().pid() + "]  " + oneLine(words) + "\n";
        synchronized (WRITING) {
            try {
                Access.OWNER.createFolders(folder);
                Access.OWNER.createFile(folder.resolve("lock"));
                try (FileChannel channel = FileChannel.open(folder.resolve("lock"), StandardOpenOption.WRITE);
                        FileLock held = channel.lock()) {
                    write(line.getBytes(StandardCharsets.UTF_8), held);
                }
            } catch (IOException | RuntimeException e) {
                log.warn("{} cannot be written to", file(), e);
            }
        }
    }

    private void write(byte[] line, FileLock held) throws IOException {
        if (!held.isValid()) {
            throw new IOException("expected to hold the lock of " + folder);
        }
        if (Files.exists(file()) && Files.size(file()) + line.length > bytesMost) {
            for (int age = FILES - 1; age > 0; age--) {
                if (Files.exists(file(age - 1))) {
                    Files.move(file(age - 1), file(age), StandardCopyOption.REPLACE_EXISTING);
                }
            }
        }
        Access.OWNER.createFile(file());
        try (FileChannel out = FileChannel.open(file(), Set.of(StandardOpenOption.WRITE, StandardOpenOption.APPEND))) {
            out.write(java.nio.ByteBuffer.wrap(line));
        }
    }

    /** Without what would begin another line, or steer a terminal. */
    private static String oneLine(String words) {
        String plain = words.codePoints()
                .limit(LINE_MOST)
                .map(c -> Character.isISOControl(c) || c == '\u2028' || c == '\u2029' ? ' ' : c)
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                .toString();
        return plain.strip();
    }

    /** The last lines, oldest first; none where nothing was written yet. */
    public List<String> last(int most) throws IOException {
        List<String> lines = new ArrayList<>();
        for (int age = 0; age < FILES && lines.size() < most && Files.exists(file(age)); age++) {
            List<String> older;
            try (Stream<String> all = Files.lines(file(age), StandardCharsets.UTF_8)) {
                older = all.toList();
            }
            lines.addAll(0, older.subList(Math.max(0, older.size() - (most - lines.size())), older.size()));
        }
        return lines;
    }
}
