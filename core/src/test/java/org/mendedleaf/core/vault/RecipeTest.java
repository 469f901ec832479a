package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class RecipeTest {

    @Property
    void aRecipeIsReadAsItWasWritten(@ForAll List<@LongRange(min = 1, max = 1L << 40) Long> ids) throws Exception {
        Recipe.Builder builder = new Recipe.Builder();
        ids.forEach(builder::add);
        Recipe recipe = builder.build();
        assertThat(Recipe.decode(recipe.encode())).isEqualTo(recipe);
        List<Long> again = new ArrayList<>();
        for (Recipe.Run run : recipe.runs()) {
            for (int i = 0; i < run.count(); i++) {
                again.add(run.first() + i);
            }
        }
        assertThat(again).isEqualTo(ids);
    }

    @Property
    void everyNumberSurvives(@ForAll long n) {
        ByteBuffer buffer = ByteBuffer.allocate(40);
        Varint.put(buffer, n);
        Varint.putSigned(buffer, n);
        buffer.flip();
        assertThat(Varint.get(buffer)).isEqualTo(n);
        assertThat(Varint.getSigned(buffer)).isEqualTo(n);
    }

    @Test
    void neighbouringChunksTakeTwoNumbers() {
        Recipe.Builder builder = new Recipe.Builder();
        for (long id = 1000; id < 2000; id++) {
            builder.add(id);
        }
        assertThat(builder.build().encode()).hasSizeLessThan(6);
    }

    @Test
    void anUnknownKindOfSegmentIsRefused() {
        assertThatThrownBy(() -> Recipe.decode(new byte[] {5, 2})).isInstanceOf(VaultException.Damaged.class);
    }

    @Test
    void aTornRecipeIsRefused() {
        assertThatThrownBy(() -> Recipe.decode(new byte[] {(byte) 0x84, (byte) 0x80}))
                .isInstanceOf(VaultException.Damaged.class);
    }

    @Test
    void aContentThatIsElsewhereIsSaidToBeAndCannotBeRead() throws Exception {
        byte[] encoded = Recipe.ELSEWHERE.encode();
        assertThat(encoded).containsExactly(3);
        assertThat(Recipe.decode(encoded).isElsewhere()).isTrue();
        assertThat(Recipe.EMPTY.isElsewhere()).isFalse();
        assertThat(Recipe.decode(new byte[0])).isEqualTo(Recipe.EMPTY);
    }
}
