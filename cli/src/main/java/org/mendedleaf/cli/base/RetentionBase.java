package org.mendedleaf.cli.base;

import java.io.IOException;
import java.nio.file.Path;
import java.time.temporal.WeekFields;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.WholeVerdicts;

/** What commands about space and retention have in common. */
public abstract class RetentionBase extends Base {

    public RetentionBase(Surroundings surroundings) {
        super(surroundings);
    }

    /** The calendar of who works here. */
    protected Calendar calendar() throws IOException {
        return new Calendar(zone(), WeekFields.of(Locale.getDefault()).getFirstDayOfWeek());
    }

    /** Verdicts on all versions of a vault under its own rules. */
    protected Verdicts verdicts(Reading reading) throws IOException {
        return verdicts(reading, RuleSets.of(reading));
    }

    /** Verdicts on all versions of a vault under some rules. */
    protected Verdicts verdicts(Reading reading, RuleSet rules) throws IOException {
        return WholeVerdicts.of(reading, rules, now(), calendar());
    }

    /** A vault, with the only folder or file of it that is meant. */
    public record Meant(OpenVault vault, long place, String path) {}

    /** Work with what is meant. */
    protected interface MeantWork {
        /** Returns an exit code. */
        public int with(Meant meant) throws Exception;
    }

    /** Works with what is meant: the vault of a path, or all vaults when none is given. */
    protected int eachMeant(@Nullable Path path, MeantWork work) throws Exception {
        if (path == null) {
            return eachVault((folder, open) -> work.with(new Meant(open, 0, "")));
        }
        try (Located located = locate(path)) {
            return work.with(new Meant(located.vault(), located.place().id(), located.path()));
        }
    }
}
