package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.Child;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;

class VaultLockTest {

    @TempDir
    Path temp;

    private void fill() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
        }
    }

    private OpenVault open(Duration patience) throws IOException {
        return OpenVault.open(temp.resolve("vault"), "the test", patience);
    }

    @Test
    void aSecondWriterIsToldWhoWritesAndCanStillRead() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
            try (WriteSession first = p.vault().write();
                    OpenVault second = open(Duration.ofMillis(100))) {
                assertThat(first.vault().id()).isEqualTo(second.folder().id());
                assertThatThrownBy(second::write)
                        .isInstanceOf(VaultException.Busy.class)
                        .hasMessageContaining("test");
                try (Reading reading = second.read()) {
                    assertThat(reading.line(p.place(), "a.txt")).isPresent();
                }
            }
        }
    }

    @Test
    void aWriterWaitsForItsTurn() throws Exception {
        try (TestPlace p = new TestPlace(temp);
                OpenVault patient = open(Duration.ofSeconds(20))) {
            WriteSession first = p.vault().write();
            Thread ends = new Thread(() -> {
                try {
                    Thread.sleep(300);
                    first.close();
                } catch (IOException | InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            });
            ends.start();
            try (WriteSession second = patient.write()) {
                assertThat(second.vault().root()).isEqualTo(patient.folder().root());
            }
            ends.join();
        }
    }

    /** Holds a session while a second thread of it asks for one too, and gives up. */
    static final class Holder {
        public static void main(String[] arguments) throws Exception {
            try (OpenVault vault = OpenVault.open(Path.of(arguments[0]), "the holder", Duration.ofMillis(100));
                    WriteSession session = vault.write()) {
                Thread second = new Thread(() -> {
                    try {
                        vault.write().close();
                    } catch (IOException e) {
                        System.out.println("gave up");
                    }
                });
                second.start();
                second.join();
                System.in.read();
                session.note("held to the end", 1);
                session.commit();
                System.out.println("committed");
            }
        }
    }

    @Test
    void whatASecondThreadOfTheHolderDoesLetsNobodyElseIn() throws Exception {
        fill();
        try (Child holder = Child.start(Holder.class, temp.resolve("vault"));
                OpenVault vault = open(Duration.ZERO)) {
            holder.awaits("gave up");
            assertThatThrownBy(vault::write)
                    .isInstanceOf(VaultException.Busy.class)
                    .hasMessageContaining("the holder");
            holder.tell("go on");
            holder.awaits("committed");
            assertThat(holder.end()).isZero();
            try (WriteSession session = vault.write()) {
                assertThat(session.note("held to the end")).isEqualTo(1);
            }
        }
    }

    /** Locks the file of the lock as any program that may read it could. */
    static final class Stranger {
        public static void main(String[] arguments) throws Exception {
            try (FileChannel channel = FileChannel.open(Path.of(arguments[0]), StandardOpenOption.READ);
                    FileLock lock = channel.lock(0, Long.MAX_VALUE, true)) {
                System.out.println(lock.isShared() ? "locked" : "alone");
                System.in.read();
            }
        }
    }

    @Test
    @EnabledOnOs(value = OS.LINUX, disabledReason = "only there the system says who holds a lock")
    void theProcessThatBlocksIsNamedAndNotTheOneThatWroteLast() throws Exception {
        fill();
        try (Child stranger = Child.start(Stranger.class, temp.resolve("vault/lock"));
                OpenVault vault = open(Duration.ZERO)) {
            stranger.awaits("locked");
            assertThatThrownBy(vault::write)
                    .isInstanceOf(VaultException.Busy.class)
                    .hasMessageContaining("process " + stranger.pid())
                    .hasMessageNotContaining("test");
        }
    }

    @Test
    void aSessionWhoseLockSomebodyElseTookCommitsNothing() throws Exception {
        fill();
        try (OpenVault vault = open(Duration.ZERO)) {
            WriteSession session = vault.write();
            session.note("mine", 1);
            byte[] taken = Files.readAllBytes(temp.resolve("vault/lock"));
            taken[0] ^= 1;
            Files.write(temp.resolve("vault/lock"), taken, StandardOpenOption.WRITE);
            assertThatThrownBy(session::commit).isInstanceOf(VaultException.Busy.class);
            session.close();
            try (WriteSession next = vault.write()) {
                assertThat(next.note("mine")).isZero();
            }
        }
    }

    @Test
    void aLockFileThatIsReplacedByAnotherIsNoticed() throws Exception {
        fill();
        try (OpenVault vault = open(Duration.ZERO)) {
            WriteSession session = vault.write();
            session.note("mine", 1);
            Files.delete(temp.resolve("vault/lock"));
            assertThatThrownBy(session::commit).isInstanceOf(VaultException.Busy.class);
            session.close();
        }
    }
}
