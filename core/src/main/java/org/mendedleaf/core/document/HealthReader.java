package org.mendedleaf.core.document;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.core.document.Health.Kind;
import org.mendedleaf.core.document.Health.Reason;
import org.mendedleaf.core.words.Words;

/**
 * Tells whether a content is what its name says, and whole: archives by the checksums of their members, pictures by their end
 * and their own checksums, documents by their structure, structured text by its grammar.
 */
final class HealthReader {

    private static final int NOISE_OF = 1 << 16;
    /** Of fewer bytes, to be all alike says nothing. */
    private static final int ALIKE_LEAST = 64;

    private static final Map<String, Set<Kind>> EXPECTED = Map.ofEntries(
            Map.entry("ods", EnumSet.of(Kind.SHEETS)),
            Map.entry("xlsx", EnumSet.of(Kind.SHEETS)),
            Map.entry("xls", EnumSet.of(Kind.SHEETS)),
            Map.entry("csv", EnumSet.of(Kind.SHEETS, Kind.TEXT)),
            Map.entry("tsv", EnumSet.of(Kind.SHEETS, Kind.TEXT)),
            Map.entry("odt", EnumSet.of(Kind.PROSE)),
            Map.entry("docx", EnumSet.of(Kind.PROSE)),
            Map.entry("doc", EnumSet.of(Kind.PROSE)),
            Map.entry("rtf", EnumSet.of(Kind.PROSE)),
            Map.entry("odp", EnumSet.of(Kind.SLIDES)),
            Map.entry("pptx", EnumSet.of(Kind.SLIDES)),
            Map.entry("pdf", EnumSet.of(Kind.PAGES)),
            Map.entry("png", EnumSet.of(Kind.PICTURE)),
            Map.entry("jpg", EnumSet.of(Kind.PICTURE)),
            Map.entry("jpeg", EnumSet.of(Kind.PICTURE)),
            Map.entry("gif", EnumSet.of(Kind.PICTURE)),
            Map.entry("bmp", EnumSet.of(Kind.PICTURE)),
            Map.entry("tif", EnumSet.of(Kind.PICTURE)),
            Map.entry("tiff", EnumSet.of(Kind.PICTURE)),
            Map.entry("webp", EnumSet.of(Kind.PICTURE)),
            Map.entry("svg", EnumSet.of(Kind.PICTURE)),
            Map.entry("zip", EnumSet.of(Kind.ARCHIVE, Kind.PROSE, Kind.SHEETS, Kind.SLIDES)),
            Map.entry("tar", EnumSet.of(Kind.ARCHIVE)),
            Map.entry("gz", EnumSet.of(Kind.ARCHIVE)),
            Map.entry("tgz", EnumSet.of(Kind.ARCHIVE)),
            Map.entry("eml", EnumSet.of(Kind.MAIL, Kind.TEXT)),
            Map.entry("txt", EnumSet.of(Kind.TEXT)),
            Map.entry("md", EnumSet.of(Kind.PROSE, Kind.TEXT)),
            Map.entry("html", EnumSet.of(Kind.TEXT)),
            Map.entry("xml", EnumSet.of(Kind.TEXT)),
            Map.entry("json", EnumSet.of(Kind.TEXT)));

    private final String ending;
    private final byte[] content;
    private final Limits limits;

    private HealthReader(String ending, byte[] content, Limits limits) {
        this.ending = ending;
        this.content = content;
        this.limits = limits;
    }

    static Health read(String name, byte[] content, Limits limits) {
        String lower = name.toLowerCase(Locale.ROOT);
        return new HealthReader(lower.substring(lower.lastIndexOf('.') + 1), content, limits)
                .read(Documents.read(name, content, false, limits));
    }

    private Health read(Document document) {
        Kind kind = kind(document);
        String detail = "";
        Reason reason;
        Set<Kind> expected = EXPECTED.getOrDefault(ending, Set.of());
        if (content.length == 0) {
            reason = Reason.EMPTY;
        } else if (isAllAlike()) {
            reason = Reason.ONE_BYTE;
        } else if (document instanceof Document.Other other && (!other.why().isEmpty() || !expected.isEmpty())) {
            boolean limit = !other.why().isEmpty() && !isDamage(other.why());
            reason = limit
                    ? Reason.NOT_READ
                    : expected.contains(Kind.TEXT) && !expected.contains(Kind.MAIL)
                            ? Reason.NOT_TEXT
                            : Reason.DOES_NOT_OPEN;
            detail = limit ? other.why() : "";
        } else if (!expected.isEmpty() && (!expected.contains(kind) || ending.equals("svg") && !isDrawn())) {
            reason = Reason.OTHER_KIND;
            detail = kind.name();
        } else {
            FormatCheck.Found found = new FormatCheck(ending, content, limits).run();
            reason = found.reason();
            detail = found.detail();
        }
        if (reason == Reason.WELL && document instanceof Document.Picture picture) {
            detail = picture.width() + " × " + picture.height();
        }
        return new Health(reason, detail, kind, amount(document), mass(document), noise(), head());
    }

    private static boolean isDamage(String why) {
        return Set.of(Words.of("document.damaged"), Words.of("document.noPicture"), Words.of("document.xml"))
                .contains(why);
    }

    private boolean isAllAlike() {
        if (content.length < ALIKE_LEAST) {
            return false;
        }
        for (byte b : content) {
            if (b != content[0]) {
                return false;
            }
        }
        return true;
    }

    /** Whether it is written as a drawing is; a picture of pixels is none, whatever its name says. */
    private boolean isDrawn() {
        return Documents.isPlain(content);
    }

    private static Kind kind(Document document) {
        if (document instanceof Document.Text) {
            return Kind.TEXT;
        } else if (document instanceof Document.Sheets) {
            return Kind.SHEETS;
        } else if (document instanceof Document.Prose prose) {
            return switch (prose.form()) {
                case DOCUMENT -> Kind.PROSE;
                case SLIDES -> Kind.SLIDES;
                case PAGES -> Kind.PAGES;
                case MAIL -> Kind.MAIL;
            };
        } else if (document instanceof Document.Picture) {
            return Kind.PICTURE;
        } else if (document instanceof Document.Archive) {
            return Kind.ARCHIVE;
        }
        return document instanceof Document.Empty ? Kind.EMPTY : Kind.DATA;
    }

    private long amount(Document document) {
        if (document instanceof Document.Text text) {
            return text.lines().size();
        } else if (document instanceof Document.Sheets sheets) {
            return sheets.sheets().stream()
                    .flatMap(s -> s.rows().stream())
                    .filter(r -> !r.isEmpty())
                    .count();
        } else if (document instanceof Document.Prose prose) {
            return prose.form() == Document.Form.DOCUMENT
                    ? prose.sections().stream()
                            .mapToLong(s -> s.blocks().size())
                            .sum()
                    : prose.sections().size();
        } else if (document instanceof Document.Archive archive) {
            return archive.members().size();
        }
        return content.length;
    }

    private long mass(Document document) {
        if (document instanceof Document.Picture picture) {
            return (long) picture.width() * picture.height();
        }
        boolean says = document instanceof Document.Text
                || document instanceof Document.Sheets
                || document instanceof Document.Prose;
        return says
                ? Document.words(document).stream()
                        .mapToLong(w -> w.strip().length())
                        .sum()
                : content.length;
    }

    private int noise() {
        int length = Math.min(content.length, NOISE_OF);
        int[] counts = new int[256];
        for (int i = 0; i < length; i++) {
            counts[content[i] & 0xff]++;
        }
        double bits = 0;
        for (int count : counts) {
            if (count > 0) {
                double share = (double) count / length;
                bits -= share * Math.log(share) / Math.log(2);
            }
        }
        return (int) Math.round(bits * 100);
    }

    private String head() {
        return HexFormat.of().formatHex(Arrays.copyOf(content, Math.min(4, content.length)));
    }
}
