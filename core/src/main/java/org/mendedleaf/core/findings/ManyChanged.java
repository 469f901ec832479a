package org.mendedleaf.core.findings;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.findings.Finding.Mark;
import org.mendedleaf.core.words.Words;

/**
 * Within minutes many more files were saved than is usual in the place, most of them with little in common with what they
 * were. Files that a program writes again every day, and pictures that look as before, are none of it.
 */
final class ManyChanged implements Detector {

    /** With fewer it is none. */
    static final int FEWEST = 20;

    private static final int TIMES = 4;

    /** What has less in common with what it was, percent, has little. */
    static final int LITTLE = 50;

    @Override
    public List<Finding> detect(History history) {
        Map<Long, List<SavedVersion>> lines = history.byLine();
        List<List<SavedVersion>> runs = Clusters.of(
                history.saves().stream().filter(s -> s.hasBefore() && !s.ours()).toList(), SavedVersion::at);
        int[] sizes = Clusters.sizes(runs);
        List<Finding> findings = new ArrayList<>();
        for (List<SavedVersion> run : runs) {
            List<SavedVersion> other = run.stream()
                    .filter(s -> s.shared() >= 0
                            && s.shared() < LITTLE
                            && !isAnew(lines.getOrDefault(s.line(), List.of()), s))
                    .toList();
            int usual = Clusters.usual(sizes, run.size());
            if (other.size() < FEWEST || other.size() * 2 < run.size() || run.size() < usual * TIMES) {
                continue;
            }
            List<Mark> marks = new ArrayList<>();
            Set<Long> once = new HashSet<>();
            for (SavedVersion s : other) {
                if (once.add(s.line())) {
                    List<SavedVersion> line = lines.getOrDefault(s.line(), List.of());
                    marks.add(FileDetector.mark(line, line.indexOf(s)));
                }
            }
            findings.add(new Finding(
                    history.place(),
                    Finding.Kind.BURST,
                    Certainty.POSSIBLE,
                    run.get(0).at(),
                    run.get(run.size() - 1).at(),
                    marks,
                    List.of(Words.inAll(() -> Words.of("findings.evidence.pace", run.size(), usual)))));
        }
        return findings;
    }

    /** Whether the file is made anew each time. */
    private static boolean isAnew(List<SavedVersion> line, SavedVersion save) {
        return line.stream()
                .filter(s -> s.number() < save.number() && s.shared() >= 0)
                .anyMatch(s -> s.shared() < LITTLE);
    }
}
