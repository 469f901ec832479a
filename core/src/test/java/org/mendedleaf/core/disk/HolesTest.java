package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.Tries;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;

class HolesTest {

    @TempDir
    Path temp;

    static java.util.stream.LongStream seeds() {
        return Tries.seeds(40);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void whateverIsWrittenReadsBackTheSame(long seed) throws IOException {
        Random random = new Random(seed);
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        Path file = temp.resolve("file");
        try (FileChannel out = FileChannel.open(
                file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE, StandardOpenOption.READ)) {
            Holes holes = new Holes(out);
            for (int i = 0; i < random.nextInt(8); i++) {
                byte[] piece = new byte[random.nextInt(30_000)];
                int from = piece.length == 0 ? 0 : random.nextInt(piece.length);
                for (int k = from; k < piece.length && random.nextInt(5000) > 0; k++) {
                    piece[k] = (byte) random.nextInt();
                }
                holes.write(piece);
                all.write(piece);
            }
            holes.end();
        }
        assertThat(Files.readAllBytes(file)).isEqualTo(all.toByteArray());
    }

    @Test
    void aSparseFileComesBackSparse() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            Path file = p.path("disk.img");
            try (FileChannel out = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
                out.write(ByteBuffer.wrap("the start".getBytes(StandardCharsets.UTF_8)));
                out.write(ByteBuffer.wrap("the end".getBytes(StandardCharsets.UTF_8)), 40 << 20);
            }
            assumeTrue(blocks(file) < 1000, "no sparse files here");
            byte[] content = Files.readAllBytes(file);
            p.capture();
            Files.delete(file);
            p.capture();
            p.recovery()
                    .restore(
                            List.of(new RestoreItem(
                                    p.line("disk.img").version(1).orElseThrow(), "disk.img")),
                            Collision.REPLACE,
                            Progress.NONE);
            assertThat(Files.readAllBytes(file)).isEqualTo(content);
            assertThat(blocks(file)).as("blocks of 512 bytes").isLessThan(1000);
        }
    }

    private static long blocks(Path file) throws IOException {
        assumeTrue(Files.isExecutable(Path.of("/usr/bin/stat")), "no stat here");
        Process stat = new ProcessBuilder("/usr/bin/stat", "-c", "%b", file.toString()).start();
        String said = new String(stat.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
        return Long.parseLong(said);
    }
}
