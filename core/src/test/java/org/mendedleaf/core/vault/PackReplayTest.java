package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;

class PackReplayTest {

    private static final int TIMES = 300;
    private static final long WHILE = 300_000;

    @TempDir
    Path temp;

    @Test
    void aPackThatGoesWhileCommitsAreLookedForIsPassedOver() throws Exception {
        try (TestPlace desk = new TestPlace(temp)) {
            VaultFolder vault = desk.vault().folder();
            Path pack = vault.pack(vault.packNumbers().get(0));
            Path away = temp.resolve("away");
            AtomicInteger moved = new AtomicInteger();
            AtomicBoolean enough = new AtomicBoolean();
            Thread mover = new Thread(() -> {
                while (!enough.get()) {
                    // Listed and gone by the time it is opened, or there again: whatever falls between.
                    assertThat(pack.toFile().renameTo(away.toFile())).isTrue();
                    LockSupport.parkNanos(WHILE);
                    assertThat(away.toFile().renameTo(pack.toFile())).isTrue();
                    moved.incrementAndGet();
                    LockSupport.parkNanos(WHILE);
                }
            });
            mover.start();
            try {
                while (moved.get() < TIMES) {
                    try (PackReplay replay = new PackReplay(vault)) {
                        replay.findCommits();
                    }
                }
            } finally {
                enough.set(true);
                mover.join();
            }
            assertThat(Files.exists(pack)).isTrue();
            try (PackReplay replay = new PackReplay(vault)) {
                replay.findCommits();
                assertThat(replay.commits()).isNotEmpty();
            }
        }
    }

    @Test
    void aChangeLogWhosePackWasEmptiedSinceItWasFoundIsReadWhereItIsNow() throws Exception {
        try (TestPlace desk = new TestPlace(temp)) {
            desk.later(10_000);
            byte[] noise = new byte[200_000];
            new Random(1).nextBytes(noise);
            desk.save("plan.bin", noise);
            desk.capture();
            desk.save("plan.bin", "a few words");
            desk.capture();
            VaultFolder vault = desk.vault().folder();
            PackReader reader = new PackReader(vault);
            try (PackReplay replay = new PackReplay(vault, reader)) {
                replay.findCommits();
                List<Long> before = replay.commits();
                List<Long> packs = vault.packNumbers();
                new Erasing(new WorkContext(desk.vault(), desk.place(), desk.clock(), desk.authors(), "Ines"))
                        .erase(desk.line("plan.bin").id(), Erasing.What.OLDER, 0, Progress.NONE);
                new Reclaim(desk.vault(), desk.clock()).endGrace("Ines", Progress.NONE);
                assertThat(vault.packNumbers()).doesNotContainAnyElementsOf(packs);
                // As one that has many packs open does with those that it used least.
                reader.close();
                for (long commit : before) {
                    assertThat(replay.changeLog(commit)).isNotEmpty();
                }
            }
        }
    }
}
