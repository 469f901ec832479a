package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.vault.Documents.document;
import static org.mendedleaf.core.vault.Documents.noise;
import static org.mendedleaf.core.vault.Documents.text;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.catalogue.Reading;

class UnfoldingTest extends UnfoldingVault {

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
    void aPictureIsStoredOnceThoughItsHeaderSaysAnotherTimeAtEachSave() throws IOException {
        byte[] picture = noise(2, 300_000);
        store(document(6, text(1, 3000), picture, 0));
        assertThat(added(document(6, text(5, 3000), picture, 60))).isLessThan(20_000);
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
}
