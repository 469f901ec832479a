package org.mendedleaf.core.retention;

/** Why a version is kept, or may go. In the order of precedence among those that keep. */
public enum Reason {
    /** Somebody holds it. */
    HELD(true),
    /** A snapshot that stands shows it. */
    SNAPSHOT(true),
    /** It is what the file holds now. */
    NEWEST(true),
    /** It is among so many of the newest as are always kept. */
    AT_LEAST(true),
    /** Every version is kept for a time. */
    EVERYTHING(true),
    /** The last one of its hour. */
    HOURLY(true),
    /** The last one of its day. */
    DAILY(true),
    /** The last one of its week. */
    WEEKLY(true),
    /** The last one of its month. */
    MONTHLY(true),
    /** The last one of its year. */
    YEARLY(true),
    /** The newest of a removed file, which is kept for a time or for good. */
    REMOVED_FILE(true),
    /** Its rule names no times: all is kept. */
    ALL(true),
    /** No rule is for this file: all is kept. */
    NO_RULE(true),
    /** Other systems hold its content, or it is gone: there is nothing to decide here. */
    NOT_HERE(true),
    /** It was let go and can be taken back until its grace ends. */
    WAITING(true),
    /** No time keeps it any longer. */
    THINNED(false),
    /** There are more of the file than are kept at most. */
    TOO_MANY(false),
    /** It is older than anything that is kept. */
    TOO_OLD(false),
    /** Its file was removed longer ago than removed files are kept. */
    REMOVED_LONG_AGO(false),
    /** There are more published versions than its place keeps. */
    PUBLISHED(false),
    /** It is a draft of a published version whose drafts its place keeps no longer. */
    DRAFT(false),
    /** Its space was needed. */
    ROOM(false),
    /** The versions of its rule take more space than the rule allows. */
    CAP(false),
    /** Somebody asked for fewer versions than there are. */
    ASKED(false);

    private final boolean keeps;

    Reason(boolean keeps) {
        this.keeps = keeps;
    }

    /** Whether the version stays. */
    public boolean keeps() {
        return keeps;
    }

    static Reason of(Level level) {
        return switch (level) {
            case HOURLY -> HOURLY;
            case DAILY -> DAILY;
            case WEEKLY -> WEEKLY;
            case MONTHLY -> MONTHLY;
            case YEARLY -> YEARLY;
        };
    }
}
