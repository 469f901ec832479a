package org.mendedleaf.core.document;

/**
 * How much of a content is read, so that none takes the memory or the time of all others.
 *
 * @param unpacked bytes that all parts of a document may have when they are unpacked
 * @param depth elements or folders in each other
 * @param rows of a sheet, lines of a text, paragraphs of a document
 * @param cells of all sheets
 * @param members of an archive that are listed
 * @param pages of a document that are read
 * @param pixels of a picture, in millions
 * @param chars of the text of all cells, and of all pages
 */
public record Limits(long unpacked, int depth, int rows, int cells, int members, int pages, int pixels, int chars) {

    /** For looking, comparing and searching. */
    public static final Limits DEFAULT =
            new Limits(192L << 20, 256, 200_000, 4_000_000, 100_000, 2000, 400, 32_000_000);

    /** For what a content is like: its words and the colours of its fields, which very many contents are asked for. */
    public static final Limits LIKENESS = new Limits(64L << 20, 256, 200_000, 1_000_000, 100_000, 500, 120, 800_000);
}
