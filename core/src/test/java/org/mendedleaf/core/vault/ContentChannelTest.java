package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.ClosedChannelException;
import java.nio.channels.NonWritableChannelException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** A content of several chunks, read as a file is. */
class ContentChannelTest {

    private final byte[] content = Documents.noise(5, 10_000);
    private final List<ChunkPlace> places = new ArrayList<>();

    private ContentChannel channel(int... lengths) {
        long at = 0;
        for (int length : lengths) {
            places.add(new ChunkPlace(places.size() + 1, 1, at, length, length, new byte[Digest.LENGTH]));
            at += length;
        }
        return new ContentChannel(
                places, p -> Arrays.copyOfRange(content, (int) p.offset(), (int) p.offset() + p.length()));
    }

    @Test
    void anyStretchIsWhatStandsThere() throws IOException {
        ContentChannel channel = channel(1, 4000, 999, 3000, 2000);
        assertThat(channel.size()).isEqualTo(10_000);
        Random random = new Random(6);
        for (int i = 0; i < 500; i++) {
            int from = random.nextInt(10_000);
            int length = 1 + random.nextInt(10_000 - from);
            ByteBuffer into = ByteBuffer.allocate(length);
            assertThat(channel.position(from).read(into)).isEqualTo(length);
            assertThat(into.array()).isEqualTo(Arrays.copyOfRange(content, from, from + length));
            assertThat(channel.position()).isEqualTo(from + length);
        }
    }

    @Test
    void behindTheEndThereIsNothing() throws IOException {
        ContentChannel channel = channel(6000, 4000);
        ByteBuffer into = ByteBuffer.allocate(50);
        assertThat(channel.position(9_980).read(into)).isEqualTo(20);
        assertThat(channel.read(into)).isEqualTo(-1);
        assertThat(channel.position(20_000).read(into)).isEqualTo(-1);
        assertThat(channel().read(ByteBuffer.allocate(1))).isEqualTo(places.isEmpty() ? -1 : 1);
    }

    @Test
    void itIsForReadingOnlyAndNotAfterItWasClosed() throws IOException {
        ContentChannel channel = channel(100);
        assertThatThrownBy(() -> channel.write(ByteBuffer.allocate(1))).isInstanceOf(NonWritableChannelException.class);
        assertThatThrownBy(() -> channel.truncate(1)).isInstanceOf(NonWritableChannelException.class);
        channel.close();
        assertThat(channel.isOpen()).isFalse();
        assertThatThrownBy(() -> channel.read(ByteBuffer.allocate(1))).isInstanceOf(ClosedChannelException.class);
    }
}
