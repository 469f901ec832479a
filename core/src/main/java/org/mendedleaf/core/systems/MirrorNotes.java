package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.PlaceWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.rules.Role;

/** What a look at a place in another system leaves written down beside lines: its state, its gaps, and what is wrong with it. */
final class MirrorNotes {

    /** Characters of a path that is told as a gap. */
    private static final int LONGEST_TOLD = 200;

    private final OpenVault vault;
    private final Place place;
    private final List<String> unkept = new ArrayList<>();
    private final List<String> tooDeep = new ArrayList<>();
    private Map<String, String> notTaken = Map.of();

    MirrorNotes(OpenVault vault, Place place) {
        this.vault = vault;
        this.place = place;
    }

    /** Forgets what the look before had to leave out. */
    void begin() {
        unkept.clear();
        tooDeep.clear();
        notTaken = Map.of();
    }

    /** Names files that the system did not take, each with its reason. */
    void notTaken(Map<String, String> files) {
        notTaken = files;
    }

    /** Whether a path can stand on a line; what cannot is named among the gaps. */
    boolean keepable(String told) {
        // A folder that was not followed is told with a slash at its end.
        String path = told.endsWith("/") ? told.substring(0, told.length() - 1) : told;
        try {
            RelativePath.requirePath(path);
            if (path.length() < told.length()) {
                tooDeep.add(path);
                return false;
            }
            return true;
        } catch (IllegalArgumentException e) {
            unkept.add(path);
            return false;
        }
    }

    /** A look went well: what is known of the place, and which files had to be left out. */
    void good(Instant now, OutsidePlaceState facts) throws IOException {
        try (WriteSession session = vault.write()) {
            OutsideWriter writer = new OutsideWriter(session, place);
            writer.facts(facts.json());
            if (writer.begins().isEmpty()) {
                Instant from = writer.oldest().filter(o -> o.isBefore(now)).orElse(now);
                new PlaceWriter(session).capture(place, 0, new CaptureRecord(from, now, true, 0, 0));
            }
            List<Skipped> gaps = new ArrayList<>(gaps(unkept, Skipped.Reason.NAME, now));
            gaps.addAll(gaps(tooDeep, Skipped.Reason.TOO_DEEP, now));
            notTaken.forEach(
                    (path, why) -> gaps.add(new Skipped(asName(path), Skipped.Reason.NOT_TAKEN, shortened(why), now)));
            ScanStore.skipped(session, place, new LineWriter(session).folder(place, ""), gaps, now);
            ScanStore.looked(session, place, new ScanStore.Looked(now, now), "");
            session.commit();
        }
    }

    /** A path that cannot stand on a line is one name here, and not longer than anybody reads. */
    private static List<Skipped> gaps(List<String> paths, Skipped.Reason reason, Instant now) {
        return paths.stream()
                .map(MirrorNotes::asName)
                .distinct()
                .map(p -> new Skipped(p, reason, "", now))
                .toList();
    }

    private static String asName(String path) {
        return shortened(path.replace('/', '\u2215'));
    }

    private static String shortened(String told) {
        return told.length() <= LONGEST_TOLD ? told : told.substring(0, LONGEST_TOLD) + "\u2026";
    }

    /** A look failed: why, and since when the place is away. */
    void trouble(Instant now, SystemException why, SystemKind kind) throws IOException {
        Optional<OutsidePlaceState> before;
        try (Reading reading = vault.read()) {
            before = OutsidePlaceState.of(reading, place);
        }
        try (WriteSession session = vault.write()) {
            boolean away = why instanceof SystemException.Unplugged || why instanceof SystemException.Unreachable;
            OutsidePlaceState facts = before.orElseGet(() -> new OutsidePlaceState(
                    kind, kind.standardSettings(), Role.OWNER, -1, -1, Optional.empty(), 0, Optional.empty()));
            new OutsideWriter(session, place).facts((away ? facts.away(now) : facts).json());
            ScanStore.Looked looked = ScanStore.looked(session, place);
            ScanStore.looked(session, place, new ScanStore.Looked(now, looked.good()), why.words());
            session.commit();
        }
    }

    /** Notes what is wrong with a place, apart from a scan. */
    static void trouble(OpenVault vault, Place place, Instant now, SystemException why) throws IOException {
        Optional<OutsidePlaceState> before;
        try (Reading reading = vault.read()) {
            before = OutsidePlaceState.of(reading, place);
        }
        try (WriteSession session = vault.write()) {
            if (why instanceof SystemException.Full && before.isPresent()) {
                new OutsideWriter(session, place).facts(before.get().filled().json());
            }
            ScanStore.Looked looked = ScanStore.looked(session, place);
            ScanStore.looked(session, place, new ScanStore.Looked(now, looked.good()), why.words());
            session.commit();
        }
    }
}
