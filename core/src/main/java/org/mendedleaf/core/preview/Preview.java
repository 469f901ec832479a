package org.mendedleaf.core.preview;

import java.util.List;

/** What can be seen of a content without opening another program. */
public sealed interface Preview {

    /** Nothing in it. */
    record Empty() implements Preview {}

    /**
     * Text.
     *
     * @param lines of it
     * @param cut whether there is more
     */
    record Text(List<String> lines, boolean cut) implements Preview {
        /** Copies the list. */
        public Text {
            lines = List.copyOf(lines);
        }
    }

    /**
     * A grid of cells.
     *
     * @param rows of it, the first with the names of the columns where the file has them
     * @param cut whether there is more
     */
    record Grid(List<List<String>> rows, boolean cut) implements Preview {
        /** Copies the list. */
        public Grid {
            rows = List.copyOf(rows);
        }
    }

    /**
     * A picture, in a format that is shown as it is.
     *
     * @param bytes of the file
     */
    record Picture(byte[] bytes) implements Preview {}

    /**
     * Facts, where there is no way to show the content itself.
     *
     * @param mediaType what it is by its content, as in RFC 6838
     * @param hex its first bytes, 16 a line
     */
    record Facts(String mediaType, List<String> hex) implements Preview {
        /** Copies the list. */
        public Facts {
            hex = List.copyOf(hex);
        }
    }
}
