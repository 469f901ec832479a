package org.mendedleaf.core.pick;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The styles that an OpenDocument program makes for single places (ISO/IEC 26300-1, 16.2 and 3.15.3). Two contents use the
 * same names for other styles; what comes back brings its own, or uses an equal one under its name.
 */
final class OdfStyles {

    private static final Pattern USE =
            Pattern.compile("\\b((?:text|table|draw|presentation)(?::default-cell)?:style-name"
                    + "|style:data-style-name|style:list-style-name|table:default-cell-style-name)=\"([^\"]*)\"");
    private static final Pattern NAME = Pattern.compile("\\sstyle:name=\"[^\"]*\"");

    private final Map<String, Elements.Element> earlier = new HashMap<>();
    private final Map<String, String> later = new HashMap<>();
    private final Set<String> taken = new HashSet<>();
    private final Map<String, String> mapped = new HashMap<>();
    private final StringBuilder fresh = new StringBuilder();
    private final Optional<Elements.Element> place;

    OdfStyles(Elements before, Elements after) {
        place = automatic(after);
        automatic(before)
                .ifPresent(styles ->
                        styles.children().forEach(s -> s.get("name").ifPresent(n -> earlier.putIfAbsent(n, s))));
        place.ifPresent(styles -> styles.children()
                .forEach(s -> s.get("name").ifPresent(n -> {
                    later.putIfAbsent(definition(s.whole()), n);
                    taken.add(n);
                })));
    }

    private static Optional<Elements.Element> automatic(Elements xml) {
        return xml.root().children("automatic-styles").stream().findFirst();
    }

    private static String definition(String style) {
        return NAME.matcher(style).replaceFirst("");
    }

    /** A part of the earlier content with the names that its styles have in the later one. */
    String restyled(String xml) {
        Matcher m = USE.matcher(xml);
        StringBuilder made = new StringBuilder();
        while (m.find()) {
            m.appendReplacement(made, Matcher.quoteReplacement(m.group(1) + "=\"" + name(m.group(2)) + "\""));
        }
        return m.appendTail(made).toString();
    }

    private String name(String name) {
        Elements.Element style = earlier.get(name);
        // A style of everybody's has the same name in both.
        if (style == null) {
            return name;
        }
        String known = mapped.get(name);
        if (known != null) {
            return known;
        }
        mapped.put(name, name);
        String text = restyled(style.whole());
        String equal = later.get(definition(text));
        if (equal != null || place.isEmpty() || place.get().isClosed()) {
            String use = equal == null ? "" : equal;
            mapped.put(name, use);
            return use;
        }
        String own = name;
        for (int i = 1; taken.contains(own); i++) {
            own = name + "_" + i;
        }
        taken.add(own);
        mapped.put(name, own);
        fresh.append(NAME.matcher(text).replaceFirst(Matcher.quoteReplacement(" style:name=\"" + own + "\"")));
        return own;
    }

    /** Adds the styles that the later content did not have. */
    void put(Elements.Splices splices) {
        if (!fresh.isEmpty()) {
            int at = place.orElseThrow().innerEnd();
            splices.put(at, at, fresh.toString());
        }
    }
}
