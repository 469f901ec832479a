package org.mendedleaf.core.document;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Enumeration;
import java.util.List;
import java.util.Optional;
import java.util.zip.CRC32;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;
import org.mendedleaf.core.document.Document.Member;
import org.mendedleaf.core.words.Words;

/** Archives: ZIP by its directory, TAR, GZIP (RFC 1952), and TAR within GZIP. */
final class ArchiveReader {

    private ArchiveReader() {}

    static boolean isGzip(byte[] b) {
        return b.length > 2 && (b[0] & 0xff) == 0x1f && (b[1] & 0xff) == 0x8b;
    }

    static boolean isTar(byte[] b) {
        return b.length > 262 && b[257] == 'u' && b[258] == 's' && b[259] == 't' && b[260] == 'a' && b[261] == 'r';
    }

    /** The first members of an archive that has more than are listed; of all others nothing. */
    static Optional<Document> largeZip(byte[] content, Limits limits) {
        ZipDirectory directory = ZipDirectory.of(content);
        if (!directory.hasMoreThan(limits.members())) {
            return Optional.empty();
        }
        List<Member> members = directory.first(limits.members());
        members.sort(Comparator.comparing(Member::path));
        return Optional.of(new Document.Archive("ZIP", members, true));
    }

    static Document zip(byte[] content) throws IOException {
        List<Member> members = new ArrayList<>();
        try (ZipFile zip = ZipFile.builder().setByteArray(content).get()) {
            for (Enumeration<ZipArchiveEntry> all = zip.getEntriesInPhysicalOrder(); all.hasMoreElements(); ) {
                ZipArchiveEntry e = all.nextElement();
                members.add(new Member(
                        e.getName(),
                        e.isDirectory(),
                        e.getSize(),
                        e.getTime() < 0 ? 0 : e.getTime(),
                        e.isDirectory() ? "" : Long.toHexString(e.getCrc())));
            }
        }
        members.sort(Comparator.comparing(Member::path));
        return new Document.Archive("ZIP", members, false);
    }

    static Document tar(byte[] content, String format, Limits limits) throws IOException {
        List<Member> members = new ArrayList<>();
        long[] left = {limits.unpacked()};
        boolean cut = false;
        try (InputStream in = unpacked(content, left);
                TarArchiveInputStream tar = new TarArchiveInputStream(in)) {
            for (TarArchiveEntry e = tar.getNextEntry(); e != null; e = tar.getNextEntry()) {
                if (members.size() >= limits.members()) {
                    cut = true;
                    break;
                }
                String check = e.isFile() ? crc(tar) : "";
                members.add(new Member(
                        e.getName(),
                        e.isDirectory(),
                        e.getSize(),
                        e.getModTime().getTime(),
                        check));
            }
        }
        members.sort(Comparator.comparing(Member::path));
        return new Document.Archive(format, members, cut);
    }

    private static InputStream unpacked(byte[] content, long[] left) throws IOException {
        InputStream in = new ByteArrayInputStream(content);
        return isGzip(content)
                ? new BufferedInputStream(new Parts.Limited(
                        GzipCompressorInputStream.builder()
                                .setInputStream(in)
                                .setDecompressConcatenated(true)
                                .get(),
                        left))
                : in;
    }

    private static String crc(InputStream in) throws IOException {
        CRC32 crc = new CRC32();
        byte[] buffer = new byte[1 << 16];
        for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
            crc.update(buffer, 0, n);
        }
        return Long.toHexString(crc.getValue());
    }

    /** What GZIP holds: a TAR archive, or one file. */
    static Document gzip(String name, byte[] content, Limits limits) throws IOException {
        long[] left = {limits.unpacked()};
        byte[] head;
        try (InputStream in = unpacked(content, left)) {
            head = in.readNBytes(512);
        }
        if (isTar(head)) {
            return tar(content, "TAR, GZIP", limits);
        }
        byte[] whole = member(content, "", limits);
        CRC32 crc = new CRC32();
        crc.update(whole);
        String inner = name.toLowerCase(java.util.Locale.ROOT).endsWith(".gz")
                ? name.substring(name.lastIndexOf('/') + 1, name.length() - 3)
                : name.substring(name.lastIndexOf('/') + 1);
        return new Document.Archive(
                "GZIP", List.of(new Member(inner, false, whole.length, 0, Long.toHexString(crc.getValue()))), false);
    }

    /** The content of a member; of GZIP that holds one file, of that. */
    static byte[] member(byte[] content, String path, Limits limits) throws IOException {
        long[] left = {limits.unpacked()};
        if (isTar(content) || isGzip(content)) {
            byte[] head;
            try (InputStream in = unpacked(content, left)) {
                head = in.readNBytes(512);
            }
            if (!isTar(head)) {
                return all(unpacked(content, left));
            }
            try (InputStream in = unpacked(content, left);
                    TarArchiveInputStream tar = new TarArchiveInputStream(in)) {
                for (TarArchiveEntry e = tar.getNextEntry(); e != null; e = tar.getNextEntry()) {
                    if (e.getName().equals(path) && e.isFile()) {
                        return all(new Parts.Limited(tar, left));
                    }
                }
            }
            throw new DocumentException(Words.of("document.noPart", path));
        }
        try (Parts parts = new Parts(content, limits);
                InputStream in = parts.open(path)) {
            return all(in);
        }
    }

    private static byte[] all(InputStream in) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        in.transferTo(out);
        return out.toByteArray();
    }
}
