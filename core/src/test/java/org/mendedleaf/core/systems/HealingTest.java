package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Flip;

/** A store that heals itself from whatever still has what was damaged, and names what nobody has. */
class HealingTest {

    @TempDir
    Path temp;

    private Rig rig;

    @BeforeEach
    void start() throws IOException {
        rig = new Rig(temp);
    }

    @AfterEach
    void end() throws IOException {
        rig.close();
    }

    private static String text(long seed) {
        byte[] noise = new byte[3000];
        new Random(seed).nextBytes(noise);
        return Base64.getEncoder().encodeToString(noise);
    }

    private void save(String path, String text) throws IOException {
        rig.desk.save(path, text);
        rig.desk.capture();
    }

    private static Healing.Result heal(Rig rig) throws IOException {
        return new Healing(rig.vault(), rig.registry, rig.clock(), rig.desk.authors()).run(Progress.NONE);
    }

    private static void damage(Rig rig, String path, int number) throws IOException {
        Flip.in(rig.vault(), rig.desk.line(path).version(number).orElseThrow());
    }

    private List<String> said(Healing.Result result) {
        return result.healed().stream()
                .map(h -> h.version().path() + " " + h.version().label() + " from " + h.from())
                .toList();
    }

    @Test
    void whatIsStillInTheFolderHealsItsVersion() throws IOException {
        save("a.txt", text(1));
        damage(rig, "a.txt", 1);
        Healing.Result result = heal(rig);
        assertThat(result.before().lost()).hasSize(1);
        assertThat(said(result)).containsExactly("a.txt 1 from a file that is there");
        assertThat(result.after().lost()).isEmpty();
    }

    @Test
    void whatADriveHoldsHealsAnOlderVersion() throws IOException {
        Place drive = rig.place(SystemKind.BACKUP_DRIVE, "desk");
        rig.relate(rig.desk.place(), "", drive, "");
        save("a.txt", text(1));
        rig.later(Duration.ofMinutes(1));
        new BackupRun(rig.vault(), drive, rig.registry.system(drive), rig.clock()).run(Progress.NONE);
        rig.later(Duration.ofMinutes(1));
        save("a.txt", "saved over");
        damage(rig, "a.txt", 1);
        Healing.Result result = heal(rig);
        assertThat(said(result)).containsExactly("a.txt 1 from another system");
        assertThat(rig.text(rig.desk.line("a.txt").version(1).orElseThrow())).isEqualTo(text(1));
        assertThat(result.after().lost()).isEmpty();
    }

    @Test
    void whatNobodyHasIsNamedAndAllElseWorksOn() throws IOException {
        save("a.txt", text(1));
        save("a.txt", "saved over");
        save("b.txt", text(2));
        damage(rig, "a.txt", 1);
        Healing.Result result = heal(rig);
        assertThat(result.healed()).isEmpty();
        assertThat(result.after().lost())
                .extracting(l -> l.path() + " " + l.label())
                .containsExactly("a.txt 1");
        assertThat(rig.text(rig.desk.line("b.txt").newest().orElseThrow())).isEqualTo(text(2));
        assertThat(rig.text(rig.desk.line("a.txt").newest().orElseThrow())).isEqualTo("saved over");
    }

    @Test
    void aVaultThatIsWholeIsLeftAsItIs() throws IOException {
        save("a.txt", text(1));
        Healing.Result result = heal(rig);
        assertThat(result.healed()).isEmpty();
        assertThat(result.after()).isSameAs(result.before());
    }

    /** Whatever is damaged: what the folder or the drive still has is whole again, and nothing else is lost. */
    @Property(tries = 3)
    void whateverSomebodyStillHoldsIsWholeAgain(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        Path folder = Files.createTempDirectory("heal");
        try (Rig own = new Rig(folder)) {
            Place drive = own.place(SystemKind.BACKUP_DRIVE, "desk");
            own.relate(own.desk.place(), "", drive, "");
            for (int f = 0; f < 3; f++) {
                own.desk.save("f" + f + ".txt", text(seed + f));
            }
            own.desk.capture();
            own.later(Duration.ofMinutes(1));
            new BackupRun(own.vault(), drive, own.registry.system(drive), own.clock()).run(Progress.NONE);
            own.later(Duration.ofMinutes(1));
            for (int f = 0; f < 3; f++) {
                own.desk.save("f" + f + ".txt", text(seed + 10 + f));
            }
            own.desk.capture();
            for (int i = 0; i < 3; i++) {
                damage(own, "f" + random.nextInt(3) + ".txt", 1 + random.nextInt(2));
            }
            assertThat(heal(own).after().lost()).isEmpty();
            for (int f = 0; f < 3; f++) {
                Line line = own.desk.line("f" + f + ".txt");
                for (Version v : line.versions()) {
                    long of = seed + (v.number() == 1 ? f : 10 + f);
                    assertThat(own.text(v)).isEqualTo(text(of));
                }
            }
        }
    }
}
