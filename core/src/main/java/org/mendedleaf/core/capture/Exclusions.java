package org.mendedleaf.core.capture;

import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.PatternSyntaxException;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.words.Words;

/**
 * What is left out of a place. A pattern is a glob ({@code *}, {@code ?}, {@code [abc]}, {@code {a,b}}): without a slash
 * it is held against each name, with one against the path from the place's root, where {@code **} crosses folders. A
 * slash at the end means folders only.
 *
 * <pre>{@code
 * *.iso            any file or folder with such a name
 * build/           any folder of that name, with all in it
 * Archive/2019/**  all in that folder
 * }</pre>
 */
public final class Exclusions {

    /** What is always left out: lock and temporary files of office programs, unfinished downloads, our own. */
    public static final List<String> STANDING = List.of(
            SafeFolder.OWN_PREFIX + "*",
            "~$*",
            ".~lock.*#",
            "~*.tmp",
            "*.tmp",
            ".#*",
            ".*.sw[pox]",
            "*.crdownload",
            "*.part",
            ".DS_Store",
            "Thumbs.db",
            "desktop.ini");

    private record Rule(String pattern, PathMatcher matcher, boolean wholePath, boolean folderOnly) {}

    private final List<Rule> rules = new ArrayList<>();

    /** The standing exclusions and these. */
    public Exclusions(List<String> patterns) {
        STANDING.forEach(p -> rules.add(rule(p)));
        patterns.forEach(p -> rules.add(rule(p)));
    }

    /**
     * Checks a pattern as a user typed it.
     *
     * @throws IllegalArgumentException in words
     */
    public static void check(String pattern) {
        rule(pattern);
    }

    private static Rule rule(String pattern) {
        boolean folderOnly = pattern.endsWith("/");
        String glob = folderOnly ? pattern.substring(0, pattern.length() - 1) : pattern;
        if (glob.startsWith("/")) {
            glob = glob.substring(1);
        }
        if (glob.isBlank()) {
            throw new IllegalArgumentException(Words.of("exclusion.empty"));
        }
        try {
            PathMatcher matcher = FileSystems.getDefault().getPathMatcher("glob:" + glob);
            return new Rule(pattern, matcher, glob.contains("/") || pattern.startsWith("/"), folderOnly);
        } catch (PatternSyntaxException e) {
            throw new IllegalArgumentException(Words.of("exclusion.unreadable", pattern, e.getDescription()), e);
        }
    }

    /** The pattern that leaves out this name, if one does. */
    public Optional<String> find(String folder, String name, boolean isFolder) {
        Path nameOnly = Path.of(name);
        Path whole = null;
        for (Rule rule : rules) {
            if (rule.folderOnly() && !isFolder) {
                continue;
            }
            if (rule.wholePath() && whole == null) {
                whole = Path.of(folder).resolve(name);
            }
            Path held = rule.wholePath() && whole != null ? whole : nameOnly;
            if (rule.matcher().matches(held)) {
                return Optional.of(rule.pattern());
            }
        }
        return Optional.empty();
    }
}
