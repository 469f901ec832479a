package org.mendedleaf.core.intake;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What the name of a safety copy says of the file that it is a copy of. */
final class StrayName {

    private static final String ENDINGS =
            "bak|bak\\d|old|orig|save|sav|tmp|temp|autosave|backup|bkp|swap|prev|previous|rej|asv|asd|wbk|xlk|sv\\$";

    private static final List<Pattern> PATTERNS = List.of(
            // plan.odg.bak, plan.odg.~1~, plan.odg~
            Pattern.compile("^(?<of>.+?)(?:\\.(?:" + ENDINGS + ")|\\.~\\d+~|~+)$", Pattern.CASE_INSENSITIVE),
            // #plan.odg#, .#plan.odg
            Pattern.compile("^#(?<of>.+)#$"),
            // ~plan.odg, ~plan~.odg
            Pattern.compile("^~+(?<of>[^~$].*?)~*$"),
            // plan_autosave.odg, plan-backup.odg, plan (autosaved).odg
            Pattern.compile(
                    "^(?<stem>.+?)[\\s_.-]*[(\\[]?(?:autosaved?|autorecovery|recovered|backup|backupcopy|sicherung|reservekopie)"
                            + "(?:[\\s_-]*\\d{1,4})?[)\\]]?(?<ending>\\.[^.]{1,8})$",
                    Pattern.CASE_INSENSITIVE),
            // autosave of plan.odg, backup of plan.odg
            Pattern.compile(
                    "^(?:autosave|autorecovery save|autorecovery|backup|recovered|safety copy)(?: copy)?[\\s_-]+(?:of[\\s_-]+)?(?<of>.+)$",
                    Pattern.CASE_INSENSITIVE));

    private StrayName() {}

    /** The name that the file it belongs to would have; empty when the name is that of an ordinary file. */
    static Optional<String> original(String name) {
        for (Pattern p : PATTERNS) {
            Matcher m = p.matcher(name);
            if (m.matches()) {
                boolean parts = p.pattern().contains("<stem>");
                String of = parts ? m.group("stem") + m.group("ending") : m.group("of");
                return Optional.of(original(of).orElse(of));
            }
        }
        return Optional.empty();
    }

    /** Whether an ending is one that safety copies have, and says nothing of the kind of the content. */
    static boolean isStrayEnding(String name) {
        int dot = name.lastIndexOf('.');
        return dot >= 0 && name.substring(dot + 1).toLowerCase(Locale.ROOT).matches(ENDINGS);
    }
}
