package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

/** How much versions have in common, what was broken off, and whether what somebody added is still there. */
class ResemblanceTest {

    private static Resemblance.Content text(String text) {
        return new Resemblance.Content("a.txt", text.getBytes(StandardCharsets.UTF_8));
    }

    private static Resemblance between(String before, String after) {
        return Resemblance.of(text(before), text(after), Optional.empty());
    }

    private static String words(long seed, int count) {
        Random random = new Random(seed);
        StringBuilder words = new StringBuilder();
        for (int i = 0; i < count; i++) {
            words.append("word").append(random.nextInt(1_000_000)).append(i % 9 == 8 ? "\n" : " ");
        }
        return words.toString();
    }

    @Test
    void anEditHasMostInCommonAndAnotherTextNothing() {
        String text = words(1, 200);
        assertThat(between(text, text + "and a little more").shared()).isGreaterThan(90);
        assertThat(between(text, words(2, 200)).shared()).isLessThan(5);
        assertThat(between("a", "b").shared()).as("too little to tell").isLessThan(8);
    }

    @Test
    void aTextThatBreaksOffWithinALineIsABeginning() {
        String text = "one line\nanother line\nthe last line\n";
        assertThat(between(text, text.substring(0, 14)).beginning()).isTrue();
        assertThat(between(text, "one line\n").beginning())
                .as("somebody took lines out")
                .isFalse();
        assertThat(between(text, "one line").beginning())
                .as("its last line has no end, and all had one")
                .isTrue();
        assertThat(between("no end\nof a line", "no end").beginning())
                .as("nobody can tell where none had one")
                .isFalse();
        assertThat(between(text, "one other").beginning()).isFalse();
        assertThat(between(text, text).beginning()).isFalse();
        assertThat(between(text, "").beginning()).as("that is empty").isFalse();
    }

    private static Resemblance after(String older, String before, String after) {
        return Resemblance.of(text(before), text(after), Optional.of(text(older)));
    }

    @Test
    void whatTheOtherAddedIsKeptOrLost() {
        String text = words(1, 100);
        String theirs = text + words(7, 30);
        assertThat(after(text, theirs, theirs + words(8, 20)).kept()).isGreaterThan(90);
        assertThat(after(text, theirs, text + words(8, 20)).kept()).isLessThan(15);
        assertThat(after(text, text + "x", text + "y").kept())
                .as("what was added is too little to tell")
                .isEqualTo(-1);
        assertThat(between(text, theirs).kept()).as("nobody asked").isEqualTo(-1);
    }

    @Test
    void onlyWhatIsEqualHasAllInCommon() {
        String text = words(3, 4000);
        assertThat(between(text, text + " x").shared()).isEqualTo(99);
        assertThat(between(text, text.replace(" ", "\n")).shared())
                .as("the same words in other bytes")
                .isEqualTo(99);
        assertThat(between(text, text).shared()).isEqualTo(100);
    }

    @Test
    void aFewWordsThatAreBackAsTheyWereAreLostToo() {
        String text = "The rota of May: Jory presses on Monday, Wilma bottles on Friday, and Tomas drives.";
        String theirs = text.replace("Monday", "Tuesday");
        assertThat(after(text, theirs, text + " Adele is away.").kept()).isZero();
        assertThat(after(text, theirs, theirs + " Adele is away.").kept()).isNotZero();
    }

    private static Resemblance.Content picture(int from, int to) throws IOException {
        BufferedImage image = new BufferedImage(320, 240, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < 320; x++) {
            for (int y = 0; y < 240; y++) {
                image.setRGB(x, y, x >= from && x < to ? 0x202020 : 0xFFF0E0 - (y << 8));
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return new Resemblance.Content("label.png", out.toByteArray());
    }

    @Test
    void ofPicturesTheOneThatItWasMadeFromTells() throws IOException {
        Resemblance.Content older = picture(0, 0);
        Resemblance.Content theirs = picture(0, 100);
        assertThat(Resemblance.of(theirs, picture(290, 320), Optional.of(older)).kept())
                .as("made from the older one")
                .isZero();
        assertThat(Resemblance.of(theirs, picture(0, 130), Optional.of(older)).kept())
                .as("made from theirs")
                .isEqualTo(-1);
    }

    private static byte[] archive(List<Integer> members) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int member : members) {
                byte[] noise = new byte[40_000];
                new Random(member).nextBytes(noise);
                ZipEntry entry = new ZipEntry("m" + member);
                entry.setTimeLocal(java.time.LocalDateTime.of(2026, 5, 4, 8, 0));
                zip.putNextEntry(entry);
                zip.write(noise);
            }
        }
        return out.toByteArray();
    }

    private static Resemblance.Content zip(Integer... members) throws IOException {
        return new Resemblance.Content("a.zip", archive(Arrays.asList(members)));
    }

    @Test
    void ofArchivesThePartsTell() throws IOException {
        Resemblance.Content older = zip(1, 2, 3, 4);
        Resemblance.Content theirs = zip(1, 2, 3, 4, 5, 6);
        assertThat(Resemblance.of(theirs, zip(1, 2, 3, 4, 7), Optional.of(older))
                        .kept())
                .as("members 5 and 6 are gone")
                .isLessThan(25);
        assertThat(Resemblance.of(theirs, zip(1, 2, 3, 4, 5, 6, 7), Optional.of(older))
                        .kept())
                .isGreaterThan(60);
    }

    @Property(tries = 15)
    void whatIsEqualHasAllInCommonAndLosesNothing(@ForAll long seed, @ForAll @IntRange(min = 20, max = 200) int words) {
        String text = words(seed, words);
        assertThat(between(text, text).shared()).isEqualTo(100);
        String theirs = text + words(seed + 1, 30);
        Resemblance same = after(text, theirs, theirs);
        assertThat(same.kept()).isEqualTo(100);
        assertThat(after(text, theirs, text).kept()).isZero();
    }

    @Property(tries = 15)
    void howMuchIsInCommonDoesNotDependOnWhichCameFirst(@ForAll long seed) {
        List<String> lines = new ArrayList<>(List.of(words(seed, 90).split("\n")));
        String a = String.join("\n", lines);
        lines.remove(lines.size() / 2);
        String b = String.join("\n", lines);
        assertThat(between(a, b).shared()).isEqualTo(between(b, a).shared());
    }
}
