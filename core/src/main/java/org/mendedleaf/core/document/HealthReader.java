package org.mendedleaf.core.document;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import java.io.ByteArrayInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.zip.CRC32;
import java.util.zip.InflaterInputStream;
import java.util.zip.ZipException;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSDocument;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.cos.COSObjectKey;
import org.apache.pdfbox.cos.COSStream;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.mendedleaf.core.document.Health.Kind;
import org.mendedleaf.core.document.Health.Reason;
import org.mendedleaf.core.words.Words;

/**
 * Tells whether a content is what its name says, and whole: archives by the checksums of their members, pictures by their end
 * and their own checksums, documents by their structure, structured text by its grammar.
 */
final class HealthReader {

    private static final int NOISE_OF = 1 << 16;
    private static final int END_WITHIN = 4096;

    /** Of fewer bytes, to be all alike says nothing. */
    private static final int ALIKE_LEAST = 64;

    private static final Map<String, Set<Kind>> EXPECTED = Map.ofEntries(
            Map.entry("ods", EnumSet.of(Kind.SHEETS)),
            Map.entry("xlsx", EnumSet.of(Kind.SHEETS)),
            Map.entry("xls", EnumSet.of(Kind.SHEETS)),
            Map.entry("csv", EnumSet.of(Kind.SHEETS, Kind.TEXT)),
            Map.entry("tsv", EnumSet.of(Kind.SHEETS, Kind.TEXT)),
            Map.entry("odt", EnumSet.of(Kind.PROSE)),
            Map.entry("docx", EnumSet.of(Kind.PROSE)),
            Map.entry("doc", EnumSet.of(Kind.PROSE)),
            Map.entry("rtf", EnumSet.of(Kind.PROSE)),
            Map.entry("odp", EnumSet.of(Kind.SLIDES)),
            Map.entry("pptx", EnumSet.of(Kind.SLIDES)),
            Map.entry("pdf", EnumSet.of(Kind.PAGES)),
            Map.entry("png", EnumSet.of(Kind.PICTURE)),
            Map.entry("jpg", EnumSet.of(Kind.PICTURE)),
            Map.entry("jpeg", EnumSet.of(Kind.PICTURE)),
            Map.entry("gif", EnumSet.of(Kind.PICTURE)),
            Map.entry("bmp", EnumSet.of(Kind.PICTURE)),
            Map.entry("tif", EnumSet.of(Kind.PICTURE)),
            Map.entry("tiff", EnumSet.of(Kind.PICTURE)),
            Map.entry("webp", EnumSet.of(Kind.PICTURE)),
            Map.entry("svg", EnumSet.of(Kind.PICTURE)),
            Map.entry("zip", EnumSet.of(Kind.ARCHIVE, Kind.PROSE, Kind.SHEETS, Kind.SLIDES)),
            Map.entry("tar", EnumSet.of(Kind.ARCHIVE)),
            Map.entry("gz", EnumSet.of(Kind.ARCHIVE)),
            Map.entry("tgz", EnumSet.of(Kind.ARCHIVE)),
            Map.entry("eml", EnumSet.of(Kind.MAIL, Kind.TEXT)),
            Map.entry("txt", EnumSet.of(Kind.TEXT)),
            Map.entry("md", EnumSet.of(Kind.PROSE, Kind.TEXT)),
            Map.entry("html", EnumSet.of(Kind.TEXT)),
            Map.entry("xml", EnumSet.of(Kind.TEXT)),
            Map.entry("json", EnumSet.of(Kind.TEXT)));

    private final String ending;
    private final byte[] content;
    private final Limits limits;

    private HealthReader(String ending, byte[] content, Limits limits) {
        this.ending = ending;
        this.content = content;
        this.limits = limits;
    }

    static Health read(String name, byte[] content, Limits limits) {
        String lower = name.toLowerCase(Locale.ROOT);
        return new HealthReader(lower.substring(lower.lastIndexOf('.') + 1), content, limits)
                .read(Documents.read(name, content, false, limits));
    }

    private Health read(Document document) {
        Kind kind = kind(document);
        String detail = "";
        Reason reason;
        Set<Kind> expected = EXPECTED.getOrDefault(ending, Set.of());
        if (content.length == 0) {
            reason = Reason.EMPTY;
        } else if (isAllAlike()) {
            reason = Reason.ONE_BYTE;
        } else if (document instanceof Document.Other other && (!other.why().isEmpty() || !expected.isEmpty())) {
            boolean limit = !other.why().isEmpty() && !isDamage(other.why());
            reason = limit
                    ? Reason.NOT_READ
                    : expected.contains(Kind.TEXT) && !expected.contains(Kind.MAIL)
                            ? Reason.NOT_TEXT
                            : Reason.DOES_NOT_OPEN;
            detail = limit ? other.why() : "";
        } else if (!expected.isEmpty() && (!expected.contains(kind) || ending.equals("svg") && !isDrawn())) {
            reason = Reason.OTHER_KIND;
            detail = kind.name();
        } else {
            Found found = deeper();
            reason = found.reason();
            detail = found.detail();
        }
        if (reason == Reason.WELL && document instanceof Document.Picture picture) {
            detail = picture.width() + " × " + picture.height();
        }
        return new Health(reason, detail, kind, amount(document), mass(document), noise(), head());
    }

    private static boolean isDamage(String why) {
        return Set.of(Words.of("document.damaged"), Words.of("document.noPicture"), Words.of("document.xml"))
                .contains(why);
    }

    private boolean isAllAlike() {
        if (content.length < ALIKE_LEAST) {
            return false;
        }
        for (byte b : content) {
            if (b != content[0]) {
                return false;
            }
        }
        return true;
    }

    /** Whether it is written as a drawing is; a picture of pixels is none, whatever its name says. */
    private boolean isDrawn() {
        return Documents.isPlain(content);
    }

    private static Kind kind(Document document) {
        if (document instanceof Document.Text) {
            return Kind.TEXT;
        } else if (document instanceof Document.Sheets) {
            return Kind.SHEETS;
        } else if (document instanceof Document.Prose prose) {
            return switch (prose.form()) {
                case DOCUMENT -> Kind.PROSE;
                case SLIDES -> Kind.SLIDES;
                case PAGES -> Kind.PAGES;
                case MAIL -> Kind.MAIL;
            };
        } else if (document instanceof Document.Picture) {
            return Kind.PICTURE;
        } else if (document instanceof Document.Archive) {
            return Kind.ARCHIVE;
        }
        return document instanceof Document.Empty ? Kind.EMPTY : Kind.DATA;
    }

    private long amount(Document document) {
        if (document instanceof Document.Text text) {
            return text.lines().size();
        } else if (document instanceof Document.Sheets sheets) {
            return sheets.sheets().stream()
                    .flatMap(s -> s.rows().stream())
                    .filter(r -> !r.isEmpty())
                    .count();
        } else if (document instanceof Document.Prose prose) {
            return prose.form() == Document.Form.DOCUMENT
                    ? prose.sections().stream()
                            .mapToLong(s -> s.blocks().size())
                            .sum()
                    : prose.sections().size();
        } else if (document instanceof Document.Archive archive) {
            return archive.members().size();
        }
        return content.length;
    }

    private long mass(Document document) {
        if (document instanceof Document.Picture picture) {
            return (long) picture.width() * picture.height();
        }
        boolean says = document instanceof Document.Text
                || document instanceof Document.Sheets
                || document instanceof Document.Prose;
        return says
                ? Document.words(document).stream()
                        .mapToLong(w -> w.strip().length())
                        .sum()
                : content.length;
    }

    private int noise() {
        int length = Math.min(content.length, NOISE_OF);
        int[] counts = new int[256];
        for (int i = 0; i < length; i++) {
            counts[content[i] & 0xff]++;
        }
        double bits = 0;
        for (int count : counts) {
            if (count > 0) {
                double share = (double) count / length;
                bits -= share * Math.log(share) / Math.log(2);
            }
        }
        return (int) Math.round(bits * 100);
    }

    private String head() {
        return HexFormat.of().formatHex(Arrays.copyOf(content, Math.min(4, content.length)));
    }

    private record Found(Reason reason, String detail) {
        private static final Found WELL = new Found(Reason.WELL, "");
    }

    /** What only shows when all of it is looked at. */
    private Found deeper() {
        try {
            if (starts("504b0304")) {
                return members();
            }
            return switch (ending) {
                case "png" -> png();
                case "jpg", "jpeg" -> endsLate(content.length / 2, 0xff, 0xd9);
                case "gif" -> endsLate(content.length - END_WITHIN, 0x3b);
                case "pdf" -> {
                    Found end = endsLate(content.length - END_WITHIN, '%', '%', 'E', 'O', 'F');
                    yield end.equals(Found.WELL) ? streams() : end;
                }
                case "json" -> json();
                case "xml" -> xml();
                default -> Found.WELL;
            };
        } catch (IOException | RuntimeException e) {
            return new Found(Reason.DOES_NOT_OPEN, "");
        }
    }

    private boolean starts(String hex) {
        return head().startsWith(hex);
    }

    /** Whether these bytes stand last somewhere from here on. */
    private Found endsLate(int from, int... bytes) {
        for (int at = content.length - bytes.length; at >= Math.max(0, from); at--) {
            boolean is = true;
            for (int i = 0; i < bytes.length && is; i++) {
                is = (content[at + i] & 0xff) == bytes[i];
            }
            if (is) {
                return Found.WELL;
            }
        }
        return new Found(Reason.CUT_SHORT, "");
    }

    /** Each member against the checksum that the directory has of it (PKWARE APPNOTE 4.4.7). */
    private Found members() throws IOException {
        long[] left = {limits.unpacked()};
        try (ZipFile zip = ZipFile.builder().setByteArray(content).get()) {
            for (ZipArchiveEntry entry : Collections.list(zip.getEntriesInPhysicalOrder())) {
                if (entry.isDirectory() || !zip.canReadEntryData(entry)) {
                    continue;
                }
                Optional<Long> crc = crc(zip, entry, left);
                if (crc.isEmpty()) {
                    return Found.WELL;
                }
                if (crc.get() != entry.getCrc()) {
                    return new Found(Reason.CHECKSUM, entry.getName());
                }
            }
        }
        return Found.WELL;
    }

    /** The checksum of a member; empty when it unpacks to more than is looked at. */
    private static Optional<Long> crc(ZipFile zip, ZipArchiveEntry entry, long[] left) throws IOException {
        CRC32 crc = new CRC32();
        byte[] buffer = new byte[1 << 15];
        try (InputStream in = zip.getInputStream(entry)) {
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                crc.update(buffer, 0, n);
                left[0] -= n;
                if (left[0] < 0) {
                    return Optional.empty();
                }
            }
        } catch (IOException e) {
            // What was damaged within cannot be inflated: no checksum is its own.
            return Optional.of(~entry.getCrc());
        }
        return Optional.of(crc.getValue());
    }

    /** Chunk by chunk to its end (ISO/IEC 15948, 5.3). */
    private Found png() {
        ByteBuffer bytes = ByteBuffer.wrap(content);
        int at = 8;
        while (at <= content.length - 12) {
            long length = bytes.getInt(at) & 0xffffffffL;
            String type = new String(content, at + 4, 4, StandardCharsets.US_ASCII);
            if (length > content.length - at - 12L) {
                return new Found(Reason.CUT_SHORT, "");
            }
            CRC32 crc = new CRC32();
            crc.update(content, at + 4, (int) length + 4);
            if ((int) crc.getValue() != bytes.getInt(at + 8 + (int) length)) {
                return new Found(Reason.CHECKSUM, type);
            }
            if (type.equals("IEND")) {
                return Found.WELL;
            }
            at += 12 + (int) length;
        }
        return new Found(Reason.CUT_SHORT, "");
    }

    /** Each deflated stream of a PDF to its end, with its checksum (RFC 1950); who shows a PDF passes over broken ones. */
    private Found streams() throws IOException {
        long[] left = {limits.unpacked()};
        byte[] buffer = new byte[1 << 15];
        try (PDDocument pdf = Loader.loadPDF(new RandomAccessReadBuffer(content))) {
            COSDocument cos = pdf.getDocument();
            for (COSObjectKey key : cos.getXrefTable().keySet()) {
                boolean deflated = cos.getObjectFromPool(key).getObject() instanceof COSStream stream
                        && COSName.FLATE_DECODE.equals(stream.getFilters())
                        && left[0] > 0;
                if (!deflated) {
                    continue;
                }
                COSStream stream = (COSStream) cos.getObjectFromPool(key).getObject();
                try (InputStream in = new InflaterInputStream(stream.createRawInputStream())) {
                    for (int n = in.read(buffer); n >= 0 && left[0] > 0; n = in.read(buffer)) {
                        left[0] -= n;
                    }
                } catch (ZipException | EOFException e) {
                    return new Found(Reason.CHECKSUM, Words.inAll(() -> Words.of("health.stream", key.getNumber())));
                }
            }
        }
        return Found.WELL;
    }

    private Found json() throws IOException {
        try (JsonParser parser = new JsonFactory().createParser(content)) {
            while (parser.nextToken() != null) {
                // Whether it can be read to its end is all that counts.
            }
            return Found.WELL;
        } catch (JsonParseException e) {
            return new Found(
                    Reason.DOES_NOT_PARSE,
                    Words.inAll(() -> Words.of("health.line", e.getLocation().getLineNr())));
        }
    }

    private Found xml() throws IOException {
        try (XmlReader xml = new XmlReader(new ByteArrayInputStream(content), limits)) {
            while (xml.next()) {
                // As above.
            }
            return Found.WELL;
        } catch (DocumentException e) {
            return new Found(Reason.DOES_NOT_PARSE, e.words());
        }
    }
}
