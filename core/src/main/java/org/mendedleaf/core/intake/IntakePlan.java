package org.mendedleaf.core.intake;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.words.Words;

/**
 * What shall become of many files that come in, before anything happens. No two of them go to one target.
 *
 * @param folder of the place that they go into
 * @param rows in the order in which they came
 * @param passedOver what was in the folders that came and is nobody's work: names of files, and of folders with a slash behind
 */
public record IntakePlan(String folder, List<IntakeRow> rows, List<String> passedOver) {

    /** Copies the lists. */
    public IntakePlan {
        rows = List.copyOf(rows);
        passedOver = List.copyOf(passedOver);
    }

    /** The same with another row in the place of one. */
    public IntakePlan with(int index, IntakeRow row) {
        List<IntakeRow> changed = new ArrayList<>(rows);
        changed.set(index, row);
        return new IntakePlan(folder, changed, passedOver);
    }

    /** Number of rows with this fate. */
    public long count(IntakeRow.Fate fate) {
        return rows.stream().filter(r -> r.fate() == fate).count();
    }

    /** Number of what is left out, by choice or because it is nobody's work. */
    public long leftOut() {
        return count(IntakeRow.Fate.SKIPPED) + passedOver.size();
    }

    /** Number of files that go in. */
    public long acting() {
        return rows.stream().filter(IntakeRow::acts).count();
    }

    /** Bytes that go in. */
    public long bytes() {
        return rows.stream()
                .filter(IntakeRow::acts)
                .mapToLong(r -> r.incoming().size())
                .sum();
    }

    /** Targets that more than one file would go to. */
    public Set<String> clashes() {
        Map<String, Integer> times = new HashMap<>();
        rows.stream().filter(IntakeRow::acts).forEach(r -> times.merge(r.target(), 1, Integer::sum));
        Set<String> clashing = new HashSet<>();
        times.forEach((path, n) -> {
            if (n > 1) {
                clashing.add(path);
            }
        });
        return clashing;
    }

    /** Why it cannot be carried out as it is, as a message; empty when it can. */
    public Optional<String> problem() {
        return clashes().stream().sorted().findFirst().map(p -> Words.of("put.twice", p));
    }

    /**
     * What is to be put in.
     *
     * @param note for all that have none of their own
     * @param take whether the files are removed from where they were
     */
    public List<Revision> revisions(String note, DraftChoice stage, boolean take) {
        return rows.stream()
                .filter(IntakeRow::acts)
                .map(r -> new Revision(
                        r.incoming().file(), r.target(), r.note().isEmpty() ? note : r.note(), stage, take))
                .toList();
    }
}
