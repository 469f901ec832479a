package org.mendedleaf.cli.protect;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Outcomes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.PlaceGoneException;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.systems.BackupRun;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Captures what changed, in one place or in all. */
@Command(name = "capture", description = "${bundle:cli.capture}")
public final class CaptureCommand extends Base {

    @Parameters(paramLabel = "FOLDER", arity = "0..1", descriptionKey = "cli.capture.folder")
    @Nullable
    Path folder;

    @Option(names = "--emptied", descriptionKey = "cli.capture.emptied")
    boolean emptied;

    public CaptureCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> results = new ArrayList<>();
        int code = ExitCodes.DONE;
        Path named = folder;
        if (emptied && named == null) {
            throw new IllegalArgumentException(Words.of("cli.capture.emptiedWhich"));
        }
        if (named != null) {
            try (Located located = locate(named)) {
                code = capture(located.vault(), located.place(), results);
            }
        } else {
            code = eachVault((each, open) -> {
                int worst = ExitCodes.DONE;
                for (Place place : places(open)) {
                    worst = Math.max(worst, capture(open, place, results));
                }
                return worst;
            });
        }
        if (json) {
            printJson(results);
        }
        return code;
    }

    /** A place in another system is looked at; a set of a backup drive is backed up. */
    private int look(OpenVault open, Place place, Map<String, Object> row) throws IOException {
        if (registry().kind(place).isEmpty()) {
            return ExitCodes.DONE;
        }
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            if (registry().kind(place).orElseThrow() == SystemKind.BACKUP_DRIVE) {
                BackupRun.Result r = new BackupRun(open, place, registry().system(place), clock()).run(progress);
                row.put("files", r.files());
                row.put("sent", r.sent());
                row.put("sentBytes", r.sentBytes());
                row.put("failed", r.failed());
                if (!json) {
                    say("cli.backup.done", place.where(), r.files(), r.sent(), Formats.size(r.sentBytes()));
                    r.failed().forEach((path, why) -> complain(path + ": " + why));
                }
                return r.failed().isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
            }
            Mirror.Result r = new Mirror(open, place, registry().system(place), clock()).run(progress);
            row.put("files", r.files());
            row.put("points", r.points());
            row.put("forgotten", r.forgotten());
            if (!json) {
                say("cli.look.done", place.where(), r.files(), r.points(), r.forgotten());
            }
            return ExitCodes.DONE;
        } catch (SystemException | IllegalArgumentException e) {
            row.put("error", Failures.named(e));
            complain(Failures.named(e));
            return ExitCodes.SOME_FAILED;
        }
    }

    private static List<Place> places(OpenVault open) throws IOException {
        try (Reading reading = open.read()) {
            return reading.places();
        }
    }

    private int capture(OpenVault open, Place place, List<Object> results) throws IOException {
        Map<String, Object> row = new LinkedHashMap<>();
        row.put("folder", place.where());
        results.add(row);
        if (place.isOutside()) {
            return look(open, place, row);
        }
        if (place.versioning() != Versioning.ON) {
            String words = Words.of("cli.capture." + place.versioning().text(), place.root());
            row.put("versions", place.versioning().text());
            if (folder != null) {
                throw new IllegalArgumentException(words);
            }
            if (!json && place.versioning() == Versioning.PAUSED) {
                line(words);
            }
            return ExitCodes.DONE;
        }
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            Capture capture = new Capture(open, place, clock(), authors());
            CaptureResult result = (emptied ? capture.emptiedOnPurpose() : capture).run(CaptureScope.WHOLE, progress);
            row.putAll(Outcomes.json(result));
            if (!json) {
                Outcomes.print(this, place, result);
            }
            return result.troubles().isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        } catch (PlaceGoneException e) {
            row.put("error", Failures.named(e));
            complain(Failures.named(e));
            return ExitCodes.SOME_FAILED;
        }
    }
}
