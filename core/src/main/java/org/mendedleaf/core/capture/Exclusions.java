package org.mendedleaf.core.capture;

import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.PatternSyntaxException;
import org.jspecify.annotations.Nullable;
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

    /** What is always left out: lock and temporary files of office programs, unfinished downloads; and our own, by their names. */
    public static final List<String> STANDING = List.of(
            "~$*",
            ".~lock.*#",
            "~*.tmp",
            "*.tmp",
            ".#*",
            ".*.swp",
            ".*.swo",
            ".*.swx",
            "*.crdownload",
            "*.part",
            ".DS_Store",
            "Thumbs.db",
            "desktop.ini");

    /** What is said of our own unfinished files, see {@link SafeFolder#ownName}. */
    private static final String OWN = ".mended-leaf-*";

    /** One pattern; {@code start} and {@code end} are set where it is text with at most one star, as most are. */
    private record Rule(
            String pattern,
            @Nullable String start,
            @Nullable String end,
            PathMatcher matcher,
            boolean wholePath,
            boolean folderOnly) {

        boolean fits(String name) {
            if (start == null) {
                return matcher.matches(Path.of(name));
            }
            return end == null
                    ? name.equals(start)
                    : name.length() >= start.length() + end.length() && name.startsWith(start) && name.endsWith(end);
        }
    }

    private final List<Rule> rules = new ArrayList<>();

    /** The standing exclusions and these. */
    public Exclusions(List<String> patterns) {
        STANDING.forEach(p -> rules.add(rule(p)));
        patterns.forEach(p -> rules.add(rule(p)));
    }

    /**
     * Checks a pattern as a user typed it.
     *
     * @throws IllegalArgumentException with a message for the user
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
            boolean wholePath = glob.contains("/") || pattern.startsWith("/");
            int star = glob.indexOf('*');
            boolean plain = !wholePath && !glob.matches(".*[?\\[\\]{}\\\\].*") && glob.indexOf('*', star + 1) < 0;
            String start = !plain ? null : star < 0 ? glob : glob.substring(0, star);
            String end = !plain || star < 0 ? null : glob.substring(star + 1);
            return new Rule(pattern, start, end, matcher, wholePath, folderOnly);
        } catch (PatternSyntaxException e) {
            throw new IllegalArgumentException(Words.of("exclusion.unreadable", pattern, e.getDescription()), e);
        }
    }

    /** The pattern that leaves out this name, if one does. */
    public Optional<String> find(String folder, String name, boolean isFolder) {
        if (SafeFolder.isOwnName(name)) {
            return Optional.of(OWN);
        }
        for (Rule rule : rules) {
            if (rule.folderOnly() && !isFolder) {
                continue;
            }
            boolean fits =
                    rule.wholePath() ? rule.matcher().matches(Path.of(folder).resolve(name)) : rule.fits(name);
            if (fits) {
                return Optional.of(rule.pattern());
            }
        }
        return Optional.empty();
    }
}
