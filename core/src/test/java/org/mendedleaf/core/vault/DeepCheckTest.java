package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;

class DeepCheckTest {

    @TempDir
    Path temp;

    @BeforeEach
    void fill() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.bin", Documents.noise(1, 300_000));
            p.save("b.txt", Documents.text(2, 40_000));
            p.save("sub/c.bin", Documents.noise(3, 20_000));
            p.capture();
        }
    }

    private static VaultCheck.Report check(TestPlace p, VaultCheck.Depth depth) throws IOException {
        return new VaultCheck(p.vault()).run(depth, Progress.NONE, Set.of());
    }

    private static ChunkPlace chunk(TestPlace p, String path) throws IOException {
        try (Reading reading = p.vault().read()) {
            return reading.contents()
                    .places(p.line(path).newest().orElseThrow().recipe())
                    .get(0);
        }
    }

    private void change(TestPlace p, ChunkPlace chunk, boolean withCrc) throws IOException {
        Path pack = p.vault().folder().pack(chunk.pack());
        int length = (int) PackFormat.recordLength(chunk.storedBytes());
        byte[] record = new byte[length];
        try (RandomAccessFile file = new RandomAccessFile(pack.toFile(), "rw")) {
            file.seek(chunk.offset());
            file.readFully(record);
            record[PackFormat.RECORD_HEAD + chunk.storedBytes() / 2] ^= 1;
            if (withCrc) {
                int covered = length - PackFormat.RECORD_TAIL;
                int crc = new RecordCrc(PackFormat.VERSION, p.vault().folder().id(), chunk.pack())
                        .begin(chunk.offset())
                        .add(record, 0, covered)
                        .value();
                ByteBuffer.wrap(record).order(ByteOrder.LITTLE_ENDIAN).putInt(covered, crc);
            }
            file.seek(chunk.offset());
            file.write(record);
        }
        p.vault().closeIdle();
    }

    @Test
    void allThreeFindNothingWhereNothingIsWrongAndSayHowFarTheyWent() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            for (VaultCheck.Depth depth : VaultCheck.Depth.values()) {
                VaultCheck.Report report = check(p, depth);
                assertThat(report.isClean()).as("%s", depth).isTrue();
                assertThat(report.depth()).isEqualTo(depth);
                assertThat(report.bytes() > 300_000).isEqualTo(depth != VaultCheck.Depth.QUICK);
            }
        }
    }

    @Test
    void aByteThatIsNotWhatItWasIsFoundByItsChecksumAlone() throws IOException {
        for (String path : Arrays.asList("a.bin", "b.txt")) {
            try (TestPlace p = new TestPlace(temp)) {
                change(p, chunk(p, path), false);
                assertThat(check(p, VaultCheck.Depth.FULL).lost())
                        .extracting(VaultCheck.LostVersion::path)
                        .contains(path);
                change(p, chunk(p, path), false);
                assertThat(check(p, VaultCheck.Depth.FULL).isClean())
                        .as("it is back")
                        .isTrue();
            }
        }
    }

    @Test
    void aContentThatIsAnotherUnderARightChecksumIsFoundByADeepCheck() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            change(p, chunk(p, "sub/c.bin"), true);
            assertThat(check(p, VaultCheck.Depth.FULL).isClean()).isTrue();
            VaultCheck.Report deep = check(p, VaultCheck.Depth.DEEP);
            assertThat(deep.lost()).extracting(VaultCheck.LostVersion::path).containsExactly("sub/c.bin");
        }
    }
}
