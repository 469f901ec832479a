package org.mendedleaf.core.catalogue;

import org.mendedleaf.core.time.Moment;

/**
 * Questions about the times of single names. The key of the table begins with the folder: what ended is found by an index of its own, and the
 * order of the tables is fixed, so that none of these goes through all that is in the folder.
 */
final class Spans {

    /** The names that a line ever had. Parameter 1: the line. */
    static final String NODES_OF_LINE = "(SELECT node FROM version WHERE line = ?1 UNION SELECT origin_node FROM event"
            + " WHERE line = ?1 UNION SELECT target_node FROM event WHERE line = ?1)";

    /** When what was last under a name ended; nothing when it never did. Parameter: the id of the name. */
    static final String LAST_END = "SELECT max(valid_to) FROM span WHERE node = ? AND valid_to < " + Moment.OPEN;

    private Spans() {}

    /**
     * All times of some names.
     *
     * @param columns of {@code n}, a name, and {@code s}, its time
     * @param nodes a list of ids in brackets, or a question that gives it
     * @param more conditions, each with AND before it
     */
    static String of(String columns, String nodes, String more) {
        String select = "SELECT " + columns + " FROM node n CROSS JOIN span s ON s.node = n.id";
        return select + " AND s.folder = n.folder AND s.valid_to = " + Moment.OPEN + " WHERE n.id IN " + nodes + more
                + " UNION ALL " + select + " AND s.valid_to < " + Moment.OPEN + " WHERE n.id IN " + nodes + more;
    }
}
