package org.mendedleaf.core.systems;

import java.io.IOException;
import java.util.List;

/** The systems that a user is connected to, as they are remembered. Implemented by the user's settings. */
public interface Connections {

    /** All of them, in the order in which they came. */
    List<Connection> connections();

    /** Adds a connection, or changes the one of the same name. */
    void connect(Connection connection) throws IOException;

    /** What the user is called. */
    String who();
}
