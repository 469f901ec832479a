package org.mendedleaf.core.findings;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.findings.Finding.Mark;
import org.mendedleaf.core.words.Words;

/** Within minutes many files got the same new ending, which no file of the place had before. */
final class NewEndings implements Detector {

    /** With fewer it is none. */
    static final int FEWEST = 4;

    private record Renamed(long line, Instant at, String who, String from, String to, int number) {}

    @Override
    public List<Finding> detect(History history) {
        Map<Long, List<SavedVersion>> lines = history.byLine();
        Map<String, Instant> known = new HashMap<>();
        for (SavedVersion s : history.saves()) {
            // An ending that a file had from its first version on belongs to the place.
            if (s.before() == 0) {
                known.merge(SavedVersion.ending(s.path()), s.at(), (a, b) -> a.isBefore(b) ? a : b);
            }
        }
        Map<String, List<Renamed>> byEnding = new HashMap<>();
        Set<String> once = new HashSet<>();
        for (SavedVersion s : history.saves()) {
            if (s.hasBefore() && !s.ours()) {
                add(byEnding, once, new Renamed(s.line(), s.at(), s.who(), s.pathBefore(), s.path(), s.before()));
            }
        }
        for (NameChange t : history.turns()) {
            if (!t.isRemoval()) {
                add(byEnding, once, new Renamed(t.line(), t.at(), t.who(), t.from(), t.to(), t.number()));
            }
        }
        List<Finding> findings = new ArrayList<>();
        for (Map.Entry<String, List<Renamed>> e : byEnding.entrySet()) {
            for (List<Renamed> run : Clusters.of(e.getValue(), Renamed::at)) {
                Instant from = run.get(0).at();
                Instant first = known.get(e.getKey());
                if (run.size() < FEWEST || first != null && first.isBefore(from.minus(Duration.ofHours(1)))) {
                    continue;
                }
                List<Mark> each = new ArrayList<>();
                run.forEach(r -> each.add(mark(r, lines.getOrDefault(r.line(), List.of()))));
                List<Mark> marks = Detectors.lastOfEach(each);
                if (marks.size() < FEWEST) {
                    continue;
                }
                findings.add(new Finding(
                        history.place(),
                        Finding.Kind.ALIKE,
                        run.size() >= 3 * FEWEST ? Certainty.LIKELY : Certainty.POSSIBLE,
                        from,
                        run.get(run.size() - 1).at(),
                        marks,
                        List.of(Words.inAll(() -> Words.of("findings.evidence.ending", e.getKey())))));
            }
        }
        return findings;
    }

    private static void add(Map<String, List<Renamed>> byEnding, Set<String> once, Renamed r) {
        String ending = SavedVersion.ending(r.to());
        boolean other = !ending.isEmpty() && !ending.equals(SavedVersion.ending(r.from()));
        if (other && once.add(r.line() + "/" + r.number() + "/" + ending)) {
            byEnding.computeIfAbsent(ending, k -> new ArrayList<>()).add(r);
        }
    }

    private static Mark mark(Renamed r, List<SavedVersion> line) {
        int bad = r.number();
        for (SavedVersion s : line) {
            if (!s.at().isBefore(r.at())) {
                bad = Math.max(bad, s.number());
                break;
            }
        }
        for (int i = line.size() - 1; i >= 0; i--) {
            SavedVersion s = line.get(i);
            if (s.number() <= r.number() && FileDetector.isSound(s)) {
                return new Mark(r.line(), r.to(), bad, s.number(), r.from(), r.at(), r.who());
            }
        }
        return new Mark(r.line(), r.to(), bad, 0, r.from(), r.at(), r.who());
    }
}
