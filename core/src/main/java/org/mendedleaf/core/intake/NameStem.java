package org.mendedleaf.core.intake;

import java.text.Normalizer;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The name of a file without what people and programs add to tell copies apart: {@code (1)}, {@code copy of}, {@code v2},
 * {@code final}, whole dates. {@code Plan v2 FINAL (1).odt} has the stem {@code plan}.
 *
 * @param base what is left, in lower case; never empty
 * @param ending with its dot, in lower case; empty when there is none
 * @param decorated whether anything was taken off
 * @param rank what a version number in the name says of the order among copies; -1 when there is none
 */
public record NameStem(String base, String ending, boolean decorated, int rank) {

    private static final String GAP = "[\\s_.,-]*";
    private static final String DATE = "(?:(?:19|20)\\d{2}[-_. ]?(?:0[1-9]|1[0-2])[-_. ]?(?:0[1-9]|[12]\\d|3[01])"
            + "|(?:0?[1-9]|[12]\\d|3[01])[-_.](?:0?[1-9]|1[0-2])[-_.](?:19|20)\\d{2})";
    private static final String CLOCK = "(?:[\\s_T-]+(?:[01]?\\d|2[0-3])[-_.:h]?[0-5]\\d(?:[-_.:]?[0-5]\\d)?)?";
    private static final String WORDS =
            "final|finale|finished|definitive|definitief|new|newest|latest|last|neu|neueste|nieuw"
                    + "|nouveau|nouvelle|old|older|alt|oud|ancien|edited|edit|corrected|correction|revised|updated|update|fixed"
                    + "|approved|signed|draft|entwurf|concept|brouillon|backup|bak|save|saved|ok";

    private static final Pattern NUMBERED = Pattern.compile("^(.+?)\\s*[(\\[]\\d{1,3}[)\\]]$");
    private static final Pattern VERSION =
            Pattern.compile("^(.+?)(?:" + GAP + "[(\\[]|[\\s_.,-]+)(?:v|ver|vers|version|rev|revision|r|draft)[ ._-]*"
                    + "(\\d{1,4})((?:\\.\\d{1,4})*)[)\\]]?$");
    private static final Pattern SUFFIX = Pattern.compile("^(.+?)(?:[\\s_.,-]+|" + GAP + "[(\\[])(?:" + WORDS
            + "|(?:copy|kopie|copie|copia|kopia)(?:[ _-]?\\d{1,3})?)[)\\]]?$");
    private static final Pattern DATED =
            Pattern.compile("^(.+?)(?:[\\s_.,-]+|" + GAP + "[(\\[])" + DATE + CLOCK + "[)\\]]?$");
    private static final Pattern PREFIX = Pattern.compile("^(?:(?:copy|kopie|copie|copia|kopia)(?: ?\\(?\\d{1,3}\\)?)?"
            + " (?:of|von|van|de|di) |(?:" + WORDS + ")[\\s_-]+|" + DATE + CLOCK + "[\\s_.,-]+)(.+)$");

    private static final List<Pattern> ENDS = List.of(NUMBERED, SUFFIX, DATED);

    private static final Set<String> ALONE = Set.of(WORDS.split("\\|"));
    private static final List<String> COPY = List.of("copy", "kopie", "copie", "copia", "kopia");
    private static final String SEPARATORS = " \t\n\u000B\f\r_.,-";

    private static String plain(String name) {
        return Normalizer.normalize(name, Normalizer.Form.NFKC)
                .toLowerCase(Locale.ROOT)
                .strip();
    }

    private static String ending(String plain) {
        int dot = plain.lastIndexOf('.');
        return dot > 0 && plain.length() - dot <= 8 && isEnding(plain, dot + 1) ? plain.substring(dot) : "";
    }

    /** The ending of a name, as its stem has it. */
    static String endingOf(String name) {
        return ending(plain(name));
    }

    /** The stem of a name. */
    public static NameStem of(String name) {
        String plain = plain(name);
        String ending = ending(plain);
        String base = plain.substring(0, plain.length() - ending.length());
        int rank = -1;
        boolean decorated = false;
        while (true) {
            String next = base;
            boolean ends = mayEnd(base);
            Matcher version = VERSION.matcher(base);
            if (ends && version.matches()) {
                next = version.group(1);
                rank = rank < 0 ? Integer.parseInt(version.group(2)) : rank;
            } else {
                for (Pattern p : ends ? endsOf(base) : List.<Pattern>of()) {
                    Matcher m = p.matcher(base);
                    if (m.matches()) {
                        next = m.group(1);
                        break;
                    }
                }
                if (next.equals(base) && mayBegin(base)) {
                    Matcher before = PREFIX.matcher(base);
                    next = before.matches() ? before.group(1) : base;
                }
            }
            next = withoutEnd(next.strip());
            if (next.equals(base) || next.isEmpty() || next.chars().noneMatch(Character::isLetter)) {
                break;
            }
            decorated = true;
            base = next;
        }
        return new NameStem(spaced(base), ending, decorated, rank);
    }

    private static boolean isEnding(String plain, int from) {
        for (int i = from; i < plain.length(); i++) {
            char c = plain.charAt(i);
            if ((c < 'a' || c > 'z') && (c < '0' || c > '9')) {
                return false;
            }
        }
        return from < plain.length();
    }

    /** Whether something could be taken off the end; most names need not be held against any pattern. */
    static boolean mayEnd(String base) {
        if (base.isEmpty()) {
            return false;
        }
        char last = base.charAt(base.length() - 1);
        if (last == ')' || last == ']' || Character.isDigit(last)) {
            return true;
        }
        int at = base.length();
        while (at > 0 && "([".indexOf(base.charAt(at - 1)) < 0 && SEPARATORS.indexOf(base.charAt(at - 1)) < 0) {
            at--;
        }
        String word = base.substring(at);
        return ALONE.contains(word) || COPY.contains(word);
    }

    /** Which patterns may take something off an end that {@link #mayEnd} lets through. */
    private static List<Pattern> endsOf(String base) {
        if (!Character.isDigit(base.charAt(base.length() - 1))) {
            return ENDS;
        }
        boolean copies = COPY.stream().anyMatch(base::contains);
        boolean dated = base.contains("19") || base.contains("20");
        return copies ? ENDS : dated ? List.of(DATED) : List.of();
    }

    /** Whether something could be taken off the beginning. */
    static boolean mayBegin(String base) {
        if (base.isEmpty() || Character.isDigit(base.charAt(0))) {
            return !base.isEmpty();
        }
        int end = 0;
        while (end < base.length() && SEPARATORS.indexOf(base.charAt(end)) < 0) {
            end++;
        }
        return ALONE.contains(base.substring(0, end)) || COPY.stream().anyMatch(base::startsWith);
    }

    private static String withoutEnd(String text) {
        int end = text.length();
        while (end > 0 && SEPARATORS.indexOf(text.charAt(end - 1)) >= 0) {
            end--;
        }
        return text.substring(0, end);
    }

    /** With one space for what separates words. */
    private static String spaced(String text) {
        StringBuilder out = new StringBuilder(text.length());
        boolean gap = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean separates = SEPARATORS.indexOf(c) >= 0 && c != '.' && c != ',';
            if (!separates) {
                out.append(c);
            } else if (!gap) {
                out.append(' ');
            }
            gap = separates;
        }
        return out.toString();
    }

    /** Whether two names differ in decorations only. */
    public boolean sameFile(NameStem other) {
        return base.equals(other.base) && ending.equals(other.ending);
    }
}
