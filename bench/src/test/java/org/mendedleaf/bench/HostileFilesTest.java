package org.mendedleaf.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.intake.Evidence;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;

/** The guard gives an answer for whatever comes in, and goes on with the next. */
class HostileFilesTest {

    @TempDir
    Path temp;

    @Test
    void whatIsMadeToDoHarmIsJudgedAndWhatComesAfterItToo() throws IOException {
        Path desk = Files.createDirectories(temp.resolve("desk")).toRealPath();
        Path in = Files.createDirectories(temp.resolve("in"));
        Clock clock = Clock.system(ZoneOffset.UTC);
        HostileFiles files = new HostileFiles(3, 0.05);
        List<String> names = new ArrayList<>();
        for (int i = 0; i < HostileFiles.kinds(); i++) {
            HostileFiles.HostileFile file = files.file(i);
            names.add(file.name());
            Files.write(in.resolve(file.name()), file.content());
            Files.writeString(desk.resolve(file.name()), "what was there before");
        }
        Files.writeString(desk.resolve("letter.txt"), "Dear Katy, the apples are ripe and the ladders are mended.");
        Files.writeString(in.resolve("letter.txt"), "Dear Katy, the apples are ripe and the ladders are mended. Ines");
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), clock, "Ines");
            new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            Evidence evidence = new Evidence(vault, place, clock, v -> java.util.Optional.empty());
            for (String name : names) {
                assertThat(evidence.judge(in.resolve(name), name).outcome())
                        .as(name)
                        .isNotEqualTo(Judgement.Outcome.SURE);
            }
            assertThat(evidence.judge(in.resolve("letter.txt"), "letter.txt").outcome())
                    .isEqualTo(Judgement.Outcome.SURE);
        }
    }
}
