package org.mendedleaf.core.line;

/**
 * What is said of a file as a whole.
 *
 * @param category it is filed under; empty for none
 * @param visibility who may see it
 */
public record FileProperties(String category, Visibility visibility) {

    /** What nobody said anything of. */
    public static final FileProperties NOTHING = new FileProperties("", Visibility.EVERYBODY);

    /** Whether nobody said anything. */
    public boolean isNothing() {
        return category.isEmpty() && visibility == Visibility.EVERYBODY;
    }

    /** Who may see a file in Mended Leaf. */
    public enum Visibility {
        /** Whoever may see its place. */
        EVERYBODY,
        /** Editors and owners of its place. */
        EDITORS,
        /** Owners of its place. */
        OWNER
    }
}
