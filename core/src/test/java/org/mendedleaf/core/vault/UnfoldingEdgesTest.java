package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mendedleaf.core.vault.Documents.document;
import static org.mendedleaf.core.vault.Documents.noise;
import static org.mendedleaf.core.vault.Documents.text;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.WriteSession;

/** What becomes of documents that are large, damaged, changing or made to do harm. */
class UnfoldingEdgesTest extends UnfoldingVault {

    @Test
    void aDocumentIsStoredAsItComesAndSaysThatItCanPerhapsBeUnfolded() throws IOException {
        byte[] document = document(6, text(1, 30_000), noise(1, 10), 0);
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            StoredContent stored = worker.store(new SeekableInMemoryByteChannel(document), n -> {});
            StoredContent words = worker.store(new SeekableInMemoryByteChannel(text(1, 30_000)), n -> {});
            session.commit();
            assertThat(stored.recipe().unfolded()).isEmpty();
            assertThat(List.of(stored.mayUnfold(), words.mayUnfold())).containsExactly(true, false);
            assertThat(read(stored.recipe())).isEqualTo(document);
        }
    }

    @Test
    void ofAnArchiveThatInflatesToVeryMuchOnlySoMuchIsTried() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (java.util.zip.ZipOutputStream zip = new java.util.zip.ZipOutputStream(out)) {
            for (int i = 0; i < 2; i++) {
                zip.putNextEntry(new java.util.zip.ZipEntry("zeros" + i));
                zip.write(new byte[33 << 20]);
            }
        }
        StoredContent stored = store(out.toByteArray());
        assertThat(stored.recipe().unfolded().orElseThrow().parts().stream().filter(p -> p instanceof Recipe.Member))
                .hasSize(1);
        assertThat(read(stored.recipe())).isEqualTo(out.toByteArray());
    }

    @Test
    void aLargeDocumentIsUnfoldedFromAFileAndStoredAsItIsFromAStream() throws IOException {
        byte[] document = document(6, text(1, 20_000), noise(2, 2_500_000), 0);
        StoredContent file = store(document);
        assertThat(file.recipe().unfolded()).isPresent();
        assertThat(read(file.recipe())).isEqualTo(document);
        StoredContent stream = store(Channels.newChannel(new ByteArrayInputStream(document)));
        assertThat(stream.recipe().unfolded()).isEmpty();
        assertThat(read(stream.recipe())).isEqualTo(document);
    }

    @Test
    void anArchiveMadeToTakeForEverIsStoredAsItIsAfterAWhile() throws Exception {
        byte[] ab = new byte[1 << 19];
        Random random = new Random(1);
        for (int i = 0; i < ab.length; i++) {
            ab[i] = (byte) (random.nextBoolean() ? 'a' : 'b');
        }
        // Deflated in a way that none of the settings gives again: each of them is tried to where it differs.
        java.util.zip.Deflater deflater = new java.util.zip.Deflater(9, true);
        deflater.setInput(ab);
        deflater.finish();
        byte[] deflated = new byte[ab.length];
        int length = deflater.deflate(deflated);
        deflater.end();
        byte[] archive = Documents.oneMember(Arrays.copyOf(deflated, length), ab.length);
        java.lang.management.ThreadMXBean threads = java.lang.management.ManagementFactory.getThreadMXBean();
        long before = threads.getCurrentThreadCpuTime();
        StoredContent stored = store(archive);
        long took = threads.getCurrentThreadCpuTime() - before;
        assertThat(stored.length()).isEqualTo(archive.length);
        // Its bound is less than a second of trying.
        assertThat(Duration.ofNanos(took)).isLessThan(Duration.ofSeconds(3));
    }

    @Test
    void aDocumentThatChangesWhileItIsReadIsStoredAsItWasRead() throws IOException {
        byte[] picture = noise(2, 2_500_000);
        byte[] before = document(6, text(1, 60_000), picture, 0);
        byte[] now = before.clone();
        for (int i = 60; i < 80; i++) {
            now[i] ^= 1;
        }
        now[now.length - 30_000] ^= 1;
        StoredContent stored = store(new Restless(before, now));
        assertThat(read(stored.recipe())).isEqualTo(now);
        byte[] shorter = Arrays.copyOf(now, 2_540_000);
        stored = store(new Restless(before, shorter));
        assertThat(read(stored.recipe())).isEqualTo(shorter);
        byte[] longer = Arrays.copyOf(now, now.length + 50_000);
        stored = store(new Restless(before, longer));
        assertThat(read(stored.recipe())).isEqualTo(longer);
    }

    @Test
    void tenSmallEditsOfALongTextTakeATenthOfWhatCopiesTake() throws IOException {
        byte[] text = text(3, 200_000);
        long full = 0;
        long stored = 0;
        for (int i = 0; i <= 10; i++) {
            byte[] sentence = (" a sentence that came " + i).getBytes(StandardCharsets.US_ASCII);
            int at = (int) (text.length * (i * 37L % 100) / 100);
            ByteBuffer next = ByteBuffer.allocate(text.length + sentence.length);
            text = next.put(text, 0, at)
                    .put(sentence)
                    .put(text, at, text.length - at)
                    .array();
            byte[] document = document(6, text, noise(1, 10), i);
            full += document.length;
            stored += added(document);
        }
        assertThat((double) stored / full).isLessThan(0.12);
    }

    @Test
    void damagedArchivesComeBackBitForBitHoweverTheyAreStored() throws IOException {
        byte[] sound = document(6, text(1, 6000), noise(2, 9000), 0);
        Random random = new Random(8);
        List<StoredContent> stored = new ArrayList<>();
        List<byte[]> contents = new ArrayList<>();
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            for (int i = 0; i < 80; i++) {
                byte[] broken = i % 4 == 0 ? Arrays.copyOf(sound, random.nextInt(sound.length)) : sound.clone();
                int most = i % 2 == 0 ? broken.length : Math.min(broken.length, 500);
                for (int k = 0; k < 1 + i % 3 && most > 0; k++) {
                    int at = random.nextInt(most);
                    broken[i % 4 == 1 ? broken.length - 1 - at : at] = (byte) random.nextInt();
                }
                contents.add(broken);
                stored.add(worker.store(new SeekableInMemoryByteChannel(broken), n -> {}));
            }
            session.commit();
        }
        long unfolded = 0;
        for (int i = 0; i < contents.size(); i++) {
            Recipe recipe = unfold(stored.get(i)).recipe();
            assertThat(read(recipe)).isEqualTo(contents.get(i));
            unfolded += recipe.unfolded().isPresent() ? 1 : 0;
        }
        assertThat(unfolded).as("some of them could be").isBetween(8L, 79L);
    }

    /** Gives another content to who reads from front to back than to who looks here and there. */
    private static final class Restless extends SeekableInMemoryByteChannel {
        private final byte[] now;
        private final long size;
        private int sequential;

        Restless(byte[] before, byte[] now) {
            super(before);
            this.now = now;
            this.size = before.length;
        }

        @Override
        public int read(ByteBuffer into) throws IOException {
            if (position() != Math.min(size, sequential)) {
                return super.read(into);
            }
            if (sequential >= now.length) {
                return -1;
            }
            int n = Math.min(into.remaining(), now.length - sequential);
            into.put(now, sequential, n);
            sequential += n;
            position(Math.min(size, sequential));
            return n;
        }
    }
}
