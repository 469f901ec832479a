package org.mendedleaf.cli.past;

import java.util.LinkedHashMap;
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

/**
 * What is said of a line besides its points.
 *
 * @param beyond why versions go beyond what the place is meant to keep, by number
 * @param kept until when and why each is kept, or since when and why it is gone; empty for nothing to say
 * @param troubles what is wrong with versions, by number
 */
record LineFacts(
        List<Comment> comments,
        FileProperties card,
        Optional<CheckOut> out,
        List<StoredFinding> findings,
        Map<Integer, String> beyond,
        Map<Integer, String> kept,
        Map<Integer, String> troubles) {

    static LineFacts of(Reading reading, Line line, java.time.Instant now, Calendar calendar)
            throws java.io.IOException {
        Map<Integer, String> kept = new LinkedHashMap<>();
        LineVerdicts verdicts = LineVerdicts.of(reading, line.id(), now, calendar);
        line.versions().forEach(v -> kept.put(v.number(), verdicts.words(v.number(), now, calendar.zone())));
        boolean outside = line.place().isOutside();
        return new LineFacts(
                RemarkStore.of(reading).comments(line.id()),
                RemarkStore.of(reading).card(line.id()),
                CheckOutStore.of(reading).get(line.id()),
                FindingStore.of(reading).open(line),
                outside
                        ? Map.of()
                        : PublishedKeep.beyond(
                                line.versions(),
                                PlaceRules.of(reading, line.place()).settings()),
                kept,
                HealthStore.troubles(reading.vault().folder(), line));
    }
}
