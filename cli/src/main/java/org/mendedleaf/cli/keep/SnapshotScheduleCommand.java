package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.disk.TextFile;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.snapshots.CalendarFile;
import org.mendedleaf.core.snapshots.Recurrence;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Makes, lists, ends, imports and exports schedules of snapshots. */
@Command(name = "schedule", description = "${bundle:cli.schedule}")
public final class SnapshotScheduleCommand extends SnapshotBase {

    @Option(names = "--daily", paramLabel = "HH:MM", descriptionKey = "cli.schedule.daily")
    @Nullable
    String daily;

    @Option(names = "--rule", paramLabel = "RRULE", descriptionKey = "cli.schedule.rule")
    @Nullable
    String rule;

    @Option(names = "--start", paramLabel = "YYYY-MM-DDTHH:MM", descriptionKey = "cli.schedule.start")
    @Nullable
    String start;

    @Option(names = "--keep", paramLabel = "N", descriptionKey = "cli.schedule.keep")
    int keep;

    @Option(names = "--missed", paramLabel = "catch-up|skip", descriptionKey = "cli.schedule.missed")
    String missed = "catch-up";

    @Option(names = "--label", paramLabel = "TEXT", descriptionKey = "cli.snapshot.label")
    String label = "";

    @Option(names = "--end", paramLabel = "N", descriptionKey = "cli.schedule.end")
    long end;

    @Option(names = "--import", paramLabel = "FILE.ics", descriptionKey = "cli.schedule.import")
    @Nullable
    Path importFile;

    @Option(names = "--export", paramLabel = "FILE.ics", descriptionKey = "cli.schedule.export")
    @Nullable
    Path exportFile;

    public SnapshotScheduleCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder)) {
            needsFolder(located);
            Snapshots snapshots = snapshots(located);
            Path from = importFile;
            if (end != 0) {
                snapshots.end(end);
                say("cli.schedule.ended", String.valueOf(end));
            } else if (from != null) {
                for (SnapshotSchedule s :
                        CalendarFile.read(TextFile.read(from), located.place().id(), located.path(), zone())) {
                    snapshots.schedule(s);
                }
            } else if (daily != null || rule != null) {
                snapshots.schedule(made(located));
            }
            List<SnapshotSchedule> all = snapshots.schedules();
            Path to = exportFile;
            if (to != null) {
                Files.writeString(
                        to, CalendarFile.write(all, located.place().name(), now()), StandardOpenOption.CREATE_NEW);
            }
            print(all);
            return ExitCodes.DONE;
        }
    }

    private SnapshotSchedule made(Located located) throws IOException {
        if (daily != null && rule != null) {
            throw new IllegalArgumentException(Words.of("cli.schedule.both"));
        }
        SnapshotSchedule.Missed late = switch (missed) {
            case "catch-up" -> SnapshotSchedule.Missed.CATCH_UP;
            case "skip" -> SnapshotSchedule.Missed.SKIP;
            default -> throw new IllegalArgumentException(Words.of("cli.schedule.badMissed", missed));
        };
        return new SnapshotSchedule(
                0,
                located.place().id(),
                located.path(),
                label,
                rule == null ? Recurrence.daily() : rule,
                start(),
                zone(),
                keep,
                late,
                Instant.EPOCH,
                false);
    }

    private LocalDateTime start() throws IOException {
        LocalDateTime today =
                now().atZone(zone()).toLocalDateTime().withSecond(0).withNano(0);
        String time = daily;
        String typed = start;
        try {
            if (time != null) {
                return today.with(LocalTime.parse(time));
            }
            return typed == null ? today : LocalDateTime.parse(typed);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(Words.of("cli.schedule.badStart", time == null ? typed : time), e);
        }
    }

    private void print(List<SnapshotSchedule> all) throws IOException {
        if (json) {
            List<Object> rows = new ArrayList<>();
            for (SnapshotSchedule s : all) {
                rows.add(map(s));
            }
            printJson(rows);
            return;
        }
        if (all.isEmpty()) {
            say("cli.schedule.none");
        }
        Instant now = now();
        for (SnapshotSchedule s : all) {
            Recurrence r = Recurrence.of(s);
            String kept = s.keep() == 0 ? Words.of("schedule.keepAll") : Words.of("schedule.keep", s.keep());
            line(s.id() + "  " + r.sentence() + ", " + kept + ", " + Words.of("schedule.missed." + s.missed())
                    + (s.label().isEmpty() ? "" : "  " + s.label()));
            List<Instant> next = r.next(now, 3);
            line("   "
                    + (next.isEmpty()
                            ? Words.of("schedule.over")
                            : Words.of(
                                    "schedule.next",
                                    next.stream()
                                            .map(n -> Formats.coming(n, now, s.zone()))
                                            .collect(Collectors.joining(" · ")))));
        }
    }

    private Map<String, Object> map(SnapshotSchedule s) throws IOException {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("id", s.id());
        map.put("folder", s.path());
        map.put("label", s.label());
        map.put("rule", s.rule());
        map.put("start", s.start().toString());
        map.put("zone", s.zone().getId());
        map.put("keep", s.keep());
        map.put("missed", s.missed().name());
        map.put("sentence", Recurrence.of(s).sentence());
        map.put(
                "next",
                Recurrence.of(s).next(now(), 3).stream().map(Instant::toString).toList());
        return map;
    }
}
