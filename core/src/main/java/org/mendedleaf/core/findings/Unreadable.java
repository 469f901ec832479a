package org.mendedleaf.core.findings;

import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.words.Words;

/** A file no longer opens as what its name says, or what had structure has none any more. */
final class Unreadable extends FileDetector {

    /** Bytes of which so many hundredths of a bit are needed each look like chance. */
    private static final int CHANCE = 770;

    private static final int STRUCTURE = 670;
    private static final int SMALLEST = 512;

    Unreadable() {
        super(Finding.Kind.UNREADABLE);
    }

    @Override
    Optional<Judged> judge(List<SavedVersion> line, int at) {
        Health now = line.get(at).health().orElse(null);
        Health was = line.get(at - 1).health().orElse(null);
        if (now == null || was == null || !was.isGood()) {
            return Optional.empty();
        }
        if (now.state() == Health.State.BROKEN && now.reason() != Health.Reason.CUT_SHORT) {
            return Optional.of(new Judged(
                    Certainty.CERTAIN,
                    Words.inAll(() -> Words.of("findings.evidence.broken", now.words(), was.proof()))));
        }
        if (now.reason() == Health.Reason.DOES_NOT_PARSE) {
            return Optional.of(new Judged(
                    Certainty.POSSIBLE,
                    Words.inAll(() -> Words.of("findings.evidence.broken", now.words(), was.proof()))));
        }
        boolean chance = now.kind() == Health.Kind.DATA
                && line.get(at).size() >= SMALLEST
                && now.noise() >= CHANCE
                && was.noise() <= STRUCTURE;
        return chance
                ? Optional.of(new Judged(Certainty.CERTAIN, Words.inAll(() -> Words.of("findings.evidence.noise"))))
                : Optional.empty();
    }
}
