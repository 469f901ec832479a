package org.mendedleaf.core.intake;

import java.util.Locale;
import java.util.Map;
import org.mendedleaf.core.preview.Contents;
import org.mendedleaf.core.words.Words;

/** Kinds of contents, as people tell them apart. */
public enum ContentKind {
    /** Nothing in it. */
    EMPTY,
    /** Plain text, source, markup. */
    TEXT,
    /** A word-processor document. */
    DOCUMENT,
    /** A spreadsheet. */
    SHEET,
    /** A presentation. */
    SLIDES,
    /** A PDF. */
    PDF,
    /** A picture of pixels. */
    PICTURE,
    /** A drawing of shapes. */
    DRAWING,
    /** An archive of files. */
    ARCHIVE,
    /** Sound or film. */
    MEDIA,
    /** Anything else. */
    OTHER;

    private static final String NOTHING = "application/x-empty";

    private static final Map<String, ContentKind> ENDINGS = Map.ofEntries(
            Map.entry("odt", DOCUMENT),
            Map.entry("ott", DOCUMENT),
            Map.entry("doc", DOCUMENT),
            Map.entry("docx", DOCUMENT),
            Map.entry("rtf", DOCUMENT),
            Map.entry("ods", SHEET),
            Map.entry("ots", SHEET),
            Map.entry("xls", SHEET),
            Map.entry("xlsx", SHEET),
            Map.entry("odp", SLIDES),
            Map.entry("ppt", SLIDES),
            Map.entry("pptx", SLIDES),
            Map.entry("odg", DRAWING),
            Map.entry("svg", DRAWING),
            Map.entry("pdf", PDF),
            Map.entry("png", PICTURE),
            Map.entry("jpg", PICTURE),
            Map.entry("jpeg", PICTURE),
            Map.entry("gif", PICTURE),
            Map.entry("bmp", PICTURE),
            Map.entry("tif", PICTURE),
            Map.entry("tiff", PICTURE),
            Map.entry("webp", PICTURE),
            Map.entry("zip", ARCHIVE),
            Map.entry("7z", ARCHIVE),
            Map.entry("gz", ARCHIVE),
            Map.entry("tar", ARCHIVE),
            Map.entry("txt", TEXT),
            Map.entry("md", TEXT),
            Map.entry("csv", TEXT),
            Map.entry("tsv", TEXT),
            Map.entry("html", TEXT),
            Map.entry("xml", TEXT),
            Map.entry("json", TEXT));

    /** In words, with its article: {@code a spreadsheet}. */
    public String words() {
        return Words.of("kind." + this);
    }

    /** What a content is by its bytes alone; of Office Open XML also which kind (ISO/IEC 29500). */
    static String mediaType(byte[] content) {
        if (content.length == 0) {
            return NOTHING;
        }
        if (Contents.beginsAsPlainText(content)) {
            return Contents.PLAIN;
        }
        String type = Contents.mediaType(content, "");
        boolean bare = type.equals("application/zip") || type.equals("application/x-tika-ooxml");
        return bare ? OfficeXml.mediaType(content).orElse(type) : type;
    }

    /** The kind of a content by its media type, where that says too little by its name. */
    static ContentKind of(String type, String name) {
        if (type.equals(NOTHING) || type.isEmpty()) {
            return EMPTY;
        }
        if (type.contains("tika-msoffice")) {
            // The old formats are alike from outside; their names tell them apart.
            return byName(name);
        }
        if (type.contains("opendocument.text")
                || type.contains("wordprocessing")
                || type.equals("application/rtf")
                || type.equals("application/msword")) {
            return DOCUMENT;
        }
        if (type.contains("opendocument.spreadsheet") || type.contains("spreadsheetml") || type.contains("ms-excel")) {
            return SHEET;
        }
        if (type.contains("opendocument.presentation")
                || type.contains("presentationml")
                || type.contains("ms-powerpoint")) {
            return SLIDES;
        }
        if (type.equals("application/pdf")) {
            return PDF;
        }
        if (type.equals("image/svg+xml") || type.contains("opendocument.graphics")) {
            return DRAWING;
        }
        if (type.startsWith("image/")) {
            return PICTURE;
        }
        if (type.startsWith("audio/") || type.startsWith("video/")) {
            return MEDIA;
        }
        if (type.startsWith("text/") || type.endsWith("xml") || type.endsWith("json")) {
            return byName(name) == DRAWING ? DRAWING : TEXT;
        }
        if (type.contains("zip") || type.contains("tar") || type.contains("7z") || type.contains("compress")) {
            return ARCHIVE;
        }
        return OTHER;
    }

    /** The kind that a name promises; {@link #OTHER} when it promises none. */
    public static ContentKind byName(String name) {
        int dot = name.lastIndexOf('.');
        String ending = dot < 0 ? "" : name.substring(dot + 1).toLowerCase(Locale.ROOT);
        return ENDINGS.getOrDefault(ending, OTHER);
    }
}
