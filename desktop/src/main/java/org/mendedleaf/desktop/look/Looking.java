package org.mendedleaf.desktop.look;

import java.util.function.Consumer;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.words.Words;

/** Makes looks of documents and of differences. */
public final class Looking {

    private Looking() {}

    /**
     * How differences are shown.
     *
     * @param wide side by side where that is possible
     * @param onlyChanges without what is equal far from a change
     * @param formulas instead of what they give
     * @param pages as they are printed, instead of their words
     */
    public record Choices(boolean wide, boolean onlyChanges, boolean formulas, boolean pages) {
        /** For a small pane. */
        public static final Choices SMALL = new Choices(false, true, false, false);
    }

    /** A document; members of archives and attachments of messages are opened by {@code open}. */
    public static Look of(Document document, Choices choices, Pictures pictures, Consumer<String> open) {
        if (document instanceof Document.Text text) {
            return TextLook.of(text);
        }
        if (document instanceof Document.Sheets sheets) {
            return SheetLook.of(sheets, choices.formulas());
        }
        if (document instanceof Document.Prose prose) {
            boolean pages = prose.form() == Document.Form.PAGES && pictures != Pictures.NONE;
            return pages ? new PagesLook(prose, pictures) : ProseLook.of(prose, pictures, open);
        }
        if (document instanceof Document.Picture picture) {
            return PictureLook.of(picture);
        }
        if (document instanceof Document.Archive archive) {
            return OtherLook.of(archive, open);
        }
        if (document instanceof Document.Other other) {
            return OtherLook.of(other);
        }
        return OtherLook.message(Words.of("detail.empty"));
    }

    /** Whether there is more than is shown. */
    public static boolean isCut(Document document) {
        return document instanceof Document.Text t && t.cut()
                || document instanceof Document.Sheets s && s.cut()
                || document instanceof Document.Prose p && p.cut()
                || document instanceof Document.Archive a && a.cut();
    }

    /** Which points the two sides are, in words. */
    public record Titles(String before, String after) {}

    /** A difference; members of archives and attachments of messages are opened by {@code open}. */
    public static Look of(
            Comparison comparison, Choices choices, Titles titles, Pictures pictures, Consumer<String> open) {
        if (comparison instanceof Comparison.TextChanges text) {
            return TextLook.of(text, choices.wide(), choices.onlyChanges());
        }
        if (comparison instanceof Comparison.SheetChanges sheets) {
            return SheetLook.of(sheets, choices, titles);
        }
        if (comparison instanceof Comparison.ProseChanges prose) {
            boolean pages = prose.form() == Document.Form.PAGES && pictures != Pictures.NONE;
            return pages && choices.pages()
                    ? new PagePairsLook(prose, choices.onlyChanges(), pictures)
                    : ProseLook.of(prose, choices.wide(), choices.onlyChanges(), pictures, open);
        }
        if (comparison instanceof Comparison.PictureChanges picture) {
            return PictureLook.of(picture);
        }
        if (comparison instanceof Comparison.ArchiveChanges archive) {
            return OtherLook.of(archive, choices.onlyChanges(), open);
        }
        if (comparison instanceof Comparison.ByteChanges bytes) {
            return OtherLook.of(bytes);
        }
        return OtherLook.message(Words.of("detail.equal"));
    }

    /** Words in the place of a look. */
    public static Look message(String text) {
        return OtherLook.message(text);
    }
}
