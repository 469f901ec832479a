package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;

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
}
