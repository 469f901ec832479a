package org.mendedleaf.core.document;

import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.metadata.Directory;
import com.drew.metadata.Metadata;
import com.drew.metadata.MetadataException;
import com.drew.metadata.exif.ExifIFD0Directory;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import com.drew.metadata.exif.GpsDirectory;
import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.parser.LoaderContext;
import com.github.weisj.jsvg.parser.SVGLoader;
import com.github.weisj.jsvg.renderer.awt.NullPlatformSupport;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.document.Document.Fact;
import org.mendedleaf.core.words.Words;

/** Pictures: what the platform and TwelveMonkeys can read, turned as the camera says, and drawings (SVG) by JSVG. */
final class PictureReader {

    /** Larger pictures are made smaller for looking, on their longer side. Pixels. */
    private static final int LARGEST = 2400;

    private PictureReader() {}

    static Document read(byte[] content, Limits limits) throws IOException {
        Size[] size = new Size[1];
        BufferedImage seen = image(content, limits, size);
        int turn = orientation(content);
        BufferedImage turned = turned(seen, turn);
        boolean lying = turn >= 5;
        int width = lying ? size[0].height() : size[0].width();
        int height = lying ? size[0].width() : size[0].height();
        return new Document.Picture(width, height, facts(content, width, height), png(turned));
    }

    private record Size(int width, int height) {}

    private static BufferedImage image(byte[] content, Limits limits, Size[] size) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(content))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw new DocumentException(Words.of("document.noPicture"));
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                size[0] = new Size(width, height);
                if ((long) width * height > limits.pixels() * 1_000_000L) {
                    throw new DocumentException(Words.of("document.hugePicture", width, height));
                }
                ImageReadParam param = reader.getDefaultReadParam();
                int every = Math.max(1, Math.max(width, height) / LARGEST);
                param.setSourceSubsampling(every, every, 0, 0);
                return reader.read(0, param);
            } finally {
                reader.dispose();
            }
        } catch (RuntimeException e) {
            throw new DocumentException(Words.of("document.damaged"), e);
        }
    }

    /** As the camera was held: 1 upright to 8 (Exif 2.32, 4.6.4); 1 when it is not said. */
    private static int orientation(byte[] content) {
        Metadata metadata = metadata(content);
        Directory exif = metadata == null ? null : metadata.getFirstDirectoryOfType(ExifIFD0Directory.class);
        if (exif == null || !exif.containsTag(ExifIFD0Directory.TAG_ORIENTATION)) {
            return 1;
        }
        try {
            return Math.max(1, Math.min(8, exif.getInt(ExifIFD0Directory.TAG_ORIENTATION)));
        } catch (MetadataException e) {
            return 1;
        }
    }

    private static @Nullable Metadata metadata(byte[] content) {
        try {
            return ImageMetadataReader.readMetadata(new ByteArrayInputStream(content), content.length);
        } catch (ImageProcessingException | IOException | RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(PictureReader.class).debug("no metadata", e);
            return null;
        }
    }

    private static BufferedImage turned(BufferedImage image, int orientation) {
        if (orientation == 1) {
            return image;
        }
        int w = image.getWidth();
        int h = image.getHeight();
        AffineTransform t = new AffineTransform();
        switch (orientation) {
            case 2 -> t.setTransform(-1, 0, 0, 1, w, 0);
            case 3 -> t.setTransform(-1, 0, 0, -1, w, h);
            case 4 -> t.setTransform(1, 0, 0, -1, 0, h);
            case 5 -> t.setTransform(0, 1, 1, 0, 0, 0);
            case 6 -> t.setTransform(0, 1, -1, 0, h, 0);
            case 7 -> t.setTransform(0, -1, -1, 0, h, w);
            default -> t.setTransform(0, -1, 1, 0, 0, w);
        }
        boolean lying = orientation >= 5;
        BufferedImage to = new BufferedImage(lying ? h : w, lying ? w : h, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = to.createGraphics();
        g.drawImage(image, t, null);
        g.dispose();
        return to;
    }

    private static List<Fact> facts(byte[] content, int width, int height) {
        List<Fact> facts = new ArrayList<>();
        facts.add(new Fact(Words.of("document.fact.pixels"), width + " × " + height));
        Metadata metadata = metadata(content);
        if (metadata != null) {
            add(facts, "document.fact.camera", metadata, ExifIFD0Directory.class, ExifIFD0Directory.TAG_MODEL);
            add(
                    facts,
                    "document.fact.taken",
                    metadata,
                    ExifSubIFDDirectory.class,
                    ExifSubIFDDirectory.TAG_DATETIME_ORIGINAL);
            GpsDirectory gps = metadata.getFirstDirectoryOfType(GpsDirectory.class);
            if (gps != null && gps.getGeoLocation() != null) {
                facts.add(new Fact(
                        Words.of("document.fact.where"), gps.getGeoLocation().toString()));
            }
        }
        return facts;
    }

    private static void add(List<Fact> facts, String key, Metadata metadata, Class<? extends Directory> in, int tag) {
        Directory directory = metadata.getFirstDirectoryOfType(in);
        String value = directory == null ? null : directory.getString(tag);
        if (value != null && !value.isBlank()) {
            facts.add(new Fact(Words.of(key), value.strip()));
        }
    }

    private static byte[] png(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    /** A drawing; what it refers to outside of itself is not fetched. */
    static Document svg(byte[] content) throws IOException {
        try {
            SVGDocument drawing =
                    new SVGLoader().load(new ByteArrayInputStream(content), null, LoaderContext.createDefault());
            if (drawing == null) {
                throw new DocumentException(Words.of("document.damaged"));
            }
            var size = drawing.size();
            double scale = Math.min(4, 1200 / Math.max(1, Math.max(size.width, size.height)));
            int width = (int) Math.max(1, Math.min(LARGEST, size.width * scale));
            int height = (int) Math.max(1, Math.min(LARGEST, size.height * scale));
            BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
            Graphics2D g = image.createGraphics();
            g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
            g.scale(width / Math.max(1, size.width), height / Math.max(1, size.height));
            drawing.renderWithPlatform(NullPlatformSupport.INSTANCE, g, null);
            g.dispose();
            int wide = Math.round(size.width);
            int high = Math.round(size.height);
            return new Document.Picture(
                    wide, high, List.of(new Fact(Words.of("document.fact.pixels"), wide + " × " + high)), png(image));
        } catch (RuntimeException e) {
            throw new DocumentException(Words.of("document.damaged"), e);
        }
    }
}
