package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.withSettings;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;

/** A pack is ended while the next one is written already, and a crash in between loses nothing that was committed. */
class SealingTest {

    @TempDir
    Path temp;

    /** Is told when the index of the first pack is about to be written. */
    private static final class Watched implements ChannelOpener {
        private interface Then {
            void run() throws Exception;
        }

        private boolean second;
        private Then then = () -> {};

        @Override
        public FileChannel open(Path file, OpenOption... options) throws IOException {
            FileChannel real = FileChannel.open(file, options);
            if (file.endsWith("00000002.pack")) {
                second = true;
                return real;
            }
            FileChannel watched = mock(
                    FileChannel.class,
                    withSettings().defaultAnswer(call -> call.getMethod().invoke(real, call.getArguments())));
            doAnswer(call -> {
                        if (second) {
                            Then now = then;
                            then = () -> {};
                            now.run();
                        }
                        return real.write((ByteBuffer) call.getArgument(0));
                    })
                    .when(watched)
                    .write(any(ByteBuffer.class));
            return watched;
        }
    }

    private final Watched disk = new Watched();

    private OpenVault vault() throws IOException {
        return OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ZERO, disk);
    }

    private static byte[] content(int seed) {
        byte[] content = new byte[40_000];
        new Random(seed).nextBytes(content);
        return content;
    }

    private static StoredContent store(WriteSession session, int seed) throws IOException {
        try (ContentWorker worker = new ContentWorker(session.chunks())) {
            return worker.store(Channels.newChannel(new ByteArrayInputStream(content(seed))), n -> {});
        }
    }

    private static void holds(OpenVault vault, StoredContent stored, int seed) throws IOException {
        try (Reading reading = vault.read()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            reading.contents().copy(stored.recipe(), Channels.newChannel(out));
            assertThat(out.toByteArray()).isEqualTo(content(seed));
        }
    }

    private static void isSound(OpenVault vault) throws IOException {
        assertThat(new VaultCheck(vault).run(true, Progress.NONE).isClean()).isTrue();
    }

    @Test
    void othersGoOnInTheNextPackWhileOneIsEnded() throws Exception {
        try (OpenVault vault = vault()) {
            StoredContent first;
            StoredContent[] meanwhile = new StoredContent[1];
            try (WriteSession session = vault.write()) {
                first = store(session, 1);
                session.chunks().sealNext();
                disk.then = () -> meanwhile[0] = CompletableFuture.supplyAsync(() -> {
                            try {
                                return store(session, 2);
                            } catch (IOException e) {
                                throw new IllegalStateException(e);
                            }
                        })
                        .get(20, TimeUnit.SECONDS);
                session.commit();
                session.commit();
            }
            assertThat(vault.folder().packNumbers()).containsExactly(1L, 2L);
            holds(vault, first, 1);
            holds(vault, meanwhile[0], 2);
            isSound(vault);
        }
    }

    @Test
    void aCrashBeforeAPackIsEndedLosesNothingAndTheNextRunGoesOn() throws Exception {
        Path killed = temp.resolve("killed");
        StoredContent first;
        StoredContent second;
        try (OpenVault vault = vault();
                WriteSession session = vault.write()) {
            first = store(session, 1);
            session.commit();
            second = store(session, 2);
            session.chunks().sealNext();
            disk.then = () -> {
                store(session, 3);
                copy(temp.resolve("vault"), killed);
            };
            session.commit();
        }
        try (OpenVault vault = OpenVault.open(killed, "test", Duration.ZERO)) {
            StoredContent fourth;
            try (WriteSession session = vault.write()) {
                fourth = store(session, 4);
                session.commit();
            }
            holds(vault, first, 1);
            holds(vault, second, 2);
            holds(vault, fourth, 4);
            isSound(vault);
        }
    }

    @Test
    void whereAPackCannotBeEndedTheCommitFailsAndWhatWasCommittedStays() throws Exception {
        StoredContent first;
        try (OpenVault vault = vault()) {
            try (WriteSession session = vault.write()) {
                first = store(session, 1);
                session.commit();
                store(session, 2);
                session.chunks().sealNext();
                disk.then = () -> {
                    throw new IOException("No space left on device");
                };
                assertThatThrownBy(session::commit).isInstanceOf(VaultException.Full.class);
            }
            StoredContent third;
            try (WriteSession session = vault.write()) {
                third = store(session, 3);
                session.commit();
            }
            holds(vault, first, 1);
            holds(vault, third, 3);
            isSound(vault);
        }
    }

    private static void copy(Path from, Path to) throws IOException {
        try (Stream<Path> all = Files.walk(from)) {
            for (Path each : all.toList()) {
                Path there = to.resolve(from.relativize(each).toString());
                if (Files.isDirectory(each)) {
                    Files.createDirectories(there);
                } else {
                    Files.copy(each, there);
                }
            }
        }
    }
}
