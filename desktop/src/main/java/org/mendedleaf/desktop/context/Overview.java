package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.Files;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.capture.Lateness;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Space;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * How everything stands, for the status bar.
 *
 * @param folders number of protected folders
 * @param watched how many of them are there and captured on every save
 * @param lastSave when something that was saved in one of them last came in; the epoch when never
 * @param space what the vaults hold and take together
 * @param troubles what somebody should know
 */
public record Overview(int folders, int watched, Instant lastSave, Space space, List<String> troubles) {
    static final Overview NOTHING = new Overview(0, 0, Instant.EPOCH, new Space(0, 0, 0, 0), List.of());

    /** Copies the list. */
    public Overview {
        troubles = List.copyOf(troubles);
    }

    /** How these places stand at a moment. Reads the disk. */
    static Overview of(List<OpenPlace> places, Instant now, ZoneId zone) throws IOException {
        Instant last = Instant.EPOCH;
        List<String> troubles = new ArrayList<>();
        List<Duties.Failing> duties = new ArrayList<>();
        Map<OpenVault, Space> spaces = new HashMap<>();
        int folders = 0;
        int watched = 0;
        for (OpenPlace openPlace : places) {
            boolean folder = !openPlace.place().isOutside() && openPlace.place().versioning() != Versioning.OFF;
            folders += folder ? 1 : 0;
            boolean onSave =
                    openPlace.place().isKept() && openPlace.place().rhythm().kind() == Rhythm.Kind.ON_SAVE;
            watched += onSave && Files.isDirectory(openPlace.place().root()) ? 1 : 0;
            try (Reading reading = openPlace.vault().read()) {
                PlaceState state = reading.state(openPlace.place());
                Instant good = state.lastGood().orElse(Instant.EPOCH);
                Instant save =
                        folder ? reading.changes().lastSave(openPlace.place()).orElse(Instant.EPOCH) : Instant.EPOCH;
                last = save.isAfter(last) ? save : last;
                // Whoever paused or ended it knows.
                boolean kept = openPlace.place().versioning() == Versioning.ON;
                if (kept && !state.trouble().isEmpty()) {
                    troubles.add(state.trouble());
                } else if (kept
                        && folder
                        && !Files.isDirectory(openPlace.place().root())) {
                    // One that is captured by hand may be away for long before anybody looks.
                    troubles.add(Words.of("capture.placeGone", openPlace.place().root()));
                } else if (kept && state.lastGood().isPresent() && Lateness.isLate(openPlace.place(), state, now)) {
                    troubles.add(Words.of("status.late", openPlace.place().name(), Formats.moment(good, now, zone)));
                }
                if (!spaces.containsKey(openPlace.vault())) {
                    Present.ahead(reading, now).ifPresent(a -> troubles.add(Present.words(a, now, zone)));
                    duties.addAll(Duties.failing(reading));
                }
                long gaps = state.skipped().stream()
                        .filter(s -> s.reason().isTrouble())
                        .count();
                if (kept && gaps > 0) {
                    troubles.add(Words.of("status.gaps", openPlace.place().name(), gaps));
                }
                spaces.put(openPlace.vault(), reading.space());
            }
        }
        // What a folder says of itself is not said once more as the failure of what captures it.
        duties.stream()
                .filter(d -> !troubles.contains(d.trouble()))
                .map(d -> Words.of("cli.watch.failed", d.name(), d.trouble()))
                .forEach(troubles::add);
        Space sum = new Space(0, 0, 0, 0);
        for (Space r : spaces.values()) {
            sum = new Space(
                    sum.lines() + r.lines(),
                    sum.versions() + r.versions(),
                    sum.versionBytes() + r.versionBytes(),
                    sum.storedBytes() + r.storedBytes());
        }
        return new Overview(folders, watched, last, sum, troubles);
    }
}
