package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.WriteSession;

/** What is known of chunks from one session to the next. */
class ChunkIndexCacheTest {

    @TempDir
    Path temp;

    private OpenVault vault;

    @BeforeEach
    void open() throws IOException {
        vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5));
    }

    @AfterEach
    void close() throws IOException {
        vault.close();
    }

    private static StoredContent store(WriteSession session, byte[] content) throws IOException {
        try (ContentWorker worker = new ContentWorker(session.chunks())) {
            return worker.store(new SeekableInMemoryByteChannel(content), n -> {});
        }
    }

    /** Bytes that storing it adds. */
    private static long added(OpenVault to, byte[] content, boolean commits) throws IOException {
        try (WriteSession session = to.write()) {
            store(session, content);
            if (commits) {
                session.commit();
            }
            return session.chunks().addedBytes();
        }
    }

    @Test
    void whatOneSessionStoredTheNextOneFinds() throws IOException {
        byte[] content = Documents.noise(1, 200_000);
        assertThat(added(vault, content, true)).isGreaterThan(200_000);
        assertThat(added(vault, content, true)).isZero();
        assertThat(added(vault, Documents.noise(2, 50_000), true)).isPositive();
        assertThat(added(vault, content, true)).isZero();
    }

    @Test
    void whatAnotherProgramStoredMeanwhileIsFound() throws IOException {
        byte[] content = Documents.noise(1, 200_000);
        assertThat(added(vault, Documents.noise(3, 10_000), true)).isPositive();
        try (OpenVault other = OpenVault.open(temp.resolve("vault"), "another", Duration.ofSeconds(5))) {
            assertThat(added(other, content, true)).isPositive();
        }
        assertThat(added(vault, content, true)).isZero();
    }

    @Test
    void whatWasNeverCommittedIsStoredAgainThoughItsIdsAreOthersByThen() throws IOException {
        byte[] lost = Documents.noise(1, 200_000);
        byte[] other = Documents.noise(2, 200_000);
        assertThat(added(vault, lost, false)).isPositive();
        assertThat(added(vault, other, true)).isPositive();
        assertThat(added(vault, lost, true))
                .as("its ids went to the other content")
                .isGreaterThan(200_000);
        assertThat(added(vault, other, true)).isZero();
        assertThat(added(vault, lost, true)).isZero();
    }

    @Test
    void aPackThatWasEmptiedTakesItsChunksOutOfWhatIsFound() throws IOException {
        byte[] content = Documents.noise(1, 100_000);
        long pack;
        try (WriteSession session = vault.write()) {
            store(session, content);
            session.chunks().sealNext();
            session.commit();
            pack = vault.folder().packNumbers().get(0);
        }
        assertThat(added(vault, content, true)).isZero();
        try (WriteSession session = vault.write()) {
            session.chunks().empty(pack, chunk -> false);
            session.commit();
        }
        assertThat(added(vault, content, true)).isGreaterThan(100_000);
        assertThat(List.copyOf(vault.folder().packNumbers())).doesNotContain(pack);
    }
}
