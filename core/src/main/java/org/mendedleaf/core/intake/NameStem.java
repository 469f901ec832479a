package org.mendedleaf.core.intake;

import java.text.Normalizer;
import java.util.List;
import java.util.Locale;
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

    /** The stem of a name. */
    public static NameStem of(String name) {
        String plain = Normalizer.normalize(name, Normalizer.Form.NFKC)
                .toLowerCase(Locale.ROOT)
                .strip();
        int dot = plain.lastIndexOf('.');
        boolean hasEnding =
                dot > 0 && plain.length() - dot <= 8 && plain.substring(dot + 1).matches("[a-z0-9]+");
        String ending = hasEnding ? plain.substring(dot) : "";
        String base = hasEnding ? plain.substring(0, dot) : plain;
        int rank = -1;
        boolean decorated = false;
        while (true) {
            Matcher version = VERSION.matcher(base);
            String next = base;
            if (version.matches()) {
                next = version.group(1);
                rank = rank < 0 ? Integer.parseInt(version.group(2)) : rank;
            } else {
                for (Pattern p : ENDS) {
                    Matcher m = p.matcher(base);
                    if (m.matches()) {
                        next = m.group(1);
                        break;
                    }
                }
                Matcher before = PREFIX.matcher(base);
                if (next.equals(base) && before.matches()) {
                    next = before.group(1);
                }
            }
            next = next.strip().replaceAll("[\\s_.,-]+$", "");
            if (next.equals(base) || next.isEmpty() || next.chars().noneMatch(Character::isLetter)) {
                break;
            }
            decorated = true;
            base = next;
        }
        return new NameStem(base.replaceAll("[\\s_-]+", " "), ending, decorated, rank);
    }

    /** Whether two names differ in decorations only. */
    public boolean sameFile(NameStem other) {
        return base.equals(other.base) && ending.equals(other.ending);
    }
}
