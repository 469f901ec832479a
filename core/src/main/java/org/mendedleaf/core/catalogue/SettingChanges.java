package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/** Who changed which setting of a place, and when. They stand in the journal. */
public final class SettingChanges {

    /** The name under which it is noted that a folder was protected; its value is how often it is captured. */
    public static final String PROTECTED = "protected";

    private static final String EVERY = "every";

    private SettingChanges() {}

    /** Notes one; nothing where nothing is other than it was. Values are as the command line has them. */
    public static void note(
            WriteSession session, long place, Instant now, String who, String name, String was, String became)
            throws IOException {
        if (!was.equals(became)) {
            long id = session.nextId(WriteSession.Table.SETTING_CHANGE);
            session.apply(Op.SETTING_CHANGED, id, place, Moment.micros(now), who, name, was, became);
        }
    }

    /** Notes what is other about a folder. */
    public static void note(WriteSession session, Place before, Place after, Instant now, String who)
            throws IOException {
        long id = after.id();
        note(
                session,
                id,
                now,
                who,
                EVERY,
                before.rhythm().text(),
                after.rhythm().text());
        String was = String.join(", ", before.exclusions());
        note(session, id, now, who, "exclude", was, String.join(", ", after.exclusions()));
    }

    /** One in words. */
    static String words(String name, String was, String became) {
        return name.equals(PROTECTED)
                ? Words.of("journal.setting.protected", value(EVERY, became))
                : Words.of("journal.setting", label(name), value(name, was), value(name, became));
    }

    /** What it is called; a member of a place is called by their own name. */
    private static String label(String name) {
        return wordsOr("setting." + name, name);
    }

    private static String value(String name, String value) {
        if (value.isEmpty()) {
            return Words.plain("journal.setting.none");
        }
        if (name.equals(EVERY)) {
            try {
                return Rhythm.parse(value).words();
            } catch (IllegalArgumentException e) {
                // Noted by a program that knew other rhythms.
                return value;
            }
        }
        String role = Words.bundle().containsKey("setting." + name) ? value : wordsOr("role." + value, value);
        return wordsOr("setting." + name + "." + value, role);
    }

    private static String wordsOr(String key, String other) {
        return Words.bundle().containsKey(key) ? Words.plain(key) : other;
    }
}
