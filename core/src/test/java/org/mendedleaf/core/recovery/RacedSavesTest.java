package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.Tries;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;

/** Somebody saves while a restore replaces, or removes, that very file. */
class RacedSavesTest {

    @TempDir
    Path temp;

    private final Random random = new Random(11);

    @AfterEach
    void asBefore() {
        System.clearProperty("mendedleaf.portable-names");
    }

    private interface Deed {
        void run() throws IOException;
    }

    private static Thread start(Deed deed) {
        Thread thread = new Thread(() -> {
            try {
                deed.run();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        thread.start();
        return thread;
    }

    /** The contents of all versions of a line. */
    private static List<String> contents(TestPlace p, String path) throws IOException {
        List<String> found = new ArrayList<>();
        try (Reading reading = p.vault().read()) {
            Line line = reading.line(p.place(), path).orElseThrow();
            for (Version v : line.versions()) {
                found.add(new String(reading.contents().head(v.recipe(), 10_000), StandardCharsets.UTF_8));
            }
        }
        return found;
    }

    private static long leftAside(TestPlace p) throws IOException {
        try (var all = Files.list(p.folder())) {
            return all.filter(f -> f.getFileName().toString().startsWith(".")).count();
        }
    }

    private void save(Path file, String content, boolean inPlace) throws IOException {
        LockSupport.parkNanos(TimeUnit.MICROSECONDS.toNanos(random.nextInt(6_000)));
        if (inPlace) {
            try (OutputStream out = Files.newOutputStream(file)) {
                out.write(content.substring(0, 3).getBytes(StandardCharsets.UTF_8));
                LockSupport.parkNanos(TimeUnit.MICROSECONDS.toNanos(random.nextInt(2_000)));
                out.write(content.substring(3).getBytes(StandardCharsets.UTF_8));
            }
        } else {
            Path beside = temp.resolve("saved.tmp");
            Files.writeString(beside, content);
            Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE);
        }
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void aSaveThatComesInWhileItsFileIsReplacedOrRemovedIsKept(boolean portable) throws Exception {
        System.setProperty("mendedleaf.portable-names", String.valueOf(portable));
        int rounds = (portable ? 30 : 60) * (int) Tries.seeds(1).count();
        Map<String, String> later = new LinkedHashMap<>();
        try (TestPlace p = new TestPlace(temp)) {
            for (int round = 0; round < rounds; round++) {
                String path = "file " + round / 50;
                p.save(path, "the first");
                p.capture();
                p.save(path, "the second");
                p.capture();
                Version first = p.line(path).version(1).orElseThrow();
                boolean inPlace = random.nextBoolean();
                String content = "save number " + round;
                Thread saver = start(() -> save(p.path(path), content, inPlace));
                if (random.nextInt(4) == 0) {
                    p.recovery().remove(List.of(path));
                } else {
                    p.recovery().restore(List.of(new RestoreItem(first, path)), Collision.REPLACE, Progress.NONE);
                }
                saver.join();
                p.capture();
                List<String> all = contents(p, path);
                if (portable && !all.contains(content)) {
                    // What was written a moment ago stays aside for a while.
                    later.put(content, path);
                    continue;
                }
                assertThat(all).as("round %s, in place: %s", round, inPlace).contains(content);
                assertThat(portable || leftAside(p) == 0)
                        .as("nothing is left aside")
                        .isTrue();
            }
            while (leftAside(p) > 0) {
                Thread.sleep(100);
                p.capture();
            }
            for (Map.Entry<String, String> e : later.entrySet()) {
                assertThat(contents(p, e.getValue())).contains(e.getKey());
            }
            assertThat(p.check().isClean()).isTrue();
        }
    }

    @Test
    void aProgramThatKeepsAFileOpenAndWritesLaterLosesNothing() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "the first");
            p.capture();
            p.save("a.txt", "the second");
            p.capture();
            Version first = p.line("a.txt").version(1).orElseThrow();
            try (OutputStream out = Files.newOutputStream(p.path("a.txt"), java.nio.file.StandardOpenOption.APPEND)) {
                p.recovery().restore(List.of(new RestoreItem(first, "a.txt")), Collision.REPLACE, Progress.NONE);
                assertThat(p.read("a.txt")).isEqualTo("the first");
                out.write(", and more".getBytes(StandardCharsets.UTF_8));
            }
            p.capture();
            assertThat(contents(p, "a.txt"))
                    .contains("the second, and more")
                    .last()
                    .isEqualTo("the first");
            assertThat(p.read("a.txt")).isEqualTo("the first");
            try (var all = Files.list(p.folder())) {
                assertThat(all).hasSize(1);
            }
        }
    }

    @Test
    void afterAKillBetweenTheExchangeAndTheLookTheSaveIsFound() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "the first");
            p.capture();
            String name = org.mendedleaf.core.disk.SafeFolder.ownName();
            Files.writeString(p.path(name), "saved in that moment");
            try (var session = p.vault().write()) {
                org.mendedleaf.core.catalogue.AsideStore.put(
                        session, p.place(), new org.mendedleaf.core.catalogue.AsideStore.Aside(name, "a.txt"));
                session.commit();
            }
            p.capture();
            assertThat(contents(p, "a.txt")).containsExactly("the first", "saved in that moment", "the first");
            assertThat(p.path(name)).doesNotExist();
            assertThat(p.capture().points()).isZero();
        }
    }
}
