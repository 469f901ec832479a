package org.mendedleaf.core.line;

import java.nio.file.Path;

/** Where the files of a place are. */
public sealed interface Source {

    /**
     * A folder that this computer can reach.
     *
     * @param root absolute and real
     */
    record Folder(Path root) implements Source {
        @Override
        public String text() {
            return root.toString();
        }
    }

    /**
     * A place in another system.
     *
     * @param system name of the connection
     * @param place its name there
     */
    record Outside(String system, String place) implements Source {
        @Override
        public String text() {
            return PREFIX + system + ":" + place;
        }
    }

    /** What the text of an outside place begins with; no absolute path does. */
    String PREFIX = "outside:";

    /** What stands in the catalogue, and what {@link #parse} reads. */
    String text();

    /** Reads what {@link #text} wrote. */
    static Source parse(String text) {
        if (!text.startsWith(PREFIX)) {
            return new Folder(Path.of(text));
        }
        int colon = text.indexOf(':', PREFIX.length());
        if (colon < 0) {
            throw new IllegalArgumentException("expected outside:SYSTEM:PLACE, got " + text);
        }
        return new Outside(text.substring(PREFIX.length(), colon), text.substring(colon + 1));
    }
}
