package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Holes;
import org.mendedleaf.core.disk.ReadBack;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ContentParts;
import org.mendedleaf.core.vault.ContentReader;

/**
 * Writes a version beside its target and, once it is synced, read back and equal to its digests, moves it into place.
 * Until then nothing that was there is touched.
 */
final class SafeWrite {

    private final SafeFolder folder;
    private final ContentReader contents;
    private final Proof proof = new Proof();
    private final ReadBack readBack;

    SafeWrite(SafeFolder folder, ContentReader contents) {
        this.folder = folder;
        this.contents = contents;
        this.readBack = new ReadBack(folder);
    }

    /** A file that is written and waits to be synced and proved. */
    record Written(
            String name,
            Version version,
            ContentParts parts,
            @Nullable FileChannel channel) {

        /** The same with its channel closed, to be synced in another way. */
        Written closed() throws IOException {
            if (channel != null) {
                channel.close();
            }
            return new Written(name, version, parts, null);
        }
    }

    /** Syncs what was written and closed before. */
    Written sync(Written written) throws IOException {
        if (written.version().kind() != EntryKind.LINK) {
            folder.forceFile(written.name());
        }
        return written;
    }

    /** Writes the version under a name of ours, not yet synced. What is written must be given to {@link #prove}. */
    Written write(Version version, Progress progress) throws IOException {
        String beside = SafeFolder.ownName();
        if (version.kind() == EntryKind.LINK) {
            byte[] target = contents.head(version.recipe(), 1 << 16);
            folder.makeLink(beside, new String(target, StandardCharsets.UTF_8));
            return new Written(beside, version, new ContentParts(List.of(), null), null);
        }
        ContentParts parts = contents.parts(version.recipe());
        FileChannel out = folder.create(beside);
        try {
            Holes holes = new Holes(out);
            contents.read(version.recipe(), chunk -> {
                holes.write(chunk);
                progress.advance(0, chunk.length);
                progress.stopIfCancelled();
            });
            holes.end();
            return new Written(beside, version, parts, out);
        } catch (IOException | RuntimeException e) {
            out.close();
            deleteQuietly(beside);
            throw e;
        }
    }

    /** Syncs what was written, reads it back and compares it. When it does not stand the proof it is removed. */
    void prove(Written written) throws IOException {
        FileChannel out = written.channel();
        if (out == null) {
            return;
        }
        try (out) {
            out.force(true);
        } catch (IOException e) {
            deleteQuietly(written.name());
            throw e;
        }
        proveSynced(written);
    }

    /** As {@link #prove}, of what is closed and synced already. */
    void proveSynced(Written written) throws IOException {
        Version version = written.version();
        if (version.kind() == EntryKind.LINK) {
            return;
        }
        try {
            folder.setAttributes(written.name(), version.mtimeNanos(), version.mode() | OWNER_READ);
            compare(written.name(), version, written.parts());
            if ((version.mode() & OWNER_READ) == 0) {
                folder.setAttributes(written.name(), version.mtimeNanos(), version.mode());
            }
        } catch (IOException | RuntimeException e) {
            deleteQuietly(written.name());
            throw e;
        }
    }

    private static final int OWNER_READ = 0b100_000_000;

    private void compare(String name, Version version, ContentParts parts) throws IOException {
        try (InputStream in = readBack.open(name)) {
            proof.compare(in, version, parts);
        }
    }

    /**
     * Moves what was written to a name that nothing has.
     *
     * @throws java.nio.file.FileAlreadyExistsException when something has it
     */
    void place(String beside, String name) throws IOException {
        folder.renameNew(beside, name);
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
