package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.TreeMap;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;

/** The records of a pack, by their heads and where these are damaged. */
class PackRecordsTest {

    @TempDir
    Path temp;

    private VaultFolder folder;
    private PackChunks known = PackChunks.NONE;
    private long end;

    @BeforeEach
    void fill() throws IOException {
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ZERO)) {
            folder = vault.folder();
            StoredContent stored;
            try (WriteSession session = vault.write();
                    ContentWorker worker = new ContentWorker(session.chunks())) {
                stored = worker.store(new SeekableInMemoryByteChannel(Documents.noise(1, 400_000)), n -> {});
                session.commit();
            }
            try (Reading reading = vault.read()) {
                known = PackChunks.of(1, reading.contents().places(stored.recipe()));
            }
        }
        try (PackReader reader = new PackReader(folder)) {
            end = reader.size(1);
        }
    }

    private PackRecords records() throws IOException {
        try (PackReader reader = new PackReader(folder)) {
            return PackRecords.of(reader, 1, end, known);
        }
    }

    private void flip(long at) throws IOException {
        try (RandomAccessFile pack = new RandomAccessFile(folder.pack(1).toFile(), "rw")) {
            pack.seek(at);
            int was = pack.read();
            pack.seek(at);
            pack.write(was ^ 0x11);
        }
    }

    private static Map<Long, Long> ids(PackChunks chunks) {
        Map<Long, Long> ids = new TreeMap<>();
        chunks.forEach(c -> ids.put(c.offset(), c.id()));
        return ids;
    }

    @Test
    void allChunksAndTheCommitAreFound() throws IOException {
        PackRecords records = records();
        assertThat(ids(records.chunks())).isEqualTo(ids(known));
        assertThat(records.count()).isEqualTo(known.size() + 1);
    }

    @Test
    void aHeadThatSaysAnotherLengthHidesNothingOfWhatLiesBehindIt() throws IOException {
        ChunkPlace second = known.place(1);
        for (int at : new int[] {0, 4, 8, 12, 30}) {
            flip(second.offset() + at);
            PackRecords records = records();
            Map<Long, Long> others = ids(known);
            others.remove(second.offset());
            assertThat(ids(records.chunks())).as("byte %s of the head", at).containsAllEntriesOf(others);
            assertThat(records.chunks().at(second.offset())).isEmpty();
            flip(second.offset() + at);
        }
        assertThat(ids(records().chunks())).isEqualTo(ids(known));
    }
}
