package org.mendedleaf.core.systems;

import java.io.IOException;
import java.util.List;

/** The systems that a user is connected to, as they are remembered. Implemented by the user's settings. */
public interface Connections {

    /** All of them, in the order in which they came. */
    List<Connection> connections();

    /** Adds a connection, or changes the one of the same name. */
    void connect(Connection connection) throws IOException;

    /**
     * Where a connection is reached, with its token, wherever that is kept. May wait for somebody to unlock the keyring.
     *
     * @throws SystemException.Refused when the keyring does not give it
     */
    default Endpoint endpoint(Connection connection) throws IOException {
        return connection.endpoint();
    }

    /** What the user is called. */
    String who();
}
