package org.mendedleaf.core.findings;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.findings.Finding.Mark;
import org.mendedleaf.core.words.Words;

/** Many more files were removed within minutes than is usual in the place. */
final class RemovedInBulk implements Detector {

    /** With fewer it is none. */
    static final int FEWEST = 6;

    private static final int TIMES = 3;

    @Override
    public List<Finding> detect(History history) {
        Map<Long, List<SavedVersion>> lines = history.byLine();
        List<List<NameChange>> runs = Clusters.of(
                history.turns().stream().filter(NameChange::isRemoval).toList(), NameChange::at);
        int[] sizes = Clusters.sizes(runs);
        List<Finding> findings = new ArrayList<>();
        for (List<NameChange> run : runs) {
            int usual = Clusters.usual(sizes, run.size());
            if (run.size() < Math.max(FEWEST, usual * TIMES)) {
                continue;
            }
            List<Mark> each = new ArrayList<>();
            for (NameChange t : run) {
                each.add(mark(t, lines.getOrDefault(t.line(), List.of())));
            }
            // A file may have been brought back and removed again.
            List<Mark> marks = Detectors.lastOfEach(each);
            if (marks.size() < FEWEST) {
                continue;
            }
            Instant from = run.get(0).at();
            Instant to = run.get(run.size() - 1).at();
            boolean huge = run.size() >= Math.max(4 * FEWEST, usual * TIMES * 3);
            findings.add(new Finding(
                    history.place(),
                    Finding.Kind.REMOVED,
                    huge ? Certainty.LIKELY : Certainty.POSSIBLE,
                    from,
                    to,
                    marks,
                    List.of(Words.inAll(() -> Words.of("findings.evidence.removed", usual)))));
        }
        return findings;
    }

    private static Mark mark(NameChange t, List<SavedVersion> line) {
        for (int i = line.size() - 1; i >= 0; i--) {
            SavedVersion s = line.get(i);
            if (s.number() <= t.number() && FileDetector.isSound(s)) {
                return new Mark(t.line(), t.from(), t.number(), s.number(), t.from(), t.at(), t.who());
            }
        }
        return new Mark(t.line(), t.from(), t.number(), 0, t.from(), t.at(), t.who());
    }
}
