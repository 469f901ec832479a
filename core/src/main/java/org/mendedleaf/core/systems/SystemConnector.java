package org.mendedleaf.core.systems;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.PlaceWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.words.Words;

/** Connects systems, makes places in them, changes their settings, declares what belongs together. */
public final class SystemConnector {

    /** How often a place in a system is looked at unless chosen otherwise, minutes. */
    public static final int LOOK_MINUTES = 10;

    private final Connections connected;
    private final SystemRegistry registry;
    private final Clock clock;

    /** Connecting for this user. */
    public SystemConnector(Connections connected, SystemRegistry registry, Clock clock) {
        this.connected = connected;
        this.registry = registry;
        this.clock = clock;
    }

    /**
     * Connects a system, or changes how one that is connected is reached. It is asked at once; nothing is remembered when it
     * does not answer.
     *
     * @param kind what it is; null to ask it
     * @throws SystemException.Untrusted when its certificate is not enough; it may be chosen by its fingerprint then
     */
    public Connection connect(String name, @Nullable SystemKind kind, Endpoint at, OpenVault vault, Retry retry)
            throws IOException {
        registry.opener().checkAddress(at.address());
        Path root = vault.folder().root();
        // Checks the name before anything is sent.
        new Connection(name, SystemKind.WEBDAV, at.address(), at.token(), root);
        SystemKind found = kind == null ? registry.opener().kindOf(name, at, retry) : kind;
        OutsideSystem system = registry.opener().open(name, found, at, retry, clock);
        system.state();
        Connection connection = new Connection(name, found, at.address(), at.token(), root, at.certificate(), "");
        synchronized (connected) {
            connected.connect(connection);
        }
        // As it is remembered: the keyring may have its token.
        return registry.connection(name).orElse(connection);
    }

    /** Takes the places of a system among those of its vault; returns all of them. */
    public List<Place> takeIn(Connection connection, OpenVault vault) throws IOException {
        List<String> names = registry.system(connection.name()).places().stream()
                .map(OutsideSystem.OutsidePlace::name)
                .toList();
        List<Place> places = new ArrayList<>();
        try (WriteSession session = vault.write()) {
            PlaceWriter writer = new PlaceWriter(session);
            for (String n : names) {
                Optional<Place> known;
                try (Reading reading = vault.read()) {
                    known = reading.outsidePlace(connection.name(), n);
                }
                places.add(
                        known.isPresent()
                                ? known.get()
                                : writer.outside(
                                        new Source.Outside(connection.name(), n),
                                        Rhythm.every(LOOK_MINUTES),
                                        clock.instant()));
            }
            session.commit();
        }
        return places;
    }

    /** Makes a place in a system and takes it in. */
    public Place create(Connection connection, String place, PlaceSettings settings, OpenVault vault)
            throws IOException {
        if (place.isBlank() || place.indexOf(':') >= 0 || place.indexOf('/') >= 0) {
            throw new IllegalArgumentException(Words.of("place.badName", place));
        }
        registry.system(connection.name()).create(place, settings);
        return takeIn(connection, vault).stream()
                .filter(p -> p.outside().orElseThrow().place().equals(place))
                .findFirst()
                .orElseThrow(() -> new SystemException.Missing(Words.of("system.noPlace", place)));
    }

    /** Changes the settings of a place and looks at it again. */
    public void configure(Place place, PlaceSettings settings, OpenVault vault) throws IOException {
        OutsideSystem system = registry.system(place);
        Optional<OutsidePlaceState> before;
        try (Reading reading = vault.read()) {
            before = OutsidePlaceState.of(reading, place);
        }
        system.configure(place.outside().orElseThrow().place(), settings);
        try (WriteSession session = vault.write()) {
            PlaceSettings was = before.map(OutsidePlaceState::settings).orElse(settings);
            PlaceRules.note(session, place.id(), was, settings, clock.instant(), connected.who());
            session.commit();
        }
        new Mirror(vault, place, system, clock).run(org.mendedleaf.core.jobs.Progress.NONE);
    }

    /** Changes how often a place is looked at. */
    public void rhythm(OpenVault vault, Source.Outside source, Rhythm rhythm) throws IOException {
        try (WriteSession session = vault.write()) {
            new PlaceWriter(session).outside(source, rhythm, clock.instant());
            session.commit();
        }
    }

    /** Declares that a folder and a place, or a folder in it, are the same files. */
    public void relate(OpenVault vault, Relation relation) throws IOException {
        try (WriteSession session = vault.write()) {
            OutsideWriter.relate(session, relation);
            session.commit();
        }
    }

    /** Takes such a declaration back. */
    public void unrelate(OpenVault vault, Relation relation) throws IOException {
        try (WriteSession session = vault.write()) {
            OutsideWriter.unrelate(session, relation);
            session.commit();
        }
    }
}
