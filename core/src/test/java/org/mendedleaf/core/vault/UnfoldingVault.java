package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.channels.ReadableByteChannel;
import java.nio.file.Path;
import java.time.Duration;
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

    StoredContent store(ReadableByteChannel content) throws IOException {
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            StoredContent stored = worker.store(content, n -> {});
            session.commit();
            return stored;
        }
    }

    StoredContent store(byte[] content) throws IOException {
        return store(new SeekableInMemoryByteChannel(content));
    }

    byte[] read(Recipe recipe) throws IOException {
        try (Reading reading = vault.read()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            reading.contents().copy(recipe, Channels.newChannel(out));
            return out.toByteArray();
        }
    }

    long added(byte[] content) throws IOException {
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            worker.store(new SeekableInMemoryByteChannel(content), n -> {});
            session.commit();
            return session.chunks().addedBytes();
        }
    }
}
