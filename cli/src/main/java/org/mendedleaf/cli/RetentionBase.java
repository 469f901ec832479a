package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.time.temporal.WeekFields;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.mendedleaf.core.line.HoldStore;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.VersionTable;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.Verdicts;

/** What commands about room and retention have in common. */
abstract class RetentionBase extends Base {

    RetentionBase(Surroundings surroundings) {
        super(surroundings);
    }

    /** The calendar of who works here. */
    Calendar calendar() throws IOException {
        return new Calendar(zone(), WeekFields.of(Locale.getDefault()).getFirstDayOfWeek());
    }

    /** Verdicts on all versions of a vault under its own rules. */
    Verdicts verdicts(Reading reading) throws IOException {
        return verdicts(reading, RuleSets.of(reading));
    }

    /** Verdicts on all versions of a vault under some rules. */
    Verdicts verdicts(Reading reading, RuleSet rules) throws IOException {
        return Verdicts.of(VersionTable.of(reading), HoldStore.of(reading).standing(), rules, now(), calendar());
    }

    /** A vault, with the only folder or file of it that is meant. */
    record Meant(OpenVault vault, long place, String path) implements AutoCloseable {
        @Override
        public void close() throws IOException {
            vault.close();
        }
    }

    /** What is meant: the vault of a path, or all vaults when none is given. */
    List<Meant> meant(@org.jspecify.annotations.Nullable Path path) throws IOException {
        List<Meant> all = new ArrayList<>();
        if (path != null) {
            Located located = locate(path);
            all.add(new Meant(located.vault(), located.place().id(), located.path()));
            return all;
        }
        for (Path folder : vaults()) {
            all.add(new Meant(open(folder), 0, ""));
        }
        return all;
    }
}
