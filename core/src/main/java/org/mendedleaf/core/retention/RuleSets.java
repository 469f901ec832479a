package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Clock;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RuleDocument;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;

/** The rules of a vault, read from and written into it. */
public final class RuleSets {

    private RuleSets() {}

    /** The rules that count, as a reader sees them. */
    public static RuleSet of(Reading reading) throws IOException {
        return RuleDocument.newest(reading).map(d -> RuleFile.read(d.text())).orElse(RuleSet.NONE);
    }

    /** The rules that count, as a session sees them. */
    public static RuleSet of(WriteSession session) throws IOException {
        return RuleDocument.newest(session).map(d -> RuleFile.read(d.text())).orElse(RuleSet.NONE);
    }

    /**
     * Sets other rules.
     *
     * @throws org.mendedleaf.core.rules.NotAllowedException when this person does not own one of the folders
     */
    public static void set(OpenVault vault, RuleSet rules, Clock clock, String who) throws IOException {
        try (Reading reading = vault.read()) {
            for (Place place : reading.places()) {
                if (!place.isOutside()) {
                    PlaceRules.of(reading, place).rights(who, place).require(Permission.SETTINGS);
                }
            }
        }
        try (WriteSession session = vault.write()) {
            new RuleDocument(clock.instant(), who, RuleFile.yaml(rules)).store(session);
            session.commit();
        }
    }
}
