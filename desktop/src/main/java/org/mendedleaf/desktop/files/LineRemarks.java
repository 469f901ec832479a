package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.FindingStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.findings.HealthStore;
import org.mendedleaf.core.intake.PublishedKeep;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.LineVerdicts;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Rights;
import org.mendedleaf.core.systems.OutsidePlaceState;

/**
 * What is said of a line besides its points, and what who works here may do with it.
 *
 * @param comments on its versions, oldest first
 * @param card what the file is filed under and who may see it
 * @param out who has it checked out
 * @param findings that nobody has seen to
 * @param beyond why versions go beyond what the place is meant to keep, by number
 * @param verdicts what keeps each version, and why others went
 * @param troubles what is wrong with versions, as a message, by number
 * @param rights of who works here
 */
public record LineRemarks(
        List<Comment> comments,
        FileProperties card,
        Optional<CheckOut> out,
        List<StoredFinding> findings,
        Map<Integer, String> beyond,
        LineVerdicts verdicts,
        Map<Integer, String> troubles,
        Rights rights) {

    /** Copies. */
    public LineRemarks {
        comments = List.copyOf(comments);
        findings = List.copyOf(findings);
        beyond = Map.copyOf(beyond);
        troubles = Map.copyOf(troubles);
    }

    static LineRemarks of(Reading reading, Line line, String who, Instant now, Calendar calendar) throws IOException {
        RemarkStore remarks = RemarkStore.of(reading);
        boolean outside = line.place().isOutside();
        Rights rights = outside
                ? OutsidePlaceState.of(reading, line.place())
                        .map(f -> new Rights(
                                who, f.role(), f.settings(), line.place().label()))
                        .orElseGet(() -> PlaceRules.DEFAULT.rights(who, line.place()))
                : PlaceRules.of(reading, line.place()).rights(who, line.place());
        return new LineRemarks(
                remarks.comments(line.id()),
                remarks.card(line.id()),
                CheckOutStore.of(reading).get(line.id()),
                FindingStore.of(reading).open(line),
                outside ? Map.of() : PublishedKeep.beyond(line.versions(), rights.settings()),
                LineVerdicts.of(reading, line.id(), now, calendar),
                HealthStore.troubles(reading.vault().folder(), line),
                rights);
    }

    /** Comments on one version. */
    List<Comment> comments(int number) {
        return comments.stream().filter(c -> c.number() == number).toList();
    }
}
