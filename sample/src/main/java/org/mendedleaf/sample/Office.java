package org.mendedleaf.sample;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.settings.UserSettings;

/**
 * Makes the office of a community orchard and cider press, with ninety days of work in it, all captured as it happened:
 * ordinary saving on most days, and the mishaps of {@link Mishaps} among it. The same on every run.
 *
 * <p>The folder it makes holds {@code Front desk} and {@code Contracts} (the protected folders), {@code Downloads} (where
 * new revisions arrive), {@code vault}, {@code settings}, and {@code outside} (what the stand-ins for other systems hold).
 */
public final class Office {

    /** The moment at which the sample office stands still. */
    public static final Instant TODAY = ZonedDateTime.of(2026, 11, 20, 10, 45, 0, 0, ZoneId.of("Europe/Brussels"))
            .toInstant();

    /** Where the office is. */
    public static final ZoneId ZONE = ZoneId.of("Europe/Brussels");

    /** Its members, as far as they sit at the computers. */
    static final List<String> PEOPLE = List.of("Ines", "Tomas", "Wilma", "Jory", "Adele");

    private static final int DAYS = 90;
    private static final int LOOKS_A_DAY = 2;

    private final Random random = new Random(20261120);
    private final Path folder;
    private final Path desk;
    private final Map<String, Draft> drafts = new TreeMap<>();
    private final Map<String, Integer> busyness = new HashMap<>();
    private final Map<String, String> editors = new HashMap<>();
    private Instant now = TODAY.minus(Duration.ofDays(DAYS));

    private Office(Path folder) {
        this.folder = folder;
        this.desk = folder.resolve("Front desk");
    }

    /** Where the protected folder of the office is. */
    public static Path desk(Path folder) {
        return folder.resolve("Front desk");
    }

    /** Where its second protected folder is, with the papers that bind it. */
    public static Path contracts(Path folder) {
        return folder.resolve("Contracts");
    }

    /** Where new revisions arrive. */
    public static Path arrivals(Path folder) {
        return folder.resolve("Downloads");
    }

    /** Where its vault is. */
    public static Path vault(Path folder) {
        return folder.resolve("vault");
    }

    /** Where the stand-ins for outside systems keep what they hold. */
    public static Path outside(Path folder) {
        return folder.resolve("outside");
    }

    /** Where the settings are with which the programs see it. */
    public static Path settings(Path folder) {
        return folder.resolve("settings");
    }

    /**
     * Makes the office in this folder, which must be empty or not there.
     *
     * @param systemClock by which its "today" goes on from now
     */
    public static void make(Path folder, Clock systemClock) throws IOException {
        Files.createDirectories(folder);
        new Office(folder).run(systemClock);
    }

    private void run(Clock systemClock) throws IOException {
        Files.createDirectories(desk);
        new Furniture(this).set();
        Mishaps mishaps = new Mishaps(this);
        try (OpenVault vault = OpenVault.openOrCreate(vault(folder), "sample office", Duration.ofSeconds(5))) {
            Clock clock = new Ticking();
            Place place = Protect.place(vault, desk.toRealPath(), Rhythm.ON_SAVE, List.of(), clock, "Ines");
            Capture capture = new Capture(vault, place, clock, new Editors());
            try (WriteSession session = vault.write()) {
                capture.runWithin(session, CaptureScope.WHOLE, Progress.NONE);
                Cuts cuts = new Cuts(session, place);
                LocalDate first = now.atZone(ZONE).toLocalDate();
                for (int day = 1; day <= DAYS; day++) {
                    for (int look = 0; look < LOOKS_A_DAY; look++) {
                        LocalDate date = first.plusDays(day);
                        if (work(date, look)) {
                            capture.runWithin(session, CaptureScope.WHOLE, Progress.NONE);
                        }
                        cuts.take(date, look);
                        for (Runnable mishap : mishaps.on(date, look)) {
                            mishap.run();
                            capture.runWithin(session, CaptureScope.WHOLE, Progress.NONE);
                        }
                    }
                }
                session.commit();
            }
            UserSettings home = UserSettings.open(settings(folder));
            home.addVault(vault.folder().root());
            home.who("Ines");
            Contracts.make(vault, contracts(folder));
            arrivals(home);
            Kept.make(vault, place, TODAY, ZONE);
            for (String person : PEOPLE) {
                home.address(person, person.toLowerCase(java.util.Locale.ROOT) + "@orchard.example");
            }
            home.remember("place", desk.toRealPath().toString());
            home.remember("folder", Furniture.HARVEST.substring(0, Furniture.HARVEST.length() - 1));
            SampleSystems.make(outside(folder), home, vault, place);
            home.setToday(TODAY, systemClock.instant(), ZONE);
        }
    }

    /** New revisions of five documents in the folder where downloads arrive; one has the right name and a wrong content. */
    private void arrivals(UserSettings home) throws IOException {
        String harvest = Furniture.HARVEST;
        arrive(harvest + "Press log.csv", "Press log.csv", 21);
        arrive("Accounts/Cash book.csv", "Cash book (1).csv", 34);
        arrive(harvest + "Grant application.odt", "Grant application final.odt", 49);
        arrive("Lease/Lower meadow.odt", "Lower meadow v2.odt", 62);
        byte[] minutes = drafts.getOrDefault("Minutes/Minutes 2026-09.odt", Draft.text(random, 9, "Minutes", true))
                .save();
        arrive("Walled garden.odt", minutes, 12);
        home.arrivals(List.of(arrivals(folder).toRealPath()));
    }

    private void arrive(String path, String name, int minutesAgo) throws IOException {
        Draft draft = drafts.get(path);
        if (draft == null) {
            throw new IllegalStateException(path);
        }
        draft.edit(random);
        draft.edit(random);
        arrive(name, draft.save(), minutesAgo);
    }

    private void arrive(String name, byte[] content, int minutesAgo) throws IOException {
        Files.createDirectories(arrivals(folder));
        Path file = arrivals(folder).resolve(name);
        Files.write(file, content);
        Files.setLastModifiedTime(file, FileTime.from(TODAY.minus(Duration.ofMinutes(minutesAgo))));
    }

    /** Snapshots: by hand before what is important, and every working day at five. */
    private final class Cuts {
        private static final int KEPT_DAYS = 20;

        private final WriteSession session;
        private final Place place;
        private final SnapshotSchedule evening;

        Cuts(WriteSession session, Place place) throws IOException {
            this.session = session;
            this.place = place;
            Instant last =
                    TODAY.atZone(ZONE).minusDays(1).with(LocalTime.of(17, 0)).toInstant();
            this.evening = SnapshotStore.put(
                    session,
                    new SnapshotSchedule(
                            0,
                            place.id(),
                            "",
                            "end of the day",
                            "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR",
                            now.atZone(ZONE).toLocalDate().atTime(17, 0),
                            ZONE,
                            14,
                            SnapshotSchedule.Missed.CATCH_UP,
                            last,
                            false));
        }

        void take(LocalDate date, int look) throws IOException {
            if (look == 0 && date.equals(LocalDate.of(2026, 9, 14))) {
                put("before the pressing season", 0, "the members' audit looks at it in spring");
            }
            if (look == 0 && date.equals(LocalDate.of(2026, 10, 30))) {
                put("after the last pressing", 0, "");
            }
            boolean workday = date.getDayOfWeek().getValue() < 6;
            LocalDate today = TODAY.atZone(ZONE).toLocalDate();
            if (look == 1 && workday && date.isBefore(today) && date.isAfter(today.minusDays(KEPT_DAYS))) {
                at(date.atTime(17, 0).atZone(ZONE).toInstant());
                put(evening.label(), evening.id(), "");
            }
        }

        private void put(String label, long schedule, String hold) throws IOException {
            Snapshot taken = SnapshotStore.put(
                    session, new Snapshot(0, place.id(), "", now, label, "Ines", schedule, Optional.empty()));
            if (!hold.isEmpty()) {
                Optional<Instant> until =
                        Optional.of(LocalDate.of(2027, 5, 1).atStartOfDay(ZONE).toInstant());
                SnapshotStore.put(session, taken.held(hold, until));
                HoldStore.put(
                        session,
                        Hold.of(place, Hold.Kind.SNAPSHOT, 0, 0, "", taken.id()).because(hold, "Ines", now, until));
            }
        }
    }

    /** The work of half a day; on the last day, only what was done before "today". */
    private boolean work(LocalDate date, int look) throws IOException {
        Instant from =
                date.atTime(LocalTime.of(look == 0 ? 8 : 13, 0)).atZone(ZONE).toInstant();
        Instant to = from.plus(Duration.ofMinutes(230));
        if (from.isAfter(TODAY)) {
            return false;
        }
        if (to.isAfter(TODAY)) {
            to = TODAY.minus(Duration.ofMinutes(70));
        }
        boolean weekend = date.getDayOfWeek().getValue() > 5;
        int saves = weekend ? random.nextInt(5) : 13 + random.nextInt(20);
        List<String> paths = new ArrayList<>(drafts.keySet());
        List<String> chosen = new ArrayList<>();
        for (int i = 0; i < saves; i++) {
            String path = paths.get(random.nextInt(paths.size()));
            for (int tries = 0; tries < 6 && random.nextInt(10) >= busyness.getOrDefault(path, 0); tries++) {
                path = paths.get(random.nextInt(paths.size()));
            }
            if (!chosen.contains(path) && Files.exists(desk.resolve(path))) {
                chosen.add(path);
            }
        }
        long span = Duration.between(from, to).toSeconds();
        for (String path : chosen) {
            Instant when = from.plusSeconds((long) (random.nextDouble() * span));
            Draft draft = drafts.get(path);
            if (draft == null) {
                continue;
            }
            draft.edit(random);
            write(path, draft.save(), when, person(path));
        }
        now = to;
        return !chosen.isEmpty();
    }

    /** Most files have somebody who works on them most. */
    private String person(String path) {
        int owner = Math.floorMod(path.hashCode(), PEOPLE.size());
        return PEOPLE.get(random.nextInt(4) == 0 ? random.nextInt(PEOPLE.size()) : owner);
    }

    Random random() {
        return random;
    }

    Path desk() {
        return desk;
    }

    /** Lets time go on to a moment. */
    void at(Instant when) {
        if (when.isAfter(now)) {
            now = when;
        }
    }

    Instant now() {
        return now;
    }

    /** Takes a document out of the daily work. */
    void retire(String path) {
        drafts.remove(path);
    }

    /** A document that goes on under another name. */
    void rename(String from, String to) throws IOException {
        Files.createDirectories(parent(to));
        Files.move(desk.resolve(from), desk.resolve(to));
        Draft draft = drafts.remove(from);
        if (draft != null) {
            drafts.put(to, draft);
            busyness.put(to, busyness.getOrDefault(from, 3));
        }
    }

    private Path parent(String path) {
        Path parent = desk.resolve(path).getParent();
        return parent == null ? desk : parent;
    }

    /** Puts a document on the desk that people will work on; {@code busy} from 0 (never) to 10 (all the time). */
    void document(String path, Draft draft, int busy) throws IOException {
        drafts.put(path, draft);
        busyness.put(path, busy);
        Instant before = now.minus(Duration.ofHours(random.nextInt(4000)));
        write(path, draft.save(), before, person(path));
    }

    /** Puts a file on the desk that nobody works on. */
    void still(String path, byte[] content) throws IOException {
        write(path, content, now.minus(Duration.ofHours(random.nextInt(8000))), person(path));
    }

    void write(String path, byte[] content, Instant when, String who) throws IOException {
        Files.createDirectories(parent(path));
        Path file = desk.resolve(path);
        // A new file each time: writing over an old one makes some file systems sync at once.
        Files.deleteIfExists(file);
        Files.write(file, content);
        Files.setLastModifiedTime(file, FileTime.from(when));
        editors.put(path, who);
    }

    void editor(String path, String who) {
        editors.put(path, who);
    }

    private final class Editors implements Authors {
        @Override
        public String author(String path, String owner) {
            return editors.getOrDefault(path, "Ines");
        }

        @Override
        public String remover(String path) {
            return editors.getOrDefault(path, "");
        }
    }

    private final class Ticking extends Clock {
        @Override
        public ZoneId getZone() {
            return ZONE;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return Clock.fixed(now, zone);
        }

        @Override
        public Instant instant() {
            return now;
        }
    }
}
