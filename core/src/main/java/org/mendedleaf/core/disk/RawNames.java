package org.mendedleaf.core.disk;

import java.io.ByteArrayOutputStream;
import java.net.URI;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Path;

/**
 * Names of files as text, and back. On Unix a name is bytes, which need not be text in UTF-8: such a name is told apart
 * from every other by standing, byte for byte, for characters of the private use area (U+F780 to U+F7FF for the bytes 80
 * to FF), so that the file can be kept and gets its very name back. A name that has such characters itself is written in
 * the same way, so that no two names are the same text. Java reaches such a file by its address only, where each byte is
 * given with a percent sign (RFC 3986, 2.1).
 */
public final class RawNames {

    private static final char FIRST = '\uF780';
    private static final char LAST = '\uF7FF';
    private static final int SHIFT = FIRST - 0x80;

    private static final boolean UNIX =
            FileSystems.getDefault().supportedFileAttributeViews().contains("unix");

    private RawNames() {}

    /** Whether a character stands for a byte. */
    public static boolean isByte(int c) {
        return c >= FIRST && c <= LAST;
    }

    /** The byte that such a character stands for, 0x80 to 0xFF. */
    public static int byteOf(int c) {
        return c - SHIFT;
    }

    /** Whether a text stands for a name that is no text. */
    public static boolean isRaw(String text) {
        for (int i = 0; i < text.length(); i++) {
            if (isByte(text.charAt(i))) {
                return true;
            }
        }
        return false;
    }

    /** The bytes of a name, as the system has them. */
    public static byte[] bytes(String text) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        int from = 0;
        for (int i = 0; i <= text.length(); i++) {
            if (i == text.length() || isByte(text.charAt(i))) {
                bytes.writeBytes(text.substring(from, i).getBytes(StandardCharsets.UTF_8));
                if (i < text.length()) {
                    bytes.write(text.charAt(i) - SHIFT);
                }
                from = i + 1;
            }
        }
        return bytes.toByteArray();
    }

    /** The text for these bytes of a name: what they say in UTF-8, when that is so. */
    static String text(byte[] bytes) {
        try {
            String plain = StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
            if (!isRaw(plain)) {
                return plain;
            }
        } catch (CharacterCodingException e) {
            // The answer is given below.
            org.slf4j.LoggerFactory.getLogger(RawNames.class).trace("no text", e);
        }
        StringBuilder text = new StringBuilder();
        for (byte b : bytes) {
            text.append(b >= 0 ? (char) b : (char) ((b & 0xFF) + SHIFT));
        }
        return text.toString();
    }

    /**
     * A path of the system as text with slashes. Where names of the system are text anyhow, that is what is given.
     *
     * @param path relative or absolute
     */
    public static String text(Path path) {
        String plain = path.toString();
        if (!UNIX || (plain.indexOf('\uFFFD') < 0 && !isRaw(plain))) {
            String separator = path.getFileSystem().getSeparator();
            return separator.equals("/") ? plain : plain.replace(separator, "/");
        }
        String address = path.toUri().getRawPath();
        if (address.length() > 1 && address.endsWith("/")) {
            address = address.substring(0, address.length() - 1);
        }
        if (!path.isAbsolute()) {
            String here = Path.of("").toUri().getRawPath();
            address = address.substring(here.length());
        }
        return text(unescape(address));
    }

    private static byte[] unescape(String address) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (int i = 0; i < address.length(); i++) {
            char c = address.charAt(i);
            if (c == '%') {
                bytes.write(Integer.parseInt(address, i + 1, i + 3, 16));
                i += 2;
            } else {
                bytes.write(c);
            }
        }
        return bytes.toByteArray();
    }

    /**
     * The path of the system for a text that {@link #text(Path)} gave, or that is plain.
     *
     * @throws java.nio.file.InvalidPathException when the system has no such names
     */
    public static Path path(String text) {
        if (!UNIX || !isRaw(text)) {
            return Path.of(text);
        }
        StringBuilder address = new StringBuilder("file:///");
        boolean absolute = text.startsWith("/");
        for (byte b : bytes(absolute ? text.substring(1) : text)) {
            address.append(b == '/' ? "/" : String.format("%%%02X", b & 0xFF));
        }
        Path whole = Path.of(URI.create(address.toString()));
        return absolute ? whole : whole.subpath(0, whole.getNameCount());
    }

    /** As {@link #path(String)}, of a file system that need not be that of this computer. */
    static Path path(FileSystem system, String text) {
        return system.equals(FileSystems.getDefault()) ? path(text) : system.getPath(text);
    }

    /** The path of the system for a place's path below its root. */
    public static Path resolve(Path root, String path) {
        return root.resolve(path(root.getFileSystem(), path));
    }

    /** As people read it: each byte that is no text is the sign for that, U+FFFD. */
    public static String readable(String text) {
        return isRaw(text) ? new String(bytes(text), StandardCharsets.UTF_8) : text;
    }
}
