package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.words.Words;

/** The systems of a user by name, opened when they are needed and kept open. Safe for use by several threads. */
public class SystemRegistry {

    private final Connections connected;
    private final SystemOpener opener;
    private final Clock clock;
    private final Retry retry;
    private final Map<Connection, OutsideSystem> open = new ConcurrentHashMap<>();

    /** The systems of this user, opened by what speaks their protocols. */
    public SystemRegistry(Connections connected, SystemOpener opener, Clock clock, Retry retry) {
        this.connected = connected;
        this.opener = opener;
        this.clock = clock;
        this.retry = retry;
    }

    /** The connections, in the order in which they were made. */
    public List<Connection> connections() {
        synchronized (connected) {
            return connected.connections();
        }
    }

    SystemOpener opener() {
        return opener;
    }

    /** The connection of this name. */
    public Optional<Connection> connection(String name) {
        return connections().stream().filter(c -> c.name().equals(name)).findFirst();
    }

    /**
     * The system of this name.
     *
     * @throws SystemException.Missing when there is no such connection
     */
    public OutsideSystem system(String name) throws IOException {
        Connection c =
                connection(name).orElseThrow(() -> new SystemException.Missing(Words.of("system.notConnected", name)));
        OutsideSystem known = open.get(c);
        if (known != null) {
            return known;
        }
        OutsideSystem fresh = opener.open(c.name(), c.kind(), connected.endpoint(c), retry, clock);
        OutsideSystem other = open.putIfAbsent(c, fresh);
        return other == null ? fresh : other;
    }

    /** The system that a place is in. */
    public OutsideSystem system(Place place) throws IOException {
        return system(place.outside().orElseThrow().system());
    }

    /** The kind of the system that a place is in, if it is connected. */
    public Optional<SystemKind> kind(Place place) {
        return place.outside().flatMap(o -> connection(o.system())).map(Connection::kind);
    }
}
