package org.mendedleaf.core.retention;

import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What a thinning would let go, exactly. Pure; {@link Thinning} carries it out.
 *
 * @param verdicts by which it was made
 * @param going rows of the versions that would go
 * @param asked whether they go since somebody asked for it; otherwise by the rules
 * @param files what goes of each file, in the order of lines
 * @param freedBytes that nothing else needs
 * @param warnings what to look at first, as a message
 */
public record ThinPlan(
        Verdicts verdicts, BitSet going, boolean asked, List<OfFile> files, long freedBytes, List<String> warnings) {

    /**
     * What goes of one file.
     *
     * @param line row of its line
     * @param going how many versions
     * @param left how many stay
     * @param bytes of those that go, each counted whole
     * @param noted how many of those that go somebody wrote a note on
     */
    public record OfFile(int line, int going, int left, long bytes, int noted) {}

    /**
     * What a thinning is limited to, and what it does once beyond the rules.
     *
     * @param place id of the only place; 0 for all
     * @param path the only folder or file in it; empty for all
     * @param kinds the only kinds; empty for all
     * @param keepLast so many of the newest versions stay; 0 for as the rules say
     * @param leaveChangedAfter files that were changed after this are left alone
     * @param olderThan only versions that were replaced before this
     * @param byRules whether the rules decide; otherwise all versions in the limits go that nothing protects
     */
    public record Limits(
            long place,
            String path,
            Set<ContentKind> kinds,
            int keepLast,
            Optional<Instant> leaveChangedAfter,
            Optional<Instant> olderThan,
            boolean byRules) {

        /** What the rules say, everywhere. */
        public static final Limits RULES = new Limits(0, "", Set.of(), 0, Optional.empty(), Optional.empty(), true);

        /** Copies, and refuses what would let all go. */
        public Limits {
            kinds = Set.copyOf(kinds);
            if (!byRules && keepLast < 1) {
                throw new IllegalArgumentException(Words.of("thin.keepLast"));
            }
        }

        /** The same for one folder or file. */
        public Limits in(long onlyPlace, String onlyPath) {
            return new Limits(onlyPlace, onlyPath, kinds, keepLast, leaveChangedAfter, olderThan, byRules);
        }

        private boolean isInside(String own) {
            return own.equals(path) || own.startsWith(path + "/");
        }

        private boolean covers(VersionTable t, int line) {
            if (place != 0 && t.place(line) != place) {
                return false;
            }
            if (!kinds.isEmpty() && !kinds.contains(ContentKind.byName(t.name(line)))) {
                return false;
            }
            boolean inside = path.isEmpty() || isInside(t.path(line));
            int last = t.first(line + 1) - 1;
            return inside
                    && last >= t.first(line)
                    && leaveChangedAfter
                            .map(after -> t.saved(last) <= Moment.micros(after))
                            .orElse(true);
        }
    }

    /** What goes under these verdicts, within these limits. */
    public static ThinPlan of(Verdicts verdicts, SpaceTable space, Limits limits) {
        VersionTable t = verdicts.table();
        BitSet going = new BitSet(t.size());
        List<OfFile> files = new ArrayList<>();
        for (int line = 0; line < t.lines(); line++) {
            if (limits.covers(t, line)) {
                int rank = 0;
                for (int row = t.first(line + 1) - 1; row >= t.first(line); row--) {
                    rank += t.stays(row) ? 1 : 0;
                    if (mayGo(verdicts, limits, row, rank)) {
                        going.set(row);
                    }
                }
                count(t, line, going).ifPresent(files::add);
            }
        }
        List<String> warnings = new ArrayList<>(ThinWarnings.of(t, files));
        if (limits.byRules()) {
            verdicts.unmet().forEach(cap -> warnings.add(cap.unmetWords()));
            if (verdicts.missingBytes() > 0) {
                warnings.add(Words.of("thin.warn.missing", Formats.size(verdicts.missingBytes())));
            }
        }
        return new ThinPlan(verdicts, going, !limits.byRules(), files, space.freedBy(going), warnings);
    }

    /** The same with only those of its versions that are meant. */
    public ThinPlan only(java.util.function.IntPredicate meant, SpaceTable space) {
        VersionTable t = verdicts.table();
        BitSet some = new BitSet();
        going.stream().filter(meant).forEach(some::set);
        List<OfFile> of = new ArrayList<>();
        for (int line = 0; line < t.lines(); line++) {
            count(t, line, some).ifPresent(of::add);
        }
        return new ThinPlan(verdicts, some, asked, of, space.freedBy(some), ThinWarnings.of(t, of));
    }

    /** Why a version goes that does. */
    public Reason reason(int row) {
        return asked ? Reason.ASKED : verdicts.reason(row);
    }

    private static boolean mayGo(Verdicts verdicts, Limits limits, int row, int rank) {
        VersionTable t = verdicts.table();
        Reason reason = verdicts.reason(row);
        boolean old =
                limits.olderThan().map(m -> t.replaced(row) < Moment.micros(m)).orElse(true);
        if (!old || rank <= limits.keepLast()) {
            return false;
        }
        if (limits.byRules()) {
            boolean later = reason != Reason.CAP
                    && reason != Reason.ROOM
                    && verdicts.rule(row) >= 0
                    && verdicts.rules().rules().get(verdicts.rule(row)).whenNeeded();
            return !reason.keeps() && !later;
        }
        return switch (reason) {
            case HELD, SNAPSHOT, NEWEST, NOT_HERE, WAITING -> false;
            default -> true;
        };
    }

    private static Optional<OfFile> count(VersionTable t, int line, BitSet going) {
        int gone = 0;
        int left = 0;
        int noted = 0;
        long bytes = 0;
        for (int row = t.first(line); row < t.first(line + 1); row++) {
            if (going.get(row)) {
                gone++;
                bytes += t.bytes(row);
                noted += t.is(row, VersionColumns.NOTED) ? 1 : 0;
            } else if (t.stays(row)) {
                left++;
            }
        }
        return gone == 0 ? Optional.empty() : Optional.of(new OfFile(line, gone, left, bytes, noted));
    }

    /** What goes, in one sentence. */
    public String words() {
        return versions() == 0
                ? Words.of("report.nothing")
                : Words.of("report.sum", versions(), files.size(), Formats.size(bytes()), Formats.size(freedBytes));
    }

    /** What may go by the rules now, in one sentence. */
    public String mayGoWords() {
        return versions() == 0
                ? Words.of("rules.noEffect")
                : Words.of("cli.rules.effect", versions(), files.size(), Formats.size(freedBytes));
    }

    /** How many versions go. */
    public int versions() {
        return going.cardinality();
    }

    /** Bytes of what goes, each counted whole. */
    public long bytes() {
        return files.stream().mapToLong(OfFile::bytes).sum();
    }
}
