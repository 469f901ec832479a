package org.mendedleaf.desktop.document;

import java.util.function.Consumer;
import javafx.scene.image.Image;
import org.mendedleaf.core.compare.Comparison.PictureChanges;

/** Where the pictures of a document, and the pages of a PDF, come from; they come later, or not at all. */
public interface Pictures {

    /** There are none. */
    Pictures NONE = new Pictures() {
        @Override
        public void ask(String ref, Consumer<Image> to) {
            // None comes.
        }

        @Override
        public void page(int page, int width, Consumer<Image> to) {
            // None comes.
        }
    };

    /** Asks for a picture within the earlier of two documents. */
    default void askBefore(String ref, Consumer<Image> to) {
        ask(ref, to);
    }

    /** Asks for a page of the earlier of two documents. */
    default void pageBefore(int page, int width, Consumer<Image> to) {
        page(page, width, to);
    }

    /** Asks for what differs between a page of the earlier document and one of the later. */
    default void difference(int before, int after, int width, Consumer<PictureChanges> to) {
        // None comes.
    }

    /** Asks for a picture within a document. */
    void ask(String ref, Consumer<Image> to);

    /** Asks for a page, from 0, so many pixels wide. */
    void page(int page, int width, Consumer<Image> to);
}
