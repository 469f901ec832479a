package org.mendedleaf.sample;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.BackupRun;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.standins.StandIn;
import org.mendedleaf.standins.StandIns;

/**
 * What the office keeps in other systems, overlapping with its folder: the harvest folder on the file server with a
 * snapshot a day, leases and minutes in the library, press logs in the object store, and a drive that missed two runs.
 * Filled from the folder's own past, each thing at its time.
 */
final class SampleSystems {

    private static final String HARVEST = "Seasons/2026/Harvest";

    private final UserSettings home;
    private final OpenVault vault;
    private final Place desk;
    private final StandIns outside;
    private final SystemRegistry registry;
    private Instant now = Office.TODAY.minus(Duration.ofDays(60));

    private SampleSystems(UserSettings home, OpenVault vault, Place desk, StandIns outside) {
        this.home = home;
        this.vault = vault;
        this.desk = desk;
        this.outside = outside;
        this.registry = new SystemRegistry(home, Systems.OPENER, clock(), Retry.DEFAULT);
    }

    /** Fills the stand-ins that keep what they hold in this folder, and connects them. */
    static void make(Path folder, UserSettings home, OpenVault vault, Place desk) throws IOException {
        try (StandIns outside = new StandIns(folder, "Ines")) {
            new SampleSystems(home, vault, desk, outside).fill();
        }
    }

    /** A stand-in whose port somebody else had has another one now. */
    static void readdress(Path folder, UserSettings home) throws IOException {
        for (Connection c : home.connections()) {
            Path file = folder.resolve(c.kind().text()).resolve("stand-in.json");
            if (Files.exists(file)) {
                int port =
                        new ObjectMapper().readTree(file.toFile()).path("port").asInt();
                String address = "http://127.0.0.1:" + port;
                if (!address.equals(c.address())) {
                    home.connect(new Connection(c.name(), c.kind(), address, c.token(), c.vault()));
                }
            }
        }
    }

    private Clock clock() {
        return new Clock() {
            @Override
            public ZoneId getZone() {
                return Office.ZONE;
            }

            @Override
            public Clock withZone(ZoneId zone) {
                return this;
            }

            @Override
            public Instant instant() {
                return now;
            }
        };
    }

    private void at(Instant moment) throws IOException {
        now = moment;
        for (StandIn s : outside.all()) {
            s.setClock(moment);
        }
    }

    private static Instant day(int before, int hour) {
        LocalDate today = Office.TODAY.atZone(Office.ZONE).toLocalDate();
        return today.minusDays(before).atTime(hour, 0).atZone(Office.ZONE).toInstant();
    }

    private void fill() throws IOException {
        Map<String, String> names = Map.of(
                "library", "Library",
                "object-store", "Archive",
                "file-server", "Server",
                "backup-drive", "Drive");
        at(day(60, 9));
        for (StandIn s : outside.all()) {
            String name = java.util.Objects.requireNonNull(names.get(s.kind()));
            home.connect(new Connection(
                    name,
                    SystemKind.parse(s.kind()),
                    s.address(),
                    s.token("Ines"),
                    vault.folder().root()));
        }
        Place contracts = library();
        Place minutes = create("Library", "Minutes", settings(SystemKind.LIBRARY, Setting.KEEP_VERSIONS, "20"));
        Place harvest = create(
                "Server",
                "Harvest",
                settings(SystemKind.FILE_SERVER, Setting.SNAPSHOT_EVERY, "day", Setting.SNAPSHOT_KEEP, "10"));
        Place logs = create(
                "Archive",
                "Press logs",
                settings(SystemKind.OBJECT_STORE, Setting.EXPIRE_DAYS, "30", Setting.EXPIRE_KEEP, "1"));
        Place labels = create("Archive", "Labels", settings(SystemKind.OBJECT_STORE));
        Place set = create("Drive", "Front desk", settings(SystemKind.BACKUP_DRIVE, Setting.BACKUP_KEEP, "until-full"));
        relate(new Relation(desk.id(), HARVEST, harvest.id(), ""));
        relate(new Relation(desk.id(), "Lease", contracts.id(), ""));
        relate(new Relation(desk.id(), "Minutes", minutes.id(), ""));
        relate(BackupRun.relation(desk, "Seasons", set));
        relate(BackupRun.relation(desk, "Accounts", set));
        Map<String, Integer> served = new HashMap<>();
        for (int before = 40; before >= 0; before--) {
            // Each day a little later, so that a day has passed for whoever counts by its own clock.
            at(day(before, before == 0 ? 9 : 18).plusSeconds(5L * (40 - before)));
            serve(harvest, served, before);
            if (before % 2 == 1 && before > 2) {
                backUp(set);
            }
            if (before % 6 == 0) {
                put(logs, HARVEST + "/Press log.csv", "2026/Press log.csv", "");
            }
            if (before % 10 == 3) {
                fileAway(contracts, minutes, before);
            }
            if (before == 12) {
                put(labels, "Minutes/Minutes 2026-10.odt", "sent/Minutes 2026-10.odt", "sent to the members");
            }
            if (before == 9) {
                registry.system(labels).remove("Labels", "sent/Minutes 2026-10.odt", key());
            }
        }
        registry.system(labels).configure("Labels", settings(SystemKind.OBJECT_STORE, Setting.VERSIONING, "paused"));
        end(List.of(contracts, minutes, harvest, logs, labels, set));
    }

    private static String key() {
        return UUID.randomUUID().toString();
    }

    private static PlaceSettings settings(SystemKind kind, Object... values) {
        PlaceSettings settings = kind.standardSettings();
        for (int i = 0; i < values.length; i += 2) {
            settings = settings.with((Setting) values[i], String.valueOf(values[i + 1]));
        }
        return settings;
    }

    private Place library() throws IOException {
        PlaceSettings settings = settings(
                        SystemKind.LIBRARY,
                        Setting.NUMBERING,
                        "drafts",
                        Setting.KEEP_DRAFTS_OF,
                        "3",
                        Setting.QUOTA_MB,
                        "50")
                .with(List.of(new Member("Tomas", Role.EDITOR), new Member("Adele", Role.READER)));
        return create("Library", "Contracts", settings);
    }

    private Place create(String system, String place, PlaceSettings settings) throws IOException {
        return new SystemConnector(home, registry, clock())
                .create(home.connection(system).orElseThrow(), place, settings, vault);
    }

    private void relate(Relation relation) throws IOException {
        new SystemConnector(home, registry, clock()).relate(vault, relation);
    }

    /** The harvest folder as it was then; once, somebody saved straight onto the server. */
    private void serve(Place harvest, Map<String, Integer> served, int before) throws IOException {
        try (Reading reading = vault.read()) {
            for (Map.Entry<String, Entry> e :
                    reading.folders().tree(desk, HARVEST, now).entrySet()) {
                Entry entry = e.getValue();
                String path = e.getKey().substring(HARVEST.length() + 1);
                boolean fresh = entry.kind() == EntryKind.FILE && entry.number() != served.getOrDefault(path, 0);
                if (fresh) {
                    Version v = reading.line(entry.line())
                            .flatMap(l -> l.version(entry.number()))
                            .orElseThrow();
                    put(harvest, path, bytes(reading, v), Instant.ofEpochSecond(0, v.mtimeNanos()), "");
                    served.put(path, entry.number());
                }
            }
        }
        if (before == 6) {
            String text = "hour,pressed litres,who\n08:00,140,Jory\n10:00,155,Jory\n14:00,160,Wilma\n";
            put(harvest, "Press day on the server.csv", text.getBytes(StandardCharsets.UTF_8), now, "");
        }
        // The server takes its snapshot when its day is over.
        registry.system(harvest).state();
    }

    private void fileAway(Place contracts, Place minutes, int before) throws IOException {
        put(contracts, "Lease/Walled garden.odt", "Walled garden.odt", before > 20 ? "as sent to the owner" : "");
        put(contracts, "Lease/Lower meadow.odt", "Lower meadow.odt", "");
        put(minutes, "Minutes/Minutes 2026-10.odt", "Minutes 2026-10.odt", before < 10 ? "approved" : "");
        put(minutes, "Minutes/Minutes 2026-09.odt", "Minutes 2026-09.odt", "");
    }

    /** What a file of the desk was at this moment, under a name elsewhere. */
    private void put(Place place, String from, String to, String note) throws IOException {
        try (Reading reading = vault.read()) {
            Line line = reading.line(desk, from).orElseThrow();
            int number = reading.lines().numberAt(line.id(), now).orElse(0);
            if (number > 0) {
                Version v = line.version(number).orElseThrow();
                put(place, to, bytes(reading, v), Instant.ofEpochSecond(0, v.mtimeNanos()), note);
            }
        }
    }

    private static byte[] bytes(Reading reading, Version v) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        reading.contents().read(v.recipe(), out::write);
        return out.toByteArray();
    }

    private void put(Place place, String path, byte[] bytes, Instant modified, String note) throws IOException {
        MessageDigest sha = Digest.sha256();
        registry.system(place)
                .put(
                        place.outside().orElseThrow().place(),
                        new OutsideSystem.Put(
                                path, new Bytes(bytes), Digest.of(sha.digest(bytes)), modified, note, key()));
    }

    private record Bytes(byte[] bytes) implements OutsideSystem.Bytes {
        @Override
        public long size() {
            return bytes.length;
        }

        @Override
        public java.io.InputStream open() {
            return new java.io.ByteArrayInputStream(bytes);
        }
    }

    private void backUp(Place set) throws IOException {
        new BackupRun(vault, set, registry.system(set), clock()).run(Progress.NONE);
    }

    /** Tomas works on a lease in the library. */
    private void takeOut() throws IOException {
        Connection library = home.connection("Library").orElseThrow();
        StandIn standIn = outside.all().stream()
                .filter(s -> s.kind().equals(library.kind().text()))
                .findFirst()
                .orElseThrow();
        home.connect(new Connection(
                library.name(), library.kind(), library.address(), standIn.token("Tomas"), library.vault()));
        new SystemRegistry(home, Systems.OPENER, clock(), Retry.DEFAULT)
                .system(library.name())
                .checkOut("Contracts", "Walled garden.odt", key());
        home.connect(library);
    }

    /** Today: everything was looked at, and the drive is in somebody's bag. */
    private void end(List<Place> places) throws IOException {
        at(Office.TODAY.minus(Duration.ofMinutes(40)));
        takeOut();
        at(Office.TODAY.minus(Duration.ofMinutes(4)));
        for (Place p : places) {
            new Mirror(vault, p, registry.system(p), clock()).run(Progress.NONE);
        }
        outside.drive().plug(false);
        for (Place p : places) {
            if (p.outside().orElseThrow().system().equals("Drive")) {
                try {
                    new Mirror(vault, p, registry.system(p), clock()).run(Progress.NONE);
                } catch (SystemException.Unplugged e) {
                    org.slf4j.LoggerFactory.getLogger(SampleSystems.class).debug("as it should be", e);
                }
            }
        }
        at(Office.TODAY);
    }
}
