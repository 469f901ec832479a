package org.mendedleaf.core.line;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import org.mendedleaf.core.vault.ChannelOpener;
import org.mendedleaf.core.vault.VaultFolder;

/**
 * A vault that is open in this process. Safe for several threads: each takes a {@link Reading} of its own, and whoever
 * writes takes the one {@link WriteSession}.
 *
 * <pre>{@code
 * try (OpenVault vault = OpenVault.openOrCreate(folder, "command line", Duration.ofSeconds(5));
 *         Reading reading = vault.read()) {
 *     reading.places().forEach(System.out::println);
 * }
 * }</pre>
 */
public final class OpenVault implements AutoCloseable {

    private final VaultFolder folder;
    private final String holder;
    private final Duration patience;
    private final ChannelOpener opener;
    private final Deque<Reading> idle = new ArrayDeque<>();
    private boolean closed;

    private OpenVault(VaultFolder folder, String holder, Duration patience, ChannelOpener opener) {
        this.folder = folder;
        this.holder = holder;
        this.patience = patience;
        this.opener = opener;
    }

    /**
     * Opens a vault that is there.
     *
     * @param holder who we are, in words, for others who want to write meanwhile
     * @param patience how long to wait for others who write
     */
    public static OpenVault open(Path folder, String holder, Duration patience) throws IOException {
        OpenVault vault = new OpenVault(VaultFolder.open(folder), holder, patience, ChannelOpener.FILES);
        vault.read().close();
        return vault;
    }

    /** Opens a vault, made when the folder is empty or not there yet. */
    public static OpenVault openOrCreate(Path folder, String holder, Duration patience) throws IOException {
        return openOrCreate(folder, holder, patience, ChannelOpener.FILES);
    }

    /** As {@link #openOrCreate(Path, String, Duration)}, with pack files opened through {@code opener}. */
    public static OpenVault openOrCreate(Path folder, String holder, Duration patience, ChannelOpener opener)
            throws IOException {
        OpenVault vault = new OpenVault(VaultFolder.openOrCreate(folder), holder, patience, opener);
        boolean fresh = vault.folder.packNumbers().isEmpty() && !java.nio.file.Files.exists(vault.folder.catalogue());
        if (fresh) {
            vault.write().close();
        }
        vault.read().close();
        return vault;
    }

    /** Where the vault is. */
    public VaultFolder folder() {
        return folder;
    }

    /** Takes a view for reading; give it back by closing it. */
    public Reading read() throws IOException {
        synchronized (this) {
            if (closed) {
                throw new IllegalStateException("expected an open vault");
            }
            Reading reading = idle.poll();
            if (reading != null) {
                return reading;
            }
        }
        return new Reading(this, new Sql(folder, Catalogue.openForReading(folder)));
    }

    /** Takes the right to write, as {@link WriteSession#commit} describes. */
    public WriteSession write() throws IOException {
        return WriteSession.open(folder, holder, patience, opener);
    }

    void giveBack(Reading reading) throws IOException {
        synchronized (this) {
            if (!closed) {
                idle.push(reading);
                return;
            }
        }
        reading.dispose();
    }

    /** Closes the readers that nobody has now, with the files that they keep open. */
    public void closeIdleReaders() throws IOException {
        Deque<Reading> all;
        synchronized (this) {
            all = new ArrayDeque<>(idle);
            idle.clear();
        }
        for (Reading reading : all) {
            reading.dispose();
        }
    }

    @Override
    public void close() throws IOException {
        synchronized (this) {
            closed = true;
        }
        closeIdleReaders();
    }
}
