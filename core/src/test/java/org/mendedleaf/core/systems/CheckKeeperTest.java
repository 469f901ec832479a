package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.CheckSchedule;
import org.mendedleaf.core.check.DamagedChunks;
import org.mendedleaf.core.check.LastCheck;
import org.mendedleaf.core.check.SoundPacks;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.jobs.Breathing;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.vault.Flip;

/** Every stored byte is read on a schedule, goes on where it was ended, and what is damaged is healed. */
class CheckKeeperTest {

    @TempDir
    Path temp;

    private Rig rig;
    private Copies copies;
    private final List<Healing.Result> results = new ArrayList<>();

    @BeforeEach
    void start() throws IOException {
        rig = new Rig(temp);
        copies = new Copies(rig.vault(), rig.clock(), "Ines");
        for (int f = 0; f < 3; f++) {
            rig.desk.save("f" + f + ".bin", noise(f));
            rig.desk.capture();
            try (WriteSession session = rig.vault().write()) {
                session.chunks().sealNext();
                session.commit();
            }
        }
    }

    @AfterEach
    void end() throws IOException {
        rig.close();
    }

    private static byte[] noise(long seed) {
        byte[] bytes = new byte[30_000];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    private CheckKeeper keeper() {
        Healing healing = new Healing(rig.vault(), rig.registry, rig.clock(), rig.desk.authors());
        return new CheckKeeper(rig.vault(), healing, copies, rig.clock(), true, results::add);
    }

    private Instant lastCheck() throws IOException {
        try (Reading reading = rig.vault().read()) {
            return LastCheck.of(reading).map(LastCheck::at).orElse(Instant.EPOCH);
        }
    }

    @Test
    void aVaultThatWasNeverReadIsReadAndThenNotAgainForAMonth() throws IOException {
        CheckKeeper keeper = keeper();
        keeper.round(Breathing.on());
        assertThat(results).hasSize(1);
        assertThat(results.get(0).after().isClean()).isTrue();
        assertThat(lastCheck()).isEqualTo(rig.clock().instant());
        rig.later(Duration.ofDays(29));
        keeper.round(Breathing.on());
        assertThat(results).hasSize(1);
        rig.later(Duration.ofDays(2));
        keeper.round(Breathing.on());
        assertThat(results).hasSize(2);
    }

    @Test
    void howOftenItIsIsChosen() throws IOException {
        CheckKeeper keeper = keeper();
        CheckSchedule.choose(rig.vault(), CheckSchedule.BY_HAND);
        keeper.round(Breathing.on());
        assertThat(results).isEmpty();
        CheckSchedule.choose(rig.vault(), 7);
        keeper.round(Breathing.on());
        rig.later(Duration.ofDays(8));
        keeper.round(Breathing.on());
        assertThat(results).hasSize(2);
        assertThatThrownBy(() -> CheckSchedule.choose(rig.vault(), 1000)).hasMessageContaining("got 1000");
    }

    @Test
    void oneThatWasEndedGoesOnWithTheNextPack() throws IOException {
        Instant began = rig.clock().instant();
        // It is asked once a pack, and once for each piece that it reads.
        keeper().round(Breathing.until(2));
        SoundPacks packs = new SoundPacks(rig.vault(), began);
        int read = packs.known().size();
        assertThat(read).isBetween(1, 2);
        assertThat(packs.share().readBytes())
                .isPositive()
                .isLessThan(packs.share().allBytes());
        assertThat(lastCheck()).isEqualTo(Instant.EPOCH);
        // What is damaged after its pack was read is found by the next check, not by this one.
        rig.later(Duration.ofMinutes(10));
        keeper().round(Breathing.on());
        assertThat(results).hasSize(1);
        assertThat(new SoundPacks(rig.vault(), began).known()).hasSizeGreaterThan(read);
        assertThat(lastCheck()).isEqualTo(rig.clock().instant());
        assertThat(new SoundPacks(rig.vault(), rig.clock().instant().plusSeconds(1)).known())
                .isEmpty();
    }

    @Test
    void whatItFindsDamagedIsHealed() throws IOException {
        Flip.in(rig.vault(), rig.desk.line("f1.bin").version(1).orElseThrow());
        keeper().round(Breathing.on());
        assertThat(results.get(0).before().lost()).hasSize(1);
        assertThat(results.get(0).after().lost()).isEmpty();
    }

    @Test
    void whatNobodyHasIsNamedUntilSomebodyHasIt() throws IOException {
        Files.delete(rig.desk.path("f1.bin"));
        rig.desk.capture();
        Flip.in(rig.vault(), rig.desk.line("f1.bin").version(1).orElseThrow());
        keeper().round(Breathing.on());
        try (Reading reading = rig.vault().read()) {
            assertThat(DamagedChunks.lost(reading))
                    .extracting(l -> l.path() + " " + l.label())
                    .containsExactly("f1.bin 1");
        }
        rig.desk.save("back.bin", noise(1));
        rig.desk.capture();
        try (Reading reading = rig.vault().read()) {
            assertThat(DamagedChunks.lost(reading)).isEmpty();
        }
    }

    @Test
    void theCopiesAreReadToo() throws IOException {
        copies.run(copies.add(temp.resolve("copy")).copy(), Progress.NONE);
        keeper().round(Breathing.on());
        assertThat(copies.list().get(0).seen().checked()).isPresent();
    }
}
