package org.mendedleaf.cli.protect;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Changes one setting of a protected folder at a time; what is not named stays. */
@Command(name = "set", description = "${bundle:cli.set}")
public final class SetCommand extends Base {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.protect.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Mixin
    private final FolderOptions options = new FolderOptions();

    @Option(names = "--versions", paramLabel = "on|paused|off", descriptionKey = "cli.set.versions")
    @Nullable
    Versioning versions;

    @Option(names = "--plan", descriptionKey = "cli.set.plan")
    boolean plan;

    public SetCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = wholeFolder(folder)) {
            Place before = located.place();
            for (String pattern : options.include) {
                if (!before.exclusions().contains(pattern)) {
                    throw new IllegalArgumentException(Words.of(
                            "cli.set.notOut",
                            pattern,
                            before.exclusions().isEmpty()
                                    ? Words.of("cli.protect.nothingOut")
                                    : String.join(", ", before.exclusions())));
                }
            }
            PlaceChange change = options.change(Optional.of(before.rhythm()));
            Protect.check(before.root(), located.vault().folder().root(), options.exclude);
            Place after = with(change.over(before));
            if (plan) {
                try (Reading reading = located.vault().read()) {
                    PlaceRules.of(reading, before).rights(who(), before).require(Permission.SETTINGS);
                }
                return said(before, after, Optional.empty());
            }
            Optional<String> missed = carryOut(located, change, after);
            return said(before, after, missed);
        }
    }

    private Place with(Place place) {
        return versions == null ? place : place.with(versions);
    }

    /** Returns what was missed when a protection is taken up again. */
    private Optional<String> carryOut(Located located, PlaceChange change, Place after) throws IOException {
        Place before = located.place();
        Place changed = Protect.place(located.vault(), before.root(), change, clock(), who());
        if (after.versioning() == before.versioning()) {
            return Optional.empty();
        }
        Protect.versioning(located.vault(), changed, after.versioning(), clock(), who());
        return after.versioning() == Versioning.ON ? Optional.of(resumed(located, after)) : Optional.empty();
    }

    /** Captures what is there now, and says what nobody kept meanwhile. */
    private String resumed(Located located, Place place) throws IOException {
        Instant last;
        try (Reading reading = located.vault().read()) {
            last = reading.state(place).lastGood().orElse(place.created());
        }
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            CaptureResult result =
                    new Capture(located.vault(), place, clock(), authors()).run(CaptureScope.WHOLE, progress);
            return Protect.missed(last, now(), zone(), result.points());
        }
    }

    private int said(Place before, Place after, Optional<String> missed) {
        boolean same = before.equals(after);
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("folder", before.root().toString());
            map.put("before", settings(before));
            map.put("after", settings(after));
            map.put("changed", !same && !plan);
            missed.ifPresent(m -> map.put("missed", m));
            printJson(map);
            return ExitCodes.DONE;
        }
        line(before.root().toString());
        Map<String, String> was = words(before);
        words(after).forEach((name, value) -> {
            String old = was.getOrDefault(name, "");
            line("  "
                    + (old.equals(value)
                            ? Words.of("cli.set.as", name, value)
                            : Words.of("cli.set.to", name, old, value)));
        });
        if (same) {
            say("cli.set.same");
        } else if (plan) {
            say("cli.set.planned");
        } else if (after.versioning() == Versioning.PAUSED && before.versioning() != Versioning.PAUSED) {
            say("cli.set.paused", before.root());
        } else if (after.versioning() == Versioning.OFF && before.versioning() != Versioning.OFF) {
            say("cli.set.off", before.root());
        }
        missed.ifPresent(this::line);
        return ExitCodes.DONE;
    }

    private static Map<String, Object> settings(Place place) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("every", place.rhythm().text());
        map.put("exclusions", place.exclusions());
        map.put("versions", place.versioning().text());
        return map;
    }

    private static Map<String, String> words(Place place) {
        Map<String, String> map = new LinkedHashMap<>();
        map.put(Words.of("setting.every"), place.rhythm().words());
        map.put(
                Words.of("setting.exclude"),
                place.exclusions().isEmpty()
                        ? Words.of("cli.protect.nothingOut")
                        : String.join(", ", place.exclusions()));
        map.put(
                Words.of("setting.versioning"),
                Words.of("setting.versioning." + place.versioning().text()));
        return map;
    }
}
