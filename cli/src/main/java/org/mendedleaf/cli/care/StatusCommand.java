package org.mendedleaf.cli.care;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Outcomes;
import org.mendedleaf.cli.base.ReportOption;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.capture.Lateness;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.FindingStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.LastCheck;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.jobs.ActivityLog;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.line.Space;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageReport;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** Shows how vaults and places stand. */
@Command(name = "status", description = "${bundle:cli.status}")
public final class StatusCommand extends Base {

    /** So many lines of the log are shown. */
    private static final int LINES_SHOWN = 50;

    @Mixin
    private final ReportOption reportOption = new ReportOption();

    public StatusCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> rows = new ArrayList<>();
        List<Coverage.Row> covered = new ArrayList<>();
        boolean wanted = reportOption.isWanted();
        int code = ExitCodes.DONE;
        for (Path folder : vaults()) {
            try (OpenVault open = open(folder);
                    Reading reading = open.read()) {
                boolean good = vault(folder, reading, rows);
                good &= copies(new Copies(open, clock(), who()), rows);
                if (wanted) {
                    covered.addAll(Coverage.of(open, now(), zone()));
                }
                code = good ? code : Math.max(code, ExitCodes.LATE);
            } catch (org.mendedleaf.core.vault.VaultException e) {
                complain(e.words());
                rows.add(Map.of("vault", folder.toString(), "error", e.words()));
                code = ExitCodes.NO_VAULT;
            }
        }
        reportOption.write(this, () -> {
            covered.addAll(Coverage.uncovered(UserFolders.home(), covered));
            return CoverageReport.of(covered, now(), zone());
        });
        if (json) {
            printJson(rows);
        } else {
            activity();
        }
        return code;
    }

    /** Where what goes on by itself is noted, and with {@code --verbose} the last of it. */
    private void activity() throws IOException {
        ActivityLog log = activity("status");
        List<String> last = log.last(LINES_SHOWN);
        if (!last.isEmpty()) {
            say("cli.status.log", log.file());
            if (verbose) {
                last.forEach(l -> line("  " + l));
            }
        }
    }

    /** Says how a vault stands; whether all is kept as it should be. */
    private boolean vault(Path folder, Reading reading, List<Object> rows) throws IOException {
        Space space = reading.space();
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("vault", folder.toString());
        map.put("log", activity("status").file().toString());
        map.put("files", space.lines());
        map.put("versions", space.versions());
        map.put("bytesWithVersions", space.versionBytes());
        map.put("storedBytes", space.storedBytes());
        List<Object> places = new ArrayList<>();
        map.put("places", places);
        rows.add(map);
        if (!json) {
            say(
                    "cli.status.vault",
                    folder,
                    space.lines(),
                    space.versions(),
                    Formats.size(space.versionBytes()),
                    Formats.size(space.storedBytes()));
        }
        Optional<LastCheck> check = LastCheck.of(reading);
        map.put("lastFullCheck", check.map(c -> c.at().toString()).orElse(null));
        map.put("lostInLastFullCheck", check.map(LastCheck::lost).orElse(null));
        if (!json) {
            line("  " + LastCheck.words(check, now(), zone()));
        }
        boolean good = true;
        List<String> failing = new ArrayList<>();
        for (Duties.Failing duty : Duties.failing(reading)) {
            failing.add(Words.of(
                    "cli.status.duty", duty.name(), Formats.moment(duty.since(), now(), zone()), duty.trouble()));
        }
        map.put("failing", failing);
        if (!json) {
            failing.forEach(w -> complain("  " + w));
        }
        good &= failing.isEmpty();
        Optional<Instant> ahead = Present.ahead(reading, now());
        if (ahead.isPresent()) {
            good = false;
            map.put("datedAhead", ahead.get().toString());
            complain(Present.words(ahead.get(), now(), zone()));
        }
        for (Place place : reading.places()) {
            PlaceState state = reading.state(place);
            boolean late = Lateness.isLate(place, state, now());
            boolean away = !place.isOutside() && !Files.isDirectory(place.root());
            boolean kept = place.versioning() == Versioning.ON;
            good &= !kept
                    || !late && !away && (place.isOutside() || state.trouble().isEmpty());
            List<String> findings = new ArrayList<>();
            for (StoredFinding f : FindingStore.of(reading).open(place)) {
                Line line = reading.line(f.line()).orElseThrow();
                findings.add(f.words(line.path(), line.label(f.number())));
            }
            Map<String, Object> row = json(place, state, zone());
            row.put("findings", findings);
            row.put("late", late);
            places.add(row);
            if (!json) {
                print(place, state);
                if (late) {
                    complain("  " + Words.of("cli.status.late"));
                }
                findings.forEach(w -> line("  " + w));
            }
        }
        return good;
    }

    /** Says how the copies of the vault stand; whether none of them needs attention. */
    private boolean copies(Copies copies, List<Object> rows) throws IOException {
        List<Object> all = new ArrayList<>();
        boolean good = true;
        for (CopyStatus status : copies.list()) {
            all.add(CopyVaultBase.json(status));
            good &= !status.needsSomebody();
            if (!json) {
                String words = Words.of("cli.status.copy", status.copy().folder(), status.sentence(now(), zone()));
                if (status.needsSomebody()) {
                    complain(words);
                } else {
                    line(words);
                }
            }
        }
        if (rows.get(rows.size() - 1) instanceof Map<?, ?> row) {
            Map<String, Object> with = new LinkedHashMap<>();
            row.forEach((key, value) -> with.put(String.valueOf(key), value));
            with.put("copies", all);
            rows.set(rows.size() - 1, with);
        }
        return good;
    }

    private void print(Place place, PlaceState state) throws IOException {
        ZoneId zone = zone();
        String last = state.lastGood().isPresent()
                ? Formats.ago(state.lastGood().get(), now(), zone())
                : Words.of("status.never");
        String rhythm = place.rhythm().words();
        if (place.versioning() != Versioning.ON) {
            say("cli.status.place." + place.versioning().text(), place.where(), state.files(), last);
            return;
        }
        Optional<Instant> next = state.lastGood().flatMap(l -> place.rhythm().next(l, zone));
        if (next.isPresent()) {
            say("cli.status.place.next", place.where(), state.files(), rhythm, last, coming(next.get()));
        } else {
            say("cli.status.place", place.where(), state.files(), rhythm, last);
        }
        if (!place.isOutside() && !Files.isDirectory(place.root())) {
            complain("  " + Words.of("capture.placeGone", place.root()));
        } else if (!state.trouble().isEmpty()) {
            complain("  " + state.trouble());
        }
        for (Skipped s : state.skipped()) {
            line("  " + Words.of("cli.capture.skipped", s.path(), s.words()));
        }
    }

    /** When something is due; what is due already is due now. */
    private String coming(Instant next) throws IOException {
        return next.isAfter(now()) ? Formats.coming(next, now(), zone()) : Words.of("cli.status.due");
    }

    private static Map<String, Object> json(Place place, PlaceState state, ZoneId zone) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("folder", place.where());
        map.put("name", place.name());
        map.put("every", place.rhythm().text());
        map.put("exclusions", place.exclusions());
        map.put("files", state.files());
        map.put("lastLook", state.lastLook().map(Object::toString).orElse(null));
        map.put("lastGood", state.lastGood().map(Object::toString).orElse(null));
        map.put("versions", place.versioning().text());
        map.put(
                "next",
                place.versioning() == Versioning.ON
                        ? state.lastGood()
                                .flatMap(l -> place.rhythm().next(l, zone))
                                .map(Object::toString)
                                .orElse(null)
                        : null);
        map.put("trouble", state.trouble());
        map.put("skipped", state.skipped().stream().map(Outcomes::json).toList());
        return map;
    }
}
