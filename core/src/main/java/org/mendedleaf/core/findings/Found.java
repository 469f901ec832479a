package org.mendedleaf.core.findings;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.findings.Finding.Mark;

/**
 * A finding, and how its files stand now.
 *
 * @param files one for each of its marks, in their order
 */
public record Found(Finding finding, List<OfFile> files) {

    /** Copies the list. */
    public Found {
        files = List.copyOf(files);
    }

    /** How a file stands now. */
    public enum Fate {
        /** It is as the finding says, and can be mended. */
        TO_MEND,
        /** It is as the finding says, and there is no good version to go back to. */
        LOST,
        /** An earlier version is back. */
        BACK,
        /** Somebody saved it well since; that stays. */
        EDITED,
        /** It was removed since. */
        REMOVED_SINCE
    }

    /**
     * A file of a finding.
     *
     * @param mark what was found of it
     * @param fate how it stands now
     * @param proof why its last good version is thought good, as a message; empty when there is none
     */
    public record OfFile(Mark mark, Fate fate, String proof) {}

    /** Says whether a file may be seen. */
    @FunctionalInterface
    interface Seen {
        /** Whether this line may be. */
        boolean is(long line) throws IOException;
    }

    /** The same with these files only. */
    Found only(Seen seen) throws IOException {
        List<OfFile> some = new ArrayList<>();
        for (OfFile file : files) {
            if (seen.is(file.mark().line())) {
                some.add(file);
            }
        }
        if (some.size() == files.size()) {
            return this;
        }
        List<Mark> marks = some.stream().map(OfFile::mark).toList();
        return new Found(
                new Finding(
                        finding.place(),
                        finding.kind(),
                        finding.sure(),
                        finding.from(),
                        finding.to(),
                        marks,
                        finding.evidence()),
                some);
    }

    /** How many files stand so. */
    public long count(Fate fate) {
        return files.stream().filter(f -> f.fate() == fate).count();
    }

    /** Whether it still is as it says, for one file at least. */
    public boolean isOpen() {
        return files.stream().anyMatch(f -> f.fate() == Fate.TO_MEND || f.fate() == Fate.LOST);
    }

    /** Why it closed by itself; empty while it is open. */
    public Optional<Fate> closed() {
        return isOpen() ? Optional.empty() : files.stream().map(OfFile::fate).min(java.util.Comparator.naturalOrder());
    }
}
