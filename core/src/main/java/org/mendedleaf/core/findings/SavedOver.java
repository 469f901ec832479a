package org.mendedleaf.core.findings;

import java.util.List;
import java.util.Optional;
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

    /** What is shorter says too little, letters; of what is more than letters, bytes. */
    private static final int SAYING = 400;

    private static final int SAYING_LEAST = 150;
    private static final int LARGE = 2000;

    SavedOver() {
        super(Finding.Kind.SAVED_OVER);
    }

    @Override
    Optional<Judged> judge(List<SavedVersion> line, int at) {
        SavedVersion save = line.get(at);
        Optional<Health> now = save.health();
        Optional<Health> was = line.get(at - 1).health();
        if (now.isEmpty() || was.isEmpty() || !was.get().isGood()) {
            return Optional.empty();
        }
        if (now.get().reason() == Health.Reason.OTHER_KIND) {
            return Optional.of(new Judged(
                    Certainty.CERTAIN,
                    Words.inAll(() -> Words.of(
                            "findings.evidence.kind",
                            now.get().kind().words(),
                            was.get().kind().words()))));
        }
        if (!now.get().isGood()) {
            return Optional.empty();
        }
        if (isOther(now.get().kind(), was.get().kind())) {
            return Optional.of(new Judged(
                    Certainty.LIKELY,
                    Words.inAll(() -> Words.of(
                            "findings.evidence.kind",
                            now.get().kind().words(),
                            was.get().kind().words()))));
        }
        int shared = save.shared();
        int usual = usual(line, at);
        // Of a file that was the same for long, less tells as much.
        int least = at > 2 && usual >= CLOSE ? SAYING_LEAST : SAYING;
        boolean says = saysEnough(line.get(at - 1), was.get(), least) && saysEnough(save, now.get(), least);
        if (shared < 0 || !says) {
            return Optional.empty();
        }
        if (shared < UNRELATED && !isAnew(line, at)) {
            return Optional.of(new Judged(Certainty.LIKELY, said(shared, usual)));
        }
        if (shared < LITTLE && at > 2 && usual >= CLOSE && was.get().mass() >= SAYING) {
            return Optional.of(new Judged(Certainty.POSSIBLE, said(shared, usual)));
        }
        return Optional.empty();
    }

    /** Whether it was one kind and is another; a text may be read as a table, or as a document, by what is in it. */
    private static boolean isOther(Health.Kind now, Health.Kind was) {
        boolean loose = isLoose(now) && isLoose(was);
        return now != was && !loose && now != Health.Kind.DATA && was != Health.Kind.DATA;
    }

    private static boolean isLoose(Health.Kind kind) {
        return kind == Health.Kind.TEXT
                || kind == Health.Kind.SHEETS
                || kind == Health.Kind.PROSE
                || kind == Health.Kind.MAIL;
    }

    /** Slides, pictures and archives are more than their words. */
    private static boolean saysEnough(SavedVersion save, Health health, int least) {
        return switch (health.kind()) {
            case SLIDES, PICTURE, ARCHIVE, DATA -> save.size() >= LARGE;
            default -> health.mass() >= least;
        };
    }

    private static String said(int shared, int usual) {
        return usual < 0
                ? Words.inAll(() -> Words.of("findings.evidence.shared", shared))
                : Words.inAll(() -> Words.of("findings.evidence.sharedUsual", shared, usual));
    }
}
