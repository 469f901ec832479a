package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import org.junit.jupiter.api.Test;

/** No more of a content is taken than its system said it has. */
class SizedOutputTest {

    private final ByteArrayOutputStream taken = new ByteArrayOutputStream();

    private SizedOutput of(long size) {
        return new SizedOutput(taken, "far:files", size);
    }

    @Test
    void asMuchAsWasAnnouncedIsTaken() throws IOException {
        try (SizedOutput out = of(5)) {
            out.write('a');
            out.write("bcd".getBytes(java.nio.charset.StandardCharsets.US_ASCII));
            out.write("xey".getBytes(java.nio.charset.StandardCharsets.US_ASCII), 1, 1);
        }
        assertThat(taken).hasToString("abcde");
    }

    @Test
    void oneByteMoreIsRefusedAndNothingOfItIsWritten() throws IOException {
        SizedOutput out = of(2);
        out.write('a');
        assertThatThrownBy(() -> out.write(new byte[2]))
                .isInstanceOf(SystemException.Garbled.class)
                .hasMessageContaining("far:files sent more than the 2 B");
        assertThat(taken).hasToString("a");
        assertThatThrownBy(() -> of(0).write('a')).isInstanceOf(SystemException.Garbled.class);
    }

    @Test
    void withoutAnAnnouncementAllOfItIsTaken() throws IOException {
        try (SizedOutput out = of(-1)) {
            out.write(new byte[100_000]);
        }
        assertThat(taken.size()).isEqualTo(100_000);
    }

    @Test
    void lessThanAnnouncedIsForOthersToSay() throws IOException {
        try (SizedOutput out = of(10)) {
            out.write('a');
        }
        assertThat(taken.size()).isEqualTo(1);
    }
}
