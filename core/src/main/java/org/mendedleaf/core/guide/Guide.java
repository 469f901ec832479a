package org.mendedleaf.core.guide;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.commonmark.node.Node;
import org.commonmark.parser.Parser;
import org.commonmark.renderer.html.HtmlRenderer;
import org.mendedleaf.core.words.Words;

/**
 * The guide: a page for each task as people say it. Pages are written in Markdown (CommonMark), and become HTML that a browser shows without
 * any network.
 */
public final class Guide {

    /** The pages, the one that lists the others first. */
    public static final List<String> PAGES = List.of(
            "index",
            "saved-over",
            "gone",
            "last-thursday",
            "damaged",
            "what-changed",
            "find",
            "revision",
            "protect",
            "how-long",
            "drive-full",
            "copy",
            "undo");

    /** Which page helps with what messages say. */
    private static final Map<String, String> HELPS = helps();

    static Map<String, String> helps() {
        Map<String, String> helps = new java.util.LinkedHashMap<>();
        help(helps, "drive-full", "vault.full", "failure.full", "system.full", "preflight.space");
        help(
                helps,
                "copy",
                "copies.noRoom",
                "protect.copy.failed",
                "copies.away",
                "copies.damaged",
                "copies.different",
                "copies.inPlace",
                "copies.nested",
                "copies.lost",
                "vault.isCopy");
        help(
                helps,
                "protect",
                "files.past.unprotected",
                "files.past.none",
                "service.notStarted",
                "protect.already",
                "protect.around",
                "protect.within",
                "protect.keep.failed",
                "capture.placeGone",
                "capture.placeEmpty",
                "capture.unreadableRoot",
                "vault.notEmpty",
                "vault.notAFolder",
                "vault.notWritable");
        help(
                helps,
                "damaged",
                "catalogue.damaged",
                "catalogue.older",
                "catalogue.rebuildHint",
                "vault.marker",
                "vault.noMarker",
                "check.catalogue",
                "check.logDiffers",
                "check.journal.changed",
                "check.journal.gone");
        help(helps, "revision", "put.changing", "put.noDrafts", "put.stayedSame", "put.notBack");
        help(helps, "undo", "undo.some", "restore.changedMeanwhile", "restore.differs");
        help(
                helps,
                "gone",
                "preflight.refused",
                "preflight.notWritable",
                "preflight.name",
                "preflight.clash",
                "preflight.longPaths");
        help(helps, "how-long", "hold.noReason", "hold.past", "thin.keepLast");
        return helps;
    }

    private static void help(Map<String, String> helps, String page, String... messages) {
        for (String key : messages) {
            helps.put(key, page);
        }
    }

    private static final Pattern PICTURE = Pattern.compile("\\]\\(pictures/([a-z-]+\\.png)\\)");

    private final String language;

    /** The guide in this language; in English where there is none in it. */
    public Guide(Locale locale) {
        this.language = locale.getLanguage().equals("de") ? "de" : "en";
    }

    /** The guide in the language of the program. */
    public static Guide here() {
        return new Guide(Words.locale());
    }

    /**
     * A page as it was written.
     *
     * @throws IllegalArgumentException with a message, when there is none of this name
     */
    public String markdown(String page) throws IOException {
        if (!PAGES.contains(page)) {
            throw new IllegalArgumentException(Words.of("guide.unknown", page, String.join(", ", PAGES)));
        }
        try (InputStream in = resource(language + "/" + page + ".md")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** What a page is called: its heading. */
    public String title(String page) throws IOException {
        return markdown(page).lines().findFirst().orElse("").replaceFirst("^#\\s*", "");
    }

    /** A page as HTML, with its style inside. */
    public String html(String page) throws IOException {
        Node document = Parser.builder().build().parse(markdown(page));
        String body = HtmlRenderer.builder()
                .escapeHtml(true)
                .sanitizeUrls(true)
                .build()
                .render(document);
        String back = page.equals("index")
                ? ""
                : "<p class=\"back\"><a href=\"index.html\">" + escaped(title("index")) + "</a></p>\n";
        return """
                <!DOCTYPE html>
                <html lang="%s">
                <head>
                <meta charset="utf-8">
                <meta name="viewport" content="width=device-width">
                <title>%s</title>
                <style>
                %s</style>
                </head>
                <body>
                %s%s</body>
                </html>
                """.formatted(language, escaped(title(page)), text("guide.css"), back, body);
    }

    /** Writes all pages with their pictures into a folder, over those of an earlier time; returns the file of one of them. */
    public Path write(Path folder, String page) throws IOException {
        Path into = Files.createDirectories(folder.resolve(language));
        TreeSet<String> pictures = new TreeSet<>();
        for (String each : PAGES) {
            Files.writeString(into.resolve(each + ".html"), html(each));
            Matcher named = PICTURE.matcher(markdown(each));
            while (named.find()) {
                pictures.add(named.group(1));
            }
        }
        Files.createDirectories(into.resolve("pictures"));
        for (String picture : pictures) {
            try (InputStream in = resource("pictures/" + picture)) {
                Files.copy(in, into.resolve("pictures").resolve(picture), StandardCopyOption.REPLACE_EXISTING);
            }
        }
        return into.resolve(page + ".html");
    }

    /** The page that helps with a message, by the words that it is made of; empty where none does so more than others. */
    public static Optional<String> pageFor(String message) {
        return HELPS.entrySet().stream()
                .filter(e -> isMadeOf(message, Words.bundle().getString(e.getKey())))
                // Of two that begin alike the longer one says more.
                .max(Comparator.comparingInt(
                        e -> Words.bundle().getString(e.getKey()).length()))
                .map(Map.Entry::getValue);
    }

    /** Whether what stands between the values of a pattern stands in a text, in that order. */
    private static boolean isMadeOf(String text, String pattern) {
        int from = 0;
        for (String part : fixed(pattern.replace("''", "'"))) {
            int at = text.indexOf(part.strip(), from);
            if (at < 0) {
                return false;
            }
            from = at + part.strip().length();
        }
        return true;
    }

    /** What stands between the values of a pattern, of which one may hold others, as a choice does. */
    private static List<String> fixed(String pattern) {
        List<String> parts = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        int depth = 0;
        for (int i = 0; i < pattern.length(); i++) {
            char c = pattern.charAt(i);
            if (c == '{' && depth++ == 0) {
                parts.add(part.toString());
                part.setLength(0);
            } else if (c == '}') {
                depth--;
            } else if (depth == 0) {
                part.append(c);
            }
        }
        parts.add(part.toString());
        return parts;
    }

    private static String text(String name) throws IOException {
        try (InputStream in = resource(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static InputStream resource(String name) throws IOException {
        InputStream in = Guide.class.getResourceAsStream("/org/mendedleaf/core/guide/" + name);
        if (in == null) {
            throw new IOException("expected " + name + " inside the program");
        }
        return in;
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }
}
