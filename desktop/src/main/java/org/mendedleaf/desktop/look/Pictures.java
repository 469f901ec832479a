package org.mendedleaf.desktop.look;

import java.util.function.Consumer;
import javafx.scene.image.Image;

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

    /** Asks for a picture within a document. */
    void ask(String ref, Consumer<Image> to);

    /** Asks for a page, from 0, so many pixels wide. */
    void page(int page, int width, Consumer<Image> to);
}
