package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.LongBuffer;
import java.nio.channels.Channels;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.WriteSession;

/** The part of the index of chunks that is on disk, for vaults with many. */
class ChunkIndexFileTest {

    /** From so many on they go to disk. */
    private static final int MANY = 20_500;

    @TempDir
    Path temp;

    private VaultFolder folder;

    @BeforeEach
    void make() throws IOException {
        folder = VaultFolder.openOrCreate(temp.resolve("vault"));
    }

    private static byte[] digest(Random random, int ways) {
        byte[] digest = new byte[32];
        random.nextBytes(digest);
        // Few beginnings, so that many begin alike, over the ends of blocks too.
        Arrays.fill(digest, 0, 4, (byte) random.nextInt(ways));
        return digest;
    }

    private static long find(ChunkIndexFile file, byte[] digest, Map<Long, byte[]> all) throws IOException {
        return file.find(digest, id -> Arrays.equals(all.get(id), digest));
    }

    @Test
    void whateverWentInIsFoundAndNothingElse() throws IOException {
        for (int seed = 0; seed < 6; seed++) {
            Random random = new Random(seed);
            int ways = seed % 2 == 0 ? 5 : 256;
            Map<Long, byte[]> all = new HashMap<>();
            ChunkIndexFile file = null;
            long id = 0;
            for (int batch = 0; batch < 4; batch++) {
                long[] keys = new long[random.nextInt(1500)];
                for (int i = 0; i < keys.length; i++) {
                    byte[] digest = digest(random, ways);
                    all.put(++id, digest);
                    keys[i] = ChunkIndexFile.key(digest, id);
                }
                Arrays.sort(keys);
                file = ChunkIndexFile.merge(folder, file, LongBuffer.wrap(keys), id);
            }
            file.close();
            try (ChunkIndexFile read = ChunkIndexFile.open(folder).orElseThrow()) {
                assertThat(read.count()).isEqualTo(all.size());
                assertThat(read.highest()).isEqualTo(id);
                for (Map.Entry<Long, byte[]> chunk : all.entrySet()) {
                    assertThat(find(read, chunk.getValue(), all)).isEqualTo(chunk.getKey());
                }
                for (int i = 0; i < 200; i++) {
                    assertThat(find(read, digest(random, ways), all)).isEqualTo(-1);
                }
            }
        }
    }

    @Test
    void anEmptyOneHoldsNothing() throws IOException {
        try (ChunkIndexFile file = ChunkIndexFile.merge(folder, null, LongBuffer.allocate(0), 0)) {
            assertThat(file.count()).isZero();
            assertThat(find(file, new byte[32], Map.of())).isEqualTo(-1);
        }
    }

    /** Bytes that storing these adds. */
    private long added(int from, int to) throws IOException {
        try (OpenVault vault = OpenVault.open(folder.root(), "test", Duration.ofSeconds(5));
                WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            for (int i = from; i < to; i++) {
                worker.store(Channels.newChannel(new ByteArrayInputStream(content(i))), n -> {});
            }
            session.commit();
            return session.chunks().addedBytes();
        }
    }

    private static byte[] content(int number) {
        byte[] content = new byte[24];
        new Random(number).nextBytes(content);
        return content;
    }

    private Path index() {
        return folder.root().resolve("chunks.index");
    }

    private void fill() throws IOException {
        OpenVault.openOrCreate(folder.root(), "test", Duration.ofSeconds(5)).close();
        assertThat(added(0, MANY)).isPositive();
        assertThat(index()).doesNotExist();
        assertThat(added(0, 1)).as("known without the file").isZero();
        assertThat(index()).exists();
    }

    @Test
    void manyChunksGoToDiskAndAreFoundThereWithThoseThatCameLater() throws IOException {
        fill();
        assertThat(added(0, 500)).isZero();
        assertThat(added(MANY - 500, MANY)).isZero();
        assertThat(added(MANY, MANY + 300)).isPositive();
        assertThat(added(MANY, MANY + 300)).isZero();
        long before = Files.size(index());
        assertThat(added(MANY + 300, 2 * MANY + 300)).isPositive();
        assertThat(added(MANY + 300, MANY + 800)).isZero();
        assertThat(Files.size(index())).as("the later ones went there too").isGreaterThan(before + MANY * 8L);
        assertThat(added(0, 500)).isZero();
    }

    @Test
    void oneThatIsAwayOrCutShortOrNoneAtAllIsMadeAnew() throws IOException {
        fill();
        List<Damage> damages = new ArrayList<>(List.of(
                () -> Files.delete(index()),
                () -> Files.write(index(), Arrays.copyOf(Files.readAllBytes(index()), 5000)),
                () -> Files.write(index(), new byte[0]),
                () -> Files.write(index(), new byte[100_000])));
        for (Damage damage : damages) {
            damage.happen();
            assertThat(added(0, 400)).isZero();
            assertThat(added(MANY - 400, MANY)).isZero();
            assertThat(Files.size(index())).isGreaterThan(MANY * 8L);
        }
    }

    @FunctionalInterface
    private interface Damage {
        void happen() throws IOException;
    }

    @Test
    void oneWithWrongKeysCostsSpaceAndNothingElse() throws IOException {
        fill();
        byte[] bytes = Files.readAllBytes(index());
        new Random(3).nextBytes(bytes);
        System.arraycopy(Files.readAllBytes(index()), 0, bytes, 0, 32);
        Files.write(index(), bytes);
        assertThat(added(0, 50)).as("not known any more").isPositive();
        assertThat(added(0, 50)).isZero();
    }

    @Test
    void oneThatKnowsMoreThanTheCatalogueIsLeftAlone() throws IOException {
        fill();
        byte[] bytes = Files.readAllBytes(index());
        // The highest id.
        bytes[19] = 1;
        Files.write(index(), bytes, StandardOpenOption.TRUNCATE_EXISTING);
        assertThat(added(MANY, MANY + 50)).isPositive();
        assertThat(added(MANY, MANY + 50)).isZero();
        assertThat(added(0, 400)).isZero();
    }
}
