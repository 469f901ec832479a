package org.mendedleaf.core.vault;

import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.Iterator;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.stream.IntStream;

/** Where the chunks of one pack lie in it, in the order of their offsets. There may be a million: each takes 56 bytes. */
public final class PackChunks implements Iterable<ChunkPlace> {

    /** Of a pack of which nobody knows anything. */
    public static final PackChunks NONE = new Builder(0).build();

    private final long pack;
    private final int size;
    private final long[] ids;
    private final long[] offsets;
    private final int[] stored;
    private final int[] lengths;
    private final byte[] digests;

    private PackChunks(Builder all) {
        pack = all.pack;
        size = all.size;
        ids = all.ids;
        offsets = all.offsets;
        stored = all.stored;
        lengths = all.lengths;
        digests = all.digests;
    }

    /** Gathers them, in any order. */
    public static final class Builder {
        private static final int FIRST = 64;

        private final long pack;
        private int size;
        private boolean sorted = true;
        private long[] ids = new long[0];
        private long[] offsets = ids;
        private int[] stored = new int[0];
        private int[] lengths = stored;
        private byte[] digests = new byte[0];

        /** Of the pack with this number. */
        public Builder(long pack) {
            this.pack = pack;
        }

        /** As {@link ChunkPlace} has them; of two with the same offset the later one counts. */
        public Builder add(long id, long offset, int storedBytes, int length, byte[] digest) {
            if (digest.length != Digest.LENGTH) {
                throw new IllegalArgumentException("expected a digest, got " + digest.length + " bytes");
            }
            if (size == ids.length) {
                room(Math.max(FIRST, size + (size >> 1)));
            }
            sorted &= size == 0 || offsets[size - 1] < offset;
            ids[size] = id;
            offsets[size] = offset;
            stored[size] = storedBytes;
            lengths[size] = length;
            System.arraycopy(digest, 0, digests, size * Digest.LENGTH, Digest.LENGTH);
            size++;
            return this;
        }

        /** Adds one. */
        public Builder add(ChunkPlace c) {
            return add(c.id(), c.offset(), c.storedBytes(), c.length(), c.digest());
        }

        private void room(int many) {
            ids = Arrays.copyOf(ids, many);
            offsets = Arrays.copyOf(offsets, many);
            stored = Arrays.copyOf(stored, many);
            lengths = Arrays.copyOf(lengths, many);
            digests = Arrays.copyOf(digests, Math.multiplyExact(many, Digest.LENGTH));
        }

        /** Those that were added; nothing more is to be added then. */
        public PackChunks build() {
            return sorted ? new PackChunks(this) : new PackChunks(sorted());
        }

        private Builder sorted() {
            Builder all = new Builder(pack);
            PackChunks mine = new PackChunks(this);
            int[] order = IntStream.range(0, size)
                    .boxed()
                    .sorted(Comparator.comparingLong(i -> offsets[i]))
                    .mapToInt(i -> i)
                    .toArray();
            for (int i = 0; i < size; i++) {
                boolean replaced = i + 1 < size && offsets[order[i + 1]] == offsets[order[i]];
                if (!replaced) {
                    all.add(mine.place(order[i]));
                }
            }
            return all;
        }
    }

    /** Of these. */
    public static PackChunks of(long pack, Collection<ChunkPlace> some) {
        Builder all = new Builder(pack);
        some.forEach(all::add);
        return all.build();
    }

    /** These, and of others those that lie at other offsets. */
    public PackChunks and(PackChunks others) {
        Builder all = new Builder(others.size == 0 ? pack : others.pack);
        others.forEach(all::add);
        forEach(all::add);
        return all.build();
    }

    /** How many. */
    public int size() {
        return size;
    }

    /** Where the chunk with this index lies, from 0, in the order of the offsets. */
    public ChunkPlace place(int index) {
        int from = index * Digest.LENGTH;
        return new ChunkPlace(
                id(index),
                pack,
                offset(index),
                stored[index],
                lengths[index],
                Arrays.copyOfRange(digests, from, from + Digest.LENGTH));
    }

    long id(int index) {
        return ids[inRange(index)];
    }

    long offset(int index) {
        return offsets[inRange(index)];
    }

    private int inRange(int index) {
        if (index >= size) {
            throw new IndexOutOfBoundsException(index);
        }
        return index;
    }

    /** Index of the chunk that lies there; negative when none does. */
    int indexOf(long offset) {
        return Arrays.binarySearch(offsets, 0, size, offset);
    }

    /** The chunk that lies there. */
    public Optional<ChunkPlace> at(long offset) {
        int index = indexOf(offset);
        return index < 0 ? Optional.empty() : Optional.of(place(index));
    }

    /** Offset of the first chunk that lies there or behind it; the highest number when none does. */
    long next(long offset) {
        int index = indexOf(offset);
        int next = index < 0 ? -index - 1 : index;
        return next == size ? Long.MAX_VALUE : offsets[next];
    }

    /** Whether the head of a record says the same as is known of the chunk with this index. */
    boolean says(int index, PackRecord head) {
        int from = index * Digest.LENGTH;
        return id(index) == head.id()
                && offset(index) == head.offset()
                && stored[index] == head.storedBytes()
                && lengths[index] == head.length()
                && Arrays.equals(digests, from, from + Digest.LENGTH, head.digest(), 0, Digest.LENGTH);
    }

    /** Whether all is the same, whatever pack it is of. */
    boolean sameAs(PackChunks other) {
        return size == other.size
                && Arrays.equals(ids, 0, size, other.ids, 0, size)
                && Arrays.equals(offsets, 0, size, other.offsets, 0, size)
                && Arrays.equals(stored, 0, size, other.stored, 0, size)
                && Arrays.equals(lengths, 0, size, other.lengths, 0, size)
                && Arrays.equals(digests, 0, size * Digest.LENGTH, other.digests, 0, size * Digest.LENGTH);
    }

    @Override
    public Iterator<ChunkPlace> iterator() {
        return new Iterator<>() {
            private int at;

            @Override
            public boolean hasNext() {
                return at < size;
            }

            @Override
            public ChunkPlace next() {
                if (at >= size) {
                    throw new NoSuchElementException();
                }
                return place(at++);
            }
        };
    }
}
