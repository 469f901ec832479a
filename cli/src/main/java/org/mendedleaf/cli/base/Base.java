package org.mendedleaf.cli.base;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.MomentReader;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.intake.Evidence;
import org.mendedleaf.core.intake.FolderLines;
import org.mendedleaf.core.intake.LineWork;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.preview.DocumentText;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.rules.NotAllowedException;
import org.mendedleaf.core.rules.Visibility;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.ContentFetch;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.OutsideLines;
import org.mendedleaf.core.systems.OutsideWork;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** What commands about files have: the way from a path to its place, and the work that is done there. */
public abstract class Base extends VaultAccess implements Callable<Integer> {

    /** So many versions are named where one was asked for that is not there. */
    private static final int NAMED = 8;

    private final Set<String> looked = new HashSet<>();

    public Base(Surroundings surroundings) {
        super(surroundings);
    }

    /** A file or folder as the user named it, in the place that holds it. */
    public record Located(OpenVault vault, Place place, String path, Path file) implements AutoCloseable {
        @Override
        public void close() throws IOException {
            vault.close();
        }
    }

    /**
     * Finds the place of a path, present or removed.
     *
     * @throws IllegalArgumentException with a message for the user, when no place holds it
     */
    protected Located locate(Path file) throws IOException {
        Optional<Located> outside = outside(file);
        if (outside.isPresent()) {
            return outside.get();
        }
        // The file itself may be a link, and is meant as one; what leads to it is followed.
        Path absolute = file.toAbsolutePath().normalize();
        Path parent = absolute.getParent();
        Path real = parent == null || java.nio.file.Files.isDirectory(absolute, java.nio.file.LinkOption.NOFOLLOW_LINKS)
                ? Protect.realOfNew(absolute)
                : Protect.realOfNew(parent).resolve(absolute.getFileName());
        IOException unavailable = null;
        for (Path folder : vaults()) {
            try {
                OpenVault open = open(folder);
                try (Reading reading = open.read()) {
                    var place = reading.placeOf(real);
                    if (place.isPresent()) {
                        String path = TypedNames.meant(
                                reading,
                                place.get(),
                                RawNames.text(place.get().root().relativize(real)));
                        return new Located(open, place.get(), path, real);
                    }
                }
                open.close();
            } catch (VaultException e) {
                unavailable = e;
            }
        }
        if (unavailable != null) {
            throw unavailable;
        }
        throw new IllegalArgumentException(Words.of("cli.notProtected", real));
    }

    /** Looks at what is written {@code SYSTEM:PLACE/PATH}, when it is; with what was known when it does not answer. */
    private Optional<Located> outside(Path file) throws IOException {
        String text = file.toString();
        int colon = text.indexOf(':');
        Optional<Connection> connection =
                colon < 1 ? Optional.empty() : settings().connection(text.substring(0, colon));
        if (connection.isEmpty()) {
            return Optional.empty();
        }
        String rest = text.substring(colon + 1);
        int slash = rest.indexOf('/');
        String name = slash < 0 ? rest : rest.substring(0, slash);
        String path = slash < 0 ? "" : rest.substring(slash + 1);
        OpenVault open = open(connection.get().vault());
        try {
            Optional<Place> place;
            try (Reading reading = open.read()) {
                place = reading.outsidePlace(connection.get().name(), name);
            }
            if (place.isEmpty()) {
                place = new SystemConnector(settings(), registry(), clock())
                        .takeIn(connection.get(), open).stream()
                                .filter(p -> p.name().equals(name))
                                .findFirst();
            }
            if (place.isEmpty()) {
                throw new IllegalArgumentException(
                        Words.of("cli.noPlace", connection.get().name(), name));
            }
            look(open, place.get());
            return Optional.of(new Located(open, place.get(), path, file));
        } catch (IOException | RuntimeException e) {
            open.close();
            throw e;
        }
    }

    private void look(OpenVault open, Place place) throws IOException {
        if (!looked.add(place.where())) {
            return;
        }
        try {
            new Mirror(open, place, registry().system(place), clock()).run(Progress.NONE);
        } catch (SystemException e) {
            complain(e.words());
        }
    }

    /** Work with files where they are. */
    protected FileWork work(OpenVault open, Place place) throws IOException {
        return place.isOutside()
                ? new OutsideWork(open, place, registry(), clock(), who())
                : new Recovery(new WorkContext(open, place, clock(), authors(), who()));
    }

    /** Where a command works, and for whom. */
    protected WorkContext context(Located located) throws IOException {
        return new WorkContext(located.vault(), located.place(), clock(), authors(), who());
    }

    protected FileWork work(Located located) throws IOException {
        return work(located.vault(), located.place());
    }

    /** The version with its content in the vault, fetched when only others have it. */
    protected Version inVault(OpenVault open, Version version) throws IOException {
        return inVault(open, List.of(version)).get(0);
    }

    /** The versions with their contents in the vault, in the same order. */
    protected List<Version> inVault(OpenVault open, List<Version> versions) throws IOException {
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            return new ContentFetch(open, registry()).intoVault(versions, progress);
        }
    }

    /** Publishing, check-out and notes where the file is. */
    protected LineWork lineWork(Located located) throws IOException {
        return located.place().isOutside()
                ? new OutsideLines(located.vault(), located.place(), registry(), clock(), who())
                : new FolderLines(context(located));
    }

    /** What the guard goes by. */
    public Evidence evidence(Located located) throws IOException {
        ContentFetch fetch = new ContentFetch(located.vault(), registry());
        return new Evidence(located.vault(), located.place(), clock(), v -> fetch.bytes(v, DocumentText.MOST));
    }

    /** The line of a file as who works here may see it. */
    public Line line(Located located, Reading reading) throws IOException {
        Line line = reading.line(located.place(), located.path())
                .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", located.file())));
        String name = who();
        return Visibility.see(reading, line, name)
                .orElseThrow(() -> new NotAllowedException(Words.of("rights.hidden", name, located.file())));
    }

    /** The version that somebody names, by what it is called. */
    protected static Version version(Line line, String named) {
        return line.version(named).orElseThrow(() -> {
            String called = line.versions().stream()
                    .limit(NAMED)
                    .map(Version::label)
                    .collect(java.util.stream.Collectors.joining(", "));
            return new IllegalArgumentException(Words.of(
                    "cli.noVersion", line.path(), named, line.versions().size(), called));
        });
    }

    protected Snapshots snapshots(Located located) throws IOException {
        return new Snapshots(context(located));
    }

    /** Files of one place are worked on in one step, which one undo takes back. */
    protected List<List<Path>> byPlace(List<Path> files) throws IOException {
        Map<String, List<Path>> groups = new LinkedHashMap<>();
        for (Path file : files) {
            try (Located located = locate(file)) {
                String key =
                        located.vault().folder().root() + ":" + located.place().id();
                groups.computeIfAbsent(key, k -> new ArrayList<>()).add(file);
            }
        }
        return List.copyOf(groups.values());
    }

    /** Work with files of one place. */
    protected interface PlaceWork {
        /** Gets what they are called there, and where each of them is. */
        public void with(Located place, Map<String, Path> files) throws IOException;
    }

    /** Works with files, those of one place together. */
    protected void eachPlace(List<Path> files, PlaceWork work) throws IOException {
        for (List<Path> group : byPlace(files)) {
            Map<String, Path> paths = new LinkedHashMap<>();
            for (Path file : group) {
                try (Located each = locate(file)) {
                    paths.put(each.path(), each.file());
                }
            }
            try (Located place = locate(group.get(0))) {
                work.with(place, paths);
            }
        }
    }

    /**
     * A protected folder as a whole.
     *
     * @throws IllegalArgumentException with a message for the user, when it lies within one or is a place in another system
     */
    protected Located wholeFolder(Path folder) throws IOException {
        Located located = locate(folder);
        try {
            folderOnly(located);
            if (!located.path().isEmpty()) {
                throw new IllegalArgumentException(
                        Words.of("cli.place.wholeFolder", located.place().root()));
            }
            return located;
        } catch (IllegalArgumentException e) {
            located.close();
            throw e;
        }
    }

    /** Refuses what is only for folders. */
    protected static void folderOnly(Located located) {
        if (located.place().isOutside()) {
            throw new IllegalArgumentException(Words.of("cli.folderOnly", located.file()));
        }
    }

    /**
     * The moment that was typed; {@link Moment#FAR} for now, whatever the clock says; refused when it lies before the place
     * was first captured.
     */
    protected Instant moment(@Nullable String typed, Located located) throws IOException {
        if (typed == null) {
            return Moment.FAR;
        }
        try (Reading reading = located.vault().read()) {
            MomentReader moments = new MomentReader(reading, located.place(), located.path(), located.path());
            return Present.since(moments.read(typed, now(), zone()), now());
        }
    }

    /** A moment in words. */
    public String full(Instant moment) throws IOException {
        return moment.equals(Moment.FAR) ? Words.of("when.now") : Formats.full(moment, zone());
    }

    /** A moment as JSON has it. */
    public String iso(Instant moment) throws IOException {
        return (moment.equals(Moment.FAR) ? now() : moment).toString();
    }
}
