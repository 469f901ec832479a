package org.mendedleaf.core.retention;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.Reading;

/** Ways to make histories, and to judge them. */
final class Histories {

    static final Calendar UTC = new Calendar(ZoneOffset.UTC, DayOfWeek.MONDAY);

    private Histories() {}

    static VersionTable table(TestPlace p) throws IOException {
        try (Reading reading = p.vault().read()) {
            return VersionTable.of(reading);
        }
    }

    static Verdicts judge(TestPlace p, RuleSet rules) throws IOException {
        return judge(p, rules, p.now());
    }

    static Verdicts judge(TestPlace p, RuleSet rules, Instant now) throws IOException {
        try (Reading reading = p.vault().read()) {
            return Verdicts.of(VersionTable.of(reading), HoldStore.of(reading).standing(), rules, now, UTC);
        }
    }

    /** A version saved and captured at a moment. */
    static void save(TestPlace p, String path, String text, Instant at) throws IOException {
        p.at(at.minusSeconds(60));
        p.save(path, text);
        p.at(at.minusSeconds(60));
        p.capture();
    }

    static RuleSet rules(Rule... rules) {
        return new RuleSet(List.of(rules), Term.days(7), false);
    }

    /** Reasons of one file's versions, oldest first. */
    static List<Reason> reasons(Verdicts v, long line) {
        VersionTable t = v.table();
        int l = t.lineRow(line);
        List<Reason> all = new ArrayList<>();
        for (int row = t.first(l); row < t.first(l + 1); row++) {
            all.add(v.reason(row));
        }
        return all;
    }

    static TestPlace newPlace() throws IOException {
        return new TestPlace(Files.createTempDirectory("histories"));
    }

    static void delete(Path folder) throws IOException {
        try (java.util.stream.Stream<Path> all = Files.walk(folder)) {
            for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.delete(p);
            }
        }
    }
}
