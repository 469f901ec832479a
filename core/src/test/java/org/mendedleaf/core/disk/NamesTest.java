package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Names change such that nothing is replaced that somebody saves in this moment. */
class NamesTest {

    @TempDir
    Path temp;

    @AfterEach
    void asBefore() {
        System.clearProperty(LinuxNames.OFF);
    }

    private SafeFolder deep() throws IOException {
        Files.createDirectories(temp.resolve("a/b ö"));
        Files.writeString(temp.resolve("a/b ö/one ü"), "first");
        Files.writeString(temp.resolve("a/b ö/two"), "second");
        return SafeFolder.open(temp, "a/b ö");
    }

    @Test
    @EnabledOnOs(OS.LINUX)
    void twoNamesChangePlacesAtOnce() throws IOException {
        try (SafeFolder folder = deep()) {
            assertThat(folder.exchange("one ü", "two")).isTrue();
            assertThat(temp.resolve("a/b ö/one ü")).hasContent("second");
            assertThat(temp.resolve("a/b ö/two")).hasContent("first");
            assertThatThrownBy(() -> folder.exchange("one ü", "none")).isInstanceOf(NoSuchFileException.class);
        }
    }

    @Test
    void whereTheSystemCannotNothingChangesPlaces() throws IOException {
        System.setProperty(LinuxNames.OFF, "true");
        try (SafeFolder folder = deep()) {
            assertThat(folder.exchange("one ü", "two")).isFalse();
            assertThat(temp.resolve("a/b ö/one ü")).hasContent("first");
        }
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void aNameThatSomethingHasIsNotTaken(boolean portable) throws IOException {
        System.setProperty(LinuxNames.OFF, String.valueOf(portable));
        try (SafeFolder folder = deep()) {
            assertThatThrownBy(() -> folder.renameNew("one ü", "two")).isInstanceOf(FileAlreadyExistsException.class);
            assertThat(temp.resolve("a/b ö/two")).hasContent("second");
            folder.renameNew("one ü", "three");
            assertThat(temp.resolve("a/b ö/three")).hasContent("first");
            assertThat(temp.resolve("a/b ö/one ü")).doesNotExist();
            Files.createSymbolicLink(temp.resolve("a/b ö/link"), Path.of("nowhere"));
            folder.renameNew("link", "link 2");
            assertThat(Files.readSymbolicLink(temp.resolve("a/b ö/link 2"))).hasToString("nowhere");
            assertThatThrownBy(() -> folder.renameNew("none", "four")).isInstanceOf(NoSuchFileException.class);
        }
    }

    @Test
    @EnabledOnOs(OS.LINUX)
    void aFileThatSomebodyHasOpenForWritingIsKnown() throws IOException {
        try (SafeFolder folder = deep()) {
            assertThat(folder.isBeingWritten("two")).hasValue(false);
            try (OutputStream out = Files.newOutputStream(temp.resolve("a/b ö/two"))) {
                out.write(1);
                assertThat(folder.isBeingWritten("two")).hasValue(true);
            }
            assertThat(folder.isBeingWritten("two")).hasValue(false);
        }
    }

    @Test
    @EnabledOnOs(OS.LINUX)
    void aLinkOnTheWayIsNotFollowed() throws IOException {
        try (SafeFolder folder = deep()) {
            Files.move(temp.resolve("a/b ö"), temp.resolve("elsewhere"));
            Files.createSymbolicLink(temp.resolve("a/b ö"), temp.resolve("elsewhere"));
            assertThatThrownBy(() -> folder.exchange("one ü", "two")).isInstanceOf(IOException.class);
            assertThat(temp.resolve("elsewhere/two")).hasContent("second");
        }
    }
}
