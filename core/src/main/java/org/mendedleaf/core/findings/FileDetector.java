package org.mendedleaf.core.findings;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.findings.Finding.Mark;

/** Looks at each version of each file beside those before it. Pure. */
abstract class FileDetector implements Detector {

    /** A file whose versions usually have less than this in common, percent, is made anew each time. */
    private static final int ANEW = 35;

    private static final int REMEMBERED = 9;

    private final Finding.Kind kind;

    FileDetector(Finding.Kind kind) {
        this.kind = kind;
    }

    /** What is thought of a version. */
    record Judged(Certainty sure, String... evidence) {}

    /**
     * Judges a version that has one before it, and was not restored by us.
     *
     * @param line the versions of the file, oldest first
     * @param at which of them
     */
    abstract Optional<Judged> judge(List<SavedVersion> line, int at);

    @Override
    public List<Finding> detect(History history) {
        List<Finding> findings = new ArrayList<>();
        for (List<SavedVersion> line : history.byLine().values()) {
            for (int i = 1; i < line.size(); i++) {
                SavedVersion save = line.get(i);
                if (save.ours() || !save.hasBefore() || isEarlier(line, i)) {
                    continue;
                }
                Optional<Judged> judged = judge(line, i);
                if (judged.isPresent()) {
                    findings.add(Finding.of(
                            history.place(),
                            kind,
                            judged.get().sure(),
                            mark(line, i),
                            judged.get().evidence()));
                }
            }
        }
        return findings;
    }

    /** Whether somebody brought an earlier content back, which is no harm. */
    private static boolean isEarlier(List<SavedVersion> line, int at) {
        SavedVersion save = line.get(at);
        for (int i = 0; i < at; i++) {
            if (line.get(i).digest().equals(save.digest()) && isSound(line.get(i))) {
                return true;
            }
        }
        return false;
    }

    /**
     * How much the versions of a file usually have in common with the one before each, percent: the middle of the last nine
     * before this one. What was harmed and mended again says nothing of what is usual.
     *
     * @return -1 when nothing is known
     */
    static int usual(List<SavedVersion> line, int at) {
        int[] shared = new int[REMEMBERED];
        int n = 0;
        for (int i = at - 1; i > 0 && n < REMEMBERED; i--) {
            SavedVersion save = line.get(i);
            boolean undone = i + 1 < line.size() && line.get(i + 1).ours();
            if (save.shared() >= 0 && !save.ours() && !undone) {
                shared[n++] = save.shared();
            }
        }
        java.util.Arrays.sort(shared, 0, n);
        return n == 0 ? -1 : shared[n / 2];
    }

    /** Whether a file is made anew each time, as an export is. */
    static boolean isAnew(List<SavedVersion> line, int at) {
        int usual = usual(line, at);
        return usual >= 0 && usual < ANEW;
    }

    /** Whether a version can be gone back to, as far as is known. */
    static boolean isSound(SavedVersion save) {
        return save.health()
                .map(h -> h.isGood() || h.state() == Health.State.UNKNOWN)
                .orElse(save.size() > 0);
    }

    /** The version, and the last good one before it. */
    static Mark mark(List<SavedVersion> line, int at) {
        SavedVersion save = line.get(at);
        for (int i = at - 1; i >= 0; i--) {
            if (isSound(line.get(i))) {
                SavedVersion good = line.get(i);
                return new Mark(
                        save.line(), save.path(), save.number(), good.number(), good.path(), save.at(), save.who());
            }
        }
        return new Mark(save.line(), save.path(), save.number(), 0, save.path(), save.at(), save.who());
    }
}
