package org.mendedleaf.core.catalogue;

/**
 * The ways in which the catalogue changes. Each is one statement; its code and the order of its parameters are part of
 * the vault's format, since commit records in the packs hold them.
 */
public enum Op {
    /** Parameters: id, root, name, rhythm, minutes, created. */
    PLACE(1, "INSERT OR REPLACE INTO place(id, root, name, rhythm, minutes, created) VALUES (?,?,?,?,?,?)"),
    /** Parameters: place. */
    CLEAR_EXCLUSIONS(2, "DELETE FROM exclusion WHERE place = ?"),
    /** Parameters: place, pattern. */
    EXCLUSION(3, "INSERT OR REPLACE INTO exclusion(place, pattern) VALUES (?,?)"),
    /** Parameters: id, place, parent, name. */
    FOLDER(4, "INSERT INTO folder(id, place, parent, name) VALUES (?,?,?,?)"),
    /** Parameters: id, folder, name, line, child. */
    NODE(5, "INSERT INTO node(id, folder, name, line, child) VALUES (?,?,?,?,?)"),
    /** Parameters: id, place, node. */
    LINE(6, "INSERT INTO line(id, place, node, last, versions, bytes, removed) VALUES (?,?,?,0,0,0,0)"),
    /**
     * Parameters: line, number, node, saved, captured, who, origin, source, kind, size, mtime, mode, digest, sha256,
     * recipe, note.
     */
    VERSION(7, "INSERT INTO version VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)"),
    /** Parameters: last number, bytes to add, node, line. */
    LINE_GROWS(
            8,
            "UPDATE line SET last = ?, versions = versions + 1, bytes = bytes + ?, node = ?, removed = 0 WHERE id = ?"),
    /** Parameters: node, removed, line. */
    LINE_STATE(9, "UPDATE line SET node = ?, removed = ? WHERE id = ?"),
    /** Parameters: id, line, at, kind, who, origin node, target node, number. */
    EVENT(10, "INSERT INTO event VALUES (?,?,?,?,?,?,?,?)"),
    /** Parameters: folder, valid_to, node, valid_from, number, kind, size, mtime, mode. */
    SPAN(11, "INSERT INTO span VALUES (?,?,?,?,?,?,?,?,?)"),
    /** Parameters: valid_to, folder, node. */
    SPAN_ENDS(12, "UPDATE span SET valid_to = ? WHERE folder = ? AND valid_to = 9223372036854775807 AND node = ?"),
    /** Parameters: place, hour, changes. */
    DENSITY(
            13,
            "INSERT INTO density VALUES (?,?,?) ON CONFLICT (place, hour)"
                    + " DO UPDATE SET changes = changes + excluded.changes"),
    /** Parameters: id, place, started, ended, first, changes, bytes. */
    CAPTURE(14, "INSERT OR REPLACE INTO capture VALUES (?,?,?,?,?,?,?)"),
    /** Parameters: id, at, who, kind, place, undoes. */
    JOURNAL(15, "INSERT INTO journal VALUES (?,?,?,?,?,?)"),
    /** Parameters: journal, seq, line, folder, name, before, after. */
    JOURNAL_ITEM(16, "INSERT INTO journal_item VALUES (?,?,?,?,?,?,?)"),
    /** Parameters: sha256, line, number. */
    VERSION_SHA256(17, "UPDATE version SET sha256 = ? WHERE line = ? AND number = ?"),
    /** Parameters: place, key, line, tag. */
    OUTSIDE_FILE(18, "INSERT OR REPLACE INTO outside_file(place, key, line, tag) VALUES (?,?,?,?)"),
    /** Parameters: line, number, point, label, expires. */
    HOLDING(19, "INSERT OR REPLACE INTO holding(line, number, point, label, expires) VALUES (?,?,?,?,?)"),
    /** Parameters: line, number, point. */
    HOLDING_ENDS(20, "DELETE FROM holding WHERE line = ? AND number = ? AND point = ?"),
    /** Parameters: id, place, key, at, label, expires. */
    CUT(21, "INSERT OR REPLACE INTO cut(id, place, key, at, label, expires) VALUES (?,?,?,?,?,?)"),
    /** Parameters: place, key. */
    CUT_ENDS(22, "DELETE FROM cut WHERE place = ? AND key = ?"),
    /** Parameters: place, path, other place, path there. */
    RELATION(23, "INSERT OR REPLACE INTO relation(place, path, other, other_path) VALUES (?,?,?,?)"),
    /** Parameters: place, path, other place, path there. */
    RELATION_ENDS(24, "DELETE FROM relation WHERE place = ? AND path = ? AND other = ? AND other_path = ?"),
    /** Parameters: digest, recipe, line, number. A content that was held elsewhere only is in the vault from now on. */
    VERSION_CONTENT(25, "UPDATE version SET digest = ?, recipe = ? WHERE line = ? AND number = ?"),
    /** Parameters: note, line, number. */
    VERSION_NOTE(26, "UPDATE version SET note = ? WHERE line = ? AND number = ?"),
    /** Parameters: valid_from, folder, node, valid_to. Something was there earlier than was known. */
    SPAN_BEGINS(27, "UPDATE span SET valid_from = min(valid_from, ?) WHERE folder = ? AND node = ? AND valid_to = ?"),
    /** Parameters: id, place, path, at, label, who, schedule, hold, erased. */
    SNAPSHOT(28, "INSERT OR REPLACE INTO snapshot VALUES (?,?,?,?,?,?,?,?,?)"),
    /** Parameters: id, place, path, label, rule, start, zone, keep, missed, handled, ended. */
    SCHEDULE(29, "INSERT OR REPLACE INTO schedule VALUES (?,?,?,?,?,?,?,?,?,?,?)"),
    /** Parameters: line, after, journal, seq. What was intended is done. */
    JOURNAL_ITEM_DONE(30, "UPDATE journal_item SET line = ?, after = ? WHERE journal = ? AND seq = ?"),
    /** Parameters: journal, seq. What was intended did not come about. */
    JOURNAL_ITEM_VOID(31, "DELETE FROM journal_item WHERE journal = ? AND seq = ?"),
    /** Parameters: place, name, value. */
    RULE(32, "INSERT OR REPLACE INTO rule(place, name, value) VALUES (?,?,?)"),
    /** Parameters: place, who, role. */
    MEMBER(33, "INSERT OR REPLACE INTO member(place, who, role) VALUES (?,?,?)"),
    /** Parameters: place, who. */
    MEMBER_ENDS(34, "DELETE FROM member WHERE place = ? AND who = ?"),
    /** Parameters: line, number, major, minor. */
    EDITION(35, "INSERT OR REPLACE INTO edition(line, number, major, minor) VALUES (?,?,?,?)"),
    /** Parameters: line, who, since, number. */
    CHECK_OUT(36, "INSERT OR REPLACE INTO checkout(line, who, since, number) VALUES (?,?,?,?)"),
    /** Parameters: line. */
    CHECK_OUT_ENDS(37, "DELETE FROM checkout WHERE line = ?"),
    /** Parameters: id, line, number, at, who, words. */
    COMMENT(38, "INSERT OR REPLACE INTO comment(id, line, number, at, who, words) VALUES (?,?,?,?,?,?)"),
    /** Parameters: journal, line, number, what the note was before. */
    NOTED(39, "INSERT OR REPLACE INTO noted(journal, line, number, before) VALUES (?,?,?,?)"),
    /** Parameters: line, category, visibility. */
    CARD(40, "INSERT OR REPLACE INTO card(line, category, visibility) VALUES (?,?,?)"),
    /** Parameters: id, place, line, number, kind, at, who, detail, settled. */
    FINDING(41, "INSERT OR REPLACE INTO finding VALUES (?,?,?,?,?,?,?,?,?)"),
    /** Parameters: journal, path, line, number. */
    TAKEN(42, "INSERT OR REPLACE INTO taken(journal, path, line, number) VALUES (?,?,?,?)"),
    /** Parameters: journal, path. */
    TAKEN_BACK(43, "DELETE FROM taken WHERE journal = ? AND path = ?"),
    /** Parameters: id, at, who, document. */
    RULE_SET(44, "INSERT OR REPLACE INTO ruleset(id, at, who, document) VALUES (?,?,?,?)"),
    /** Parameters: id, place, kind, line, number, path, snapshot, reason, who, at, until, lifted. */
    HOLD(45, "INSERT OR REPLACE INTO hold VALUES (?,?,?,?,?,?,?,?,?,?,?,?)"),
    /** Parameters: line, number, journal, at, due, who, reason, rule. */
    LET_GO(46, "INSERT OR REPLACE INTO let_go VALUES (?,?,?,?,?,?,?,?,0)"),
    /** Parameters: journal. What waits of it is kept after all. */
    LET_GO_BACK(47, "DELETE FROM let_go WHERE journal = ? AND gone = 0"),
    /** Parameters: line, number. */
    LET_GO_ONE_BACK(48, "DELETE FROM let_go WHERE line = ? AND number = ? AND gone = 0"),
    /** Parameters: due, from then on. What waits longer is due then. */
    LET_GO_DUE(49, "UPDATE let_go SET due = ? WHERE gone = 0 AND due > ?"),
    /** Parameters: gone, line, number. */
    LET_GO_GONE(50, "UPDATE let_go SET gone = ? WHERE line = ? AND number = ?"),
    /** Parameters: line, number. The content is in the vault no longer; the version is still known. */
    VERSION_GONE(51, "UPDATE version SET recipe = X'03' WHERE line = ? AND number = ?"),
    /** Parameters: bytes to take off, line. */
    LINE_SHRINKS(52, "UPDATE line SET versions = versions - 1, bytes = bytes - ? WHERE id = ?"),
    /** Parameters: due, journal. What waits of it is due then. */
    LET_GO_OF_DUE(53, "UPDATE let_go SET due = ? WHERE journal = ? AND gone = 0"),
    /** Parameters: hold, line. A hold of a folder has taken hold of a file. */
    HELD_LINE(54, "INSERT OR IGNORE INTO held_line(hold, line) VALUES (?,?)"),
    /** Parameters: journal, line, number, reason, rule, grace. Undoing kept it after all. */
    KEPT_AFTER_ALL(
            55,
            "INSERT OR REPLACE INTO kept_after_all(journal, line, number, reason, rule, grace) VALUES (?,?,?,?,?,?)"),
    /** Parameters: number that was there before, journal, seq. */
    JOURNAL_ITEM_BEFORE(56, "UPDATE journal_item SET before = ? WHERE journal = ? AND seq = ?"),
    /** Parameters: what it undoes, journal. */
    JOURNAL_UNDOES(57, "UPDATE journal SET undoes = ? WHERE id = ?"),
    /** Parameters: journal. It is part of another action, and not undone by itself. */
    JOURNAL_ITEMS_VOID(58, "DELETE FROM journal_item WHERE journal = ?"),
    /** Parameters: place, finding, what, at, who, reason, journal. */
    DECISION(
            59,
            "INSERT OR REPLACE INTO decision(place, finding, what, at, who, reason, journal) VALUES (?,?,?,?,?,?,?)"),
    /** Parameters: place, finding. */
    DECISION_ENDS(60, "DELETE FROM decision WHERE place = ? AND finding = ?"),
    /** Parameters: id, place, kind, line, at, who, reason. */
    FINE(61, "INSERT OR REPLACE INTO fine(id, place, kind, line, at, who, reason) VALUES (?,?,?,?,?,?,?)"),
    /** Parameters: id. */
    FINE_ENDS(62, "DELETE FROM fine WHERE id = ?"),
    /** Parameters: journal, digest. */
    JOURNAL_LINK(63, "INSERT OR REPLACE INTO journal_link(journal, digest) VALUES (?,?)"),
    /** Parameters: id, folder, at, who. */
    VAULT_COPY(64, "INSERT INTO vault_copy(id, folder, at, who, ended, ended_by) VALUES (?,?,?,?,0,'')"),
    /** Parameters: ended, by whom, id. */
    VAULT_COPY_ENDS(65, "UPDATE vault_copy SET ended = ?, ended_by = ? WHERE id = ?"),
    /** Parameters: id, journal, took, failed, content, digest. */
    JOURNAL_END(66, "INSERT INTO journal_end(id, journal, took, failed, content, digest) VALUES (?,?,?,?,?,?)"),
    /** Parameters: id, place, at, who, name, was, became. */
    SETTING_CHANGED(67, "INSERT INTO setting_change(id, place, at, who, name, was, became) VALUES (?,?,?,?,?,?,?)");

    private final int code;
    private final String sql;

    Op(int code, String sql) {
        this.code = code;
        this.sql = sql;
    }

    int code() {
        return code;
    }

    public String sql() {
        return sql;
    }

    /** As {@link #sql}, but where a row is there already the new one takes its place. */
    public String tolerantSql() {
        return sql.startsWith("INSERT INTO") && !sql.contains("ON CONFLICT")
                ? "INSERT OR REPLACE" + sql.substring("INSERT".length())
                : sql;
    }
}
