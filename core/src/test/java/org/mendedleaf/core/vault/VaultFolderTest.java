package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.Child;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.disk.Access;

/** How a vault is made, and who may open it. */
class VaultFolderTest {

    @TempDir
    Path temp;

    private static String permissions(Path path) throws IOException {
        return PosixFilePermissions.toString(Files.getPosixFilePermissions(path));
    }

    private static void requirePosix(Path path) throws IOException {
        assumeTrue(Files.getFileStore(path).supportsFileAttributeView("posix"), "this disk knows no owners");
    }

    @ParameterizedTest
    @ValueSource(strings = {"packs/", "VAULT.new", "packs/ VAULT.new", "packs/ VAULT.new lock", "packs/ catalogue.new"})
    void whatAKillWhileAVaultIsMadeLeavesIsNoOtherFiles(String left) throws IOException {
        Path vault = Files.createDirectory(temp.resolve("vault"));
        for (String name : left.split(" ")) {
            if (name.endsWith("/")) {
                Files.createDirectory(vault.resolve(name));
            } else {
                Files.writeString(vault.resolve(name), "cut sh");
            }
        }
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            assertThat(p.capture().added()).isEqualTo(1);
            assertThat(p.check().isClean()).isTrue();
        }
        assertThat(vault.resolve("VAULT.new")).doesNotExist();
    }

    @Test
    void aVaultWhoseMarkerIsGoneIsNotMadeAnewOverItsPacks() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
        }
        Files.delete(temp.resolve("vault/VAULT"));
        for (String name : List.of("catalogue.db", "reserve")) {
            Files.deleteIfExists(temp.resolve("vault").resolve(name));
        }
        assertThatThrownBy(() -> VaultFolder.openOrCreate(temp.resolve("vault")))
                .isInstanceOf(VaultException.Damaged.class)
                .hasMessageContaining("VAULT");
    }

    @Test
    void everythingInAVaultIsForItsOwnerOnly() throws IOException {
        requirePosix(temp);
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
            try (Stream<Path> all = Files.walk(temp.resolve("vault"))) {
                assertThat(all)
                        .allSatisfy(f -> assertThat(permissions(f))
                                .as(f.toString())
                                .isEqualTo(Files.isDirectory(f) ? "rwx------" : "rw-------"));
            }
        }
    }

    @Test
    void aVaultOfAnEarlierVersionIsTightenedOnceAndThatIsTold() throws IOException {
        requirePosix(temp);
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
        }
        Path vault = temp.resolve("vault");
        for (String name : List.of("", "packs")) {
            Files.setPosixFilePermissions(vault.resolve(name), PosixFilePermissions.fromString("rwxr-xr-x"));
        }
        for (String name : List.of("VAULT", "catalogue.db", "packs/00000001.pack")) {
            Files.setPosixFilePermissions(vault.resolve(name), PosixFilePermissions.fromString("rw-r--r--"));
        }
        try (OpenVault open = OpenVault.open(vault, "test", Duration.ZERO)) {
            assertThat(open.wasOpenToOthers()).isTrue();
        }
        assertThat(permissions(vault)).isEqualTo("rwx------");
        assertThat(permissions(vault.resolve("packs/00000001.pack"))).isEqualTo("rw-------");
        try (OpenVault open = OpenVault.open(vault, "test", Duration.ZERO)) {
            assertThat(open.wasOpenToOthers()).isFalse();
        }
    }

    @Test
    void aVaultCanBeSharedWithItsGroupAndStaysSo() throws IOException {
        requirePosix(temp);
        Path vault = temp.resolve("shared");
        try (OpenVault open = OpenVault.openOrCreate(vault, Access.GROUP, "test", Duration.ZERO)) {
            assertThat(open.folder().access()).isEqualTo(Access.GROUP);
        }
        try (OpenVault open = OpenVault.open(vault, "test", Duration.ZERO)) {
            open.write().close();
            assertThat(open.wasOpenToOthers()).isFalse();
        }
        assertThat(permissions(vault)).isEqualTo("rwxrwx---");
        assertThat(permissions(vault.resolve("catalogue.db"))).isEqualTo("rw-rw----");
        try (OpenVault open = OpenVault.openOrCreate(vault, Access.OWNER, "test", Duration.ZERO)) {
            assertThat(open.folder().access()).isEqualTo(Access.OWNER);
        }
        assertThat(permissions(vault.resolve("catalogue.db"))).isEqualTo("rw-------");
    }

    /** Opens a vault and waits to be killed. */
    static final class Opened {
        public static void main(String[] arguments) throws Exception {
            try (TestPlace p = new TestPlace(Path.of(arguments[0]))) {
                p.save("a.txt", "one and more of it, one and more of it, one and more of it");
                p.capture();
                System.out.println("captured");
                System.in.read();
            }
        }
    }

    @Test
    void aKillLeavesNothingAmongTheTemporaryFiles() throws Exception {
        Path temporary = Files.createDirectory(temp.resolve("temporary"));
        List<String> with = List.of("env", "JAVA_TOOL_OPTIONS=-Djava.io.tmpdir=" + temporary);
        assumeTrue(Files.isExecutable(Path.of("/usr/bin/env")), "there is no env");
        try (Child child = Child.start(with, Opened.class, temp)) {
            child.awaits("captured");
            child.kill();
        }
        try (Stream<Path> left = Files.list(temporary)) {
            assertThat(left.map(f -> f.getFileName().toString()).filter(n -> !n.startsWith("hsperfdata")))
                    .isEmpty();
        }
    }
}
