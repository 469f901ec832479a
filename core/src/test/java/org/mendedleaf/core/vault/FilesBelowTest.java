package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.disk.FilesBelow;

/** A vault is read while others write to it. */
class FilesBelowTest {

    @TempDir
    Path temp;

    @Test
    void bytesAreAddedUpInAllFoldersBelow() throws IOException {
        Files.writeString(temp.resolve("a"), "123");
        Files.createDirectories(temp.resolve("in/deep"));
        Files.writeString(temp.resolve("in/deep/b"), "4567");
        assertThat(FilesBelow.bytes(temp)).isEqualTo(7);
        assertThat(FilesBelow.paths(temp))
                .containsExactlyInAnyOrder(
                        temp,
                        temp.resolve("a"),
                        temp.resolve("in"),
                        temp.resolve("in/deep"),
                        temp.resolve("in/deep/b"));
    }

    @Test
    void whatComesAndGoesMeanwhileDoesNotMakeItFail() throws Exception {
        Files.writeString(temp.resolve("stays"), "123");
        AtomicBoolean done = new AtomicBoolean();
        Thread writer = new Thread(() -> churn(done));
        writer.start();
        try {
            for (int i = 0; i < 2000; i++) {
                assertThat(FilesBelow.bytes(temp)).isGreaterThanOrEqualTo(3);
                Access.OWNER.tightenAll(temp);
            }
        } finally {
            done.set(true);
            writer.join();
        }
    }

    private void churn(AtomicBoolean done) {
        try {
            for (int i = 0; !done.get(); i++) {
                Path folder = Files.createDirectory(temp.resolve("folder" + i % 3));
                Path file = Files.writeString(folder.resolve("catalogue.db-journal"), "x");
                Path other = Files.writeString(temp.resolve("health.db-journal"), "x");
                Files.delete(other);
                Files.delete(file);
                Files.delete(folder);
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }
}
