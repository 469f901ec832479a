package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.vault.ChannelOpener;
import org.mendedleaf.core.vault.ChunkIndexCache;
import org.mendedleaf.core.vault.Reserve;
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
    private final ChunkIndexCache chunks = new ChunkIndexCache();
    private final IdleWriter writer;
    private final Deque<Reading> idle = new ArrayDeque<>();
    private @Nullable Object catalogueKey;
    private int generation;
    private boolean tightened;
    private boolean closed;

    private OpenVault(VaultFolder folder, String holder, Duration patience, ChannelOpener opener) {
        this.folder = folder;
        this.holder = holder;
        this.patience = patience;
        this.opener = opener;
        this.writer = new IdleWriter(folder);
    }

    /**
     * Opens a vault that is there.
     *
     * @param holder who we are, as a message, for others who want to write meanwhile
     * @param patience how long to wait for others who write
     */
    public static OpenVault open(Path folder, String holder, Duration patience) throws IOException {
        OpenVault vault = new OpenVault(VaultFolder.open(folder), holder, patience, ChannelOpener.FILES);
        vault.tightened = vault.folder.tighten();
        vault.read().close();
        return vault;
    }

    /** Opens a vault, made for its owner only when the folder is empty or not there yet. */
    public static OpenVault openOrCreate(Path folder, String holder, Duration patience) throws IOException {
        return openOrCreate(VaultFolder.openOrCreate(folder), holder, patience, ChannelOpener.FILES);
    }

    /** As {@link #openOrCreate(Path, String, Duration)}, with pack files opened through {@code opener}. */
    public static OpenVault openOrCreate(Path folder, String holder, Duration patience, ChannelOpener opener)
            throws IOException {
        return openOrCreate(VaultFolder.openOrCreate(folder), holder, patience, opener);
    }

    /** As {@link #openOrCreate(Path, String, Duration)}, of which also others may be let in. */
    public static OpenVault openOrCreate(Path folder, Access access, String holder, Duration patience)
            throws IOException {
        VaultFolder made = VaultFolder.openOrCreate(folder, access);
        VaultFolder shared = made.access() == access ? made : made.shared(access);
        return openOrCreate(shared, holder, patience, ChannelOpener.FILES);
    }

    private static OpenVault openOrCreate(VaultFolder folder, String holder, Duration patience, ChannelOpener opener)
            throws IOException {
        OpenVault vault = new OpenVault(folder, holder, patience, opener);
        vault.tightened = vault.folder.tighten();
        boolean fresh = vault.folder.packNumbers().isEmpty() && !Files.exists(vault.folder.catalogue());
        if (fresh) {
            vault.write().close();
        }
        vault.read().close();
        return vault;
    }

    /** Whether others on this computer could open the vault until it was opened here. */
    public boolean wasOpenToOthers() {
        return tightened;
    }

    /** Where the vault is. */
    public VaultFolder folder() {
        return folder;
    }

    /** Takes a view for reading; give it back by closing it. */
    public Reading read() throws IOException {
        forgetReplaced();
        synchronized (this) {
            if (closed) {
                throw new IllegalStateException("expected an open vault");
            }
            Reading reading = idle.poll();
            if (reading != null) {
                return reading;
            }
        }
        Connection connection = Catalogue.openForReading(folder);
        try {
            connection.setAutoCommit(false);
        } catch (SQLException e) {
            throw Catalogue.translate(folder, e);
        }
        return new Reading(this, new Sql(folder, connection), generation);
    }

    /** A catalogue that was made anew has its name and is another file: who has the old one open would never see a change. */
    private void forgetReplaced() throws IOException {
        Object now = Files.exists(folder.catalogue())
                ? Files.readAttributes(folder.catalogue(), BasicFileAttributes.class)
                        .fileKey()
                : null;
        boolean replaced;
        synchronized (this) {
            replaced = catalogueKey != null && now != null && !catalogueKey.equals(now);
            catalogueKey = now == null ? catalogueKey : now;
            generation += replaced ? 1 : 0;
        }
        if (replaced) {
            closeIdle();
        }
    }

    /** Takes the right to write, as {@link WriteSession#commit} describes. */
    public WriteSession write() throws IOException {
        return WriteSession.open(folder, holder, patience, opener, chunks, writer);
    }

    /** Something that is equal as long as nothing was committed to the vault, by whomever; cheap to ask for. */
    public Object stamp() throws IOException {
        java.util.List<Object> stamp = new java.util.ArrayList<>();
        for (String ending : new String[] {"", "-wal"}) {
            Path file = Path.of(folder.catalogue() + ending);
            if (Files.exists(file)) {
                BasicFileAttributes a = Files.readAttributes(file, BasicFileAttributes.class);
                stamp.add(a.size());
                stamp.add(a.lastModifiedTime());
            }
        }
        return stamp;
    }

    /** As {@link #write}, to let something go: on a full disk the reserve makes space for it. */
    public WriteSession writeToMakeRoom() throws IOException {
        new Reserve(folder).giveUp();
        return write();
    }

    void giveBack(Reading reading) throws IOException {
        synchronized (this) {
            if (!closed && reading.generation() == generation) {
                idle.push(reading);
                return;
            }
        }
        reading.dispose();
    }

    /** Closes the connections that nobody has now, with the files that they keep open. */
    public void closeIdle() throws IOException {
        writer.closeResting();
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
        closeIdle();
        writer.close();
        chunks.close();
    }
}
