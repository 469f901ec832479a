package org.mendedleaf.core.document;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.apache.pdfbox.text.TextPosition;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.words.Words;

/** Pages of PDF (ISO 32000) as text and as pictures, by Apache PDFBox. */
final class PdfReader {

    /** Pages are drawn at most so wide or high. Pixels. */
    private static final int LARGEST = 2400;

    private PdfReader() {}

    private static PDDocument open(byte[] content) throws IOException {
        try {
            return Loader.loadPDF(new RandomAccessReadBuffer(content));
        } catch (org.apache.pdfbox.pdmodel.encryption.InvalidPasswordException e) {
            throw new DocumentException(Words.of("document.password"), e);
        } catch (RuntimeException e) {
            throw new DocumentException(Words.of("document.damaged"), e);
        }
    }

    /** There is more text than is read. */
    private static final class Enough extends RuntimeException {
        private static final long serialVersionUID = 1;

        Enough() {
            super("more text than is read", null, false, false);
        }
    }

    /** Counts what it reads, on all pages, and stops when that is enough: a page of a few kilobytes can say anything for hours. */
    private static final class Stripper extends PDFTextStripper {
        private long left;

        Stripper(long chars) {
            left = chars;
        }

        @Override
        protected void processTextPosition(TextPosition text) {
            if (--left < 0) {
                throw new Enough();
            }
            super.processTextPosition(text);
        }
    }

    static Document read(byte[] content, Limits limits) throws IOException {
        try (PDDocument document = open(content)) {
            List<Section> pages = new ArrayList<>();
            int count = Math.min(document.getNumberOfPages(), limits.pages());
            Stripper stripper = new Stripper(limits.chars());
            for (int i = 1; i <= count; i++) {
                stripper.setStartPage(i);
                stripper.setEndPage(i);
                List<Block> blocks = new ArrayList<>();
                String text;
                try {
                    text = stripper.getText(document);
                } catch (Enough e) {
                    return new Document.Prose(Form.PAGES, pages, true);
                }
                text.lines().filter(l -> !l.isBlank()).forEach(l -> blocks.add(Block.of(Style.TEXT, 0, l.strip())));
                pages.add(new Section(Integer.toString(i), blocks));
            }
            return new Document.Prose(Form.PAGES, pages, count < document.getNumberOfPages());
        }
    }

    /**
     * A page as a picture (PNG).
     *
     * @param page from 0
     * @param width of the picture, in pixels
     */
    static byte[] page(byte[] content, int page, int width) throws IOException {
        try (PDDocument document = open(content)) {
            if (page < 0 || page >= document.getNumberOfPages()) {
                throw new DocumentException(Words.of("document.noPage", page + 1, document.getNumberOfPages()));
            }
            PDPage at = document.getPage(page);
            float wide = Math.max(1, at.getCropBox().getWidth());
            float high = Math.max(1, at.getCropBox().getHeight());
            boolean lying = at.getRotation() % 180 != 0;
            float scale = Math.min(Math.min(width, LARGEST) / (lying ? high : wide), LARGEST / (lying ? wide : high));
            PDFRenderer renderer = new PDFRenderer(document);
            renderer.setSubsamplingAllowed(true);
            BufferedImage image = renderer.renderImage(page, Math.max(0.01f, scale), ImageType.RGB);
            ByteArrayOutputStream png = new ByteArrayOutputStream();
            ImageIO.write(image, "png", png);
            return png.toByteArray();
        }
    }
}
