package org.mendedleaf.core.intake;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.mendedleaf.core.intake.Judgement.Aspect;
import org.mendedleaf.core.intake.Judgement.Outcome;
import org.mendedleaf.core.intake.Judgement.Reason;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Tells before anything happens whether a content may be the wrong one for a file. Pure.
 *
 * <p>Its limits were set by {@code bench/run guard} on generated pairs; {@code docs/guard.md} has the table.
 */
public final class Guard {

    /** With so much in common nobody is bothered. */
    static final double SURE = 0.30;

    /** With less than this in common it is most likely another file. */
    static final double UNLIKELY = 0.08;

    /** Another file must have so much more in common to be the one that is meant. */
    private static final double NEARER = 0.12;

    /** Smaller than this share of the current version is suddenly small. */
    private static final double SMALL = 0.25;

    /** Of two contents as small as this, nobody is bothered for what cannot be told. Bytes. */
    private static final long TINY = 200;

    /** What is older than this before the current version was saved is older. */
    private static final Duration OLDER = Duration.ofMinutes(2);

    private Guard() {}

    /**
     * A content, and the file it would become the next version of.
     *
     * @param sourceName what the content's file is called
     * @param incoming features of the content
     * @param modified when that file was last changed
     * @param target the file
     */
    record Question(String sourceName, Features incoming, Instant modified, Target target) {}

    /**
     * The file.
     *
     * @param path of the file
     * @param current features of its current version; empty for a new file
     * @param number of its current version; 0 for a new file
     * @param label what that is called; empty for a new file
     * @param saved when that was saved
     * @param older digests of its other versions, with the newest that has each
     * @param neighbours other files of its kind in its folder, by path
     * @param newestOf path of another file whose newest version this content is
     */
    record Target(
            String path,
            Optional<Features> current,
            int number,
            String label,
            Instant saved,
            Map<Digest, Earlier> older,
            Map<String, Features> neighbours,
            Optional<String> newestOf) {}

    /** An earlier version: its number, and what it is called. */
    record Earlier(int number, String label) {}

    /** What is thought of a content, with the reasons that speak against it first. */
    static Judgement judge(Question q, Instant now, ZoneId zone) {
        List<Reason> reasons = new ArrayList<>();
        Target t = q.target();
        Features in = q.incoming();
        if (t.current().isPresent() && t.current().get().sameContent(in)) {
            reasons.add(new Reason(Aspect.SAME, false, Words.of("guard.same", t.label())));
            return new Judgement(Outcome.SURE, 100, reasons, t.number(), t.label(), Optional.empty());
        }
        if (in.kind() == ContentKind.EMPTY) {
            boolean was = t.current().map(c -> c.kind() != ContentKind.EMPTY).orElse(false);
            reasons.add(new Reason(Aspect.EMPTY, was, Words.of("guard.empty")));
            return new Judgement(was ? Outcome.UNLIKELY : Outcome.LOOK, -1, reasons, Optional.empty());
        }
        Earlier earlier = t.older().get(in.scan().digest());
        if (earlier != null) {
            reasons.add(new Reason(Aspect.EARLIER, true, Words.of("guard.earlier", earlier.label())));
            return new Judgement(
                    Outcome.LOOK, shared(in, t), reasons, earlier.number(), earlier.label(), Optional.empty());
        }
        if (t.newestOf().isPresent()) {
            reasons.add(new Reason(
                    Aspect.OTHERS, true, Words.of("guard.others", t.newestOf().get())));
        }
        kind(q, reasons);
        if (t.current().isEmpty()) {
            reasons.add(new Reason(Aspect.NEW, false, Words.of("guard.new")));
            Outcome outcome = reasons.stream().anyMatch(Reason::against) ? Outcome.LOOK : Outcome.SURE;
            return new Judgement(outcome, -1, reasons, t.newestOf());
        }
        return compared(q, t.current().get(), reasons, now, zone);
    }

    private static int shared(Features in, Target t) {
        if (t.current().isEmpty()) {
            return -1;
        }
        OptionalDouble shared =
                Likeness.of(in, t.current().get(), List.copyOf(t.neighbours().values()));
        return shared.isPresent()
                ? Likeness.percent(
                        shared.getAsDouble(), in.sameContent(t.current().get()))
                : -1;
    }

    private static void kind(Question q, List<Reason> reasons) {
        Features in = q.incoming();
        ContentKind before = q.target()
                .current()
                .map(Features::kind)
                .filter(k -> k != ContentKind.EMPTY)
                .orElse(null);
        if (before != null && before != in.kind()) {
            reasons.add(new Reason(
                    Aspect.KIND, true, Words.of("guard.kind", in.kind().words(), before.words())));
            return;
        }
        ContentKind named = ContentKind.byName(q.target().path());
        if (before == null && named != ContentKind.OTHER && named != in.kind()) {
            reasons.add(new Reason(
                    Aspect.NAME, true, Words.of("guard.name", in.kind().words(), named.words())));
        }
    }

    private static Judgement compared(Question q, Features current, List<Reason> reasons, Instant now, ZoneId zone) {
        Target t = q.target();
        Features in = q.incoming();
        boolean same = in.sameContent(current);
        List<Features> neighbours = List.copyOf(t.neighbours().values());
        OptionalDouble share = Likeness.of(in, current, neighbours);
        Optional<String> nearer = t.newestOf();
        Outcome outcome;
        if (share.isEmpty()) {
            boolean tiny = in.size() < TINY && current.size() < TINY;
            reasons.add(
                    new Reason(Aspect.COMMON, !tiny, Words.of(tiny ? "guard.tiny" : "guard.cannotTell", t.label())));
            outcome = tiny ? Outcome.SURE : Outcome.LOOK;
        } else {
            double s = share.getAsDouble();
            outcome = s >= SURE ? Outcome.SURE : s >= UNLIKELY ? Outcome.LOOK : Outcome.UNLIKELY;
            Optional<Map.Entry<String, Double>> other = nearest(in, t);
            if (nearer.isEmpty() && other.isPresent() && other.get().getValue() > plain(in, current) + NEARER) {
                nearer = Optional.of(other.get().getKey());
                reasons.add(new Reason(
                        Aspect.NEARER,
                        true,
                        Words.of(
                                "guard.nearer",
                                other.get().getKey(),
                                Likeness.percent(other.get().getValue(), false),
                                Likeness.percent(plain(in, current), same))));
                outcome = worse(outcome, Outcome.LOOK);
            }
            reasons.add(new Reason(
                    Aspect.COMMON,
                    s < SURE,
                    Words.of(
                            s < UNLIKELY ? "guard.commonLittle" : "guard.common",
                            Likeness.percent(s, same),
                            t.label())));
        }
        if (in.size() < current.size() * SMALL) {
            reasons.add(new Reason(
                    Aspect.SIZE, true, Words.of("guard.small", Formats.size(in.size()), Formats.size(current.size()))));
            outcome = worse(outcome, Outcome.LOOK);
        } else {
            reasons.add(new Reason(
                    Aspect.SIZE, false, Words.of("guard.size", Formats.size(in.size()), Formats.size(current.size()))));
        }
        if (q.modified().isBefore(t.saved().minus(OLDER))) {
            reasons.add(new Reason(
                    Aspect.AGE,
                    true,
                    Words.of(
                            "guard.older",
                            Formats.moment(q.modified(), now, zone),
                            t.label(),
                            Formats.moment(t.saved(), now, zone))));
            outcome = worse(outcome, Outcome.LOOK);
        }
        if (reasons.stream().anyMatch(r -> r.against() && (r.aspect() == Aspect.KIND || r.aspect() == Aspect.OTHERS))) {
            outcome = Outcome.UNLIKELY;
        }
        reasons.sort(java.util.Comparator.comparing((Reason r) -> !r.against()));
        int shown = share.isPresent() ? Likeness.percent(share.getAsDouble(), same) : -1;
        return new Judgement(outcome, shown, reasons, outcome == Outcome.SURE ? Optional.empty() : nearer);
    }

    private static double plain(Features a, Features b) {
        return Likeness.of(a, b, List.of()).orElse(0);
    }

    /** The neighbour that has most in common with the content. */
    private static Optional<Map.Entry<String, Double>> nearest(Features in, Target t) {
        return t.neighbours().entrySet().stream()
                .map(e -> Map.entry(e.getKey(), plain(in, e.getValue())))
                .max(Map.Entry.comparingByValue());
    }

    private static Outcome worse(Outcome a, Outcome b) {
        return a.compareTo(b) > 0 ? a : b;
    }
}
