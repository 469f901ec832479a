package org.mendedleaf.core.capture;

/** Who changed a file, as far as the system around us knows. */
public interface Authors {

    /**
     * Who saved what is in this file now.
     *
     * @param path from the place's root
     * @param owner name of the file's owner; may be empty
     */
    String author(String path, String owner);

    /** Who removed or moved this file; empty when nobody can tell. */
    default String remover(String path) {
        return "";
    }

    /** The owner of the file is its author; the person of this computer goes by the name that they chose. */
    static Authors owners(String login, String displayName) {
        return (path, owner) -> owner.isEmpty() || owner.equals(login) ? displayName : owner;
    }
}
