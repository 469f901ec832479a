package org.mendedleaf.core.systems;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.standins.StandIn;
import org.mendedleaf.standins.StandIns;

/** The four stand-ins with a real folder and a real vault, all on one clock that the test moves. */
public final class Rig implements AutoCloseable {

    static final Retry QUICK = new Retry(6, Duration.ofMillis(1), Duration.ofMillis(4), Duration.ofSeconds(10));

    public static final Instant START = Instant.parse("2026-05-04T08:00:00Z");

    private final Path temp;
    public final TestPlace desk;
    public final StandIns outside;
    public final UserSettings home;
    public final SystemRegistry registry;

    public Rig(Path temp) throws IOException {
        this.temp = temp;
        desk = new TestPlace(temp);
        outside = new StandIns(temp.resolve("outside"), "ines");
        home = UserSettings.open(temp.resolve("home"));
        home.addVault(desk.vault().folder().root());
        registry = new SystemRegistry(home, Systems.OPENER, clock(), QUICK);
        at(START);
        for (StandIn s : outside.all()) {
            home.connect(new Connection(
                    s.kind(),
                    SystemKind.parse(s.kind()),
                    s.address(),
                    s.token("ines"),
                    desk.vault().folder().root()));
        }
    }

    public Clock clock() {
        return desk.clock();
    }

    /** Sets all clocks. */
    public Rig at(Instant moment) throws IOException {
        desk.at(moment);
        for (StandIn s : outside.all()) {
            s.setClock(moment);
        }
        return this;
    }

    public Instant now() {
        return desk.now();
    }

    public Rig later(Duration by) throws IOException {
        return at(now().plus(by));
    }

    public OpenVault vault() {
        return desk.vault();
    }

    public StandIn standIn(SystemKind kind) {
        return outside.all().stream()
                .filter(s -> s.kind().equals(kind.text()))
                .findFirst()
                .orElseThrow();
    }

    public OutsideSystem system(SystemKind kind) throws IOException {
        return registry.system(kind.text());
    }

    public SystemConnector connecting() {
        return new SystemConnector(home, registry, clock());
    }

    /** Makes a place with standard settings, changed by these. */
    public Place place(SystemKind kind, String name, Object... settings) throws IOException {
        PlaceSettings wanted = kind.standardSettings();
        for (int i = 0; i < settings.length; i += 2) {
            wanted = wanted.with((Setting) settings[i], String.valueOf(settings[i + 1]));
        }
        return connecting().create(home.connection(kind.text()).orElseThrow(), name, wanted, vault());
    }

    public OutsideWork work(Place place) throws IOException {
        return new OutsideWork(vault(), place, registry, clock(), "ines");
    }

    public OutsideErasing erasing(Place place) throws IOException {
        return new OutsideErasing(vault(), place, registry, clock(), "ines");
    }

    public Mirror.Result look(Place place) throws IOException {
        return new Mirror(vault(), place, registry.system(place), clock()).run(Progress.NONE);
    }

    /** Puts a text in, directly. */
    public String put(Place place, String path, String text) throws IOException {
        return put(place, path, text, "");
    }

    public String put(Place place, String path, String text, String note) throws IOException {
        return registry.system(place)
                .put(name(place), request(path, text, note, UUID.randomUUID().toString()));
    }

    public OutsideSystem.Put request(String path, String text, String note, String key) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        return new OutsideSystem.Put(path, new Bytes(bytes), sha(bytes), now(), note, key);
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

    public static Digest sha(byte[] bytes) {
        MessageDigest sha = Digest.sha256();
        return Digest.of(sha.digest(bytes));
    }

    public static String name(Place place) {
        return place.outside().orElseThrow().place();
    }

    public Path file(String name, String text) throws IOException {
        return Files.writeString(
                Files.createDirectories(temp.resolve("incoming")).resolve(name), text);
    }

    public Line line(Place place, String path) throws IOException {
        try (Reading reading = vault().read()) {
            return reading.line(place, path).orElseThrow();
        }
    }

    public List<Holder> holders(Line line, int number) throws IOException {
        try (Reading reading = vault().read()) {
            return reading.outside().holders(line).getOrDefault(number, List.of());
        }
    }

    public List<RemoteSnapshot> cuts(Place place) throws IOException {
        try (Reading reading = vault().read()) {
            return reading.outside().cuts(place).stream()
                    .filter(c -> !c.isLive())
                    .toList();
        }
    }

    /** The names that are listed in a folder of a place at a moment. */
    public List<String> listing(Place place, String folder, Instant at) throws IOException {
        try (Reading reading = vault().read()) {
            return reading.folders().listing(place, folder, at, false).stream()
                    .map(e -> e.name())
                    .sorted()
                    .toList();
        }
    }

    /** The text of a version, wherever it is held. */
    public String text(Version version) {
        try {
            Path temp = Files.createTempFile(this.temp, "text", "");
            new ContentFetch(vault(), registry).toFile(version, temp, Progress.NONE);
            return Files.readString(temp);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What the system holds live under a path; empty when nothing. */
    public Optional<String> live(Place place, String path) throws IOException {
        look(place);
        try (Reading reading = vault().read()) {
            Optional<Line> line =
                    reading.line(place, path).filter(l -> l.removed().isEmpty());
            return line.flatMap(Line::newest).map(this::text);
        }
    }

    public String read(Place place, String path, String point) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        registry.system(place).read(name(place), path, point, Optional.empty(), out);
        return out.toString(StandardCharsets.UTF_8);
    }

    public void relate(Place folder, String path, Place other, String otherPath) throws IOException {
        connecting().relate(vault(), new Relation(folder.id(), path, other.id(), otherPath));
    }

    @Override
    public void close() throws IOException {
        outside.close();
        desk.close();
    }
}
