package org.mendedleaf.standins;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;

/** Names and paths that came over the connection: none of them leads out of the folder that it is meant for. */
final class SafePath {

    /** Characters of a name; more than any file system takes. */
    private static final int LONGEST = 255;

    private SafePath() {}

    /**
     * A single name.
     *
     * @throws Problem when it is none, or would be a step or a path
     */
    static String name(String name) throws Problem {
        boolean bad = name.isEmpty()
                || name.length() > LONGEST
                || name.equals(".")
                || name.equals("..")
                || name.indexOf('/') >= 0
                || name.indexOf(File.separatorChar) >= 0
                || name.indexOf('\0') >= 0;
        if (bad) {
            throw Problem.bad("the name '" + name + "'");
        }
        return name;
    }

    /**
     * A file or folder in a folder.
     *
     * @param path names with slashes between them; empty for the folder itself
     * @throws Problem when a part of it is no name, or a link that would lead elsewhere
     */
    static Path inside(Path folder, String path) throws Problem {
        Path at = folder;
        if (path.isEmpty()) {
            return at;
        }
        String[] names = path.split("/", -1);
        for (int i = 0; i < names.length; i++) {
            try {
                at = at.resolve(name(names[i]));
            } catch (InvalidPathException e) {
                throw Problem.bad("the name '" + names[i] + "'");
            }
            if (i + 1 < names.length && Files.isSymbolicLink(at)) {
                throw Problem.missing(path);
            }
        }
        return at;
    }
}
