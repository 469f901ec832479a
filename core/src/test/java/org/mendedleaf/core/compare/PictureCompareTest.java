package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Comparison.PictureChanges;
import org.mendedleaf.core.document.Document;

/** Pictures differ where an eye would say so. */
class PictureCompareTest {

    private static final int GREEN = 0xFF2E7D4F;

    private static BufferedImage plain(int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        fill(image, 0, 0, width, height, GREEN);
        return image;
    }

    private static void fill(BufferedImage image, int x, int y, int width, int height, int rgb) {
        for (int i = x; i < x + width; i++) {
            for (int j = y; j < y + height; j++) {
                image.setRGB(i, j, rgb);
            }
        }
    }

    private static Document.Picture picture(BufferedImage image) throws IOException {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(image, "png", png);
        return new Document.Picture(image.getWidth(), image.getHeight(), List.of(), png.toByteArray());
    }

    private static PictureChanges compare(BufferedImage a, BufferedImage b) throws IOException {
        return (PictureChanges) PictureCompare.compare(picture(a), picture(b));
    }

    @Test
    void theShareOfWhatDiffersIsOfAllPixels() throws IOException {
        BufferedImage b = plain(40, 25);
        fill(b, 0, 0, 20, 10, 0xFFFFFFFF);
        PictureChanges c = compare(plain(40, 25), b);
        assertThat(c.share()).isEqualTo(0.2, within(1e-9));
        assertThat(c.words()).isEqualTo("picture, 20 % of it");
        assertThat(c.changes()).isEmpty();
    }

    @Test
    void whatDiffersIsMarkedAndTheRestIsPale() throws IOException {
        BufferedImage b = plain(10, 10);
        b.setRGB(3, 4, 0xFF000000);
        BufferedImage difference =
                ImageIO.read(new ByteArrayInputStream(compare(plain(10, 10), b).difference()));
        assertThat(difference.getRGB(3, 4)).isEqualTo(0xFFA5472F);
        int rest = difference.getRGB(0, 0);
        assertThat(rest & 0xFF).as("near to white").isGreaterThanOrEqualTo(200);
        assertThat(rest >> 16 & 0xFF).as("grey").isEqualTo(rest & 0xFF);
    }

    @Test
    void whatCompressingChangesALittleIsTheSame() throws IOException {
        BufferedImage b = plain(10, 10);
        fill(b, 0, 0, 10, 10, GREEN + 0x0A0A0A);
        PictureChanges c = compare(plain(10, 10), b);
        assertThat(c.share()).isZero();
        assertThat(c.words()).isEqualTo("the same picture, saved anew");
        fill(b, 0, 0, 10, 10, GREEN + 0x101010);
        assertThat(compare(plain(10, 10), b).share()).isEqualTo(1);
    }

    @Test
    void aSpeckIsNotNothing() throws IOException {
        BufferedImage b = plain(100, 100);
        b.setRGB(50, 50, 0xFFFFFFFF);
        assertThat(compare(plain(100, 100), b).words()).isEqualTo("picture, less than 1 % of it");
    }

    @Test
    void whatBecameTransparentDiffers() throws IOException {
        BufferedImage b = plain(10, 10);
        fill(b, 0, 0, 5, 10, GREEN & 0x00FFFFFF);
        assertThat(compare(plain(10, 10), b).share()).isEqualTo(0.5);
    }

    @Test
    void ofAnotherSizeWhatIsOutsideDiffersAndTheSizesAreSaid() throws IOException {
        PictureChanges larger = compare(plain(10, 10), plain(20, 10));
        assertThat(larger.share()).isEqualTo(0.5);
        assertThat(larger.words()).isEqualTo("picture of 10 × 10, then 20 × 10");
        assertThat(compare(plain(20, 10), plain(10, 10)).share())
                .as("what is there is the same")
                .isZero();
    }

    @Test
    void whatIsNoPictureIsAnError() throws IOException {
        Document.Picture broken = new Document.Picture(1, 1, List.of(), new byte[] {1, 2, 3});
        Document.Picture good = picture(plain(1, 1));
        assertThatThrownBy(() -> PictureCompare.compare(broken, good)).isInstanceOf(IOException.class);
        assertThatThrownBy(() -> PictureCompare.compare(good, broken)).isInstanceOf(IOException.class);
    }
}
