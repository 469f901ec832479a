package org.mendedleaf.core.systems;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.capture.Lateness;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Words;

/**
 * How everything is covered: every folder and place with its state, its last good look or run, the next one, its space and
 * its gaps.
 */
public final class Coverage {

    private Coverage() {}

    /**
     * One row.
     *
     * @param place the place; empty for a folder that nothing keeps
     * @param vault that knows it; empty likewise
     * @param name for people
     * @param where folder path or {@code SYSTEM:PLACE}
     * @param kind of its system; empty for a folder
     * @param state how well it is covered
     * @param lastGood when it was last looked at, or backed up, to the end
     * @param next when that is due; empty by hand, on every save, and while nothing is captured
     * @param missed runs that were due and did not happen
     * @param files that are there
     * @param versions of all files
     * @param usedBytes space it takes where it is; -1 unknown
     * @param totalBytes space there is; -1 unknown, 0 no limit
     * @param gaps what is not kept, and why
     * @param trouble what went wrong last; empty when nothing did
     * @param facts what its system said
     * @param related what is declared to be the same, or is backed up there
     */
    public record Row(
            Optional<Place> place,
            Optional<OpenVault> vault,
            String name,
            String where,
            Optional<SystemKind> kind,
            CoverageState state,
            Optional<Instant> lastGood,
            Optional<Instant> next,
            long missed,
            long files,
            long versions,
            long usedBytes,
            long totalBytes,
            List<Skipped> gaps,
            String trouble,
            Optional<OutsidePlaceState> facts,
            List<String> related) {

        /** Copies the lists. */
        public Row {
            gaps = List.copyOf(gaps);
            related = List.copyOf(related);
        }
    }

    /**
     * The rows of a vault.
     *
     * @param zone in which days and weeks of rhythms are counted
     */
    public static List<Row> of(OpenVault vault, Instant now, ZoneId zone) throws IOException {
        try (Reading reading = vault.read()) {
            List<Row> rows = new ArrayList<>();
            List<Place> places = reading.places();
            List<Relation> relations = reading.outside().relations();
            for (Place p : places) {
                rows.add(row(reading, vault, p, places, relations, now, zone));
            }
            return rows;
        }
    }

    /** Folders in which people usually keep files and which no place holds. */
    public static List<Row> uncovered(Path userHome, List<Row> covered) {
        List<Row> rows = new ArrayList<>();
        for (String name : List.of("Documents", "Desktop", "Pictures")) {
            Path folder = userHome.resolve(name);
            boolean held = covered.stream()
                    .flatMap(r -> r.place().stream())
                    .filter(p -> !p.isOutside())
                    .anyMatch(p -> folder.startsWith(p.root()) || p.root().startsWith(folder));
            if (Files.isDirectory(folder) && !held) {
                rows.add(new Row(
                        Optional.empty(),
                        Optional.empty(),
                        name,
                        folder.toString(),
                        Optional.empty(),
                        CoverageState.UNCOVERED,
                        Optional.empty(),
                        Optional.empty(),
                        0,
                        -1,
                        0,
                        -1,
                        -1,
                        List.of(),
                        "",
                        Optional.empty(),
                        List.of()));
            }
        }
        return rows;
    }

    private static Row row(
            Reading reading,
            OpenVault vault,
            Place place,
            List<Place> places,
            List<Relation> relations,
            Instant now,
            ZoneId zone)
            throws IOException {
        PlaceState state = reading.state(place);
        Optional<OutsidePlaceState> facts = place.isOutside() ? OutsidePlaceState.of(reading, place) : Optional.empty();
        boolean drive = facts.map(f -> f.kind() == SystemKind.BACKUP_DRIVE).orElse(false);
        List<String> related = new ArrayList<>();
        for (Relation r : relations) {
            if (r.place() == place.id() || r.other() == place.id()) {
                places.stream()
                        .filter(p -> p.id() == r.end(place.id()))
                        .forEach(p -> related.add(related(r, place, p)));
            }
        }
        Optional<Duration> every = drive
                ? OutsideRetention.every(facts.orElseThrow().settings().get(Setting.BACKUP_EVERY))
                : place.versioning() == Versioning.ON
                        ? place.rhythm().longest().filter(d -> !d.isZero())
                        : Optional.empty();
        // Of a drive it is the last finished run that counts, not that somebody looked.
        Optional<Instant> lastGood = drive
                ? reading.outside().cuts(place).stream().map(c -> c.at()).max(Instant::compareTo)
                : state.lastGood();
        if (drive && related.isEmpty()) {
            every = Optional.empty();
        }
        Optional<Duration> interval = every;
        Optional<Instant> next = lastGood.flatMap(l -> interval.flatMap(
                e -> drive ? Optional.of(l.plus(e)) : place.rhythm().next(l, zone)));
        long missed = every.isEmpty() || lastGood.isEmpty()
                ? 0
                : Math.max(0, Duration.between(lastGood.get(), now).dividedBy(every.get()));
        // A folder that is captured by hand may be away for long before anybody looks.
        boolean away = !place.isOutside() && !Files.isDirectory(place.root());
        String trouble =
                away && state.trouble().isEmpty() ? Words.of("capture.placeGone", place.root()) : state.trouble();
        List<Skipped> gaps =
                state.skipped().stream().filter(s -> s.reason().isTrouble()).toList();
        return new Row(
                Optional.of(place),
                Optional.of(vault),
                place.name(),
                place.where(),
                facts.map(OutsidePlaceState::kind),
                Lateness.isLate(place, state, now)
                                && trouble.isEmpty()
                                && state.lastGood().isPresent()
                        ? CoverageState.LATE
                        : CoverageJudge.judge(place, trouble, facts, lastGood, missed, drive, gaps.size()),
                lastGood,
                next,
                missed,
                state.files(),
                reading.lines().versions(place),
                facts.map(OutsidePlaceState::usedBytes).orElse(-1L),
                facts.map(OutsidePlaceState::totalBytes).orElse(-1L),
                gaps,
                trouble,
                facts,
                related);
    }

    /** The folder in this place and what it is there, such as {@code Lease = Library:Contracts}. */
    private static String related(Relation r, Place place, Place other) {
        boolean first = r.place() == place.id();
        String here = first ? r.path() : r.otherPath();
        String there = first ? r.otherPath() : r.path();
        String where = other.isOutside() ? other.where() : other.name();
        String end = there.isEmpty() ? where : where + "/" + there;
        return here.isEmpty() ? end : Words.of("coverage.related", here, end);
    }
}
