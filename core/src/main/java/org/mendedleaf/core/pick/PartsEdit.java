package org.mendedleaf.core.pick;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;
import org.mendedleaf.core.words.Words;

/** Writes single parts of a document that is a ZIP archive anew; all others go over packed as they are. */
final class PartsEdit implements AutoCloseable {

    /** Larger parts are not written anew. Bytes. */
    private static final int MOST = 48 << 20;

    private static final Pattern ENCODING = Pattern.compile("^<\\?xml[^>]*encoding\\s*=\\s*[\"']([\\w-]+)[\"']");

    private final ZipFile zip;
    private final Map<String, String> anew = new HashMap<>();
    private final Set<String> gone = new HashSet<>();

    PartsEdit(byte[] content) throws IOException {
        zip = ZipFile.builder().setByteArray(content).get();
    }

    boolean has(String part) {
        return zip.getEntry(part) != null && !gone.contains(part);
    }

    /** Whether any part's name begins so. */
    boolean hasAny(String prefix) {
        return Collections.list(zip.getEntries()).stream()
                .anyMatch(e -> e.getName().startsWith(prefix));
    }

    /** The bytes of a part; empty when there is none. */
    Optional<byte[]> bytes(String part) throws IOException {
        ZipArchiveEntry e = zip.getEntry(part);
        if (e == null) {
            return Optional.empty();
        }
        try (InputStream in = zip.getInputStream(e)) {
            byte[] bytes = in.readNBytes(MOST + 1);
            if (bytes.length > MOST) {
                throw new IOException(Words.of("pick.large"));
            }
            return Optional.of(bytes);
        }
    }

    /** A part of XML as text; only UTF-8 is known, as all office programs write it. */
    String text(String part) throws IOException {
        String made = anew.get(part);
        if (made != null) {
            return made;
        }
        byte[] bytes = bytes(part).orElseThrow(() -> new IOException(Words.of("document.noPart", part)));
        String text = new String(bytes, StandardCharsets.UTF_8);
        Matcher encoding = ENCODING.matcher(text.substring(text.startsWith("\uFEFF") ? 1 : 0));
        boolean utf8 = !encoding.find() || Charset.forName(encoding.group(1)).equals(StandardCharsets.UTF_8);
        if (!utf8 || !Arrays.equals(bytes, text.getBytes(StandardCharsets.UTF_8))) {
            throw new IOException(Words.of("pick.format"));
        }
        return text;
    }

    void put(String part, String text) {
        anew.put(part, text);
    }

    void remove(String part) {
        gone.add(part);
    }

    /** The document with what was put and removed. */
    byte[] made() throws IOException {
        SeekableInMemoryByteChannel channel = new SeekableInMemoryByteChannel();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipArchiveOutputStream to = new ZipArchiveOutputStream(channel)) {
            for (ZipArchiveEntry e : Collections.list(zip.getEntriesInPhysicalOrder())) {
                String text = anew.get(e.getName());
                if (gone.contains(e.getName())) {
                    continue;
                }
                if (text == null) {
                    try (InputStream raw = zip.getRawInputStream(e)) {
                        to.addRawArchiveEntry(e, raw);
                    }
                } else {
                    ZipArchiveEntry fresh = new ZipArchiveEntry(e.getName());
                    fresh.setTime(e.getTime());
                    fresh.setMethod(ZipArchiveEntry.DEFLATED);
                    to.putArchiveEntry(fresh);
                    to.write(text.getBytes(StandardCharsets.UTF_8));
                    to.closeArchiveEntry();
                }
            }
        }
        out.write(channel.array(), 0, (int) channel.size());
        return out.toByteArray();
    }

    @Override
    public void close() throws IOException {
        zip.close();
    }
}
