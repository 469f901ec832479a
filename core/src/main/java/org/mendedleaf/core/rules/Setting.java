package org.mendedleaf.core.rules;

import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.mendedleaf.core.words.Words;

/** A setting of a place. Its words are {@code setting.NAME}, those of a choice {@code setting.NAME.x}. */
public enum Setting {
    /** Whether earlier contents are kept. */
    VERSIONING("on", "off", "on", "paused"),
    /** Whether there are drafts between whole versions. */
    NUMBERING("whole", "whole", "drafts"),
    /** How many published versions of a file are kept; 0 keeps all. */
    KEEP_VERSIONS("0"),
    /** Of how many of the newest published versions the drafts are kept; 0 keeps all. */
    KEEP_DRAFTS_OF("0"),
    /** Who may see drafts. */
    DRAFTS_SEEN_BY("editors", "everybody", "editors", "owner"),
    /** Who may make a draft a published version. */
    PUBLISHING("editors", "editors", "owner"),
    /** Whether a file must be checked out before it is changed. */
    CHECK_OUT("free", "free", "needed"),
    /** What happens to a file that is put in where one has its name. */
    COLLISION("version", "version", "keep-both", "skip"),
    /** For how many days removed files can be brought back. */
    REMOVED_DAYS("30"),
    /** How many megabytes the place may take; 0 sets no limit. */
    QUOTA_MB("0"),
    /** After how many days a replaced version is forgotten; 0 never. */
    EXPIRE_DAYS("0"),
    /** How many of the newest replaced versions stay all the same. */
    EXPIRE_KEEP("0"),
    /** How often a snapshot is taken. */
    SNAPSHOT_EVERY("hand", "hand", "hour", "day", "week"),
    /** How many snapshots are kept; the oldest go first. */
    SNAPSHOT_KEEP("10"),
    /** How often a backup run is due. */
    BACKUP_EVERY("day", "hand", "hour", "day", "week"),
    /** How long runs are kept. */
    BACKUP_KEEP(
            "until-full", "1-month", "3-months", "6-months", "9-months", "1-year", "2-years", "until-full", "for-good");

    /** What {@code until-full} was called at first; vaults and systems may still say so. */
    private static final String UNTIL_FULL_BEFORE = "room";

    private static final long MOST = 1_000_000;

    private final String standard;
    private final List<String> choices;

    Setting(String standard, String... choices) {
        this.standard = standard;
        this.choices = List.of(choices);
    }

    /** The value of a new place. */
    public String standard() {
        return standard;
    }

    /** What can be chosen; empty for a number. */
    public List<String> choices() {
        return choices;
    }

    /** Whether its value is a number from 0 on. */
    public boolean isNumber() {
        return choices.isEmpty();
    }

    /** Settings by name, as the command line writes them. */
    static String names(Collection<Setting> settings) {
        return settings.stream().map(Setting::text).collect(Collectors.joining(", "));
    }

    /** How it is written on the command line and sent to a system. */
    public String text() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /**
     * Checks a value.
     *
     * @return the value
     * @throws IllegalArgumentException with a message for the user
     */
    public String check(String value) {
        if (this == BACKUP_KEEP && value.equals(UNTIL_FULL_BEFORE)) {
            return standard;
        }
        if (isNumber()) {
            int least = this == SNAPSHOT_KEEP ? 1 : 0;
            if (!value.matches("\\d{1,7}") || Long.parseLong(value) > MOST || Long.parseLong(value) < least) {
                throw new IllegalArgumentException(Words.of("setting.badNumber", text(), value, least, MOST));
            }
        } else if (!choices.contains(value)) {
            throw new IllegalArgumentException(
                    Words.of("setting.badChoice", text(), value, String.join(", ", choices)));
        }
        return value;
    }

    /**
     * The setting that is written so.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static Setting parse(String text) {
        for (Setting s : values()) {
            if (s.text().equals(text)) {
                return s;
            }
        }
        throw new IllegalArgumentException(Words.of("setting.unknown", text, names(Arrays.asList(values()))));
    }
}
