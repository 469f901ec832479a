package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;

class ContentRoundTripTest {

    @TempDir
    Path temp;

    private OpenVault vault;

    @BeforeEach
    void open() throws IOException {
        vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ZERO);
    }

    @AfterEach
    void close() throws IOException {
        vault.close();
    }

    private List<StoredContent> store(byte[]... contents) throws IOException {
        List<StoredContent> stored = new ArrayList<>();
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            for (byte[] content : contents) {
                stored.add(worker.store(Channels.newChannel(new ByteArrayInputStream(content)), n -> {}));
            }
            session.commit();
        }
        return stored;
    }

    private byte[] read(StoredContent content) throws IOException {
        try (Reading reading = vault.read()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            reading.contents().copy(content.recipe(), Channels.newChannel(out));
            return out.toByteArray();
        }
    }

    private static byte[] noise(int length, long seed) {
        byte[] content = new byte[length];
        new Random(seed).nextBytes(content);
        return content;
    }

    @ParameterizedTest
    @ValueSource(
            ints = {0, 1, 100, 8191, 8192, 8193, 131_071, 131_072, 131_073, 2_097_151, 2_097_152, 2_097_153, 5_000_000})
    void everyLengthComesBackBitForBit(int length) throws IOException {
        byte[] content = noise(length, length);
        StoredContent stored = store(content).get(0);
        assertThat(stored.length()).isEqualTo(length);
        assertThat(read(stored)).isEqualTo(content);
        ContentScan scan = ContentScan.of(Channels.newChannel(new ByteArrayInputStream(content)));
        assertThat(ContentScan.of(content)).as("in memory").isEqualTo(scan);
        try (Reading reading = vault.read()) {
            assertThat(stored.digest()).isEqualTo(scan.digest());
            assertThat(reading.contents().sha256(stored.recipe()).bytes())
                    .isEqualTo(Digest.sha256().digest(content));
        }
    }

    @Test
    void whatCanBeCompressedIsAndWhatCannotIsStoredAsItIs() throws IOException {
        store(new byte[1_000_000]);
        assertThat(packs()).as("a million zeros").isLessThan(10_000);
        long before = packs();
        store(noise(1_000_000, 1));
        assertThat(packs() - before).isBetween(1_000_000L, 1_010_000L);
    }

    private long packs() throws IOException {
        return Files.size(vault.folder().pack(1));
    }

    @Test
    void aPictureInADocumentIsStoredOnceHoweverTheTextBeforeItChanges() throws IOException {
        byte[] picture = noise(300_000, 9);
        store(document("a short text", picture));
        long before = packs();
        store(document("another text, longer than the first one was, and not at all the same", picture));
        assertThat(packs() - before).isLessThan(20_000);
    }

    private static byte[] document(String text, byte[] picture) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write(text.repeat(50).getBytes(java.nio.charset.StandardCharsets.UTF_8));
            ZipEntry stored = new ZipEntry("picture.jpg");
            stored.setTimeLocal(java.time.LocalDateTime.of(2026, 1, 1, 0, 0));
            zip.putNextEntry(stored);
            zip.write(picture);
        }
        return out.toByteArray();
    }

    @Test
    void equalContentsHaveEqualRecipesWithinOneSessionAndAcross() throws IOException {
        byte[] content = noise(500_000, 4);
        List<StoredContent> twice = store(content, content.clone());
        assertThat(twice.get(1).recipe()).isEqualTo(twice.get(0).recipe());
        assertThat(store(content).get(0).recipe()).isEqualTo(twice.get(0).recipe());
    }

    @Test
    void whatWasNotCommittedIsGoneWithItsSession() throws IOException {
        store(noise(1000, 1));
        long before = packs();
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            worker.store(Channels.newChannel(new ByteArrayInputStream(noise(3_000_000, 2))), n -> {});
        }
        vault.write().close();
        assertThat(packs()).as("cut back to the last commit").isEqualTo(before);
        assertThat(read(store(noise(3_000_000, 2)).get(0))).isEqualTo(noise(3_000_000, 2));
    }

    @Test
    void aPackThatHasGrownLargeIsSealedAndTheNextOneBegun() throws Exception {
        List<StoredContent> stored = new ArrayList<>();
        java.util.Properties wal = new java.util.Properties();
        wal.setProperty("journal_mode", "WAL");
        String url = "jdbc:sqlite:" + vault.folder().catalogue().toUri();
        for (int i = 0; i < 4; i++) {
            try (java.sql.Connection db = java.sql.DriverManager.getConnection(url, wal)) {
                db.setAutoCommit(false);
                try (ChunkWriter writer = new ChunkWriter(
                                vault.folder(),
                                ChannelOpener.FILES,
                                db,
                                () -> connection(url),
                                new ChunkIndexCache(),
                                (n, log) -> {},
                                200_000);
                        ContentWorker worker = new ContentWorker(writer)) {
                    stored.add(worker.store(Channels.newChannel(new ByteArrayInputStream(noise(150_000, i))), n -> {}));
                    ChunkWriter.Flushed flushed = writer.flush(new byte[0]);
                    db.commit();
                    writer.committed(flushed);
                }
            }
        }
        assertThat(vault.folder().packNumbers()).hasSizeGreaterThan(2);
        for (int i = 0; i < stored.size(); i++) {
            assertThat(read(stored.get(i))).isEqualTo(noise(150_000, i));
        }
        assertThat(new org.mendedleaf.core.check.VaultCheck(vault)
                        .run(true, org.mendedleaf.core.jobs.Progress.NONE)
                        .isClean())
                .isTrue();
    }

    private static java.sql.Connection connection(String url) {
        try {
            return java.sql.DriverManager.getConnection(url);
        } catch (java.sql.SQLException e) {
            throw new IllegalStateException(e);
        }
    }
}
