package org.mendedleaf.core;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.unfold.Unfolding;

/** A real folder with a real vault, and a clock that the test moves. */
public final class TestPlace implements AutoCloseable {

    public static final Instant START = Instant.parse("2026-05-04T08:00:00Z");

    private final Path folder;
    private final OpenVault vault;
    private final Place place;
    private Instant now = START;

    public TestPlace(Path temp, String... exclusions) throws IOException {
        folder = Files.createDirectories(temp.resolve("desk")).toRealPath();
        vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofMillis(200));
        try {
            place = Protect.place(vault, folder, Rhythm.ON_SAVE, List.of(exclusions), clock(), "Ines");
        } catch (IOException e) {
            vault.close();
            throw e;
        }
    }

    public Clock clock() {
        return new Clock() {
            @Override
            public ZoneId getZone() {
                return ZoneOffset.UTC;
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

    public OpenVault vault() {
        return vault;
    }

    public Place place() {
        return place;
    }

    public Path folder() {
        return folder;
    }

    public Instant now() {
        return now;
    }

    public void at(Instant moment) {
        now = moment;
    }

    public Instant later(long minutes) {
        Instant then = now.plus(Duration.ofMinutes(minutes));
        while (Duration.between(now, then).compareTo(Duration.ofDays(1)) > 0) {
            now = now.plus(Duration.ofDays(1));
            live();
        }
        now = then;
        return now;
    }

    /** The vault sees what time it is, as a program that runs every day lets it. */
    private void live() {
        try (WriteSession session = vault.write()) {
            TrustedTime.of(session, now);
            session.commit();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public Path path(String path) {
        return folder.resolve(path);
    }

    /** Saves a file a minute later than all before. */
    public Path save(String path, String text) throws IOException {
        return save(path, text.getBytes(StandardCharsets.UTF_8));
    }

    public Path save(String path, byte[] content) throws IOException {
        later(1);
        Path file = folder.resolve(path);
        Files.createDirectories(file.getParent());
        Files.write(file, content);
        Files.setLastModifiedTime(file, FileTime.from(now));
        return file;
    }

    public String read(String path) throws IOException {
        return Files.readString(folder.resolve(path));
    }

    public CaptureResult capture() throws IOException {
        later(1);
        return new Capture(vault, place, clock(), authors()).run(CaptureScope.WHOLE, Progress.NONE);
    }

    public CaptureResult capture(String... folders) throws IOException {
        later(1);
        return new Capture(vault, place, clock(), authors())
                .run(new CaptureScope.Folders(Set.of(folders)), Progress.NONE);
    }

    /** Unfolds what can be unfolded, and gives the space back of what was replaced. */
    public Unfolding.Result unfold() throws IOException {
        Unfolding.Result result = Unfolding.atOnce(vault, clock()).run(Progress.NONE);
        new Reclaim(vault, clock()).run(Progress.NONE);
        return result;
    }

    public Authors authors() {
        return (path, owner) -> "Ines";
    }

    public Recovery recovery() {
        later(1);
        return new Recovery(new WorkContext(vault, place, clock(), authors(), "Tomas"));
    }

    public Line line(String path) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.line(place, path).orElseThrow();
        }
    }

    /** What was there at a moment, by path; folders with a slash at the end. */
    public java.util.NavigableMap<String, Entry> tree(Instant at) throws IOException {
        try (Reading reading = vault.read()) {
            return new TreeMap<>(reading.folders().tree(place, "", at));
        }
    }

    public Set<String> names(Instant at) throws IOException {
        return tree(at).keySet();
    }

    public VaultCheck.Report check() throws IOException {
        return new VaultCheck(vault).run(true, Progress.NONE);
    }

    @Override
    public void close() throws IOException {
        vault.close();
    }
}
