package org.mendedleaf.core.catalogue;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Short texts, one after another in UTF-8: a third of what they take as strings. */
final class TextColumn {

    private final int[] ends;
    private byte[] bytes;
    private int size;

    /** @param rows how many texts there will be at most */
    TextColumn(int rows) {
        ends = new int[rows + 1];
        bytes = new byte[Growth.of(rows * 12L)];
    }

    void add(String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        int from = ends[size];
        if (from + utf8.length > bytes.length) {
            bytes = Arrays.copyOf(bytes, Growth.of((long) from + utf8.length));
        }
        System.arraycopy(utf8, 0, bytes, from, utf8.length);
        ends[++size] = from + utf8.length;
    }

    String get(int row) {
        return new String(bytes, ends[row], ends[row + 1] - ends[row], StandardCharsets.UTF_8);
    }
}
