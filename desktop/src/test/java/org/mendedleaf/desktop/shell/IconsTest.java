package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** What the build draws, read as Windows and macOS read it. */
class IconsTest {

    @Test
    void windowsFindsEachSizeWhereTheHeaderSaysAndItIsOfThatSize() throws IOException {
        byte[] icon = icon("mended-leaf.ico");
        ByteBuffer in = ByteBuffer.wrap(icon).order(ByteOrder.LITTLE_ENDIAN);
        assertThat(in.getShort()).isZero();
        assertThat(in.getShort()).as("an icon, not a pointer").isEqualTo((short) 1);
        int pictures = in.getShort();
        List<Integer> sizes = new ArrayList<>();
        int end = 6 + 16 * pictures;
        for (int i = 0; i < pictures; i++) {
            int said = in.get() & 0xff;
            in.position(in.position() + 7);
            int length = in.getInt();
            int from = in.getInt();
            assertThat(from).as("one behind the other").isEqualTo(end);
            end += length;
            BufferedImage picture = picture(Arrays.copyOfRange(icon, from, end));
            assertThat(said == 0 ? 256 : said).isEqualTo(picture.getWidth());
            sizes.add(picture.getWidth());
        }
        assertThat(end).isEqualTo(icon.length);
        assertThat(sizes).containsExactly(16, 24, 32, 48, 64, 128, 256);
    }

    @Test
    void macFindsEachTypeWithAPictureOfItsSize() throws IOException {
        byte[] icon = icon("mended-leaf.icns");
        ByteBuffer in = ByteBuffer.wrap(icon);
        assertThat(type(in)).isEqualTo("icns");
        assertThat(in.getInt()).isEqualTo(icon.length);
        List<String> types = new ArrayList<>();
        while (in.hasRemaining()) {
            String type = type(in);
            byte[] png = new byte[in.getInt() - 8];
            in.get(png);
            types.add(type + " " + picture(png).getWidth());
        }
        assertThat(types)
                .containsExactly(
                        "icp4 16",
                        "icp5 32",
                        "ic11 32",
                        "icp6 64",
                        "ic12 64",
                        "ic07 128",
                        "ic08 256",
                        "ic13 256",
                        "ic09 512",
                        "ic14 512");
    }

    private static String type(ByteBuffer in) {
        byte[] name = new byte[4];
        in.get(name);
        return new String(name, StandardCharsets.US_ASCII);
    }

    private static BufferedImage picture(byte[] png) throws IOException {
        return Objects.requireNonNull(ImageIO.read(new ByteArrayInputStream(png)), "not a picture");
    }

    private static byte[] icon(String name) throws IOException {
        try (InputStream in = App.class.getResourceAsStream("/org/mendedleaf/desktop/icons/" + name)) {
            return Objects.requireNonNull(in, name).readAllBytes();
        }
    }
}
