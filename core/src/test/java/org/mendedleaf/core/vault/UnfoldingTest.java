package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.vault.Documents.document;
import static org.mendedleaf.core.vault.Documents.noise;
import static org.mendedleaf.core.vault.Documents.text;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.ReadableByteChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;

class UnfoldingTest {

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

    private StoredContent store(ReadableByteChannel content) throws IOException {
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            StoredContent stored = worker.store(content, n -> {});
            session.commit();
            return stored;
        }
    }

    private StoredContent store(byte[] content) throws IOException {
        return store(new SeekableInMemoryByteChannel(content));
    }

    private byte[] read(Recipe recipe) throws IOException {
        try (Reading reading = vault.read()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            reading.contents().copy(recipe, Channels.newChannel(out));
            return out.toByteArray();
        }
    }

    private long added(byte[] content) throws IOException {
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            worker.store(new SeekableInMemoryByteChannel(content), n -> {});
            session.commit();
            return session.chunks().addedBytes();
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 9})
    void aDocumentIsStoredInflatedAndComesBackBitForBit(int level) throws IOException {
        byte[] document = document(level, text(1, 30_000), noise(2, 50_000), 0);
        StoredContent stored = store(document);
        Recipe.Unfolded unfolded = stored.recipe().unfolded().orElseThrow();
        assertThat(unfolded.parts().stream().filter(p -> p instanceof Recipe.Member))
                .as("meta, styles and content")
                .hasSize(3);
        assertThat(read(stored.recipe())).isEqualTo(document);
        assertThat(Recipe.decode(stored.recipe().encode())).isEqualTo(stored.recipe());
        assertThat(stored.digest())
                .as("the digest is that of the document, however it is stored")
                .isEqualTo(ContentScan.of(new SeekableInMemoryByteChannel(document))
                        .digest());
        try (Reading reading = vault.read()) {
            assertThat(reading.contents().sha256(stored.recipe()).bytes())
                    .isEqualTo(Digest.sha256().digest(document));
            assertThat(reading.contents().head(stored.recipe(), 40_000)).isEqualTo(Arrays.copyOf(document, 40_000));
            assertThat(reading.contents().parts(stored.recipe()).stretches().stream()
                            .mapToInt(ContentParts.Stretch::length)
                            .sum())
                    .isEqualTo(document.length);
        }
    }

    @Test
    void theSameDocumentIsStoredOnceAndAgainUnderTheSameRecipe() throws IOException {
        byte[] document = document(6, text(1, 30_000), noise(2, 50_000), 0);
        Recipe first = store(document).recipe();
        assertThat(added(document)).isZero();
        assertThat(store(document).recipe()).isEqualTo(first);
    }

    @Test
    void tenSmallEditsOfALongTextTakeATenthOfWhatCopiesTake() throws IOException {
        byte[] text = text(3, 180_000);
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
    void ofAGreatManyAtOnceTheLastAreStoredAsTheyAreAndUnfoldedAtTheNextSave() throws IOException {
        byte[] large = document(1, new byte[62 << 20], noise(1, 10), 0);
        byte[] next = document(6, text(1, 400_000), noise(1, 10), 0);
        byte[] last = document(6, text(2, 30_000), noise(1, 10), 0);
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            List<Boolean> unfolded = new ArrayList<>();
            for (byte[] d : List.of(large, next, last)) {
                Recipe recipe = worker.store(new SeekableInMemoryByteChannel(d), n -> {})
                        .recipe();
                unfolded.add(recipe.unfolded().isPresent());
            }
            session.commit();
            assertThat(unfolded).containsExactly(true, true, false);
        }
        assertThat(store(last).recipe().unfolded()).isPresent();
    }

    @Test
    void ofAnArchiveThatInflatesToVeryMuchOnlySoMuchIsTried() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (java.util.zip.ZipOutputStream zip = new java.util.zip.ZipOutputStream(out)) {
            for (int i = 0; i < 4; i++) {
                zip.putNextEntry(new java.util.zip.ZipEntry("zeros" + i));
                zip.write(new byte[30 << 20]);
            }
        }
        StoredContent stored = store(out.toByteArray());
        assertThat(stored.recipe().unfolded().orElseThrow().parts().stream().filter(p -> p instanceof Recipe.Member))
                .hasSize(2);
        assertThat(read(stored.recipe())).isEqualTo(out.toByteArray());
    }

    @Test
    void aPictureIsStoredOnceThoughItsHeaderSaysAnotherTimeAtEachSave() throws IOException {
        byte[] picture = noise(2, 300_000);
        store(document(6, text(1, 3000), picture, 0));
        assertThat(added(document(6, text(5, 3000), picture, 60))).isLessThan(20_000);
    }

    @Test
    void aLargeDocumentIsUnfoldedFromAFileAndStoredAsItIsFromAStream() throws IOException {
        byte[] document = document(6, text(1, 900_000), noise(2, 2_500_000), 0);
        StoredContent file = store(document);
        assertThat(file.recipe().unfolded()).isPresent();
        assertThat(read(file.recipe())).isEqualTo(document);
        StoredContent stream = store(Channels.newChannel(new ByteArrayInputStream(document)));
        assertThat(stream.recipe().unfolded()).isEmpty();
        assertThat(read(stream.recipe())).isEqualTo(document);
    }

    @Test
    void anEncoderThatNobodyHereKnowsLeavesTheDocumentAsItIs() throws IOException {
        // Two settings in one member: no encoder does that by itself.
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        java.util.zip.Deflater deflater = new java.util.zip.Deflater(1, true);
        byte[] text = text(1, 20_000);
        byte[] buffer = new byte[200_000];
        deflater.setInput(text, 0, text.length / 2);
        bytes.write(buffer, 0, deflater.deflate(buffer, 0, buffer.length, java.util.zip.Deflater.SYNC_FLUSH));
        deflater.setLevel(9);
        deflater.setInput(text, text.length / 2, text.length - text.length / 2);
        deflater.finish();
        bytes.write(buffer, 0, deflater.deflate(buffer, 0, buffer.length, java.util.zip.Deflater.NO_FLUSH));
        deflater.end();
        byte[] document = Documents.oneMember(bytes.toByteArray(), text.length);
        StoredContent stored = store(document);
        assertThat(stored.recipe().unfolded()).isEmpty();
        assertThat(read(stored.recipe())).isEqualTo(document);
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
            assertThat(read(stored.get(i).recipe())).isEqualTo(contents.get(i));
            unfolded += stored.get(i).recipe().unfolded().isPresent() ? 1 : 0;
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
    void aDamagedPieceOfWhatWasInflatedIsNamedAndNothingFalseIsHandedOut() throws IOException {
        StoredContent stored = store(document(6, text(1, 30_000), noise(2, 50_000), 0));
        Recipe.Member member = stored.recipe().unfolded().orElseThrow().parts().stream()
                .filter(p -> p instanceof Recipe.Member m && m.runs().size() > 0)
                .map(Recipe.Member.class::cast)
                .reduce((a, b) -> b)
                .orElseThrow();
        ChunkPlace place;
        try (Reading reading = vault.read()) {
            place = reading.contents().places(new Recipe(member.runs())).get(0);
        }
        try (RandomAccessFile pack = new RandomAccessFile(vault.folder().pack(1).toFile(), "rw")) {
            pack.seek(place.offset() + 60);
            int was = pack.read();
            pack.seek(place.offset() + 60);
            pack.write(was ^ 1);
        }
        assertThatThrownBy(() -> read(stored.recipe())).isInstanceOf(VaultException.Damaged.class);
    }

    @Test
    void aRecipeThatMakesSomethingElseIsRefused() throws IOException {
        StoredContent stored = store(document(6, text(1, 30_000), noise(2, 50_000), 0));
        Recipe.Unfolded u = stored.recipe().unfolded().orElseThrow();
        List<Recipe.Part> others = new ArrayList<>(u.parts());
        others.replaceAll(p -> p instanceof Recipe.Member m
                ? new Recipe.Member(
                        new org.mendedleaf.core.deflate.DeflateSettings(
                                1, m.settings().encoder()),
                        m.runs(),
                        m.length(),
                        m.deflated())
                : p);
        Recipe wrong = Recipe.of(new Recipe.Unfolded(u.frame(), others, u.made(), u.seal()));
        assertThatThrownBy(() -> read(wrong)).isInstanceOf(VaultException.Damaged.class);
        Recipe less = Recipe.of(
                new Recipe.Unfolded(u.frame(), u.parts().subList(0, u.parts().size() - 1), u.made(), u.seal()));
        assertThatThrownBy(() -> read(less)).isInstanceOf(VaultException.Damaged.class);
    }

    @Test
    void theListOfChunksOfAnUnfoldedDocumentIsWhatItNeeds() throws IOException {
        Recipe recipe = store(document(6, text(1, 30_000), noise(2, 50_000), 0)).recipe();
        Recipe listed = Recipe.decode(Recipe.listed(recipe.encode()));
        assertThat(listed.unfolded()).isEmpty();
        assertThat(listed.runs()).isEqualTo(recipe.runs());
        byte[] plain = new Recipe(List.of(new Recipe.Run(4, 2))).encode();
        assertThat(Recipe.listed(plain)).isSameAs(plain);
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
}
