package org.mendedleaf.core.document;

/** HTML and XML as the words that stand between their tags. */
final class Markup {

    private Markup() {}

    /** The words, with a line for what looks like one. Nothing is fetched or run. */
    static String text(String markup) {
        return markup.replaceAll("(?is)<(script|style|head)\\b.*?</\\1\\s*>", " ")
                .replaceAll("(?i)<(br|/p|/div|/tr|/li|/h[1-6])\\b[^>]*>", "\n")
                .replaceAll("<[^>]*>", " ")
                .replace("&nbsp;", " ")
                .replace("&lt;", "<")
                .replace("&gt;", ">")
                .replace("&quot;", "\"")
                .replace("&amp;", "&")
                .replaceAll("[ \\t]+", " ");
    }
}
