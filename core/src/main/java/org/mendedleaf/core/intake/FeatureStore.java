package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SideDatabase;
import org.mendedleaf.core.vault.ContentScan;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.VaultFolder;

/**
 * Features of versions, by their contents, beside the catalogue (SQLite): so that who puts many files in does not have hundreds
 * of others read again. Those that were not asked for longest go when there are too many. Safe for several threads.
 */
final class FeatureStore extends SideDatabase {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(FeatureStore.class);

    private static final String NAME = "features.db";
    private static final int VERSION = 1;

    /** So much is kept at least; bytes. */
    private static final long LEAST = 64L << 20;

    /** So much of what the packs take is kept, where that is more. */
    private static final int PART = 20;

    /** So many are written at a time. */
    private static final int TOGETHER = 100;

    /** It is looked whether there are too many after so many came. */
    private static final int TRIM_EVERY = 500;

    /** Bytes. */
    private static final long SHORT = 64 * 1024;

    private static final long DAY_MILLIS = 86_400_000;

    private static final String[] TABLES = {
        "CREATE TABLE feature (digest BLOB PRIMARY KEY, type TEXT NOT NULL, words INTEGER NOT NULL, length INTEGER NOT NULL,"
                + " near BLOB, far BLOB, look BLOB, chunks BLOB NOT NULL, used INTEGER NOT NULL)"
                + " WITHOUT ROWID",
        "CREATE INDEX feature_used ON feature (used)",
        "PRAGMA user_version = " + VERSION
    };

    private final long most;
    private int came;
    private final Map<Digest, Features> waiting = new LinkedHashMap<>();

    private FeatureStore(Path file, long most) throws IOException {
        super(file);
        this.most = most;
    }

    /** Opens what is kept of a vault; nothing where that cannot be read or written: then all is read again. */
    static Optional<FeatureStore> open(OpenVault vault) {
        try (Reading reading = vault.read()) {
            return Optional.of(open(vault.folder(), Math.max(LEAST, reading.packBytes() / PART)));
        } catch (IOException e) {
            log.info("features are not kept", e);
            return Optional.empty();
        }
    }

    /** @param most bytes that are kept */
    static FeatureStore open(VaultFolder vault, long most) throws IOException {
        return make(vault, NAME, file -> new FeatureStore(file, most), TABLES);
    }

    /** What a content is by its bytes, if that is kept: finding that out takes longer than all else of a short text. */
    synchronized Optional<String> mediaType(Digest digest) throws IOException {
        List<String> found = new ArrayList<>();
        query("SELECT type FROM feature WHERE digest = ?", r -> found.add(r.getString(1)), (Object) digest.bytes());
        return found.stream().findFirst();
    }

    /** The features of a content under a name, if all of them are kept. */
    synchronized Optional<Features> get(Digest digest, String name) throws IOException {
        List<Features> found = new ArrayList<>();
        long today = today();
        boolean[] old = {false};
        query(
                "SELECT type, words, length, near, far, look, chunks, used FROM feature WHERE digest = ? AND near IS NOT NULL",
                r -> {
                    ContentScan scan = new ContentScan(r.getLong(3), digest, chunks(r.getBytes(7)));
                    found.add(new Features(
                            ContentKind.of(r.getString(1), name),
                            r.getString(1),
                            scan,
                            r.getInt(2),
                            shingles(r.getBytes(4)),
                            shingles(r.getBytes(5)),
                            Optional.ofNullable(r.getBytes(6)).map(FeatureStore::look)));
                    old[0] = r.getLong(8) != today;
                },
                digest.bytes());
        if (old[0]) {
            run("UPDATE feature SET used = ? WHERE digest = ?", today, digest.bytes());
        }
        return found.stream().findFirst();
    }

    /** Whether the features of a content are kept. */
    synchronized boolean has(Digest digest) throws IOException {
        return number("SELECT count(*) FROM feature WHERE digest = ?", digest.bytes()) > 0;
    }

    /** Keeps the features of a version, as {@link Features#kept} gives them. */
    synchronized void put(Digest digest, Features f) throws IOException {
        waiting.put(digest, f);
        if (waiting.size() >= TOGETHER) {
            write();
        }
    }

    private void write() throws IOException {
        together(() -> {
            for (Map.Entry<Digest, Features> e : waiting.entrySet()) {
                write(e.getKey(), e.getValue());
            }
        });
        came += waiting.size();
        waiting.clear();
        if (came >= TRIM_EVERY) {
            came = 0;
            trim();
        }
    }

    private void write(Digest digest, Features f) throws IOException {
        // The words of a short text are read again sooner than their runs are stored.
        boolean all = f.kind() != ContentKind.TEXT || f.size() > SHORT;
        run(
                "INSERT OR REPLACE INTO feature VALUES (?,?,?,?,?,?,?,?,?)",
                digest.bytes(),
                f.mediaType(),
                f.words(),
                f.size(),
                all ? bytes(f.near()) : null,
                all ? bytes(f.far()) : null,
                f.look().map(FeatureStore::bytes).orElse(null),
                bytes(f.scan().chunks()),
                today());
    }

    private static long today() {
        return System.currentTimeMillis() / DAY_MILLIS;
    }

    private long used() throws IOException {
        return (number("PRAGMA page_count") - number("PRAGMA freelist_count")) * number("PRAGMA page_size");
    }

    /** Whether no more should be kept that nobody asked for. */
    synchronized boolean isFull() throws IOException {
        return used() >= most;
    }

    /** Takes those away that were not asked for longest, down to nine tenths of what is kept at most. */
    synchronized void trim() throws IOException {
        long used = used();
        if (used <= most) {
            return;
        }
        long count = number("SELECT count(*) FROM feature");
        long go = (long) (count * (1 - most * 0.9 / used)) + 1;
        run("DELETE FROM feature WHERE digest IN (SELECT digest FROM feature ORDER BY used LIMIT ?)", go);
    }

    /** Takes away what is kept of contents that no version has any more. */
    static void forget(OpenVault vault) throws IOException {
        if (!Files.exists(vault.folder().root().resolve(NAME))) {
            return;
        }
        try (FeatureStore store = open(vault.folder(), Long.MAX_VALUE);
                Reading reading = vault.read()) {
            List<Digest> all = new ArrayList<>();
            store.query("SELECT digest FROM feature", r -> all.add(Digest.of(r.getBytes(1))));
            boolean any = false;
            for (Digest digest : all) {
                if (reading.content().versions(digest).stream()
                        .allMatch(v -> v.recipe().isElsewhere())) {
                    store.run("DELETE FROM feature WHERE digest = ?", (Object) digest.bytes());
                    any = true;
                }
            }
            if (any) {
                store.settle();
            }
        } catch (IOException e) {
            log.info("features are taken away", e);
            remove(vault.folder(), NAME);
        }
    }

    private static byte[] bytes(Shingles s) {
        ByteBuffer out = ByteBuffer.allocate(1 + s.size() * Long.BYTES);
        out.put((byte) s.level());
        for (long hash : s.hashes()) {
            out.putLong(hash);
        }
        return out.array();
    }

    private static Shingles shingles(byte[] bytes) {
        ByteBuffer in = ByteBuffer.wrap(bytes);
        int level = in.get();
        long[] hashes = new long[in.remaining() / Long.BYTES];
        in.asLongBuffer().get(hashes);
        return new Shingles(hashes, level);
    }

    private static byte[] bytes(PictureSignature look) {
        ByteBuffer out = ByteBuffer.allocate(2 * Integer.BYTES + look.fields().length);
        out.putInt(look.width()).putInt(look.height());
        for (float field : look.fields()) {
            out.put((byte) Math.round(field));
        }
        return out.array();
    }

    private static PictureSignature look(byte[] bytes) {
        ByteBuffer in = ByteBuffer.wrap(bytes);
        int width = in.getInt();
        int height = in.getInt();
        float[] fields = new float[in.remaining()];
        for (int i = 0; i < fields.length; i++) {
            fields[i] = in.get() & 0xff;
        }
        return new PictureSignature(width, height, fields);
    }

    private static byte[] bytes(List<ContentScan.Chunk> chunks) {
        ByteBuffer out = ByteBuffer.allocate(chunks.size() * (Digest.LENGTH + Integer.BYTES));
        chunks.forEach(c -> out.put(c.digest().bytes()).putInt(c.length()));
        return out.array();
    }

    private static List<ContentScan.Chunk> chunks(byte[] bytes) {
        ByteBuffer in = ByteBuffer.wrap(bytes);
        List<ContentScan.Chunk> chunks = new ArrayList<>();
        while (in.hasRemaining()) {
            byte[] digest = new byte[Digest.LENGTH];
            in.get(digest);
            chunks.add(new ContentScan.Chunk(Digest.of(digest), in.getInt()));
        }
        return chunks;
    }

    @Override
    public synchronized void close() throws IOException {
        try {
            write();
        } finally {
            super.close();
        }
    }

    /** What a store gives, or nothing where it fails: all can be read again. */
    interface Ask<T> {
        /** Asks. */
        @Nullable
        T of(FeatureStore store) throws IOException;
    }

    /** Asks a store, if there is one. */
    static <T> Optional<T> ask(@Nullable FeatureStore store, Ask<T> ask) {
        if (store == null) {
            return Optional.empty();
        }
        try {
            return Optional.ofNullable(ask.of(store));
        } catch (IOException e) {
            log.info("features cannot be asked for", e);
            return Optional.empty();
        }
    }
}
