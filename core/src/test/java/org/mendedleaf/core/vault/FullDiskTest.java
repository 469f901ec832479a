package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.withSettings;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;

class FullDiskTest {

    @TempDir
    Path temp;

    /** A disk on which packs can take so many bytes and not one more. */
    private static final class SmallDisk implements ChannelOpener {
        private long space;

        SmallDisk(long space) {
            this.space = space;
        }

        @Override
        public FileChannel open(Path file, OpenOption... options) throws IOException {
            FileChannel real = FileChannel.open(file, options);
            FileChannel small = mock(
                    FileChannel.class,
                    withSettings().defaultAnswer(call -> call.getMethod().invoke(real, call.getArguments())));
            doAnswer(call -> {
                        ByteBuffer bytes = call.getArgument(0);
                        if (bytes.remaining() > space) {
                            throw new IOException("No space left on device");
                        }
                        space -= bytes.remaining();
                        return real.write(bytes);
                    })
                    .when(small)
                    .write(any(ByteBuffer.class));
            return small;
        }
    }

    @Test
    void aFullDiskIsSaidInWordsAndTheNextRunGoesOn() throws IOException {
        Path desk = Files.createDirectory(temp.resolve("desk"));
        Random random = new Random(4);
        for (int i = 0; i < 300; i++) {
            byte[] content = new byte[20_000];
            random.nextBytes(content);
            Files.write(desk.resolve("file %03d.bin".formatted(i)), content);
        }
        Clock clock = Clock.system(ZoneOffset.UTC);
        Place place;
        try (OpenVault vault =
                OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ZERO, new SmallDisk(3_500_000))) {
            place = Protect.place(vault, desk.toRealPath(), Rhythm.ON_SAVE, List.of(), clock, "Ines");
            assertThatThrownBy(
                            () -> new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE))
                    .isInstanceOf(VaultException.Full.class)
                    .hasMessageContaining("is full");
            assertThat(new VaultCheck(vault).run(true, Progress.NONE).isClean()).isTrue();
        }
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            VaultCheck.Report report = new VaultCheck(vault).run(true, Progress.NONE);
            assertThat(report.isClean()).isTrue();
            assertThat(report.versions()).isEqualTo(300);
        }
    }
}
