package org.mendedleaf.core.compare;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.PictureChanges;
import org.mendedleaf.core.compare.Comparison.ProseChanges;
import org.mendedleaf.core.compare.Comparison.SectionChange;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.words.Words;

/** Compares pages as they are printed, for what their words do not say: drawings, pictures, the place of things. */
public final class PagePictures {

    /** So many pages are looked at where no word of a document changed. */
    private static final int PAGES_MOST = 30;

    /** Wide enough to tell pages apart. Pixels. */
    private static final int WIDTH = 220;

    private PagePictures() {}

    /**
     * What differs between two pages.
     *
     * @param pageBefore of the earlier content, from 0
     * @param pageAfter of the later content, from 0
     * @param width of both pictures, in pixels
     */
    public static PictureChanges compare(byte[] before, int pageBefore, byte[] after, int pageAfter, int width)
            throws IOException {
        DocumentProcess documents = DocumentProcess.shared();
        Document.Picture a = picture(documents.page(before, pageBefore, width));
        Document.Picture b = picture(documents.page(after, pageAfter, width));
        return (PictureChanges) PictureCompare.compare(a, b);
    }

    private static Document.Picture picture(byte[] png) {
        return new Document.Picture(0, 0, List.of(), png);
    }

    /** The pages that look different although no word on any page changed. */
    static Comparison drawn(ProseChanges words, byte[] before, byte[] after) throws IOException {
        List<SectionChange> sections = new ArrayList<>();
        List<Change> changes = new ArrayList<>();
        for (SectionChange page : words.sections()) {
            boolean looked = page.before() >= 0 && page.after() >= 0 && sections.size() < PAGES_MOST;
            if (looked
                    && compare(before, page.before(), after, page.after(), WIDTH)
                                    .share()
                            > 0) {
                String where = Words.of("compare.where.page", page.after() + 1);
                changes.add(
                        new Change(changes.size() + 1, Mark.CHANGED, where, "", Words.of("compare.looksDifferent")));
                sections.add(new SectionChange(Mark.CHANGED, page.before(), page.after(), page.name(), page.blocks()));
            } else {
                sections.add(page);
            }
        }
        return new ProseChanges(words.form(), sections, changes);
    }

    /** Whether pages are to be looked at as pictures, since their words say nothing. */
    static boolean isWanted(Comparison comparison) {
        return comparison instanceof ProseChanges prose
                && prose.form() == Document.Form.PAGES
                && prose.changes().isEmpty();
    }
}
