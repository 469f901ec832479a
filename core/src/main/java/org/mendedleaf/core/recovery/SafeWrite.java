package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.ContentReader;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Durable;
import org.mendedleaf.core.words.Words;

/**
 * Writes a version beside its target and, once it is synced, read back and equal to its digests, moves it into place.
 * Until then nothing that was there is touched.
 */
final class SafeWrite {

    private final SafeFolder folder;
    private final ContentReader contents;

    SafeWrite(SafeFolder folder, ContentReader contents) {
        this.folder = folder;
        this.contents = contents;
    }

    /** Writes the version under a name of ours and proves it; returns that name. */
    String writeBeside(Version version, Progress progress) throws IOException {
        String beside = SafeFolder.ownName();
        try {
            if (version.kind() == EntryKind.LINK) {
                byte[] target = contents.head(version.recipe(), 1 << 16);
                folder.makeLink(beside, new String(target, StandardCharsets.UTF_8));
                return beside;
            }
            List<ChunkPlace> places = contents.places(version.recipe());
            try (FileChannel out = folder.create(beside)) {
                contents.read(version.recipe(), chunk -> {
                    Durable.write(out, ByteBuffer.wrap(chunk));
                    progress.advance(0, chunk.length);
                });
                out.force(true);
            }
            folder.setAttributes(beside, version.mtimeNanos(), version.mode() | OWNER_READ);
            prove(beside, version, places);
            if ((version.mode() & OWNER_READ) == 0) {
                folder.setAttributes(beside, version.mtimeNanos(), version.mode());
            }
            return beside;
        } catch (IOException | RuntimeException e) {
            deleteQuietly(beside);
            throw e;
        }
    }

    private static final int OWNER_READ = 0b100_000_000;

    /** Reads the file back and compares it, chunk by chunk, with the digests that were taken at capture. */
    private void prove(String name, Version version, List<ChunkPlace> places) throws IOException {
        MessageDigest sha = Digest.sha256();
        ByteBuffer buffer = ByteBuffer.allocate(1 << 17);
        long size = 0;
        try (SeekableByteChannel in = folder.read(name)) {
            for (ChunkPlace place : places) {
                buffer.clear().limit(place.length());
                while (buffer.hasRemaining() && in.read(buffer) >= 0) {
                    // until the chunk is whole
                }
                sha.update(buffer.flip());
                size += buffer.limit();
                if (buffer.limit() != place.length() || !Arrays.equals(sha.digest(), place.digest())) {
                    throw new IOException(Words.of("restore.differs"));
                }
            }
            if (in.size() != size || size != version.size()) {
                throw new IOException(Words.of("restore.differs"));
            }
        }
    }

    /** Moves what was written into place. */
    void place(String beside, String name) throws IOException {
        Optional<DiskEntry> proved = folder.find(beside);
        folder.rename(beside, name);
        Optional<DiskEntry> there = folder.find(name);
        boolean same = proved.isPresent() && there.isPresent() && there.get().looksSame(proved.get());
        if (!same) {
            throw new IOException(Words.of("restore.differs"));
        }
    }

    void deleteQuietly(String name) {
        try {
            if (folder.find(name).isPresent()) {
                folder.delete(name);
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(SafeWrite.class).debug("removing an unfinished file", e);
        }
    }
}
