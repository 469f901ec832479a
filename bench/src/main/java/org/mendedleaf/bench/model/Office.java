package org.mendedleaf.bench.model;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.snapshots.Snapshots;

/** The real thing that a model is compared with: a folder, a vault, and a clock that goes on by a minute with each command. */
final class Office implements AutoCloseable {

    static final String WHO = "Ada";
    static final Calendar CALENDAR = new Calendar(ZoneOffset.UTC, DayOfWeek.MONDAY);

    final Path desk;
    final OpenVault vault;
    final Place place;
    private Instant now = Instant.parse("2026-05-04T08:00:00Z");

    Office(Path folder) throws IOException {
        desk = Files.createDirectories(folder.resolve("desk")).toRealPath();
        vault = OpenVault.openOrCreate(folder.resolve("vault"), "model", Duration.ofSeconds(5));
        place = Protect.place(vault, desk, PlaceChange.to(Rhythm.BY_HAND), clock(), WHO);
    }

    Clock clock() {
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

    Instant now() {
        return now;
    }

    void later(Duration time) {
        now = now.plus(time);
    }

    Authors authors() {
        return (path, owner) -> WHO;
    }

    void save(String path, String content) throws IOException {
        Path file = desk.resolve(path);
        Files.createDirectories(file.getParent());
        Files.writeString(file, content, StandardCharsets.ISO_8859_1);
        Files.setLastModifiedTime(file, FileTime.from(now));
    }

    void capture() throws IOException {
        new Capture(vault, place, clock(), authors()).emptiedOnPurpose().run(CaptureScope.WHOLE, Progress.NONE);
    }

    Recovery recovery() {
        return new Recovery(new WorkContext(vault, place, clock(), authors(), WHO));
    }

    Holds holds() {
        return new Holds(vault, clock(), WHO);
    }

    Snapshots snapshots() {
        return new Snapshots(new WorkContext(vault, place, clock(), authors(), WHO));
    }

    Erasing erasing() {
        return new Erasing(new WorkContext(vault, place, clock(), authors(), WHO));
    }

    /** What the files hold, by path. */
    Map<String, String> disk() throws IOException {
        Map<String, String> found = new TreeMap<>();
        try (Stream<Path> all = Files.walk(desk)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                String path = desk.relativize(file).toString().replace('\\', '/');
                if (!SafeFolder.isOwnName(String.valueOf(file.getFileName()))) {
                    found.put(path, Files.readString(file, StandardCharsets.ISO_8859_1));
                }
            }
        }
        return found;
    }

    @Override
    public void close() throws IOException {
        vault.close();
    }
}
