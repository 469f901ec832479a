package org.mendedleaf.core.systems;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Something about the coverage that calls for attention, with the step that comes next.
 *
 * @param row what it is about
 * @param words what is wrong and what to do, as a message
 * @param step what can be done at once
 */
public record Warning(Coverage.Row row, String words, Step step) {

    /** What can be done at once. */
    public enum Step {
        /** Protect the folder. */
        PROTECT,
        /** Look at it, or run the backup, again. */
        RUN,
        /** See the files that are not kept. */
        SHOW,
        /** Change its settings. */
        SETTINGS
    }

    /** The warnings of these rows, the worst first. Pure. */
    public static List<Warning> of(List<Coverage.Row> rows, Instant now, ZoneId zone) {
        List<Warning> warnings = new ArrayList<>();
        for (Coverage.Row row : rows) {
            // Whoever ended or paused the protection of a folder meant it.
            boolean meant = row.state() == CoverageState.PAUSED
                    || row.state() == CoverageState.OFF && row.kind().isEmpty();
            if (row.state() != CoverageState.GOOD && !meant) {
                warnings.add(new Warning(row, words(row, now, zone), step(row.state())));
            }
        }
        warnings.sort(Comparator.comparing(w -> w.row().state()));
        return warnings;
    }

    private static Step step(CoverageState state) {
        return switch (state) {
            case UNCOVERED -> Step.PROTECT;
            case GAPS -> Step.SHOW;
            case FULL, OFF, PAUSED -> Step.SETTINGS;
            default -> Step.RUN;
        };
    }

    private static String words(Coverage.Row row, Instant now, ZoneId zone) {
        String last = row.lastGood().map(l -> Formats.moment(l, now, zone)).orElse(Words.of("status.never"));
        boolean drive = row.kind().filter(k -> k == SystemKind.BACKUP_DRIVE).isPresent();
        return switch (row.state()) {
            case AWAY -> {
                String since = row.facts()
                        .flatMap(OutsidePlaceState::awaySince)
                        .map(a -> Formats.moment(a, now, zone))
                        .orElse("");
                yield drive
                        ? Words.of("warning.AWAY.drive", row.where(), last, row.missed())
                        : Words.of("warning.AWAY", row.where(), since);
            }
            case LATE ->
                row.kind().isEmpty()
                        ? Words.of("warning.LATE.folder", row.where(), last)
                        : Words.of("warning.LATE", row.where(), last, row.missed());
            case GAPS -> Words.of("warning.GAPS", row.name(), row.gaps().size());
            // Many troubles say themselves where they are.
            case FAILING ->
                row.trouble().contains(row.where())
                        ? row.trouble()
                        : Words.of("warning.FAILING", row.where(), row.trouble());
            case FULL -> Words.of("warning.FULL", row.where(), row.trouble());
            default -> Words.of("warning." + row.state(), row.where());
        };
    }
}
