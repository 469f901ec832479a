package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is written as a patch makes the later text of the earlier one. */
class UnifiedDiffTest {

    private static final Pattern HUNK = Pattern.compile("@@ -(\\d+)(?:,(\\d+))? \\+(\\d+)(?:,(\\d+))? @@");

    @TempDir
    Path temp;

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static String diff(String a, String b) {
        return new String(UnifiedDiff.of("a.txt", bytes(a), "b.txt", bytes(b)), StandardCharsets.UTF_8);
    }

    private static List<String> lines(String text) {
        List<String> lines = new ArrayList<>();
        Matcher m = Pattern.compile("[^\n]*\n|[^\n]+$").matcher(text);
        while (m.find()) {
            lines.add(m.group());
        }
        return lines;
    }

    /** Applies it as {@code patch} does without guessing: what it says stood there has to stand there. */
    private static String apply(String before, String diff) {
        List<String> old = lines(before);
        List<String> patch = lines(diff);
        StringBuilder after = new StringBuilder();
        int at = 0;
        for (int i = 2; i < patch.size(); i++) {
            Matcher m = HUNK.matcher(patch.get(i).strip());
            if (m.matches()) {
                int count = m.group(2) == null ? 1 : Integer.parseInt(m.group(2));
                int from = Integer.parseInt(m.group(1)) - (count == 0 ? 0 : 1);
                while (at < from) {
                    after.append(old.get(at++));
                }
                continue;
            }
            boolean cut = i + 1 < patch.size() && patch.get(i + 1).startsWith("\\");
            String line = patch.get(i).substring(1);
            String text = cut ? line.substring(0, line.length() - 1) : line;
            char sign = patch.get(i).charAt(0);
            if (sign == ' ' || sign == '-') {
                assertThat(old.get(at++)).isEqualTo(text);
            }
            if (sign == ' ' || sign == '+') {
                after.append(text);
            }
        }
        while (at < old.size()) {
            after.append(old.get(at++));
        }
        return after.toString();
    }

    private static String text(Random random, int size) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < size; i++) {
            text.append("line ").append(random.nextInt(12)).append('\n');
        }
        if (random.nextBoolean() && !text.isEmpty()) {
            text.setLength(text.length() - 1);
        }
        return text.toString();
    }

    @Property(tries = 120)
    void whatIsAppliedGivesTheLaterText(
            @ForAll @IntRange(max = 40) int size, @ForAll @IntRange(max = 12) int edits, @ForAll long seed) {
        Random random = new Random(seed);
        String a = text(random, size);
        List<String> b = lines(a);
        for (int i = 0; i < edits; i++) {
            int at = b.isEmpty() ? 0 : random.nextInt(b.size());
            if (random.nextBoolean() || b.isEmpty()) {
                b.add(at, "new " + i + "\n");
            } else {
                b.remove(at);
            }
        }
        String later = String.join("", b);
        assertThat(apply(a, diff(a, later))).isEqualTo(later);
    }

    @Test
    void equalTextsHaveNone() {
        assertThat(diff("one\ntwo\n", "one\ntwo\n")).isEmpty();
        assertThat(diff("", "")).isEmpty();
    }

    @Test
    void threeLinesStandAroundAChangeAndChangesThatAreNearAreOneHunk() {
        StringBuilder a = new StringBuilder();
        for (int i = 1; i <= 30; i++) {
            a.append(i).append('\n');
        }
        String near = a.toString().replace("\n5\n", "\nfive\n").replace("\n11\n", "\neleven\n");
        assertThat(lines(diff(a.toString(), near)).stream().filter(l -> l.startsWith("@@")))
                .containsExactly("@@ -2,13 +2,13 @@\n");
        String far = a.toString().replace("\n5\n", "\nfive\n").replace("\n25\n", "\n");
        assertThat(lines(diff(a.toString(), far)).stream().filter(l -> l.startsWith("@@")))
                .containsExactly("@@ -2,7 +2,7 @@\n", "@@ -22,7 +22,6 @@\n");
    }

    @Test
    void anEndWithoutALineFeedIsSaid() {
        assertThat(diff("one\ntwo", "one\ntwo\n"))
                .isEqualTo("--- a.txt\n+++ b.txt\n@@ -1,2 +1,2 @@\n one\n-two\n\\ No newline at end of file\n+two\n");
    }

    @Test
    void whatIsNoTextIsRefused() {
        assertThatThrownBy(() -> UnifiedDiff.of("a", bytes("x\0y"), "b", bytes("x")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageNotContaining("{");
    }

    @Test
    void bytesOfAnotherEncodingStayWhatTheyAre() {
        byte[] a = "caf\u00e9\n".getBytes(StandardCharsets.ISO_8859_1);
        byte[] b = "th\u00e9\n".getBytes(StandardCharsets.ISO_8859_1);
        String diff = new String(UnifiedDiff.of("a", a, "b", b), StandardCharsets.ISO_8859_1);
        assertThat(diff).contains("-caf\u00e9\n+th\u00e9\n");
    }

    @Test
    void patchTakesIt() throws Exception {
        Assumptions.assumeTrue(Files.isExecutable(Path.of("/usr/bin/patch")), "patch is not here");
        Random random = new Random(4);
        String a = text(random, 60);
        String b = a.replace("line 3\n", "third\n").replace("line 7\n", "") + "\nno end";
        Path file = Files.writeString(temp.resolve("a.txt"), a);
        Path patch = Files.write(temp.resolve("p"), UnifiedDiff.of("a.txt", bytes(a), "b.txt", bytes(b)));
        Process run = new ProcessBuilder("/usr/bin/patch", file.toString(), patch.toString())
                .redirectErrorStream(true)
                .start();
        assertThat(run.waitFor(20, TimeUnit.SECONDS)).isTrue();
        assertThat(Files.readString(file)).isEqualTo(b);
    }
}
