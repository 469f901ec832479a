package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystem;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Where folders cannot be worked in relative to themselves, the same is done by paths that are checked. */
class PortableFolderTest {

    @TempDir
    Path temp;

    private final List<FileSystem> made = new ArrayList<>();

    /** Where it is tried: in memory as the systems have it, and on this disk with the portable way forced. */
    enum On {
        WINDOWS("C:\\work", Configuration.windows()),
        MAC("/work", Configuration.osX()),
        THIS_DISK("", Configuration.unix());

        private final String root;
        private final Configuration configuration;

        On(String root, Configuration configuration) {
            this.root = root;
            this.configuration = configuration;
        }
    }

    private Path root(On on) throws IOException {
        if (on == On.THIS_DISK) {
            System.setProperty(LinuxNames.OFF, "true");
            return Files.createDirectories(temp.resolve("work"));
        }
        FileSystem system = Jimfs.newFileSystem(
                on.configuration.toBuilder().setAttributeViews("basic").build());
        made.add(system);
        return Files.createDirectories(system.getPath(on.root));
    }

    @AfterEach
    void end() throws IOException {
        System.clearProperty(LinuxNames.OFF);
        for (FileSystem system : made) {
            system.close();
        }
    }

    private static void write(SafeFolder folder, String name, String text) throws IOException {
        folder.write(name, text.getBytes(StandardCharsets.UTF_8));
    }

    private static String read(SafeFolder folder, String name) throws IOException {
        try (SeekableByteChannel in = folder.read(name)) {
            ByteBuffer bytes = ByteBuffer.allocate((int) in.size());
            while (bytes.hasRemaining() && in.read(bytes) >= 0) {
                // Until there is all of it.
            }
            return new String(bytes.array(), StandardCharsets.UTF_8);
        }
    }

    private static TreeMap<String, DiskEntry.Type> list(SafeFolder folder) throws IOException {
        TreeMap<String, DiskEntry.Type> names = new TreeMap<>();
        folder.list(new SafeFolder.Visitor() {
            @Override
            public void entry(String name, DiskEntry entry) {
                names.put(name, entry.type());
            }

            @Override
            public void failed(String name, IOException why) throws IOException {
                throw why;
            }
        });
        return names;
    }

    @ParameterizedTest
    @EnumSource(On.class)
    void filesAreMadeReadRenamedAndRemoved(On on) throws IOException {
        Path root = root(on);
        try (SafeFolder folder = SafeFolder.openOrCreate(root, "a/b ö", made -> {})) {
            write(folder, "one ü.txt", "first");
            assertThatThrownBy(() -> write(folder, "one ü.txt", "again"))
                    .isInstanceOf(FileAlreadyExistsException.class);
            write(folder, "two.txt", "second");
            folder.makeFolder("inner");
            assertThat(read(folder, "one ü.txt")).isEqualTo("first");
            assertThatThrownBy(() -> folder.renameNew("one ü.txt", "two.txt"))
                    .isInstanceOf(FileAlreadyExistsException.class);
            folder.renameNew("one ü.txt", "three.txt");
            folder.rename("three.txt", "two.txt");
            assertThat(read(folder, "two.txt")).as("renaming replaces").isEqualTo("first");
            assertThat(folder.exchange("two.txt", "inner"))
                    .as("there is no such way")
                    .isFalse();
            long time = 1_770_000_000_000_000_000L;
            folder.setAttributes("two.txt", time, 0600);
            assertThat(folder.find("two.txt").orElseThrow().mtimeNanos()).isEqualTo(time);
            assertThat(folder.look("nothing")).isEmpty();
            try (FileChannel out = folder.create("four.txt")) {
                out.write(ByteBuffer.wrap(new byte[] {1, 2}));
            }
            folder.forceFile("four.txt");
            folder.force();
            assertThatThrownBy(() -> folder.delete("inner")).isInstanceOf(IOException.class);
            assertThatThrownBy(() -> folder.deleteFolder("four.txt")).isInstanceOf(IOException.class);
        }
        try (SafeFolder folder = SafeFolder.open(root, "a/b ö")) {
            assertThat(list(folder))
                    .containsOnlyKeys("four.txt", "inner", "two.txt")
                    .containsEntry("inner", DiskEntry.Type.FOLDER);
            folder.delete("four.txt");
            folder.deleteFolder("inner");
            assertThatThrownBy(() -> folder.delete("four.txt")).isInstanceOf(NoSuchFileException.class);
        }
        assertThat(list(SafeFolder.open(root, "a/b ö"))).containsOnlyKeys("two.txt");
    }

    @ParameterizedTest
    @EnumSource(On.class)
    void linksAreSeenAndNotEntered(On on) throws IOException {
        Path root = root(on);
        Path outside = Files.createDirectory(root.resolveSibling("outside"));
        Files.writeString(outside.resolve("secret.txt"), "secret");
        Files.createSymbolicLink(root.resolve("door"), outside);
        Files.createSymbolicLink(root.resolve("file"), outside.resolve("secret.txt"));
        try (SafeFolder folder = SafeFolder.open(root, "")) {
            assertThat(folder.find("door").orElseThrow().type()).isEqualTo(DiskEntry.Type.LINK);
            assertThatThrownBy(() -> folder.child("door")).isInstanceOf(NotDirectoryException.class);
            assertThatThrownBy(() -> folder.read("file")).isInstanceOf(IOException.class);
            folder.makeLink("another", "door");
            assertThat(folder.readLink("another")).isEqualTo("door");
            folder.delete("door");
        }
        assertThatThrownBy(() -> SafeFolder.openOrCreate(root, "another/x", made -> {}))
                .isInstanceOf(IOException.class);
        assertThat(outside.resolve("secret.txt")).as("only the link is gone").hasContent("secret");
    }

    @ParameterizedTest
    @EnumSource(On.class)
    void aFolderThatWasChangedForALinkIsNotWorkedInAnyMore(On on) throws IOException {
        Path root = root(on);
        Path outside = Files.createDirectory(root.resolveSibling("outside"));
        Files.writeString(outside.resolve("mine.txt"), "mine");
        try (SafeFolder folder = SafeFolder.openOrCreate(root, "a/b", made -> {})) {
            write(folder, "mine.txt", "theirs");
            Files.move(
                    root.resolve("a/b".replace("/", root.getFileSystem().getSeparator())), root.resolve("elsewhere"));
            Files.createSymbolicLink(root.resolve("a").resolve("b"), outside);
            assertThatThrownBy(() -> write(folder, "new.txt", "x")).isInstanceOf(FileSystemException.class);
            assertThatThrownBy(() -> folder.read("mine.txt")).isInstanceOf(FileSystemException.class);
            assertThatThrownBy(() -> folder.delete("mine.txt")).isInstanceOf(FileSystemException.class);
            assertThatThrownBy(() -> folder.rename("mine.txt", "other.txt")).isInstanceOf(FileSystemException.class);
            assertThatThrownBy(() -> folder.child("c")).isInstanceOf(FileSystemException.class);
        }
        assertThat(outside.resolve("mine.txt")).hasContent("mine");
        assertThat(outside.resolve("new.txt")).doesNotExist();
    }

    @Test
    void aNameThatIsMoreThanANameOnWindowsLeadsNowhere() throws IOException {
        Path root = root(On.WINDOWS);
        Path outside = Files.writeString(root.resolveSibling("outside.txt"), "mine");
        try (SafeFolder folder = SafeFolder.open(root, "")) {
            for (String name : List.of("..\\outside.txt", "a\\b", "c:d", "..")) {
                assertThatThrownBy(() -> write(folder, name, "x"))
                        .as(name)
                        .isInstanceOfAny(FileSystemException.class, IllegalArgumentException.class);
                assertThatThrownBy(() -> folder.find(name))
                        .as(name)
                        .isInstanceOfAny(FileSystemException.class, IllegalArgumentException.class);
            }
            assertThat(folder.owner("a\\b")).isEmpty();
        }
        assertThat(outside).hasContent("mine");
    }
}
