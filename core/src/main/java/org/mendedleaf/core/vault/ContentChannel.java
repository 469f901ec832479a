package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.ClosedChannelException;
import java.nio.channels.NonWritableChannelException;
import java.nio.channels.SeekableByteChannel;
import java.util.List;

/** A content of the vault that is stored as it is, as a channel that can be read at any place. One thread at a time. */
final class ContentChannel implements SeekableByteChannel {

    private final List<ChunkPlace> places;
    private final Chunks chunks;
    private final long[] begins;
    private byte[] chunk = {};
    private int loaded = -1;
    private long position;
    private boolean open = true;

    /** Reads a chunk. */
    @FunctionalInterface
    interface Chunks {
        byte[] read(ChunkPlace place) throws IOException;
    }

    ContentChannel(List<ChunkPlace> places, Chunks chunks) {
        this.places = places;
        this.chunks = chunks;
        this.begins = new long[places.size() + 1];
        for (int i = 0; i < places.size(); i++) {
            begins[i + 1] = begins[i] + places.get(i).length();
        }
    }

    @Override
    public int read(ByteBuffer into) throws IOException {
        if (!open) {
            throw new ClosedChannelException();
        }
        if (position >= size()) {
            return -1;
        }
        int n = 0;
        while (into.hasRemaining() && position < size()) {
            load();
            int from = (int) (position - begins[loaded]);
            int length = Math.min(into.remaining(), chunk.length - from);
            into.put(chunk, from, length);
            position += length;
            n += length;
        }
        return n;
    }

    /** The chunk in which the position lies. */
    private void load() throws IOException {
        if (loaded >= 0 && position >= begins[loaded] && position < begins[loaded + 1]) {
            return;
        }
        int found = java.util.Arrays.binarySearch(begins, position);
        int index = found >= 0 ? found : -found - 2;
        chunk = chunks.read(places.get(index));
        loaded = index;
    }

    @Override
    public long position() {
        return position;
    }

    @Override
    public SeekableByteChannel position(long to) {
        position = to;
        return this;
    }

    @Override
    public long size() {
        return begins[places.size()];
    }

    @Override
    public int write(ByteBuffer from) {
        throw new NonWritableChannelException();
    }

    @Override
    public SeekableByteChannel truncate(long size) {
        throw new NonWritableChannelException();
    }

    @Override
    public boolean isOpen() {
        return open;
    }

    @Override
    public void close() {
        open = false;
    }
}
