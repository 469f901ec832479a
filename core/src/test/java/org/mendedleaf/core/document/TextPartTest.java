package org.mendedleaf.core.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TextPartTest {

    private static TextPart.Bytes of(byte[] all) {
        return (from, most) ->
                Arrays.copyOfRange(all, (int) Math.min(all.length, from), (int) Math.min(all.length, from + most));
    }

    private static List<String> parts(byte[] all) throws IOException {
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < TextPart.count(all.length); i++) {
            lines.addAll(TextPart.read(of(all), all.length, i).lines());
        }
        return lines;
    }

    private static String text(int letters) {
        Random random = new Random(2);
        StringBuilder text = new StringBuilder();
        while (text.length() < letters) {
            for (int i = random.nextInt(90); i > 0; i--) {
                text.append(
                        random.nextInt(7) == 0 ? "ä€ 漢".charAt(random.nextInt(4)) : (char) ('a' + random.nextInt(26)));
            }
            text.append('\n');
        }
        return text.toString();
    }

    @ParameterizedTest
    @ValueSource(strings = {"UTF-8", "UTF-16", "UTF-16LE", "UTF-32"})
    void allPartsTogetherAreTheWholeTextInWhateverEncoding(String name) throws IOException {
        String text = text(1_600_000);
        // UTF-16LE is told by its mark only, as programs write it.
        byte[] all = (name.endsWith("LE") ? "\uFEFF" + text : text).getBytes(Charset.forName(name));
        assertThat(TextPart.count(all.length)).isGreaterThan(1);
        List<String> whole = text.lines().toList();
        List<String> parts = parts(name.equals("UTF-32") ? marked(all) : all);
        assertThat(parts.size()).isEqualTo(whole.size());
        assertThat(parts).isEqualTo(whole);
    }

    private static byte[] marked(byte[] utf32) {
        byte[] all = new byte[utf32.length + 4];
        all[2] = (byte) 0xFE;
        all[3] = (byte) 0xFF;
        System.arraycopy(utf32, 0, all, 4, utf32.length);
        return all;
    }

    @Test
    void aLineThatIsLongerThanAPartIsDividedAndNothingIsLost() throws IOException {
        byte[] all = ("short\n" + "x".repeat(3 * TextPart.SIZE) + "\nend\n").getBytes(StandardCharsets.US_ASCII);
        List<String> lines = parts(all);
        assertThat(lines.get(0)).isEqualTo("short");
        assertThat(lines.get(lines.size() - 1)).isEqualTo("end");
        assertThat(String.join("", lines)).hasSize("short".length() + 3 * TextPart.SIZE + "end".length());
    }

    @Test
    void aPartThatIsNotThereAndWhatIsNoTextAreSaidInWords() {
        byte[] small = "a\nb\n".getBytes(StandardCharsets.US_ASCII);
        assertThatThrownBy(() -> TextPart.read(of(small), small.length, 1)).hasMessageContaining("There is no part 2");
        byte[] noise = new byte[2 * TextPart.SIZE];
        assertThatThrownBy(() -> TextPart.read(of(noise), noise.length, 1)).hasMessageContaining("no text");
        assertThat(TextPart.count(0)).isEqualTo(1);
        assertThat(TextPart.count(TextPart.SIZE)).isEqualTo(1);
        assertThat(TextPart.count(TextPart.SIZE + 1L)).isEqualTo(2);
    }
}
