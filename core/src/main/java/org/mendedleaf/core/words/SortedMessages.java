package org.mendedleaf.core.words;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.Enumeration;
import java.util.LinkedHashSet;
import java.util.Properties;
import java.util.ResourceBundle;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The words of one language, from a file of properties whose keys are in the order of their characters, a line each. A key is
 * found by halving, and only what is asked for is read: taking in thousands of lines was an eighth of a short command.
 */
final class SortedMessages extends ResourceBundle {

    private final byte[] text;

    /** The words in a file, in UTF-8. */
    SortedMessages(byte[] text) {
        this.text = text;
    }

    @Override
    protected @Nullable Object handleGetObject(String key) {
        byte[] wanted = key.getBytes(StandardCharsets.UTF_8);
        int low = 0;
        int high = text.length;
        while (low < high) {
            int line = keyLine(beginning((low + high) >>> 1, low), high);
            if (line == high) {
                high = beginning((low + high) >>> 1, low);
                continue;
            }
            int order = compare(line, wanted);
            if (order == 0) {
                return value(line);
            }
            if (order < 0) {
                low = end(line);
            } else {
                high = line;
            }
        }
        return null;
    }

    /** Where the line begins that this byte is of. */
    private int beginning(int at, int least) {
        int begins = at;
        while (begins > least && text[begins - 1] != '\n') {
            begins--;
        }
        return begins;
    }

    /** Where the next line begins. */
    private int end(int line) {
        int end = line;
        while (end < text.length && text[end] != '\n') {
            end++;
        }
        return Math.min(text.length, end + 1);
    }

    /** The first line from here that has a key, neither empty nor a comment. */
    private int keyLine(int from, int high) {
        int line = from;
        while (line < high && (text[line] == '#' || text[line] == '\n' || text[line] == '\r')) {
            line = end(line);
        }
        return Math.min(line, high);
    }

    /** Below 0 where the key of the line comes before, above 0 where it comes after. */
    private int compare(int line, byte[] wanted) {
        for (int i = 0; i < wanted.length; i++) {
            byte have = text[line + i];
            if (have == '=') {
                return -1;
            }
            if (have != wanted[i]) {
                return have - wanted[i];
            }
        }
        return text[line + wanted.length] == '=' ? 0 : 1;
    }

    /** As everywhere in properties, with what they escape. */
    private String value(int line) {
        Properties one = new Properties();
        try {
            one.load(new StringReader(new String(text, line, end(line) - line, StandardCharsets.UTF_8)));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return (String) one.values().iterator().next();
    }

    @Override
    public Enumeration<String> getKeys() {
        Set<String> keys = new LinkedHashSet<>(handleKeySet());
        if (parent != null) {
            keys.addAll(Collections.list(parent.getKeys()));
        }
        return Collections.enumeration(keys);
    }

    @Override
    protected Set<String> handleKeySet() {
        Set<String> keys = new LinkedHashSet<>();
        for (int line = keyLine(0, text.length); line < text.length; line = keyLine(end(line), text.length)) {
            int end = line;
            while (text[end] != '=') {
                end++;
            }
            keys.add(new String(text, line, end - line, StandardCharsets.UTF_8));
        }
        return keys;
    }
}
