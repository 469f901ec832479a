package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** What settings of a place mean, as a message: for the future by rule, and for what is there by counting. */
public final class Outlook {

    private Outlook() {}

    /** The effect of each setting, one sentence each. */
    public static List<String> effects(SystemKind kind, PlaceSettings settings) {
        List<String> words = new ArrayList<>();
        for (Setting s : kind.settings()) {
            if (!matters(s, settings)) {
                continue;
            }
            words.add(effect(s, settings));
        }
        return words;
    }

    /** The effect of each setting of a protected folder, and who may do what there. */
    public static List<String> folderEffects(PlaceSettings settings) {
        List<String> words = new ArrayList<>();
        for (Setting s : PlaceRules.SETTINGS) {
            if (matters(s, settings)) {
                words.add(folderEffect(s, settings));
            }
        }
        words.add(members(settings));
        return words;
    }

    /** Who the members of a folder are, and what others may do. */
    public static String members(PlaceSettings settings) {
        return settings.members().isEmpty() ? Words.of("members.none") : Words.of("members.some", names(settings));
    }

    /** Who can see a place in another system, which is private unless said otherwise. */
    public static String seenBy(PlaceSettings settings) {
        return settings.members().isEmpty()
                ? Words.of("members.place.none")
                : Words.of("members.place.some", names(settings));
    }

    private static String names(PlaceSettings settings) {
        return settings.members().stream()
                .map(m -> Words.of(
                        "members.one", m.who(), Words.of("role." + m.role().text())))
                .collect(Collectors.joining(", "));
    }

    /** The effect of one setting of a protected folder; there, no limit lets anything go by itself. */
    public static String folderEffect(Setting s, PlaceSettings settings) {
        long n = s.isNumber() ? settings.number(s) : 0;
        if (s == Setting.VERSIONING) {
            return Words.of("effect.folder." + s.text() + "." + settings.get(s));
        }
        return s.isNumber() && n > 0 ? Words.of("effect.folder." + s.text(), n) : effect(s, settings);
    }

    /** The effect of one setting. */
    public static String effect(Setting s, PlaceSettings settings) {
        String value = settings.get(s);
        if (!s.isNumber()) {
            return Words.of("effect." + s.text() + "." + value);
        }
        long n = Long.parseLong(value);
        return n == 0 ? Words.of("effect." + s.text() + ".0") : Words.of("effect." + s.text(), n);
    }

    /** Whether a setting says anything beside the others: drafts are no matter where there are none. */
    public static boolean matters(Setting setting, PlaceSettings settings) {
        boolean drafts = !settings.get(Setting.NUMBERING).equals("whole");
        boolean expires = !settings.get(Setting.EXPIRE_DAYS).equals("0");
        return switch (setting) {
            case KEEP_DRAFTS_OF, DRAFTS_SEEN_BY, PUBLISHING -> drafts;
            case EXPIRE_KEEP -> expires;
            default -> true;
        };
    }

    /**
     * What a place will forget under some settings.
     *
     * @param atOnce how many versions, snapshots or runs go as soon as the settings are these
     * @param soon how many more go within 30 days
     * @param later how many more have a date
     * @param next when the next of them goes; the epoch when none does
     * @param bytes of those that go at once or within 30 days
     */
    public record Forgets(long atOnce, long soon, long later, Instant next, long bytes) {

        /** In one sentence. */
        public String words(SystemKind kind, Instant now, ZoneId zone) {
            String what = kind == SystemKind.BACKUP_DRIVE ? "runs" : kind.keepsCuts() ? "snapshots" : "versions";
            if (atOnce + soon + later == 0) {
                return Words.of("forgets.nothing");
            }
            if (atOnce > 0) {
                return Words.of("forgets.atOnce." + what, atOnce, soon, later);
            }
            return Words.of("forgets." + what, soon, later, Formats.moment(next, now, zone));
        }
    }

    /** The snapshot that goes when one more is taken now, since so many are kept and no more; empty when none does. */
    public static Optional<RemoteSnapshot> goesForOneMore(Reading reading, Place place) throws IOException {
        Optional<OutsidePlaceState> facts = OutsidePlaceState.of(reading, place);
        List<RemoteSnapshot> cuts =
                reading.outside().cuts(place).stream().filter(c -> !c.isLive()).toList();
        boolean limited = facts.filter(f -> f.settings().values().containsKey(Setting.SNAPSHOT_KEEP))
                .filter(f -> cuts.size() >= f.settings().number(Setting.SNAPSHOT_KEEP))
                .isPresent();
        return limited ? Optional.of(cuts.get(0)) : Optional.empty();
    }

    /** What taking a snapshot asks for, and what it costs, as a message. */
    public static String snapshotWords(Reading reading, Place place, Instant now, ZoneId zone) throws IOException {
        return Words.of("line.snapshotLabel")
                + goesForOneMore(reading, place)
                        .map(c -> "\n" + Words.of("line.snapshotDrops", Formats.moment(c.at(), now, zone)))
                        .orElse("");
    }

    /** Counts what a place will forget under these settings. */
    public static Forgets forgets(Reading reading, Place place, SystemKind kind, PlaceSettings settings, Instant now)
            throws IOException {
        List<OutsideRetention.Going> going = kind.keepsCuts()
                ? OutsideRetention.cuts(
                        kind,
                        settings,
                        reading.outside().cuts(place).stream()
                                .filter(c -> !c.isLive())
                                .toList(),
                        now)
                : OutsideRetention.points(kind, settings, reading.outside().points(place), now);
        Instant month = now.plus(java.time.Duration.ofDays(30));
        long atOnce = 0;
        long soon = 0;
        long later = 0;
        long bytes = 0;
        Instant next = Instant.MAX;
        for (OutsideRetention.Going g : going) {
            next = g.when().isBefore(next) ? g.when() : next;
            if (!g.when().isAfter(now)) {
                atOnce++;
            } else if (g.when().isBefore(month)) {
                soon++;
            } else {
                later++;
            }
            bytes += g.when().isBefore(month) ? g.bytes() : 0;
        }
        return new Forgets(atOnce, soon, later, next.equals(Instant.MAX) ? Instant.EPOCH : next, bytes);
    }
}
