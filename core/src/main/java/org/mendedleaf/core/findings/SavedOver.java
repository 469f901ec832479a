package org.mendedleaf.core.findings;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.words.Words;

/**
 * Saved over by something unrelated: by another kind of content, or by one that has next to nothing in common with the
 * version before it, though the file's versions usually have much. Files that are made anew each time are left alone.
 */
final class SavedOver extends FileDetector {

    /** With less in common, percent, two contents have nothing to do with each other. */
    private static final int UNRELATED = 8;

    /** What is less than this is little for a file whose versions usually have {@link #CLOSE} in common. */
    private static final int LITTLE = 25;

    private static final int CLOSE = 70;

    /** A file whose versions usually have less than this in common is made anew each time. */
    private static final int ANEW = 35;

    /** What is shorter says too little, letters. */
    private static final int SAYING = 400;

    private static final int REMEMBERED = 9;

    SavedOver() {
        super(Finding.Kind.SAVED_OVER);
    }

    @Override
    Optional<Judged> judge(List<Save> line, int at) {
        Save save = line.get(at);
        Optional<Health> now = save.health();
        Optional<Health> was = line.get(at - 1).health();
        if (now.isEmpty() || was.isEmpty() || !was.get().isGood()) {
            return Optional.empty();
        }
        if (now.get().reason() == Health.Reason.OTHER_KIND) {
            return Optional.of(new Judged(
                    Certainty.CERTAIN,
                    Words.of(
                            "findings.evidence.kind",
                            now.get().kind().words(),
                            was.get().kind().words())));
        }
        int shared = save.shared();
        if (!now.get().isGood()
                || shared < 0
                || was.get().mass() < SAYING
                || now.get().mass() < SAYING) {
            return Optional.empty();
        }
        int[] before = IntStream.range(Math.max(1, at - REMEMBERED), at)
                .map(i -> line.get(i).shared())
                .filter(s -> s >= 0)
                .sorted()
                .toArray();
        int usual = before.length == 0 ? -1 : before[before.length / 2];
        boolean anew = usual >= 0 && usual < ANEW;
        if (shared < UNRELATED && !anew) {
            return Optional.of(new Judged(Certainty.LIKELY, said(shared, usual)));
        }
        if (shared < LITTLE && before.length >= 2 && usual >= CLOSE) {
            return Optional.of(new Judged(Certainty.POSSIBLE, said(shared, usual)));
        }
        return Optional.empty();
    }

    private static String said(int shared, int usual) {
        return usual < 0
                ? Words.of("findings.evidence.shared", shared)
                : Words.of("findings.evidence.sharedUsual", shared, usual);
    }
}
