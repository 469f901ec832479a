package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.channels.ReadableByteChannel;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;

/** A vault into which contents are stored and read again, for tests of unfolding. */
abstract class UnfoldingVault {

    @TempDir
    Path temp;

    OpenVault vault;

    @BeforeEach
    void open() throws IOException {
        vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ZERO);
    }

    @AfterEach
    void close() throws IOException {
        vault.close();
    }

    private long added;

    /** Stores a content as it comes, and unfolds it. */
    StoredContent store(byte[] content) throws IOException {
        return store(new SeekableInMemoryByteChannel(content));
    }

    StoredContent store(ReadableByteChannel content) throws IOException {
        StoredContent stored;
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            stored = worker.store(content, n -> {});
            session.commit();
            added = session.chunks().addedBytes();
        }
        return unfold(stored);
    }

    /** The content as it is stored in the end; as it was when it cannot be unfolded. */
    StoredContent unfold(StoredContent stored) throws IOException {
        Optional<UnfoldedContent> unfolded;
        try (Reading reading = vault.read();
                Unfolder unfolder = new Unfolder()) {
            unfolded = unfolder.unfold(reading.contents(), stored.recipe(), stored.digest());
        }
        if (unfolded.isEmpty()) {
            return stored;
        }
        try (WriteSession session = vault.write()) {
            Recipe recipe = unfolded.get().store(session.chunks()).orElseThrow();
            session.commit();
            added += session.chunks().addedBytes()
                    - Math.min(added, unfolded.get().givenUpBytes());
            return new StoredContent(recipe, stored.length(), stored.digest(), stored.sha256());
        }
    }

    byte[] read(Recipe recipe) throws IOException {
        try (Reading reading = vault.read()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            reading.contents().copy(recipe, Channels.newChannel(out));
            return out.toByteArray();
        }
    }

    /** What storing takes, without what unfolding gives up. */
    long added(byte[] content) throws IOException {
        store(content);
        return added;
    }
}
