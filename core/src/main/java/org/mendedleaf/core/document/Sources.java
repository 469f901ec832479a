package org.mendedleaf.core.document;

import java.util.List;
import org.mendedleaf.core.document.Document.Block;

/**
 * The blocks of a text with the elements in which they are written.
 *
 * @param part of the document that holds the elements
 * @param blocks in order
 * @param elements the number of the element of each block, counted from 0 in the order in which elements begin in the part;
 *     -1 when it stands elsewhere or is none of its own
 */
public record Sources(String part, List<Block> blocks, List<Integer> elements) {
    /** Copies the lists. */
    public Sources {
        blocks = List.copyOf(blocks);
        elements = List.copyOf(elements);
    }
}
