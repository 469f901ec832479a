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
import java.util.HexFormat;
import java.util.Optional;
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
import org.mendedleaf.core.document.Health.Reason;
import org.mendedleaf.core.words.Words;

/** Reads a file to its end as its format says, for what only shows when all of it is looked at: checksums, and whether it is whole. */
final class FormatCheck {

    private static final int END_WITHIN = 4096;

    private final String ending;
    private final byte[] content;
    private final Limits limits;

    /**
     * A check of this content.
     *
     * @param ending of its name, in small letters
     * @param limits of what is unpacked of it
     */
    FormatCheck(String ending, byte[] content, Limits limits) {
        this.ending = ending;
        this.content = content;
        this.limits = limits;
    }

    /** What was found, and where. */
    record Found(Reason reason, String detail) {
        static final Found WELL = new Found(Reason.WELL, "");
    }

    /** What only shows when all of it is looked at. */
    Found run() {
        try {
            if (HexFormat.of()
                    .formatHex(Arrays.copyOf(content, Math.min(4, content.length)))
                    .equals("504b0304")) {
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
