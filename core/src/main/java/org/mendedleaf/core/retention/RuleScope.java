package org.mendedleaf.core.retention;

import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.words.Words;

/**
 * Which files a rule is for. Each part that is empty lets all through.
 *
 * @param places by what people call them, or by their whole path
 * @param folders from the place's root; with all below
 * @param names patterns of file names, with {@code *} and {@code ?}
 * @param kinds by what a file's name promises
 */
public record RuleScope(List<String> places, List<String> folders, List<String> names, Set<ContentKind> kinds) {

    /** All files of all places. */
    public static final RuleScope ALL = new RuleScope(List.of(), List.of(), List.of(), Set.of());

    /** How much more a pattern of names, and a kind, count than a place; a folder counts by its depth. */
    private static final int NAMES = 4;

    private static final int KINDS = 2;
    private static final int DEPTH = 8;

    /** Copies, and refuses folders that are no paths in a place. */
    public RuleScope {
        places = List.copyOf(places);
        folders = folders.stream().map(RuleScope::folder).toList();
        names = List.copyOf(names);
        kinds = Set.copyOf(kinds);
    }

    private static String folder(String text) {
        String plain = text.strip();
        while (plain.startsWith("/")) {
            plain = plain.substring(1);
        }
        while (plain.endsWith("/")) {
            plain = plain.substring(0, plain.length() - 1);
        }
        if (plain.isEmpty() || List.of(plain.split("/", -1)).contains("..")) {
            throw new IllegalArgumentException(Words.of("rule.badFolder", text));
        }
        return plain;
    }

    /**
     * How closely it fits a folder: more is more specific.
     *
     * @return -1 when it does not fit, whatever the file
     */
    int fitsFolder(String label, String where, String folder) {
        int weight = 0;
        if (!places.isEmpty()) {
            if (places.stream().noneMatch(p -> p.equals(label) || p.equals(where))) {
                return -1;
            }
            weight++;
        }
        if (!folders.isEmpty()) {
            int deepest = 0;
            for (String f : folders) {
                if (folder.equals(f) || folder.startsWith(f + "/")) {
                    deepest = Math.max(deepest, f.split("/", -1).length);
                }
            }
            if (deepest == 0) {
                return -1;
            }
            weight += deepest * DEPTH;
        }
        return weight + (names.isEmpty() ? 0 : NAMES) + (kinds.isEmpty() ? 0 : KINDS);
    }

    /** Whether it needs the name of a file to tell. */
    boolean asksName() {
        return !names.isEmpty() || !kinds.isEmpty();
    }

    /** The patterns of names, ready to match; compiled once for all files. */
    List<PathMatcher> matchers() {
        List<PathMatcher> all = new ArrayList<>();
        for (String n : names) {
            all.add(FileSystems.getDefault().getPathMatcher("glob:" + n.toLowerCase(Locale.ROOT)));
        }
        return all;
    }

    /** Whether a file's name fits. */
    boolean fitsName(String name, List<PathMatcher> matchers) {
        boolean kind = kinds.isEmpty() || kinds.contains(ContentKind.byName(name));
        return kind && (names.isEmpty() || anyMatches(name, matchers));
    }

    private static boolean anyMatches(String name, List<PathMatcher> matchers) {
        Path file = Path.of(name.toLowerCase(Locale.ROOT));
        return matchers.stream().anyMatch(m -> m.matches(file));
    }

    /** In words: {@code pictures in Labels of Front desk}. */
    public String words() {
        List<String> parts = new ArrayList<>();
        if (!kinds.isEmpty()) {
            parts.add(String.join(
                    Words.of("scope.or"),
                    kinds.stream().sorted().map(k -> Words.of("kinds." + k)).toList()));
        } else {
            parts.add(Words.of(names.isEmpty() && folders.isEmpty() && places.isEmpty() ? "scope.all" : "scope.files"));
        }
        if (!names.isEmpty()) {
            parts.add(Words.of("scope.named", String.join(Words.of("scope.or"), names)));
        }
        if (!folders.isEmpty()) {
            parts.add(Words.of("scope.in", String.join(Words.of("scope.or"), folders)));
        }
        if (!places.isEmpty()) {
            parts.add(Words.of("scope.of", String.join(Words.of("scope.or"), places)));
        }
        return String.join(" ", parts);
    }
}
