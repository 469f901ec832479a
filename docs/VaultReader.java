import com.github.luben.zstd.Zstd;
import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.zip.CRC32C;

/**
 * A reader of a vault that shares no code with the program: it writes every version of every file into a folder, as
 * line-number/version-number. It needs the SQLite driver and Zstandard on the class path:
 *
 *   java -cp sqlite-jdbc.jar:slf4j-api.jar:zstd-jni.jar VaultReader.java VAULT OUT
 */
public class VaultReader {

    public static void main(String[] arguments) throws Exception {
        Path vault = Path.of(arguments[0]);
        Path out = Path.of(arguments[1]);
        int versions = 0;
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + vault.resolve("catalogue.db"));
                ResultSet rows = db.createStatement()
                        .executeQuery("SELECT line, number, recipe, size FROM version ORDER BY line, number")) {
            while (rows.next()) {
                if (rows.getBytes(3).length == 1 && rows.getBytes(3)[0] == 3) {
                    continue; // known, and held by another system only
                }
                Path file = out.resolve(rows.getLong(1) + "/" + rows.getInt(2));
                Files.createDirectories(file.getParent());
                long size = write(vault, db, rows.getBytes(3), file);
                if (size != rows.getLong(4)) {
                    throw new IOException(file + " has " + size + " bytes instead of " + rows.getLong(4));
                }
                versions++;
            }
        }
        System.out.println(versions + " versions");
    }

    private static long write(Path vault, Connection db, byte[] recipe, Path file) throws Exception {
        ByteBuffer in = ByteBuffer.wrap(recipe);
        long expected = 0;
        long size = 0;
        try (OutputStream out = Files.newOutputStream(file)) {
            while (in.hasRemaining()) {
                long tag = leb128(in);
                if ((tag & 3) != 0) {
                    throw new IOException("a segment of an unknown kind");
                }
                long coded = leb128(in);
                long id = expected + ((coded >>> 1) ^ -(coded & 1));
                for (long i = 0; i < tag >>> 2; i++) {
                    byte[] chunk = chunk(vault, db, id++);
                    out.write(chunk);
                    size += chunk.length;
                }
                expected = id;
            }
        }
        return size;
    }

    private static long leb128(ByteBuffer in) {
        long value = 0;
        for (int shift = 0; ; shift += 7) {
            byte b = in.get();
            value |= (b & 0x7fL) << shift;
            if (b >= 0) {
                return value;
            }
        }
    }

    private static byte[] chunk(Path vault, Connection db, long id) throws Exception {
        try (PreparedStatement ask = db.prepareStatement("SELECT pack, off FROM chunk WHERE id = ?")) {
            ask.setLong(1, id);
            try (ResultSet row = ask.executeQuery()) {
                if (!row.next()) {
                    throw new SQLException("no chunk " + id);
                }
                return read(vault.resolve("packs/%08d.pack".formatted(row.getLong(1))), row.getLong(2), id);
            }
        }
    }

    private static byte[] read(Path pack, long offset, long id) throws Exception {
        try (RandomAccessFile file = new RandomAccessFile(pack.toFile(), "r")) {
            byte[] head = new byte[52];
            file.seek(offset);
            file.readFully(head);
            ByteBuffer h = ByteBuffer.wrap(head).order(ByteOrder.LITTLE_ENDIAN);
            byte[] stored = new byte[h.getInt(4)];
            byte[] tail = new byte[4];
            file.readFully(stored);
            file.readFully(tail);
            CRC32C crc = new CRC32C();
            crc.update(head);
            crc.update(stored);
            boolean sound = h.get(0) == 1
                    && h.getLong(12) == id
                    && (int) crc.getValue() == ByteBuffer.wrap(tail).order(ByteOrder.LITTLE_ENDIAN).getInt();
            byte[] content = h.get(1) == 0 ? stored : Zstd.decompress(stored, h.getInt(8));
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(content);
            if (!sound || !Arrays.equals(digest, Arrays.copyOfRange(head, 20, 52))) {
                throw new IOException(pack + " is damaged at byte " + offset);
            }
            return content;
        }
    }
}
