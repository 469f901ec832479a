package org.mendedleaf.core.findings;

import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** The end of a file is gone: its format misses it, or a text breaks off within a line that was longer. */
final class CutShort extends FileDetector {

    private static final double LOST = 0.9;

    CutShort() {
        super(Finding.Kind.CUT_SHORT);
    }

    @Override
    Optional<Judged> judge(List<SavedVersion> line, int at) {
        SavedVersion save = line.get(at);
        SavedVersion was = line.get(at - 1);
        if (was.health().isEmpty() || !was.health().get().isGood()) {
            return Optional.empty();
        }
        String lengths = Words.inAll(
                () -> Words.of("findings.evidence.lengths", Formats.size(save.size()), Formats.size(was.size())));
        if (save.health().map(Health::reason).orElse(Health.Reason.WELL) == Health.Reason.CUT_SHORT) {
            return Optional.of(
                    new Judged(Certainty.CERTAIN, Words.inAll(() -> Words.of("findings.evidence.end")), lengths));
        }
        boolean beginning = save.likeness().map(Resemblance::beginning).orElse(false);
        return beginning && save.size() > 0 && save.size() < was.size() * LOST
                ? Optional.of(new Judged(
                        Certainty.LIKELY, Words.inAll(() -> Words.of("findings.evidence.beginning")), lengths))
                : Optional.empty();
    }
}
