package org.mendedleaf.core.systems;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OutsideQuery.HeldPoint;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;

/**
 * What a system will forget by its own rules, and when, under settings that it has or might get. Pure; the contract tests
 * hold it against what the systems do as their clocks go on.
 */
public final class OutsideRetention {

    private OutsideRetention() {}

    /**
     * A version, snapshot or run that will go.
     *
     * @param point what the system calls it
     * @param when it goes; not after now means at once
     * @param bytes of its content; 0 for a cut
     */
    public record Going(String point, Instant when, long bytes) {}

    /** What goes of versions that are kept file by file, given in the order of lines and numbers. */
    public static List<Going> points(SystemKind kind, PlaceSettings settings, List<HeldPoint> held, Instant now) {
        Map<Long, List<HeldPoint>> lines = new LinkedHashMap<>();
        held.forEach(
                h -> lines.computeIfAbsent(h.line(), l -> new ArrayList<>()).add(h));
        List<Going> going = new ArrayList<>();
        for (List<HeldPoint> line : lines.values()) {
            going.addAll(kind == SystemKind.LIBRARY ? library(settings, line, now) : store(settings, line));
        }
        return going;
    }

    private static List<Going> store(PlaceSettings settings, List<HeldPoint> line) {
        long days = settings.number(Setting.EXPIRE_DAYS);
        List<Going> going = new ArrayList<>();
        List<HeldPoint> replaced =
                line.stream().filter(h -> h.ended().isPresent()).toList();
        long keep = settings.number(Setting.EXPIRE_KEEP);
        for (int i = 0; days > 0 && i < replaced.size() - keep; i++) {
            HeldPoint h = replaced.get(i);
            going.add(new Going(h.point(), h.ended().orElseThrow().plus(Duration.ofDays(days)), h.size()));
        }
        return going;
    }

    /** By number at once, and removed files after their days. */
    private static List<Going> library(PlaceSettings settings, List<HeldPoint> line, Instant now) {
        boolean removed = line.stream().allMatch(h -> h.ended().isPresent());
        List<Going> going = new ArrayList<>();
        if (removed) {
            Instant at = line.stream()
                    .map(h -> h.ended().orElseThrow())
                    .max(Instant::compareTo)
                    .orElseThrow();
            Instant end = at.plus(Duration.ofDays(settings.number(Setting.REMOVED_DAYS)));
            line.forEach(h -> going.add(new Going(h.point(), end, h.size())));
        }
        List<HeldPoint> published =
                line.stream().filter(h -> !h.label().contains(".")).toList();
        long keep = settings.number(Setting.KEEP_VERSIONS);
        long draftsOf = settings.number(Setting.KEEP_DRAFTS_OF);
        long newest = published.isEmpty() ? 0 : major(published.get(published.size() - 1));
        for (HeldPoint h : line) {
            boolean draft = h.label().contains(".");
            boolean over = draft
                    ? draftsOf > 0 && major(h) < newest - draftsOf
                    : keep > 0 && published.indexOf(h) < published.size() - keep;
            if (over) {
                going.add(new Going(h.point(), now, h.size()));
            }
        }
        return going;
    }

    private static long major(HeldPoint h) {
        String text = h.label().contains(".") ? h.label().substring(0, h.label().indexOf('.')) : h.label();
        return text.matches("\\d{1,9}") ? Long.parseLong(text) : 0;
    }

    /** What goes of snapshots or runs, given oldest first without the live files. */
    public static List<Going> cuts(SystemKind kind, PlaceSettings settings, List<RemoteSnapshot> cuts, Instant now) {
        List<Going> going = new ArrayList<>();
        if (kind == SystemKind.FILE_SERVER) {
            long keep = Math.max(1, settings.number(Setting.SNAPSHOT_KEEP));
            Optional<Duration> every = every(settings.get(Setting.SNAPSHOT_EVERY));
            for (int i = 0; i < cuts.size(); i++) {
                long rounds = keep - cuts.size() + i + 1;
                if (rounds <= 0) {
                    going.add(new Going(cuts.get(i).key(), now, 0));
                } else if (every.isPresent()) {
                    Instant last = cuts.get(cuts.size() - 1).at();
                    going.add(new Going(cuts.get(i).key(), last.plus(every.get().multipliedBy(rounds)), 0));
                }
            }
        } else {
            int months = months(settings.get(Setting.BACKUP_KEEP));
            for (int i = 0; months > 0 && i < cuts.size() - 1; i++) {
                Instant end = cuts.get(i)
                        .at()
                        .atOffset(ZoneOffset.UTC)
                        .plusMonths(months)
                        .toInstant();
                going.add(new Going(cuts.get(i).key(), end, 0));
            }
        }
        return going;
    }

    /** How far two times of a schedule are apart; empty by hand. */
    public static Optional<Duration> every(String value) {
        return switch (value) {
            case "hour" -> Optional.of(Duration.ofHours(1));
            case "day" -> Optional.of(Duration.ofDays(1));
            case "week" -> Optional.of(Duration.ofDays(7));
            default -> Optional.empty();
        };
    }

    private static int months(String keep) {
        return switch (keep) {
            case "1-month" -> 1;
            case "3-months" -> 3;
            case "6-months" -> 6;
            case "9-months" -> 9;
            case "1-year" -> 12;
            case "2-years" -> 24;
            default -> 0;
        };
    }
}
