package org.mendedleaf.core.findings;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.findings.Finding.Kind;
import org.mendedleaf.core.findings.Finding.Mark;
import org.mendedleaf.core.words.Words;

/** All detectors, and how what they find becomes one finding for each event. Pure. */
public final class Detectors {

    /** So many files that were harmed within minutes are one event. */
    private static final int BURST = 4;

    /** What happened to single files, the gravest first: a version is one of these only once. */
    private static final List<Kind> SINGLE =
            List.of(Kind.EMPTIED, Kind.CUT_SHORT, Kind.UNREADABLE, Kind.SAVED_OVER, Kind.CHANGED_UNSEEN, Kind.CROSSED);

    private static final Set<Kind> HARM = EnumSet.of(Kind.EMPTIED, Kind.CUT_SHORT, Kind.UNREADABLE, Kind.SAVED_OVER);

    private Detectors() {}

    /** The detectors. */
    static List<Detector> all() {
        return List.of(
                new Emptied(),
                new CutShort(),
                new Unreadable(),
                new SavedOver(),
                new ChangedUnseen(),
                new Crossed(),
                new NewEndings(),
                new ManyChanged(),
                new RemovedInBulk());
    }

    /** Whether a version of a single file looks wrong, whatever happened to others. */
    static boolean findsInOne(History history) {
        return all().stream()
                .filter(FileDetector.class::isInstance)
                .anyMatch(d -> !d.detect(history).isEmpty());
    }

    /** What looks wrong, the latest first; each event once. */
    public static List<Finding> find(History history) {
        List<Finding> found = new ArrayList<>();
        all().forEach(d -> found.addAll(d.detect(history)));
        List<Finding> singles =
                once(found.stream().filter(f -> SINGLE.contains(f.kind())).toList());
        List<Finding> many = new ArrayList<>(
                found.stream().filter(f -> !SINGLE.contains(f.kind())).toList());
        many.addAll(bursts(history, singles));
        List<Finding> merged = merged(many);
        // An event may be of a million files: only of what was found one by one is asked whether it is part of one.
        Map<Long, List<Finding>> events = new HashMap<>();
        singles.forEach(f -> events.put(f.marks().get(0).line(), new ArrayList<>()));
        for (Finding event : merged) {
            for (Mark m : event.marks()) {
                List<Finding> ofLine = events.get(m.line());
                if (ofLine != null) {
                    ofLine.add(event);
                }
            }
        }
        List<Finding> all = new ArrayList<>(merged);
        for (Finding f : singles) {
            if (events.getOrDefault(f.marks().get(0).line(), List.of()).stream().noneMatch(event -> isPart(f, event))) {
                all.add(f);
            }
        }
        all.sort(Comparator.comparing(Finding::to).thenComparing(Finding::id).reversed());
        // What happened again to the same version of a file is called the same: the later event says all that is to be
        // done.
        Set<String> ids = new HashSet<>();
        all.removeIf(f -> !ids.add(f.id()));
        return all;
    }

    /** Whether what happened to a file of an event is part of it: it is what the event says of the file, or happened meanwhile. */
    private static boolean isPart(Finding single, Finding event) {
        Mark mark = single.marks().get(0);
        boolean meanwhile =
                !single.from().isBefore(event.from()) && !single.from().isAfter(event.to());
        return meanwhile
                || event.marks().stream().anyMatch(m -> m.line() == mark.line() && m.number() == mark.number());
    }

    /** Of what is said of one version, the gravest. */
    private static List<Finding> once(List<Finding> singles) {
        Map<List<Long>, Finding> byVersion = new HashMap<>();
        for (Finding f : singles) {
            Mark m = f.marks().get(0);
            byVersion.merge(
                    List.of(m.line(), (long) m.number()),
                    f,
                    (a, b) -> SINGLE.indexOf(a.kind()) <= SINGLE.indexOf(b.kind()) ? a : b);
        }
        return List.copyOf(byVersion.values());
    }

    /** Files that were harmed within minutes of each other. */
    private static List<Finding> bursts(History history, List<Finding> singles) {
        List<Finding> harm =
                singles.stream().filter(f -> HARM.contains(f.kind())).toList();
        List<Finding> bursts = new ArrayList<>();
        for (List<Finding> run : Clusters.of(harm, Finding::from)) {
            List<Mark> marks =
                    lastOfEach(run.stream().flatMap(f -> f.marks().stream()).toList());
            if (marks.size() < BURST) {
                continue;
            }
            List<String> evidence = new ArrayList<>();
            Set<Mark> told = new HashSet<>(marks);
            for (Kind kind : SINGLE) {
                long count = run.stream()
                        .filter(f -> f.kind() == kind && told.contains(f.marks().get(0)))
                        .count();
                if (count > 0) {
                    evidence.add(Words.inAll(() -> Words.of("findings.evidence.of." + kind, count)));
                }
            }
            head(history, marks).forEach(h -> evidence.add(Words.inAll(() -> Words.of("findings.evidence.heads", h))));
            bursts.add(new Finding(
                    history.place(),
                    Kind.BURST,
                    run.stream()
                            .map(Finding::sure)
                            .min(Comparator.naturalOrder())
                            .orElse(Certainty.LIKELY),
                    run.get(0).from(),
                    run.get(run.size() - 1).to(),
                    marks,
                    evidence));
        }
        return bursts;
    }

    /** Of each file what happened to it last, in the order of the first: it is mended once. */
    static List<Mark> lastOfEach(List<Mark> marks) {
        Map<Long, Mark> byLine = new LinkedHashMap<>();
        marks.forEach(m -> byLine.merge(m.line(), m, (a, b) -> b.number() >= a.number() ? b : a));
        return byLine.size() == marks.size() ? marks : List.copyOf(byLine.values());
    }

    /** The first bytes that most of the files have now, when they all begin alike. */
    private static List<String> head(History history, List<Mark> marks) {
        Set<List<Long>> versions = new HashSet<>();
        marks.forEach(m -> versions.add(List.of(m.line(), (long) m.number())));
        Map<String, Integer> heads = new HashMap<>();
        for (SavedVersion s : history.saves()) {
            if (versions.contains(List.of(s.line(), (long) s.number()))) {
                s.health().filter(h -> !h.head().isEmpty()).ifPresent(h -> heads.merge(h.head(), 1, Integer::sum));
            }
        }
        return heads.entrySet().stream()
                .filter(e -> e.getValue() >= BURST && e.getValue() * 5 >= marks.size() * 4)
                .map(Map.Entry::getKey)
                .toList();
    }

    /** What happened at the same time to some of the same files is one event. */
    private static List<Finding> merged(List<Finding> many) {
        List<Finding> sorted = new ArrayList<>(many);
        sorted.sort(Comparator.comparing(Finding::from));
        List<Finding> result = new ArrayList<>();
        for (Finding f : sorted) {
            int at = -1;
            for (int i = 0; i < result.size() && at < 0; i++) {
                at = meet(result.get(i), f) ? i : -1;
            }
            if (at < 0) {
                result.add(f);
            } else {
                result.set(at, merged(result.get(at), f));
            }
        }
        return result;
    }

    private static boolean meet(Finding a, Finding b) {
        boolean together =
                !a.from().isAfter(b.to().plus(Clusters.GAP)) && !b.from().isAfter(a.to().plus(Clusters.GAP));
        if (!together) {
            return false;
        }
        Set<Long> lines = new HashSet<>();
        a.marks().forEach(m -> lines.add(m.line()));
        return b.marks().stream().anyMatch(m -> lines.contains(m.line()));
    }

    private static Finding merged(Finding a, Finding b) {
        boolean inOrder = a.kind() == Kind.BURST || b.kind() != Kind.BURST;
        Finding first = inOrder ? a : b;
        Finding second = inOrder ? b : a;
        Map<Long, Mark> marks = new LinkedHashMap<>();
        first.marks().forEach(m -> marks.put(m.line(), m));
        // A file that was renamed as well goes back to the name that it had.
        second.marks().forEach(m -> marks.merge(m.line(), m, Detectors::both));
        Set<String> evidence = new LinkedHashSet<>(first.evidence());
        evidence.addAll(second.evidence());
        Instant from = a.from().isBefore(b.from()) ? a.from() : b.from();
        Instant to = a.to().isAfter(b.to()) ? a.to() : b.to();
        Certainty sure = a.sure().compareTo(b.sure()) <= 0 ? a.sure() : b.sure();
        return new Finding(
                first.place(), first.kind(), sure, from, to, List.copyOf(marks.values()), List.copyOf(evidence));
    }

    private static Mark both(Mark a, Mark b) {
        Mark early = a.good() != 0 && (b.good() == 0 || a.good() <= b.good()) ? a : b;
        String path = a.number() >= b.number() ? a.path() : b.path();
        return new Mark(
                a.line(),
                path,
                Math.max(a.number(), b.number()),
                early.good(),
                early.goodPath(),
                a.at().isBefore(b.at()) ? a.at() : b.at(),
                a.who());
    }
}
