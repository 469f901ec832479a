package org.mendedleaf.core.systems;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Single files of a place in another system: what is there, putting one, removing one, keeping what the system would not
 * keep. What is to be done with many of them is decided elsewhere.
 */
final class OutsideFiles {

    /** So often is asked anew when somebody saves at the same moment. */
    private static final int TRIES = 3;

    final OpenVault vault;
    final Place place;
    final OutsideSystem system;
    final Clock clock;
    final String who;
    final String name;
    final ContentFetch fetch;
    private volatile @Nullable Map<String, OutsideWriter.Known> known;

    /**
     * Files of this place.
     *
     * @param who works with them; stands in the journal
     * @throws SystemException.Missing when its system is not connected
     */
    OutsideFiles(OpenVault vault, Place place, SystemRegistry registry, Clock clock, String who) throws IOException {
        this.vault = vault;
        this.place = place;
        this.system = registry.system(place);
        this.clock = clock;
        this.who = who;
        this.name = place.outside().orElseThrow().place();
        this.fetch = new ContentFetch(vault, registry);
    }

    /** A look at the place, which can be told what will turn up. */
    Mirror mirror() {
        return new Mirror(vault, place, system, clock);
    }

    /** Looks at the place now. */
    Mirror.Result look(Progress progress) throws IOException {
        Mirror.Result result = mirror().run(progress);
        known = null;
        return result;
    }

    /** What is at a path as it was seen last, so that nothing is replaced or removed that nobody keeps. */
    private OutsideSystem.Before before(String path) throws IOException {
        if (system.kind() != SystemKind.WEBDAV && system.kind() != SystemKind.FILE_SERVER) {
            return OutsideSystem.Before.ANYTHING;
        }
        Map<String, OutsideWriter.Known> tags = known;
        try (Reading reading = vault.read()) {
            if (tags == null) {
                tags = reading.outside().files(place);
                known = tags;
            }
            Optional<Version> live =
                    reading.line(place, path).filter(l -> l.removed().isEmpty()).flatMap(Line::newest);
            OutsideWriter.Known file = tags.get(path);
            return live.isEmpty()
                    ? OutsideSystem.Before.NOTHING
                    : OutsideSystem.Before.of(
                            file == null ? "" : file.tag(), live.get().sha256());
        }
    }

    /** Does something to a file that is as it was seen last. Where it is not, what it is now is kept first. */
    private void unlessChanged(String path, Changing changing) throws IOException {
        for (int i = 1; ; i++) {
            try {
                changing.change(before(path));
                return;
            } catch (SystemException.Conflict e) {
                if (i == TRIES) {
                    throw e;
                }
                look(Progress.NONE);
                secure(path);
            }
        }
    }

    private interface Changing {
        void change(OutsideSystem.Before before) throws IOException;
    }

    /** Removes a file, once what it is now is kept. */
    void remove(String path) throws IOException {
        unlessChanged(path, before -> system.remove(name, path, before, key()));
    }

    /** A key by which a system knows that a request is the same one again. */
    static String key() {
        return UUID.randomUUID().toString();
    }

    /** Refuses what its kind of system cannot do. */
    void needs(Capability capability) throws SystemException {
        if (!system.kind().can(capability)) {
            throw new SystemException.Unable(Words.of(
                    "system.unable", Words.of("system.kind." + system.kind().text())));
        }
    }

    /** The line of a path as it is known now. */
    Optional<Line> line(String path) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.line(place, path);
        }
    }

    /** The number of the version that is there; 0 when none is. */
    static int current(Optional<Line> line) {
        return line.filter(l -> l.removed().isEmpty())
                .flatMap(Line::newest)
                .map(Version::number)
                .orElse(0);
    }

    /** The place. */
    Place place() {
        return place;
    }

    /** The name of the place in its system. */
    String name() {
        return name;
    }

    /** Whether there are drafts between whole versions here. */
    boolean hasDrafts() throws IOException {
        try (Reading reading = vault.read()) {
            return system.kind().can(Capability.DRAFTS)
                    && OutsidePlaceState.of(reading, place)
                            .filter(f -> f.settings().get(Setting.NUMBERING).equals("drafts"))
                            .isPresent();
        }
    }

    /** SHA-256 of a file. */
    static Digest digest(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return Digest.of(in);
        }
    }

    /** Puts one content in; returns the id of the version there. */
    String putOne(String path, Path file, Digest sha256, Instant modified, String note) throws IOException {
        String key = key();
        String[] point = {""};
        int[] tries = {0};
        unlessChanged(path, before -> {
            boolean there = tries[0]++ > 0
                    && before.expected() == OutsideSystem.Before.Expected.THIS
                    && before.sha256().filter(sha256::equals).isPresent();
            // A server that keeps no versions has this content already: a request came through whose answer did not.
            point[0] = there
                    ? ""
                    : system.put(
                            name, new OutsideSystem.Put(path, fileBytes(file), sha256, modified, note, key, before));
        });
        return point[0];
    }

    /** Puts the content of a version in under a path, from wherever it is held. */
    void putContent(String path, Version v, String note) throws IOException {
        Path temp = TemporaryFiles.file(".content");
        try {
            fetch.toFile(v, temp, Progress.NONE);
            Instant modified = Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000));
            putOne(path, temp, digest(temp), modified, note);
        } finally {
            Files.deleteIfExists(temp);
        }
    }

    /** The bytes of a file, each time anew. */
    static OutsideSystem.Bytes fileBytes(Path file) {
        return new OutsideSystem.Bytes() {
            @Override
            public long size() throws IOException {
                return Files.size(file);
            }

            @Override
            public InputStream open() throws IOException {
                return Files.newInputStream(file);
            }
        };
    }

    /** Takes what is live into the vault, when the system would not keep it once it is replaced or removed. */
    void secure(String path) throws IOException {
        Optional<Line> line = line(path);
        Optional<Version> live = line.filter(l -> l.removed().isEmpty())
                .flatMap(Line::newest)
                .filter(v -> v.recipe().isElsewhere());
        if (live.isPresent() && !keeps(line.get(), live.get())) {
            fetch.intoVault(live.get(), Progress.NONE);
        }
    }

    private boolean keeps(Line line, Version version) throws IOException {
        try (Reading reading = vault.read()) {
            boolean inCut = reading.outside().holders(line).getOrDefault(version.number(), List.of()).stream()
                    .anyMatch(h -> h.kind() == Holder.Kind.CUT);
            boolean versioned = system.kind().can(Capability.VERSIONS)
                    && OutsidePlaceState.of(reading, place)
                            .map(f -> keepsReplaced(f.settings()))
                            .orElse(false);
            return inCut || versioned;
        }
    }

    /** Whether what is replaced or removed stays for a while; a limit of one version keeps nothing that is replaced. */
    private static boolean keepsReplaced(PlaceSettings settings) {
        return settings.get(Setting.VERSIONING).equals("on")
                && settings.number(Setting.KEEP_VERSIONS) != 1
                && settings.number(Setting.REMOVED_DAYS) != 0;
    }

    /** Notes what changed in the journal, by what the lines show now; returns the action. */
    long note(ActionKind kind, long undoes, Map<String, Integer> before, Map<String, Integer> numbers)
            throws IOException {
        record Changed(String path, long line, int before, int after) {}
        List<Changed> changed = new ArrayList<>();
        for (Map.Entry<String, Integer> e : before.entrySet()) {
            Optional<Line> line = line(e.getKey());
            int after = current(line);
            if (line.isPresent() && after != e.getValue()) {
                changed.add(new Changed(e.getKey(), line.get().id(), e.getValue(), after));
                numbers.put(e.getKey(), after);
            }
        }
        if (changed.isEmpty() && undoes == 0) {
            return 0;
        }
        try (WriteSession session = vault.write()) {
            long id = JournalStore.begin(
                    session, new Action(0, clock.instant(), who, kind, place.id(), undoes, false, List.of()));
            LineWriter lines = new LineWriter(session);
            int seq = 0;
            for (Changed c : changed) {
                long folder = lines.folder(place, RelativePath.parent(c.path()));
                JournalStore.add(
                        session,
                        id,
                        seq++,
                        folder,
                        new Action.Item(c.line(), "", RelativePath.name(c.path()), c.before(), c.after()));
            }
            session.commit();
            return id;
        }
    }
}
