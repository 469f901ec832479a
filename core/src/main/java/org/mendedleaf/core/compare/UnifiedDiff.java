package org.mendedleaf.core.compare;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.words.Words;

/** The difference of two texts as a unified diff (POSIX, diff -u), which {@code patch} applies. Bytes stay what they are. */
public final class UnifiedDiff {

    /** Equal lines around a change. */
    private static final int AROUND = 3;

    private UnifiedDiff() {}

    /**
     * The difference; empty when there is none.
     *
     * @throws IllegalArgumentException when one of them is no text whose lines end with a line feed
     */
    public static byte[] of(String nameBefore, byte[] before, String nameAfter, byte[] after) {
        List<String> a = lines(before);
        List<String> b = lines(after);
        int[] to = Alignment.of(a, b);
        List<int[]> gaps = new ArrayList<>();
        Alignment.walk(to, b.size(), (a0, a1, b0, b1) -> gaps.add(new int[] {a0, a1, b0, b1}), (i, j) -> {
            // Only what differs is gathered.
        });
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        if (gaps.isEmpty()) {
            return out.toByteArray();
        }
        write(out, "--- " + nameBefore + "\n+++ " + nameAfter + "\n", StandardCharsets.UTF_8);
        for (int from = 0; from < gaps.size(); ) {
            int end = from + 1;
            while (end < gaps.size() && gaps.get(end)[0] - gaps.get(end - 1)[1] <= 2 * AROUND) {
                end++;
            }
            hunk(out, a, b, gaps.subList(from, end));
            from = end;
        }
        return out.toByteArray();
    }

    /** Lines with their ends, byte for byte. */
    private static List<String> lines(byte[] content) {
        for (byte c : content) {
            if (c == 0) {
                throw new IllegalArgumentException(Words.of("compare.noPatch"));
            }
        }
        String text = new String(content, StandardCharsets.ISO_8859_1);
        List<String> lines = new ArrayList<>();
        int from = 0;
        for (int end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n', from)) {
            lines.add(text.substring(from, end + 1));
            from = end + 1;
        }
        if (from < text.length()) {
            lines.add(text.substring(from));
        }
        return lines;
    }

    private static void hunk(ByteArrayOutputStream out, List<String> a, List<String> b, List<int[]> gaps) {
        int[] first = gaps.get(0);
        int[] last = gaps.get(gaps.size() - 1);
        int lead = Math.min(AROUND, first[0]);
        int trail = Math.min(AROUND, a.size() - last[1]);
        int fromA = first[0] - lead;
        int fromB = first[2] - lead;
        int countA = last[1] + trail - fromA;
        int countB = last[3] + trail - fromB;
        write(out, "@@ -" + range(fromA, countA) + " +" + range(fromB, countB) + " @@\n", StandardCharsets.ISO_8859_1);
        int at = fromA;
        for (int[] gap : gaps) {
            lines(out, ' ', a.subList(at, gap[0]));
            lines(out, '-', a.subList(gap[0], gap[1]));
            lines(out, '+', b.subList(gap[2], gap[3]));
            at = gap[1];
        }
        lines(out, ' ', a.subList(at, last[1] + trail));
    }

    /** Where nothing stands, the line before it is named. */
    private static String range(int from, int count) {
        int line = count == 0 ? from : from + 1;
        return count == 1 ? Integer.toString(line) : line + "," + count;
    }

    private static void lines(ByteArrayOutputStream out, char sign, List<String> lines) {
        for (String line : lines) {
            write(out, sign + line, StandardCharsets.ISO_8859_1);
            if (!line.endsWith("\n")) {
                write(out, "\n\\ No newline at end of file\n", StandardCharsets.ISO_8859_1);
            }
        }
    }

    private static void write(ByteArrayOutputStream out, String text, java.nio.charset.Charset charset) {
        out.writeBytes(text.getBytes(charset));
    }
}
