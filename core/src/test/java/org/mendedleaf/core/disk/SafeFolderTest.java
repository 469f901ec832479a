package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SafeFolderTest {

    @TempDir
    Path temp;

    @ParameterizedTest
    @ValueSource(strings = {"", ".", "..", "a/b", "/etc", "x\u0000y"})
    void aNameThatIsNoneIsRefused(String name) throws IOException {
        try (SafeFolder folder = SafeFolder.open(temp, "")) {
            assertThatThrownBy(() -> folder.find(name)).isInstanceOf(IllegalArgumentException.class);
            assertThatThrownBy(() -> folder.create(name)).isInstanceOf(IllegalArgumentException.class);
            assertThatThrownBy(() -> folder.makeFolder(name)).isInstanceOf(IllegalArgumentException.class);
            assertThatThrownBy(() -> folder.child(name)).isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Test
    void linksAreSeenAsLinksAndNotEntered() throws IOException {
        Path outside = Files.createDirectory(temp.resolve("outside"));
        Path root = Files.createDirectory(temp.resolve("root"));
        Files.createSymbolicLink(root.resolve("door"), outside);
        try (SafeFolder folder = SafeFolder.open(root, "")) {
            assertThat(folder.find("door").orElseThrow().type()).isEqualTo(DiskEntry.Type.LINK);
            assertThat(folder.readLink("door")).isEqualTo(outside.toString());
            assertThatThrownBy(() -> folder.child("door"))
                    .isInstanceOf(NotDirectoryException.class)
                    .hasMessageContaining("door");
            assertThatThrownBy(() -> folder.read("door")).isInstanceOf(IOException.class);
        }
        assertThatThrownBy(() -> SafeFolder.openOrCreate(root, "door/inside", made -> {}))
                .isInstanceOf(NotDirectoryException.class);
        assertThat(outside).isEmptyDirectory();
    }

    @Test
    void aFolderThatIsNotThereIsSaidAndCanBeMade() throws IOException {
        assertThatThrownBy(() -> SafeFolder.open(temp, "a/b")).isInstanceOf(NoSuchFileException.class);
        List<String> made = new ArrayList<>();
        try (SafeFolder folder = SafeFolder.openOrCreate(temp, "a/b/c", made::add)) {
            assertThat(folder.path()).isEqualTo("a/b/c");
        }
        assertThat(made).containsExactly("a", "a/b", "a/b/c");
        assertThat(temp.resolve("a/b/c")).isDirectory();
        SafeFolder.openOrCreate(temp, "a/b/c", m -> made.add("again")).close();
        assertThat(made).doesNotContain("again");
    }

    @Test
    void nothingThatIsThereIsOverwrittenByMakingIt() throws IOException {
        Files.writeString(temp.resolve("a"), "mine");
        try (SafeFolder folder = SafeFolder.open(temp, "")) {
            assertThatThrownBy(() -> folder.create("a")).isInstanceOf(FileAlreadyExistsException.class);
            assertThatThrownBy(() -> folder.makeFolder("a")).isInstanceOf(FileAlreadyExistsException.class);
        }
        assertThat(temp.resolve("a")).hasContent("mine");
    }

    @Test
    void timesAreSetToTheNanosecondAndPermissionsToTheBit() throws IOException {
        try (SafeFolder folder = SafeFolder.open(temp, "")) {
            folder.write("a", "x".getBytes(StandardCharsets.UTF_8));
            folder.setAttributes("a", 1_234_567_890_123_456_789L, 0b110_000_100);
            DiskEntry entry = folder.find("a").orElseThrow();
            assertThat(entry.mtimeNanos()).isEqualTo(1_234_567_890_123_456_789L);
            assertThat(entry.mode()).isEqualTo(0b110_000_100);
        }
    }

    @Test
    void namesThatAreNoTextAreToldByteForByteAndReachedByWhatWasTold() throws Exception {
        Process made = new ProcessBuilder("sh", "-c", "touch \"$(printf 'bad\\377name')\"")
                .directory(temp.toFile())
                .start();
        org.junit.jupiter.api.Assumptions.assumeTrue(made.waitFor() == 0);
        List<String> told = new ArrayList<>();
        try (SafeFolder folder = SafeFolder.open(temp, "")) {
            folder.list(new SafeFolder.Visitor() {
                @Override
                public void entry(String name, DiskEntry entry) {
                    told.add(name);
                }

                @Override
                public void failed(String name, IOException why) {
                    throw new IllegalStateException(why);
                }
            });
            assertThat(told).containsExactly("bad\uF7FFname");
            assertThat(folder.find(told.get(0))).isPresent();
            folder.renameNew(told.get(0), "good name");
        }
        assertThat(temp.resolve("good name")).isRegularFile();
    }
}
