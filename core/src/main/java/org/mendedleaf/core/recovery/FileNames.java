package org.mendedleaf.core.recovery;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** Names for copies that stand beside one another. */
public final class FileNames {

    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyy-MM-dd HHmm", Locale.ROOT);

    /** The most that common file systems take for one name. Bytes in UTF-8. */
    private static final int MOST_BYTES = 255;

    private FileNames() {}

    /** The name with a number before its ending: {@code plan (2).odt}. */
    public static String numbered(String name, int number) {
        return decorated(name, " (" + number + ")");
    }

    /** The name of a version's copy: {@code plan – v3, 2026-05-04 1530.odt}. */
    public static String ofVersion(String name, String label, Instant saved, ZoneId zone) {
        // What another system calls it may hold what a name cannot.
        String called = label.replaceAll("[\\\\/:*?\"<>|\\p{Cntrl}]", "-");
        return decorated(name, " – v" + called + ", " + STAMP.format(saved.atZone(zone)));
    }

    private static String decorated(String name, String decoration) {
        int dot = name.lastIndexOf('.');
        String stem = dot > 0 ? name.substring(0, dot) : name;
        String ending = dot > 0 ? name.substring(dot) : "";
        if (bytes(ending) > MOST_BYTES / 2) {
            stem = name;
            ending = "";
        }
        while (bytes(stem) + bytes(decoration) + bytes(ending) > MOST_BYTES && !stem.isEmpty()) {
            stem = stem.substring(0, stem.offsetByCodePoints(stem.length(), -1));
        }
        return stem + decoration + ending;
    }

    private static int bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8).length;
    }
}
