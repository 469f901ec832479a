package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FailuresTest {

    @TempDir
    Path temp;

    @Test
    void aFileThatIsMissingIsNeverSaidByItsPathAlone() {
        Path gone = temp.resolve("gone.txt");
        IOException thrown = org.junit.jupiter.api.Assertions.assertThrows(IOException.class, () -> Files.size(gone));
        assertThat(thrown).hasMessage(gone.toString());
        assertThat(Failures.words(thrown)).isEqualTo("it is not there");
        assertThat(Failures.named(thrown)).isEqualTo(gone + ": it is not there");
        assertThat(Failures.named(new UncheckedIOException(thrown))).isEqualTo(gone + ": it is not there");
    }

    @Test
    void whatTheSystemSaysIsSaidInWords() {
        assertThat(Failures.named(new AccessDeniedException("a.txt"))).isEqualTo("a.txt: no permission");
        assertThat(Failures.named(new FileSystemException("a.txt", null, "Input/output error")))
                .isEqualTo("a.txt: the system says \"Input/output error\"");
        assertThat(Failures.named(new NotDirectoryException("a/b")))
                .isEqualTo("a/b is not a folder any more: a file or a link has taken its place.")
                .isEqualTo(Failures.words(new NotDirectoryException("a/b")));
        assertThat(Failures.named(new IOException("No space left on device"))).isEqualTo("the disk is full");
    }

    @Test
    void whatIsAMessageAlreadyStaysOne() {
        assertThat(Failures.named(new IOException("The vault is away."))).isEqualTo("The vault is away.");
        assertThat(Failures.named(new IllegalArgumentException("No such moment.")))
                .isEqualTo("No such moment.");
        assertThat(Failures.named(new NoSuchFileException(""))).isEqualTo("it is not there");
    }

    @Test
    void tooLittleMemoryIsSaidSoAndIsNoDefect() {
        OutOfMemoryError thrown = new OutOfMemoryError("Java heap space");
        String words = "There was not enough memory for so much at once. What was said to be done is done and kept."
                + " Try it with fewer files.";
        assertThat(Failures.exception(thrown)).hasMessage(words).hasCause(thrown);
        assertThat(Failures.words(Failures.exception(thrown))).isEqualTo(words);
        assertThat(Failures.named(new IllegalStateException(new IllegalStateException(thrown))))
                .isEqualTo(words);
        assertThat(Failures.exception(new StackOverflowError()).getMessage()).contains("should not have happened");
        assertThat(Failures.saysNoMemory(new IOException("the disk"))).isFalse();
    }
}
