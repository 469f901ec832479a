package org.mendedleaf.core.findings;

import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Nothing is in a file any more, or next to nothing of what it said. Files that are emptied again and again are left alone. */
final class Emptied extends FileDetector {

    private static final double LEFT = 0.06;
    private static final int SAYING = 200;

    Emptied() {
        super(Finding.Kind.EMPTIED);
    }

    @Override
    Optional<Judged> judge(List<SavedVersion> line, int at) {
        Health now = line.get(at).health().orElse(null);
        Health was = line.get(at - 1).health().orElse(null);
        if (now == null || was == null || !was.isGood() || isUsual(line, at)) {
            return Optional.empty();
        }
        if (now.reason() == Health.Reason.EMPTY && line.get(at - 1).size() > 0) {
            return Optional.of(new Judged(
                    Certainty.CERTAIN,
                    Words.inAll(() -> Words.of(
                            "findings.evidence.empty",
                            Formats.size(line.get(at - 1).size())))));
        }
        boolean says = now.isGood() && was.kind() == now.kind() && says(now.kind());
        if (says && !isAnew(line, at) && was.mass() >= SAYING && now.mass() < was.mass() * LEFT) {
            return Optional.of(new Judged(
                    now.mass() == 0 ? Certainty.CERTAIN : Certainty.LIKELY,
                    Words.inAll(() -> Words.of("findings.evidence.mass", now.mass(), was.mass()))));
        }
        return Optional.empty();
    }

    private static boolean says(Health.Kind kind) {
        return switch (kind) {
            case TEXT, SHEETS, PROSE, SLIDES, PAGES, MAIL -> true;
            default -> false;
        };
    }

    /** Whether it was empty twice before, and full again. */
    private static boolean isUsual(List<SavedVersion> line, int at) {
        int times = 0;
        for (int i = 0; i < at; i++) {
            times += line.get(i).size() == 0 && i > 0 ? 1 : 0;
        }
        return times >= 2;
    }
}
