package org.mendedleaf.core.line;

/**
 * What people call a version: a whole number when it is published, and beside that a second number when it is a draft.
 *
 * <pre>{@code
 * Edition.whole(3).nextDraft().label()  // "3.1"
 * }</pre>
 *
 * @param major number of the published version, or of the one before it; 0 when none was published yet
 * @param minor number of the draft after that; 0 when it is published
 */
public record Edition(int major, int minor) implements Comparable<Edition> {

    /** What stands before the first version. */
    public static final Edition NONE = new Edition(0, 0);

    /** A file has few versions, mostly; a folder of a million files has a million of them. */
    private static final Edition[] FEW = new Edition[100];

    private static final String[] LABELS = new String[FEW.length];

    static {
        for (int i = 0; i < FEW.length; i++) {
            FEW[i] = new Edition(i, 0);
            LABELS[i] = Integer.toString(i);
        }
    }

    /** The published version with this number. */
    public static Edition whole(int number) {
        return number >= 0 && number < FEW.length ? FEW[number] : new Edition(number, 0);
    }

    /** Whether it is a draft. */
    public boolean isDraft() {
        return minor > 0;
    }

    /** How it is written: {@code 3} or {@code 3.1}. */
    public String label() {
        if (isDraft()) {
            return major + "." + minor;
        }
        return major >= 0 && major < LABELS.length ? LABELS[major] : Integer.toString(major);
    }

    /** The draft that comes next. */
    public Edition nextDraft() {
        return new Edition(major, minor + 1);
    }

    /** The published version that comes next. */
    public Edition nextPublished() {
        return new Edition(major + 1, 0);
    }

    @Override
    public int compareTo(Edition other) {
        return major != other.major ? Integer.compare(major, other.major) : Integer.compare(minor, other.minor);
    }
}
