package org.mendedleaf.core.pick;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The elements of a well-formed XML text (W3C XML 1.0) with the places where they begin and end in it, so that one of them
 * can be written anew while everything around it stays as it is written.
 */
final class Elements {

    private static final Pattern ATTRIBUTE = Pattern.compile("([\\w:.-]+)\\s*=\\s*(\"([^\"]*)\"|'([^']*)')");

    private final String text;
    private final List<Element> all = new ArrayList<>();

    /** An element; places are counted in characters of the whole text. */
    static final class Element {
        private final String text;
        private final String name;
        private final int start;
        private final int inner;
        private final @Nullable Element parent;
        private final List<Element> children = new ArrayList<>();
        private int innerEnd;
        private int end;

        Element(String text, String name, int start, int inner, @Nullable Element parent) {
            this.text = text;
            this.name = name;
            this.start = start;
            this.inner = inner;
            this.innerEnd = inner;
            this.end = inner;
            this.parent = parent;
        }

        int start() {
            return start;
        }

        int inner() {
            return inner;
        }

        int innerEnd() {
            return innerEnd;
        }

        int end() {
            return end;
        }

        /** As it is written, with its prefix. */
        String qualified() {
            return name;
        }

        /** Without its prefix. */
        String local() {
            return name.substring(name.indexOf(':') + 1);
        }

        boolean is(String local) {
            return local().equals(local);
        }

        List<Element> children() {
            return children;
        }

        Optional<Element> parent() {
            return Optional.ofNullable(parent);
        }

        /** The nearest element around it with this name. */
        Optional<Element> around(String local) {
            for (Element e = parent; e != null; e = e.parent) {
                if (e.is(local)) {
                    return Optional.of(e);
                }
            }
            return Optional.empty();
        }

        /** Its children with this name. */
        List<Element> children(String local) {
            return children.stream().filter(c -> c.is(local)).toList();
        }

        /** All elements within it. */
        List<Element> within() {
            List<Element> found = new ArrayList<>();
            Deque<Element> next = new ArrayDeque<>(children);
            while (!next.isEmpty()) {
                Element e = next.removeFirst();
                found.add(e);
                for (int i = e.children.size() - 1; i >= 0; i--) {
                    next.addFirst(e.children.get(i));
                }
            }
            return found;
        }

        /** All of it. */
        String whole() {
            return text.substring(start, end);
        }

        /** Its first tag. */
        String tag() {
            return text.substring(start, inner);
        }

        /** What stands in it. */
        String content() {
            return text.substring(inner, innerEnd);
        }

        boolean isClosed() {
            return text.charAt(inner - 2) == '/';
        }

        /** An attribute by its name without prefix; empty when it has none. */
        Optional<String> get(String attribute) {
            Matcher m = ATTRIBUTE.matcher(tag());
            while (m.find()) {
                if (m.group(1).substring(m.group(1).indexOf(':') + 1).equals(attribute)) {
                    return Optional.of(plain(m.group(3) == null ? m.group(4) : m.group(3)));
                }
            }
            return Optional.empty();
        }

        int number(String attribute, int otherwise) {
            try {
                return get(attribute).map(s -> Integer.parseInt(s.strip())).orElse(otherwise);
            } catch (NumberFormatException e) {
                return otherwise;
            }
        }

        /** It with another first tag and another content. */
        String with(String tag, String content) {
            String open =
                    tag.endsWith("/>") ? tag.substring(0, tag.length() - 2).stripTrailing() : cut(tag);
            return content.isEmpty() ? open + "/>" : open + ">" + content + "</" + name + ">";
        }

        private static String cut(String tag) {
            return tag.substring(0, tag.length() - 1);
        }
    }

    private Elements(String text) {
        this.text = text;
    }

    /**
     * The elements of a text.
     *
     * @throws IllegalArgumentException when it is not well formed, or declares a document type
     */
    static Elements of(String text) {
        Elements elements = new Elements(text);
        elements.scan();
        return elements;
    }

    private void scan() {
        Deque<Element> open = new ArrayDeque<>();
        int at = 0;
        while ((at = text.indexOf('<', at)) >= 0) {
            if (text.startsWith("<!--", at)) {
                at = after("-->", at);
            } else if (text.startsWith("<![CDATA[", at)) {
                at = after("]]>", at);
            } else if (text.startsWith("<?", at)) {
                at = after("?>", at);
            } else if (text.startsWith("<!", at)) {
                throw new IllegalArgumentException("a document type");
            } else {
                int end = endOfTag(at);
                tag(open, at, end);
                at = end;
            }
        }
        if (!open.isEmpty() || all.isEmpty()) {
            throw new IllegalArgumentException("not well formed");
        }
    }

    private void tag(Deque<Element> open, int at, int end) {
        if (text.charAt(at + 1) == '/') {
            Element element = open.isEmpty() ? null : open.pop();
            if (element == null || !text.substring(at + 2, end - 1).strip().equals(element.name)) {
                throw new IllegalArgumentException("not well formed");
            }
            element.innerEnd = at;
            element.end = end;
            return;
        }
        int name = at + 1;
        while ("/> \t\r\n".indexOf(text.charAt(name)) < 0) {
            name++;
        }
        Element parent = open.peek();
        Element element = new Element(text, text.substring(at + 1, name), at, end, parent);
        all.add(element);
        if (parent != null) {
            parent.children.add(element);
        }
        if (text.charAt(end - 2) != '/') {
            open.push(element);
        }
    }

    private int after(String what, int at) {
        int end = text.indexOf(what, at);
        if (end < 0) {
            throw new IllegalArgumentException("not well formed");
        }
        return end + what.length();
    }

    private int endOfTag(int at) {
        char quote = 0;
        for (int i = at + 1; i < text.length(); i++) {
            char c = text.charAt(i);
            if (quote != 0) {
                quote = c == quote ? 0 : quote;
            } else if (c == '"' || c == '\'') {
                quote = c;
            } else if (c == '>') {
                return i + 1;
            }
        }
        throw new IllegalArgumentException("not well formed");
    }

    /** All of them in the order in which they begin. */
    List<Element> all() {
        return all;
    }

    Element root() {
        return all.get(0);
    }

    String text() {
        return text;
    }

    /** A first tag with an attribute set to another value, or without it when the value is null. */
    static String set(String tag, String qualified, @Nullable String value) {
        Matcher m = Pattern.compile("\\s" + Pattern.quote(qualified) + "\\s*=\\s*(\"[^\"]*\"|'[^']*')")
                .matcher(tag);
        String put = value == null ? "" : " " + qualified + "=\"" + escaped(value) + "\"";
        if (m.find()) {
            return tag.substring(0, m.start()) + put + tag.substring(m.end());
        }
        int end = tag.endsWith("/>") ? tag.length() - 2 : tag.length() - 1;
        return tag.substring(0, end).stripTrailing() + put + tag.substring(end);
    }

    /** A text as it stands in XML. */
    static String escaped(String plain) {
        return plain.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;")
                .replace("\n", "&#10;")
                .replace("\t", "&#9;");
    }

    private static final Pattern ENTITY = Pattern.compile("&(#x[0-9A-Fa-f]{1,6}|#\\d{1,7}|lt|gt|amp|quot|apos);");

    /** What XML means by a text without tags. */
    static String plain(String escaped) {
        return ENTITY.matcher(escaped)
                .replaceAll(m -> Matcher.quoteReplacement(
                        switch (m.group(1)) {
                            case "lt" -> "<";
                            case "gt" -> ">";
                            case "amp" -> "&";
                            case "quot" -> "\"";
                            case "apos" -> "'";
                            default -> character(m.group(1));
                        }));
    }

    private static String character(String code) {
        int point =
                code.startsWith("#x") ? Integer.parseInt(code.substring(2), 16) : Integer.parseInt(code.substring(1));
        return Character.isValidCodePoint(point) ? Character.toString(point) : "";
    }

    /** Writes parts of a text anew. */
    static final class Splices {
        private final java.util.TreeMap<Integer, Splice> splices = new java.util.TreeMap<>();

        /** What comes before a place, and what takes the place of what stands from there to an end. */
        private record Splice(String before, int end, String text) {}

        /** Puts this in place of what stands between two places; what is put in at one place follows in turn. */
        void put(int start, int end, String text) {
            Splice there = splices.getOrDefault(start, new Splice("", start, ""));
            if (start == end) {
                splices.put(start, new Splice(there.before() + text, there.end(), there.text()));
            } else if (there.end() > start) {
                throw new IllegalArgumentException("two changes at one place");
            } else {
                splices.put(start, new Splice(there.before(), end, text));
            }
        }

        String apply(String text) {
            StringBuilder made = new StringBuilder();
            int at = 0;
            for (var e : splices.entrySet()) {
                if (e.getKey() < at) {
                    throw new IllegalArgumentException("two changes at one place");
                }
                made.append(text, at, e.getKey())
                        .append(e.getValue().before())
                        .append(e.getValue().text());
                at = e.getValue().end();
            }
            return made.append(text, at, text.length()).toString();
        }
    }
}
