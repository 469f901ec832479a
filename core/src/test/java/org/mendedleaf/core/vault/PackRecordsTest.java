package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.NavigableMap;
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
    private final NavigableMap<Long, ChunkPlace> known = new TreeMap<>();
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
                reading.contents().places(stored.recipe()).forEach(c -> known.put(c.offset(), c));
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

    private static Map<Long, Long> ids(NavigableMap<Long, ChunkPlace> chunks) {
        Map<Long, Long> ids = new TreeMap<>();
        chunks.forEach((offset, c) -> ids.put(offset, c.id()));
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
        ChunkPlace second = known.get(known.higherKey(known.firstKey()));
        for (int at : new int[] {0, 4, 8, 12, 30}) {
            flip(second.offset() + at);
            PackRecords records = records();
            NavigableMap<Long, ChunkPlace> others = new TreeMap<>(known);
            others.remove(second.offset());
            assertThat(ids(records.chunks())).as("byte %s of the head", at).containsAllEntriesOf(ids(others));
            assertThat(records.chunks()).doesNotContainKey(second.offset());
            flip(second.offset() + at);
        }
        assertThat(ids(records().chunks())).isEqualTo(ids(known));
    }
}
