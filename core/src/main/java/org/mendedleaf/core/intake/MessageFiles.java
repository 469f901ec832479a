package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Where messages are that are kept as files: a Maildir (its folders {@code new} and {@code cur}), messages in a folder ({@code .eml}),
 * and files with many messages, one after another (mbox, RFC 4155). Nothing of it is changed, and nothing but the newest is looked at.
 */
final class MessageFiles {

    /** So many of the newest messages of each folder are looked at. */
    static final int NEWEST = 60;

    /** Of a file with many messages, its last bytes are looked at. */
    private static final long TAIL = 48L << 20;

    /** Larger messages are left out. Bytes. */
    private static final long LARGEST = 48L << 20;

    private static final byte[] FROM = "From ".getBytes(StandardCharsets.US_ASCII);

    private MessageFiles() {}

    /**
     * A message in a file.
     *
     * @param size of the file
     * @param changed when the file was changed last
     * @param from the first byte of the message in it
     * @param length bytes of the message
     */
    record Message(Path file, long size, FileTime changed, long from, long length) {

        /** Its bytes, without the line that begins it in a file with many. */
        byte[] bytes() throws IOException {
            byte[] all = part(file, from, length);
            int at = 0;
            if (isFrom(all, 0)) {
                while (at < all.length && all[at] != '\n') {
                    at++;
                }
                at = Math.min(all.length, at + 1);
            }
            return Arrays.copyOfRange(all, at, all.length);
        }
    }

    /** Whether a file holds messages, so that it is not itself what came. */
    static boolean isMail(Path file, String name) {
        return isMessage(name) || isMbox(file, name);
    }

    private static boolean isMessage(String name) {
        return name.toLowerCase(Locale.ROOT).endsWith(".eml");
    }

    /** By its first bytes; mail programs give such files no ending. */
    private static boolean isMbox(Path file, String name) {
        if (name.contains(".") && !name.toLowerCase(Locale.ROOT).endsWith(".mbox")) {
            return false;
        }
        try {
            return isFrom(part(file, 0, FROM.length), 0);
        } catch (IOException e) {
            return false;
        }
    }

    /** What a folder held when it was looked at, which it holds as long as no name in it came or went. */
    private record Held(FileTime changed, List<Message> newest) {}

    private static final Map<Path, Held> HELD = new ConcurrentHashMap<>();

    /** A folder that was changed so lately may be changed again without its time telling that. */
    private static final Duration JUST_NOW = Duration.ofSeconds(3);

    /** The newest messages of a folder, or of a file with many; the newest first. */
    static List<Message> newest(Path folder) throws IOException {
        BasicFileAttributes own = Files.readAttributes(folder, BasicFileAttributes.class);
        FileTime changed = own.lastModifiedTime();
        for (String name : List.of("cur", "new")) {
            if (Files.isDirectory(folder.resolve(name))) {
                FileTime other = Files.getLastModifiedTime(folder.resolve(name));
                changed = other.compareTo(changed) > 0 ? other : changed;
            }
        }
        Held known = HELD.get(folder);
        if (known != null && known.changed().equals(changed)) {
            return known.newest();
        }
        List<Message> newest = newest(folder, own);
        // A file with many messages grows, and its folder does not tell.
        boolean single = own.isDirectory() && newest.stream().allMatch(m -> m.length() == m.size());
        if (single && changed.toInstant().isBefore(Instant.now().minus(JUST_NOW)) && !holdsMbox(folder)) {
            HELD.put(folder, new Held(changed, newest));
        } else {
            HELD.remove(folder);
        }
        return newest;
    }

    private static boolean holdsMbox(Path folder) throws IOException {
        try (DirectoryStream<Path> all =
                Files.newDirectoryStream(folder, f -> isMbox(f, String.valueOf(f.getFileName())))) {
            return all.iterator().hasNext();
        } catch (DirectoryIteratorException e) {
            throw e.getCause();
        }
    }

    private static List<Message> newest(Path folder, BasicFileAttributes own) throws IOException {
        List<Message> found = new ArrayList<>();
        if (own.isDirectory()) {
            list(folder, true, found);
            for (String name : List.of("cur", "new")) {
                if (Files.isDirectory(folder.resolve("cur")) && Files.isDirectory(folder.resolve(name))) {
                    list(folder.resolve(name), false, found);
                }
            }
        } else if (isMbox(folder, String.valueOf(folder.getFileName()))) {
            found.addAll(mbox(folder, own));
        }
        found.sort(Comparator.comparing(Message::changed)
                .thenComparing(Message::from)
                .thenComparing(Message::file)
                .reversed());
        return List.copyOf(found.subList(0, Math.min(found.size(), NEWEST)));
    }

    /**
     * The messages of one folder.
     *
     * @param named whether only files are messages that are called so
     */
    private static void list(Path folder, boolean named, List<Message> to) {
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
            for (Path file : all) {
                String name = String.valueOf(file.getFileName());
                BasicFileAttributes a =
                        Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
                if (!a.isRegularFile() || name.startsWith(".")) {
                    continue;
                }
                if (!named || isMessage(name)) {
                    if (a.size() <= LARGEST) {
                        to.add(new Message(file, a.size(), a.lastModifiedTime(), 0, a.size()));
                    }
                } else if (isMbox(file, name)) {
                    to.addAll(mbox(file, a));
                }
            }
        } catch (IOException | DirectoryIteratorException e) {
            // A folder that is away, or a message that was moved while we looked: nothing came from there.
            org.slf4j.LoggerFactory.getLogger(MessageFiles.class).debug("{} cannot be looked at", folder, e);
        }
    }

    /** The last messages of a file with many. */
    private static List<Message> mbox(Path file, BasicFileAttributes a) throws IOException {
        long begin = Math.max(0, a.size() - TAIL);
        byte[] tail = part(file, begin, a.size() - begin);
        List<Integer> starts = new ArrayList<>();
        for (int i = 0; i < tail.length; i++) {
            if (isFrom(tail, i) && (i == 0 ? begin == 0 : isAfterEmptyLine(tail, i))) {
                starts.add(i);
            }
        }
        List<Message> found = new ArrayList<>();
        for (int n = Math.max(0, starts.size() - NEWEST); n < starts.size(); n++) {
            int from = starts.get(n);
            int end = n + 1 < starts.size() ? starts.get(n + 1) : tail.length;
            found.add(new Message(file, a.size(), a.lastModifiedTime(), begin + from, end - from));
        }
        return found;
    }

    private static boolean isFrom(byte[] bytes, int at) {
        return at + FROM.length <= bytes.length && Arrays.equals(bytes, at, at + FROM.length, FROM, 0, FROM.length);
    }

    private static boolean isAfterEmptyLine(byte[] bytes, int at) {
        int end = at - 1;
        if (bytes[end] != '\n') {
            return false;
        }
        int before = end > 0 && bytes[end - 1] == '\r' ? end - 2 : end - 1;
        return before >= 0 && bytes[before] == '\n';
    }

    private static byte[] part(Path file, long from, long length) throws IOException {
        ByteBuffer bytes = ByteBuffer.allocate(Math.toIntExact(length));
        try (FileChannel in = FileChannel.open(file)) {
            in.position(from);
            while (bytes.hasRemaining() && in.read(bytes) >= 0) {
                // Until there is all of it.
            }
        }
        return Arrays.copyOf(bytes.array(), bytes.position());
    }
}
