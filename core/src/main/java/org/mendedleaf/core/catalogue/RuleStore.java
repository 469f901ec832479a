package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;

/** How protected folders are worked with, as names and values, and who their members are. */
public final class RuleStore {

    private final Sql sql;

    private RuleStore(Sql sql) {
        this.sql = sql;
    }

    /** As a reader sees them. */
    public static RuleStore of(Reading reading) {
        return new RuleStore(reading.sql());
    }

    /** As a session sees them. */
    public static RuleStore of(WriteSession session) {
        return new RuleStore(session.sql());
    }

    /** The rules of a place that were ever chosen, by name. */
    public Map<String, String> rules(long place) throws IOException {
        return pairs("SELECT name, value FROM rule WHERE place = ? ORDER BY name", place);
    }

    /** The members of a place and their roles, by name. */
    public Map<String, String> members(long place) throws IOException {
        return pairs("SELECT who, role FROM member WHERE place = ? ORDER BY who", place);
    }

    private Map<String, String> pairs(String query, long place) throws IOException {
        Map<String, String> all = new LinkedHashMap<>();
        sql.list(query, r -> all.put(r.getString(1), r.getString(2)), place);
        return all;
    }

    /** Sets a rule. */
    public static void rule(WriteSession session, long place, String name, String value) throws IOException {
        session.apply(Op.RULE, place, name, value);
    }

    /** Makes somebody a member, or gives them another role. */
    public static void member(WriteSession session, long place, String who, String role) throws IOException {
        session.apply(Op.MEMBER, place, who, role);
    }

    /** Somebody is a member no longer. */
    public static void memberEnds(WriteSession session, long place, String who) throws IOException {
        session.apply(Op.MEMBER_ENDS, place, who);
    }
}
