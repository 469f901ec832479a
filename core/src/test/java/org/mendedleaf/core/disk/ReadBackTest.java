package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is read back is what was written, of whatever size, past what is kept in memory or not. */
class ReadBackTest {

    @TempDir
    Path temp;

    private SafeFolder folder;

    @BeforeEach
    void open() throws IOException {
        folder = SafeFolder.open(temp, "");
    }

    @AfterEach
    void close() throws IOException {
        folder.close();
    }

    private static byte[] noise(int size) {
        byte[] bytes = new byte[size];
        new Random(size).nextBytes(bytes);
        return bytes;
    }

    private void write(String name, byte[] content) throws IOException {
        try (FileChannel out = folder.create(name)) {
            Durable.write(out, ByteBuffer.wrap(content));
            out.force(true);
        }
    }

    @Test
    void filesOfAllSizesComeBackToTheLastByte() throws IOException {
        ReadBack back = new ReadBack(folder);
        int[] sizes = {0, 1, 511, 512, 4095, 4096, 4097, 131_071, 131_072, 131_073, 262_144, 700_001};
        for (int size : sizes) {
            write("file" + size, noise(size));
            try (InputStream in = back.open("file" + size)) {
                assertThat(in.readAllBytes()).as("%d bytes", size).isEqualTo(noise(size));
                assertThat(in.read()).isEqualTo(-1);
            }
        }
    }

    @Test
    void bytesCanBeTakenOneByOneAndAFileCanBeLeftInTheMiddle() throws IOException {
        write("one", noise(5000));
        write("two", noise(300_000));
        ReadBack back = new ReadBack(folder);
        try (InputStream in = back.open("two")) {
            assertThat(in.readNBytes(7)).hasSize(7);
        }
        try (InputStream in = back.open("one")) {
            byte[] expected = noise(5000);
            for (byte b : expected) {
                assertThat((byte) in.read()).isEqualTo(b);
            }
            assertThat(in.read()).isEqualTo(-1);
            assertThat(in.read(new byte[3], 0, 0)).isZero();
            assertThat(in.read(new byte[3], 0, 3)).isEqualTo(-1);
        }
    }

    @Test
    void whatIsNotThereOrIsALinkIsRefused() throws IOException {
        write("file", noise(10));
        Files.createSymbolicLink(temp.resolve("link"), Path.of("file"));
        ReadBack back = new ReadBack(folder);
        assertThatThrownBy(() -> back.open("nothing")).isInstanceOf(FileSystemException.class);
        assertThatThrownBy(() -> back.open("link")).isInstanceOf(IOException.class);
        boolean past = new ReadBack(folder).isPastMemory();
        assertThat(back.isPastMemory()).as("they say nothing of other files").isEqualTo(past);
        try (InputStream in = back.open("file")) {
            assertThat(in.readAllBytes()).isEqualTo(noise(10));
        }
    }
}
