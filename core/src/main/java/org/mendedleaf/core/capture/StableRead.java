package org.mendedleaf.core.capture;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.ReadableByteChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import java.util.Optional;
import java.util.function.LongConsumer;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.StoredContent;

/** Reads a file or link into the vault such that it is not stored torn: what changes meanwhile is read again. */
final class StableRead {

    private static final int TRIES = 3;

    private StableRead() {}

    /**
     * A file that was read whole.
     *
     * @param content that is in the vault
     * @param entry what the file was
     * @param owner of the file
     */
    record Whole(StoredContent content, DiskEntry entry, String owner) {}

    /** What a link points to is no text: the platform gives it garbled. */
    static final class NoTextException extends IOException {
        private static final long serialVersionUID = 1;
    }

    /**
     * Reads it.
     *
     * @param type that it must have
     * @param read told the number of bytes after each part
     * @return empty when it changed during each of several readings
     * @throws NoSuchFileException when it is not there, or is something else
     */
    static Optional<Whole> read(
            SafeFolder folder, String name, DiskEntry.Type type, ContentWorker worker, LongConsumer read)
            throws IOException {
        for (int i = 0; i < TRIES; i++) {
            Optional<DiskEntry> before = folder.look(name);
            if (before.isEmpty() || before.get().type() != type) {
                throw new NoSuchFileException(name);
            }
            StoredContent content = store(folder, name, before.get(), worker, read);
            Optional<DiskEntry> after = folder.look(name);
            boolean link = type == DiskEntry.Type.LINK;
            if (after.isPresent()
                    && after.get().isUntouched(before.get())
                    && (link || content.length() == before.get().size())) {
                return Optional.of(new Whole(content, after.get(), folder.owner(name)));
            }
        }
        return Optional.empty();
    }

    private static StoredContent store(
            SafeFolder folder, String name, DiskEntry before, ContentWorker worker, LongConsumer read)
            throws IOException {
        if (before.type() == DiskEntry.Type.LINK) {
            String text = folder.readLink(name);
            boolean garbled = before.size() > 0 && RawNames.bytes(text).length != before.size();
            if (garbled) {
                throw new NoTextException();
            }
            byte[] target = text.getBytes(StandardCharsets.UTF_8);
            try (ReadableByteChannel in = Channels.newChannel(new ByteArrayInputStream(target))) {
                StoredContent stored = worker.store(in, n -> {});
                read.accept(target.length);
                return stored;
            }
        }
        try (SeekableByteChannel in = folder.read(name)) {
            return worker.store(new Source(in), read);
        }
    }

    /** A file whose read errors are told apart from those of the vault. */
    private record Source(SeekableByteChannel in) implements SeekableByteChannel {
        @Override
        public int read(ByteBuffer into) throws IOException {
            try {
                return in.read(into);
            } catch (FileSystemException e) {
                throw e;
            } catch (IOException e) {
                throw new FileSystemException("", null, e.getMessage());
            }
        }

        @Override
        public int write(ByteBuffer from) {
            throw new java.nio.channels.NonWritableChannelException();
        }

        @Override
        public long position() throws IOException {
            return in.position();
        }

        @Override
        public SeekableByteChannel position(long position) throws IOException {
            in.position(position);
            return this;
        }

        @Override
        public long size() throws IOException {
            return in.size();
        }

        @Override
        public SeekableByteChannel truncate(long size) {
            throw new java.nio.channels.NonWritableChannelException();
        }

        @Override
        public boolean isOpen() {
            return in.isOpen();
        }

        @Override
        public void close() throws IOException {
            in.close();
        }
    }
}
