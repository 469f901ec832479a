package org.mendedleaf.core.findings;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.words.Words;

/** Two people worked on a file at once, and who saved last saved over what the other had just written. */
final class Crossed extends FileDetector {

    static final Duration WITHIN = Duration.ofHours(2);

    /** With no more than this left of it, percent, what the other wrote is gone. */
    private static final int LEFT = 25;

    Crossed() {
        super(Finding.Kind.CROSSED);
    }

    @Override
    Optional<Judged> judge(List<SavedVersion> line, int at) {
        if (at < 2) {
            return Optional.empty();
        }
        SavedVersion save = line.get(at);
        SavedVersion other = line.get(at - 1);
        boolean two =
                !save.who().isEmpty() && !other.who().isEmpty() && !save.who().equals(other.who());
        int kept = save.likeness().map(Resemblance::kept).orElse(-1);
        boolean soon = Duration.between(other.at(), save.at()).compareTo(WITHIN) <= 0;
        return two && soon && kept >= 0 && kept <= LEFT
                ? Optional.of(new Judged(
                        Certainty.LIKELY,
                        Words.inAll(() -> Words.of("findings.evidence.crossed", other.who(), save.who(), kept))))
                : Optional.empty();
    }
}
