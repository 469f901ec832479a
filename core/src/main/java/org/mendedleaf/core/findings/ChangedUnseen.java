package org.mendedleaf.core.findings;

import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.words.Words;

/** A content is another one, though the file's time and size are what they were: no program that saves does that. */
final class ChangedUnseen extends FileDetector {

    ChangedUnseen() {
        super(Finding.Kind.CHANGED_UNSEEN);
    }

    @Override
    Optional<Judged> judge(List<SavedVersion> line, int at) {
        if (!line.get(at).quiet()) {
            return Optional.empty();
        }
        boolean bad =
                line.get(at).health().map(h -> h.state() == Health.State.BROKEN).orElse(false);
        // Some programs that keep a time on purpose do it each time.
        boolean usual = at > 1 && line.get(at - 1).quiet();
        return usual && !bad
                ? Optional.empty()
                : Optional.of(new Judged(
                        bad ? Certainty.CERTAIN : Certainty.LIKELY,
                        Words.inAll(() -> Words.of("findings.evidence.unseen"))));
    }
}
