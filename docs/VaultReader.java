import com.github.luben.zstd.Zstd;
import java.io.ByteArrayOutputStream;
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
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.zip.CRC32C;

/**
 * A reader of a vault that shares no code with the program: it writes every version of every file into a folder, as
 * line-number/version-number. What was inflated to be stored is deflated again by a slow encoder of its own. It needs the SQLite driver and Zstandard on the class path:
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
        try (OutputStream out = Files.newOutputStream(file)) {
            return new VaultReader(vault, db, recipe).write(out);
        }
    }

    private final Path vault;
    private final Connection db;
    private final ByteBuffer in;
    private long expected;
    private long size;

    private VaultReader(Path vault, Connection db, byte[] recipe) {
        this.vault = vault;
        this.db = db;
        this.in = ByteBuffer.wrap(recipe);
    }

    private long write(OutputStream out) throws Exception {
        if (in.remaining() > 1 && in.get(0) == 2) {
            unfolded(out);
        } else {
            while (in.hasRemaining()) {
                put(out, run(leb128(in)));
            }
        }
        return size;
    }

    private void put(OutputStream out, byte[] bytes) throws IOException {
        out.write(bytes);
        size += bytes.length;
    }

    /** The chunks of a run, one after the other. */
    private byte[] run(long tag) throws Exception {
        if ((tag & 3) != 0) {
            throw new IOException("a segment of an unknown kind");
        }
        long coded = leb128(in);
        long id = expected + ((coded >>> 1) ^ -(coded & 1));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (long i = 0; i < tag >>> 2; i++) {
            bytes.write(chunk(vault, db, id++));
        }
        expected = id;
        return bytes.toByteArray();
    }

    private byte[] runs(long count) throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (long i = 0; i < count; i++) {
            bytes.write(run(leb128(in)));
        }
        return bytes.toByteArray();
    }

    /** A content of which members were inflated: they are deflated again, and the frame comes between them. */
    private void unfolded(OutputStream out) throws Exception {
        leb128(in);
        long count = leb128(in);
        byte[] made = new byte[32];
        in.get(made);
        in.position(in.position() + 32); // the seal
        ByteBuffer frame = ByteBuffer.wrap(runs(count));
        MessageDigest sha = MessageDigest.getInstance("SHA-256");
        while (in.hasRemaining()) {
            long tag = leb128(in);
            byte[] bytes;
            if ((tag & 3) == 0) {
                put(out, run(tag));
                continue;
            } else if ((tag & 3) == 2) {
                bytes = new byte[(int) (tag >>> 2)];
                frame.get(bytes);
            } else {
                int settings = (int) (tag >>> 2);
                long own = leb128(in);
                int deflated = (int) leb128(in);
                byte[] inflated = new byte[(int) leb128(in)];
                if (own == 0) {
                    frame.get(inflated);
                } else {
                    inflated = runs(own);
                }
                bytes = new Deflate(settings & 15, settings >>> 4).of(inflated);
                if (bytes.length != deflated) {
                    throw new IOException("a member has " + bytes.length + " bytes instead of " + deflated);
                }
            }
            sha.update(bytes);
            put(out, bytes);
        }
        if (!Arrays.equals(sha.digest(), made)) {
            throw new IOException("a document is not made as it was");
        }
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
            byte[] start = new byte[64];
            file.seek(0);
            file.readFully(start);
            CRC32C crc = new CRC32C();
            if (ByteBuffer.wrap(start).order(ByteOrder.LITTLE_ENDIAN).getInt(8) > 1) {
                // Since version 2 the CRC begins with the vault, the number of the pack, and the offset of the record.
                crc.update(start, 16, 24);
                crc.update(ByteBuffer.allocate(8).order(ByteOrder.LITTLE_ENDIAN).putLong(0, offset).array());
            }
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

    /** Deflate (RFC 1951) as the page describes it, written for shortness and not for speed. */
    private static class Deflate {
        private static final int[][] LIMITS = {
            {}, {4, 4, 8, 4}, {4, 5, 16, 8}, {4, 6, 32, 32}, {4, 4, 16, 16}, {8, 16, 32, 32},
            {8, 16, 128, 128}, {8, 32, 128, 256}, {32, 128, 258, 1024}, {32, 258, 258, 4096}
        };
        private static final int[] ORDER = {16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15};

        private final int level;
        private final int encoder;
        private final int most;
        private final ByteArrayOutputStream out = new ByteArrayOutputStream();
        private final List<int[]> symbols = new ArrayList<>(); // {literal} or {length, distance}
        private final int[] used = new int[286];
        private final int[] usedDistances = new int[30];
        private int matches;
        private byte[] in;
        private int base;
        private int end;
        private int block;
        private int at;
        private int found;
        private int[] head;
        private final int[] previous = new int[1 << 15];
        private long held;
        private int heldBits;

        Deflate(int level, int encoder) throws IOException {
            if (level < 1 || level > 9 || encoder > 3) {
                throw new IOException("settings of an unknown kind");
            }
            this.level = level;
            this.encoder = encoder;
            this.most = encoder == 1 || encoder == 2 ? 32767 : 16383;
        }

        byte[] of(byte[] content) {
            in = content;
            int from = 0;
            do {
                int to = encoder == 3 ? Math.min(content.length, from + 131072) : content.length;
                stretch(Math.max(0, from - 32768), from, to);
                from = to;
            } while (from < content.length);
            return out.toByteArray();
        }

        private void stretch(int dictionary, int from, int to) {
            head = new int[1 << 16];
            base = dictionary;
            end = to;
            for (int i = dictionary; i < from; i++) {
                insert(i);
            }
            at = from;
            block = from;
            if (level < 4) {
                greedy();
            } else {
                lazy();
            }
            boolean last = to == in.length;
            if (last || !symbols.isEmpty()) {
                block(end, last);
            }
            if (!last) {
                bits(0, 3);
                align();
                bits(0, 16);
                bits(0xffff, 16);
            }
        }

        private int byteAt(int i) {
            return i < in.length ? in[i] & 0xff : 0;
        }

        private int insert(int i) {
            int shift = encoder == 1 ? 6 : 5;
            int hash = (byteAt(i) << 2 * shift ^ byteAt(i + 1) << shift ^ byteAt(i + 2)) & (encoder == 1 ? 0xffff : 0x7fff);
            int before = head[hash];
            previous[i - base & 0x7fff] = before;
            head[hash] = i - base;
            return before;
        }

        private void greedy() {
            int length = 2;
            while (at < end) {
                int candidate = end - at >= 3 ? insert(at) : 0;
                if (candidate != 0 && at - base - candidate <= 32506) {
                    length = longest(candidate, 2);
                }
                if (length >= 3) {
                    boolean full = symbol(length, at - found);
                    boolean inserts = length <= LIMITS[level][1] && end - at - length >= 3;
                    for (int i = 1; i < length && inserts; i++) {
                        insert(at + i);
                    }
                    at += length;
                    length = 0;
                    flush(full);
                } else {
                    boolean full = symbol(byteAt(at), 0);
                    at++;
                    flush(full);
                }
            }
        }

        private void lazy() {
            int length = 2;
            boolean waits = false;
            while (at < end) {
                int candidate = end - at >= 3 ? insert(at) : 0;
                int before = length;
                int beforeAt = found;
                length = 2;
                if (candidate != 0 && before < LIMITS[level][1] && at - base - candidate <= 32506) {
                    length = longest(candidate, before);
                    if (length == 3 && at - found > 4096) {
                        length = 2;
                    }
                }
                if (before >= 3 && length <= before) {
                    boolean full = symbol(before, at - 1 - beforeAt);
                    for (int i = 1; i <= before - 2; i++) {
                        if (at + i <= end - 3) {
                            insert(at + i);
                        }
                    }
                    at += before - 1;
                    waits = false;
                    length = 2;
                    flush(full);
                } else {
                    if (waits) {
                        flush(symbol(byteAt(at - 1), 0));
                    }
                    waits = true;
                    at++;
                }
            }
            if (waits) {
                symbol(byteAt(at - 1), 0);
            }
        }

        private int longest(int first, int best) {
            int chain = best >= LIMITS[level][0] ? LIMITS[level][3] >> 2 : LIMITS[level][3];
            int left = end - at;
            int limit = Math.max(0, at - base - 32506);
            int current = first;
            do {
                int n = 0;
                while (n < 258 && byteAt(current + base + n) == byteAt(at + n)) {
                    n++;
                }
                if (n > best) {
                    found = current + base;
                    best = n;
                    if (n >= Math.min(LIMITS[level][2], left)) {
                        break;
                    }
                }
                current = previous[current & 0x7fff];
            } while (current > limit && --chain > 0);
            return Math.min(best, left);
        }

        private boolean symbol(int value, int distance) {
            if (distance == 0) {
                symbols.add(new int[] {value});
                used[value]++;
            } else {
                symbols.add(new int[] {value, distance});
                used[257 + lengthCode(value)]++;
                usedDistances[distanceCode(distance)]++;
                matches++;
            }
            if (symbols.size() == most) {
                return true;
            }
            if (encoder != 2 || level < 3 || symbols.size() % 4096 != 0) {
                return false;
            }
            long length = symbols.size() * 8L;
            for (int d = 0; d < 30; d++) {
                length += (long) usedDistances[d] * (5 + distanceExtra(d));
            }
            return matches < symbols.size() / 2 && length / 8 < (at - block) / 2;
        }

        private void flush(boolean full) {
            if (full) {
                block(at, false);
            }
        }

        private static int lengthExtra(int code) {
            return code < 8 || code == 28 ? 0 : code / 4 - 1;
        }

        private static int lengthBase(int code) {
            return code == 28 ? 258 : code < 8 ? code + 3 : (4 + code % 4 << code / 4 - 1) + 3;
        }

        private static int lengthCode(int length) {
            int code = 28;
            while (lengthBase(code) > length) {
                code--;
            }
            return code;
        }

        private static int distanceExtra(int code) {
            return code < 4 ? 0 : code / 2 - 1;
        }

        private static int distanceBase(int code) {
            return code < 4 ? code + 1 : (2 + code % 2 << code / 2 - 1) + 1;
        }

        private static int distanceCode(int distance) {
            int code = 29;
            while (distanceBase(code) > distance) {
                code--;
            }
            return code;
        }

        private void block(int to, boolean last) {
            used[256] = 1;
            int[] fixed = new int[288];
            Arrays.fill(fixed, 0, 144, 8);
            Arrays.fill(fixed, 144, 256, 9);
            Arrays.fill(fixed, 256, 280, 7);
            Arrays.fill(fixed, 280, 288, 8);
            int[] fixedDistances = new int[30];
            Arrays.fill(fixedDistances, 5);
            int[] literals = huffman(used.clone(), 15);
            int[] distances = huffman(usedDistances.clone(), 15);
            int literalCount = count(literals, 286);
            int distanceCount = count(distances, 30);
            List<int[]> runs = new ArrayList<>();
            runs(literals, literalCount, runs);
            runs(distances, distanceCount, runs);
            int[] usedLengths = new int[19];
            runs.forEach(r -> usedLengths[r[0]]++);
            int[] lengths = huffman(usedLengths.clone(), 7);
            int written = 19;
            while (written > 4 && lengths[ORDER[written - 1]] == 0) {
                written--;
            }
            long own = cost(literals, distances) + 14 + 3L * written;
            for (int i = 0; i < 19; i++) {
                own += (long) usedLengths[i] * (lengths[i] + (i < 16 ? 0 : i == 16 ? 2 : i == 17 ? 3 : 7));
            }
            long ownBytes = own + 10 >>> 3;
            long fixedBytes = cost(fixed, fixedDistances) + 10 >>> 3;
            int stored = to - block;
            if (stored + 4 <= Math.min(ownBytes, fixedBytes)) {
                bits(last ? 1 : 0, 3);
                align();
                bits(stored, 16);
                bits(~stored & 0xffff, 16);
                out.write(in, block, stored);
            } else if (fixedBytes <= ownBytes) {
                bits(last ? 3 : 2, 3);
                data(fixed, fixedDistances);
            } else {
                bits(last ? 5 : 4, 3);
                bits(literalCount - 257, 5);
                bits(distanceCount - 1, 5);
                bits(written - 4, 4);
                for (int i = 0; i < written; i++) {
                    bits(lengths[ORDER[i]], 3);
                }
                int[] codes = codes(lengths);
                for (int[] r : runs) {
                    bits(codes[r[0]], lengths[r[0]]);
                    bits(r[1], r[0] < 16 ? 0 : r[0] == 16 ? 2 : r[0] == 17 ? 3 : 7);
                }
                data(literals, distances);
            }
            if (last) {
                align();
            }
            symbols.clear();
            Arrays.fill(used, 0);
            Arrays.fill(usedDistances, 0);
            matches = 0;
            block = to;
        }

        private static int count(int[] lengths, int n) {
            int last = n;
            while (lengths[last - 1] == 0) {
                last--;
            }
            return last;
        }

        private long cost(int[] literals, int[] distances) {
            long bits = 0;
            for (int i = 0; i < 286; i++) {
                bits += (long) used[i] * (literals[i] + (i > 256 ? lengthExtra(i - 257) : 0));
            }
            for (int i = 0; i < 30; i++) {
                bits += (long) usedDistances[i] * (distances[i] + distanceExtra(i));
            }
            return bits;
        }

        private void data(int[] literals, int[] distances) {
            int[] codes = codes(literals);
            int[] distanceCodes = codes(distances);
            for (int[] s : symbols) {
                if (s.length == 1) {
                    bits(codes[s[0]], literals[s[0]]);
                } else {
                    int code = lengthCode(s[0]);
                    bits(codes[257 + code], literals[257 + code]);
                    bits(s[0] - lengthBase(code), lengthExtra(code));
                    code = distanceCode(s[1]);
                    bits(distanceCodes[code], distances[code]);
                    bits(s[1] - distanceBase(code), distanceExtra(code));
                }
            }
            bits(codes[256], literals[256]);
        }

        /** Code lengths as symbols 0 to 18, each with the value of its extra bits. */
        private static void runs(int[] lengths, int n, List<int[]> into) {
            int before = -1;
            for (int i = 0; i < n; ) {
                int value = lengths[i];
                int most = value == 0 ? 138 : value == before ? 6 : 7;
                int least = value == 0 || value == before ? 3 : 4;
                int count = 1;
                while (i + count < n && lengths[i + count] == value && count < most) {
                    count++;
                }
                i += count;
                if (count < least) {
                    for (int k = 0; k < count; k++) {
                        into.add(new int[] {value, 0});
                    }
                } else if (value == 0) {
                    into.add(count <= 10 ? new int[] {17, count - 3} : new int[] {18, count - 11});
                } else {
                    if (value != before) {
                        into.add(new int[] {value, 0});
                        count--;
                    }
                    into.add(new int[] {16, count - 3});
                }
                before = value;
            }
        }

        /** Lengths of the codes of these frequencies; as in the page, so that each tie falls the same way. */
        private static int[] huffman(int[] frequencies, int limit) {
            int n = frequencies.length;
            int[] weight = Arrays.copyOf(frequencies, 2 * n + 1);
            int[] depth = new int[2 * n + 1];
            int[] parent = new int[2 * n + 1];
            int[] heap = new int[2 * n + 2];
            int size = 0;
            int last = -1;
            for (int i = 0; i < n; i++) {
                if (weight[i] > 0) {
                    heap[++size] = i;
                    last = i;
                }
            }
            while (size < 2) {
                int node = last < 2 ? ++last : 0;
                heap[++size] = node;
                weight[node] = 1;
            }
            for (int i = size / 2; i >= 1; i--) {
                sink(heap, size, i, weight, depth);
            }
            List<Integer> taken = new ArrayList<>();
            int node = n;
            while (size >= 2) {
                int a = heap[1];
                heap[1] = heap[size--];
                sink(heap, size, 1, weight, depth);
                int b = heap[1];
                taken.add(a);
                taken.add(b);
                weight[node] = weight[a] + weight[b];
                depth[node] = Math.max(depth[a], depth[b]) + 1;
                parent[a] = node;
                parent[b] = node;
                heap[1] = node++;
                sink(heap, size, 1, weight, depth);
            }
            int[] length = new int[2 * n + 1];
            int[] count = new int[limit + 1];
            int over = 0;
            for (int i = taken.size() - 1; i >= 0; i--) {
                int m = taken.get(i);
                length[m] = length[parent[m]] + 1;
                if (length[m] > limit) {
                    length[m] = limit;
                    over++;
                }
                if (m < n) {
                    count[length[m]]++;
                }
            }
            boolean tooLong = over > 0;
            while (over > 0) {
                int bits = limit - 1;
                while (count[bits] == 0) {
                    bits--;
                }
                count[bits]--;
                count[bits + 1] += 2;
                count[limit]--;
                over -= 2;
            }
            int next = 0;
            for (int bits = tooLong ? limit : 0; bits > 0; bits--) {
                for (int k = count[bits]; k > 0; ) {
                    int m = taken.get(next++);
                    if (m < n) {
                        length[m] = bits;
                        k--;
                    }
                }
            }
            return Arrays.copyOf(length, n);
        }

        private static void sink(int[] heap, int size, int from, int[] weight, int[] depth) {
            int k = from;
            int v = heap[k];
            for (int j = 2 * k; j <= size; j *= 2) {
                if (j < size && smaller(heap[j + 1], heap[j], weight, depth)) {
                    j++;
                }
                if (smaller(v, heap[j], weight, depth)) {
                    break;
                }
                heap[k] = heap[j];
                k = j;
            }
            heap[k] = v;
        }

        private static boolean smaller(int a, int b, int[] weight, int[] depth) {
            return weight[a] < weight[b] || weight[a] == weight[b] && depth[a] <= depth[b];
        }

        private static int[] codes(int[] lengths) {
            int[] codes = new int[lengths.length];
            int code = 0;
            for (int bits = 1; bits <= 15; bits++) {
                for (int i = 0; i < lengths.length; i++) {
                    if (lengths[i] == bits) {
                        codes[i] = Integer.reverse(code++) >>> 32 - bits;
                    }
                }
                code <<= 1;
            }
            return codes;
        }

        private void bits(int value, int n) {
            held |= (long) value << heldBits;
            for (heldBits += n; heldBits >= 8; heldBits -= 8) {
                out.write((int) held & 0xff);
                held >>>= 8;
            }
        }

        private void align() {
            bits(0, -heldBits & 7);
        }
    }
}
