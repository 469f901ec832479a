package org.mendedleaf.core.document;

import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.metadata.Directory;
import com.drew.metadata.Metadata;
import com.drew.metadata.Tag;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.apache.fontbox.ttf.NamingTable;
import org.apache.fontbox.ttf.OTFParser;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.document.Document.Fact;
import org.mendedleaf.core.words.Words;

/** What can be said of a content of any other kind: facts from its head, and runs of text within it. */
final class OtherReader {

    private static final int FACTS_MOST = 40;
    private static final int STRINGS_MOST = 400;
    private static final int HEX_MOST = 128;
    private static final int SHORTEST = 6;
    private static final int LONGEST = 400;

    private OtherReader() {}

    /**
     * Reads.
     *
     * @param why it is not shown as what it is; may be empty
     */
    static Document read(String type, byte[] content, String why) {
        boolean media = type.startsWith("audio/") || type.startsWith("video/") || type.startsWith("image/");
        List<Fact> facts = media ? facts(content) : isFont(content) ? font(content) : List.of();
        return new Document.Other(type, why, facts, strings(content), hex(content));
    }

    /** By the first bytes of TrueType and OpenType (ISO/IEC 14496-22). */
    private static boolean isFont(byte[] b) {
        return b.length > 12
                && (b[0] == 0 && b[1] == 1 && b[2] == 0 && b[3] == 0
                        || b[0] == 'O' && b[1] == 'T' && b[2] == 'T' && b[3] == 'O'
                        || b[0] == 't' && b[1] == 'r' && b[2] == 'u' && b[3] == 'e');
    }

    private static List<Fact> font(byte[] content) {
        List<Fact> facts = new ArrayList<>();
        TTFParser parser = content[0] == 'O' ? new OTFParser() : new TTFParser();
        try (TrueTypeFont font = parser.parse(new RandomAccessReadBuffer(content))) {
            NamingTable names = font.getNaming();
            if (names != null) {
                fact(facts, "document.fact.family", names.getFontFamily());
                fact(facts, "document.fact.style", names.getFontSubFamily());
            }
            fact(facts, "document.fact.name", font.getName());
            fact(facts, "document.fact.glyphs", Integer.toString(font.getNumberOfGlyphs()));
            fact(
                    facts,
                    "document.fact.revision",
                    Float.toString(font.getHeader().getFontRevision()));
        } catch (IOException | RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(OtherReader.class).debug("no facts of a font", e);
        }
        return facts;
    }

    private static void fact(List<Fact> facts, String key, @Nullable String value) {
        if (value != null && !value.isBlank()) {
            facts.add(new Fact(Words.of(key), value.strip()));
        }
    }

    private static List<String> hex(byte[] bytes) {
        List<String> lines = new ArrayList<>();
        for (int at = 0; at < bytes.length && lines.size() < HEX_MOST; at += 16) {
            StringBuilder hex = new StringBuilder(String.format(Locale.ROOT, "%06x  ", at));
            StringBuilder text = new StringBuilder();
            for (int i = at; i < at + 16; i++) {
                boolean there = i < bytes.length;
                hex.append(there ? String.format(Locale.ROOT, "%02x ", bytes[i] & 0xff) : "   ");
                text.append(there ? (bytes[i] >= 32 && bytes[i] < 127 ? (char) bytes[i] : '·') : ' ');
            }
            lines.add(hex.append(' ').append(text).toString());
        }
        return lines;
    }

    private static List<Fact> facts(byte[] content) {
        List<Fact> facts = new ArrayList<>();
        try {
            Metadata metadata = ImageMetadataReader.readMetadata(new ByteArrayInputStream(content), content.length);
            for (Directory directory : metadata.getDirectories()) {
                for (Tag tag : directory.getTags()) {
                    String value = tag.getDescription();
                    if (value != null && !value.isBlank() && value.length() < LONGEST && facts.size() < FACTS_MOST) {
                        facts.add(new Fact(tag.getTagName(), value.strip()));
                    }
                }
            }
        } catch (ImageProcessingException | IOException | RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(OtherReader.class).debug("no facts", e);
        }
        return facts;
    }

    /** Runs of printable characters, as the tool of that name finds them. */
    private static List<String> strings(byte[] content) {
        List<String> found = new ArrayList<>();
        StringBuilder run = new StringBuilder();
        for (int i = 0; i <= content.length && found.size() < STRINGS_MOST; i++) {
            boolean printable = i < content.length && content[i] >= 32 && content[i] < 127;
            if (printable && run.length() < LONGEST) {
                run.append((char) content[i]);
            } else {
                if (run.length() >= SHORTEST) {
                    found.add(run.toString());
                }
                run.setLength(0);
            }
        }
        return found;
    }
}
