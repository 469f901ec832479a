package org.mendedleaf.standins;

/** What can happen to a request on its way. */
public enum Fault {
    /** Nothing. */
    NONE,
    /** The connection drops before anything was done. */
    DROP_BEFORE,
    /** It is done, and the connection drops before the answer. */
    DROP_AFTER,
    /** Half of what is sent arrives. */
    HALF_UPLOAD,
    /** Half of what is answered arrives. */
    HALF_DOWNLOAD,
    /** Half of what is answered arrives, and then nothing, with the connection left open. */
    STALL,
    /** The system says that it is too busy. */
    REFUSE
}
