package org.mendedleaf.desktop.document;

import java.util.function.Consumer;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.words.Words;

/** Makes looks of documents and of differences. */
public final class DocumentViews {

    private DocumentViews() {}

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
    public static DocumentView of(Document document, Choices choices, Pictures pictures, Consumer<String> open) {
        if (document instanceof Document.Text text) {
            return TextView.of(text);
        }
        if (document instanceof Document.Sheets sheets) {
            return SheetView.of(sheets, choices.formulas());
        }
        if (document instanceof Document.Prose prose) {
            boolean pages = prose.form() == Document.Form.PAGES && pictures != Pictures.NONE;
            return pages ? new PagesView(prose, pictures) : ProseView.of(prose, pictures, open);
        }
        if (document instanceof Document.Picture picture) {
            return PictureView.of(picture);
        }
        if (document instanceof Document.Archive archive) {
            return OtherView.of(archive, open);
        }
        if (document instanceof Document.Other other) {
            return OtherView.of(other);
        }
        return OtherView.message(Words.of("detail.empty"));
    }

    /** Whether there is more than is shown. */
    public static boolean isCut(Document document) {
        return document instanceof Document.Text t && t.cut()
                || document instanceof Document.Sheets s && s.cut()
                || document instanceof Document.Prose p && p.cut()
                || document instanceof Document.Archive a && a.cut();
    }

    /** Which points the two sides are, as a message. */
    public record Titles(String before, String after) {}

    /** A difference; members of archives and attachments of messages are opened by {@code open}. */
    public static DocumentView of(
            Comparison comparison, Choices choices, Titles titles, Pictures pictures, Consumer<String> open) {
        if (comparison instanceof Comparison.TextChanges text) {
            return TextView.of(text, choices.wide(), choices.onlyChanges());
        }
        if (comparison instanceof Comparison.SheetChanges sheets) {
            return SheetView.of(sheets, choices, titles);
        }
        if (comparison instanceof Comparison.ProseChanges prose) {
            boolean pages = prose.form() == Document.Form.PAGES && pictures != Pictures.NONE;
            return pages && choices.pages()
                    ? new PagePairsView(prose, choices.onlyChanges(), pictures)
                    : ProseView.of(prose, choices.wide(), choices.onlyChanges(), pictures, open);
        }
        if (comparison instanceof Comparison.PictureChanges picture) {
            return PictureView.of(picture);
        }
        if (comparison instanceof Comparison.ArchiveChanges archive) {
            return OtherView.of(archive, choices.onlyChanges(), open);
        }
        if (comparison instanceof Comparison.ByteChanges bytes) {
            return OtherView.of(bytes);
        }
        return OtherView.message(Words.of("detail.equal"));
    }

    /** Words in the place of a look. */
    public static DocumentView message(String text) {
        return OtherView.message(text);
    }
}
