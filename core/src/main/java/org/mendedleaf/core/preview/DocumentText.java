package org.mendedleaf.core.preview;

import java.io.ByteArrayInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.text.PDFTextStripper;

/** The words of a content: of text as they are, of office documents (ZIP with XML members) and PDF without their form. */
public final class DocumentText {

    /** Contents larger than this have no words taken out of them. Bytes. */
    public static final int MOST = 32 << 20;

    private static final long UNPACKED_MOST = 96L << 20;
    private static final int PAGES_MOST = 400;
    private static final int MEMBERS_MOST = 4000;

    /** A page that was begun is read to its end; with the next one it is enough. */
    private static final long PDF_NANOS_MOST = TimeUnit.SECONDS.toNanos(10);

    /** Elements after which a line ends: paragraphs, headings, rows; and those after which a cell does. */
    private static final Set<String> LINES = Set.of("p", "h", "row", "table-row");

    private static final Set<String> CELLS = Set.of("c", "table-cell", "covered-table-cell");

    private static final class Xml {
        private static final XMLInputFactory FACTORY = XMLInputFactory.newInstance();

        static {
            FACTORY.setProperty(XMLInputFactory.SUPPORT_DTD, false);
            FACTORY.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
            FACTORY.setProperty(XMLInputFactory.IS_COALESCING, true);
        }
    }

    private DocumentText() {}

    /**
     * The words of a content; empty when it has none that can be read, as with pictures and damaged documents.
     *
     * @param mediaType what it is, as {@link Contents#mediaType} says
     */
    public static Optional<String> of(String mediaType, byte[] content) {
        if (content.length == 0 || content.length > MOST) {
            return Optional.empty();
        }
        try {
            if (startsLikeZip(content)) {
                return filled(members(content));
            }
            if (mediaType.equals("application/pdf")) {
                return filled(pdf(content));
            }
        } catch (IOException | RuntimeException | StackOverflowError | OutOfMemoryError e) {
            // A document that cannot be read is none whose words could be compared, however it was made so.
            org.slf4j.LoggerFactory.getLogger(DocumentText.class).debug("no words in a {}", mediaType, e);
            return Optional.empty();
        }
        Optional<String> text = Contents.text(content);
        boolean markup = mediaType.endsWith("xml") || mediaType.equals("text/html");
        return markup ? text.map(DocumentText::ofMarkup) : text;
    }

    /** What stands between the tags; a drawing says all it says within them. */
    private static String ofMarkup(String markup) {
        String between = markup.replaceAll("<[^>]*>", " ");
        return between.isBlank() ? markup : between;
    }

    private static Optional<String> filled(String text) {
        return text.isBlank() ? Optional.empty() : Optional.of(text);
    }

    private static boolean startsLikeZip(byte[] b) {
        return b.length > 30 && b[0] == 'P' && b[1] == 'K' && b[2] == 3 && b[3] == 4;
    }

    /** Members with what people wrote: OpenDocument (ISO/IEC 26300) and Office Open XML (ISO/IEC 29500). */
    private static boolean holdsWords(String member) {
        String m = member.toLowerCase(Locale.ROOT);
        return m.equals("content.xml")
                || m.equals("word/document.xml")
                || m.startsWith("word/header")
                || m.startsWith("word/footer")
                || m.equals("xl/sharedstrings.xml")
                || (m.startsWith("xl/worksheets/") && m.endsWith(".xml"))
                || (m.startsWith("ppt/slides/") && m.endsWith(".xml"));
    }

    private static String members(byte[] content) throws IOException {
        Map<String, byte[]> members = new LinkedHashMap<>();
        long[] left = {UNPACKED_MOST};
        // By its directory: what holds no words is not unpacked, however much it would be.
        try (ZipFile zip = ZipFile.builder().setByteArray(content).get()) {
            for (ZipArchiveEntry e : Collections.list(zip.getEntriesInPhysicalOrder())) {
                if (holdsWords(e.getName()) && members.size() < MEMBERS_MOST) {
                    try (InputStream in = new Limited(zip.getInputStream(e), left)) {
                        members.put(e.getName().toLowerCase(Locale.ROOT), in.readAllBytes());
                    }
                }
            }
        }
        // Cells of Office Open XML name their texts by number, and the texts stand in a member of their own.
        List<String> shared = new ArrayList<>();
        byte[] strings = members.remove("xl/sharedstrings.xml");
        if (strings != null) {
            StringBuilder one = new StringBuilder();
            walk(strings, new Walker() {
                @Override
                public void begins(String element) {
                    // Only their ends divide them.
                }

                @Override
                public void text(String text, String type) {
                    one.append(text);
                }

                @Override
                public void ends(String element) {
                    if (element.equals("si")) {
                        shared.add(one.toString());
                        one.setLength(0);
                    }
                }
            });
        }
        StringBuilder words = new StringBuilder();
        for (byte[] member : members.values()) {
            walk(member, new Walker() {
                private int depth;

                @Override
                public void begins(String element) {
                    depth += CELLS.contains(element) ? 1 : 0;
                }

                @Override
                public void text(String text, String type) {
                    boolean named = type.equals("s") && text.matches("\\d{1,9}");
                    int number = named ? Integer.parseInt(text) : -1;
                    words.append(number >= 0 && number < shared.size() ? shared.get(number) : text);
                }

                @Override
                public void ends(String element) {
                    if (CELLS.contains(element)) {
                        depth--;
                        words.append('\t');
                    } else if (LINES.contains(element)) {
                        // A paragraph within a cell does not end the row.
                        words.append(depth > 0 ? ' ' : '\n');
                    }
                }
            });
        }
        return words.toString();
    }

    /** Hears of the texts and the ends of elements in a member. */
    private interface Walker {
        void begins(String element);

        /** A text, with the type of the cell that it is in. */
        void text(String text, String type);

        void ends(String element);
    }

    private static void walk(byte[] member, Walker walker) throws IOException {
        try {
            XMLStreamReader reader = Xml.FACTORY.createXMLStreamReader(new ByteArrayInputStream(member));
            String type = "";
            while (reader.hasNext()) {
                switch (reader.next()) {
                    case XMLStreamReader.START_ELEMENT -> {
                        walker.begins(reader.getLocalName());
                        if (reader.getLocalName().equals("c")) {
                            String t = reader.getAttributeValue(null, "t");
                            type = t == null ? "" : t;
                        }
                    }
                    case XMLStreamReader.CHARACTERS, XMLStreamReader.CDATA -> walker.text(reader.getText(), type);
                    case XMLStreamReader.END_ELEMENT -> {
                        walker.ends(reader.getLocalName());
                        type = reader.getLocalName().equals("c") ? "" : type;
                    }
                    default -> {
                        // Nothing else holds words.
                    }
                }
            }
            reader.close();
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }

    private static String pdf(byte[] content) throws IOException {
        try (PDDocument document = Loader.loadPDF(new RandomAccessReadBuffer(content))) {
            long until = System.nanoTime() + PDF_NANOS_MOST;
            PDFTextStripper stripper = new PDFTextStripper() {
                @Override
                protected void startPage(PDPage page) throws IOException {
                    if (System.nanoTime() - until > 0) {
                        throw new IOException("too long for one document");
                    }
                    super.startPage(page);
                }
            };
            stripper.setEndPage(PAGES_MOST);
            return stripper.getText(document);
        }
    }

    /** Ends early on a member that unpacks to far more than any document does. */
    private static final class Limited extends FilterInputStream {
        private final long[] left;

        Limited(InputStream in, long[] left) {
            super(in);
            this.left = left;
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] b, int off, int len) throws IOException {
            if (left[0] <= 0) {
                throw new IOException("too much in one document");
            }
            int n = super.read(b, off, len);
            left[0] -= Math.max(0, n);
            return n;
        }

        @Override
        public void close() {
            // The archive goes on to its next member.
        }
    }
}
