package org.mendedleaf.core.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;

/** What goes on by itself stands in a log, a line each, in files of limited size; that it cannot be written stops nobody. */
class ActivityLogTest {

    private static final Clock CLOCK = Clock.fixed(Instant.parse("2026-11-28T18:00:00.5Z"), ZoneOffset.UTC);

    @TempDir
    Path temp;

    private ActivityLog log(long bytesMost) {
        return new ActivityLog(temp.resolve("log"), CLOCK, "watch", bytesMost);
    }

    @Test
    void aLineSaysWhenWhoAndWhat() throws IOException {
        ActivityLog log = log(1000);
        assertThat(log.last(5)).isEmpty();
        log.add("Front desk: 3 files\n\u001b[2Jfrom\u2028here");
        assertThat(log.last(5))
                .containsExactly("2026-11-28T18:00:00Z  watch["
                        + ProcessHandle.current().pid() + "]  Front desk: 3 files  [2Jfrom here");
        log.add("x".repeat(100_000));
        assertThat(log.last(1).get(0)).hasSizeLessThan(2_100);
    }

    @Test
    void theOldestLinesGoAndTheLastOnesAreReadAcrossFiles() throws IOException {
        ActivityLog log = log(1000);
        for (int i = 0; i < 300; i++) {
            log.add("line " + i);
        }
        try (Stream<Path> files = Files.list(temp.resolve("log"))) {
            List<Path> all = files.filter(f -> f.getFileName().toString().startsWith("activity"))
                    .toList();
            assertThat(all).hasSize(5).allMatch(f -> f.toFile().length() <= 1000);
        }
        assertThat(log.last(40)).hasSize(40).first().asString().endsWith("line 260");
        assertThat(log.last(40)).last().asString().endsWith("line 299");
        assertThat(log.last(10_000)).hasSizeBetween(60, 150);
    }

    @Test
    void noLineIsLostWhenSeveralWriteAtOnce() throws Exception {
        List<Thread> threads = new ArrayList<>();
        for (int t = 0; t < 4; t++) {
            ActivityLog own = log(1 << 20);
            threads.add(new Thread(() -> {
                for (int i = 0; i < 50; i++) {
                    own.add("line");
                }
            }));
        }
        threads.forEach(Thread::start);
        for (Thread thread : threads) {
            thread.join();
        }
        assertThat(log(1).last(1000)).hasSize(200).allMatch(l -> l.endsWith("  line"));
    }

    @Test
    void whatCannotBeWrittenStopsNobody() throws IOException {
        Files.writeString(temp.resolve("log"), "a file is in the way");
        log(1000).add("line");
        assertThat(log(1000).last(5)).isEmpty();
    }

    @Test
    @EnabledOnOs({OS.LINUX, OS.MAC})
    void nobodyElseReadsIt() throws IOException {
        ActivityLog log = log(1000);
        log.add("line");
        assertThat(Files.getPosixFilePermissions(log.file())).hasSize(2);
    }
}
