package org.mendedleaf.core.check;

import java.io.IOException;
import java.util.List;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/**
 * Mends a catalogue that was made of what was left: versions whose file, name or folder is not told any longer get one that
 * says so, and what refers to versions that are not there any longer goes.
 */
final class Orphans {

    private final Sql sql;
    private final VaultFolder vault;

    Orphans(Sql sql, VaultFolder vault) {
        this.sql = sql;
        this.vault = vault;
    }

    /** Takes in what has lost what it belongs to. */
    void takeIn() throws IOException {
        lines();
        nodes();
        folders();
        places();
        counts();
        spans();
    }

    private long anyPlace() throws IOException {
        return Math.max(1, sql.number("SELECT coalesce(min(id), 1) FROM place WHERE root NOT LIKE 'outside:%'"));
    }

    private void lines() throws IOException {
        sql.run(
                "INSERT INTO line(id, place, node, last, versions, bytes, removed)"
                        + " SELECT line, ?, max(node), 0, 0, 0, 0 FROM version"
                        + " WHERE line NOT IN (SELECT id FROM line) GROUP BY line",
                anyPlace());
        sql.run("DELETE FROM line WHERE id NOT IN (SELECT line FROM version)");
    }

    private void nodes() throws IOException {
        List<Long> lost = sql.list(
                "SELECT node FROM line WHERE node NOT IN (SELECT id FROM node) UNION"
                        + " SELECT node FROM version WHERE node NOT IN (SELECT id FROM node)",
                r -> r.getLong(1));
        for (long node : lost) {
            long line = sql.number(
                    "SELECT coalesce((SELECT id FROM line WHERE node = ?1), (SELECT line FROM version WHERE node = ?1))",
                    node);
            long place = sql.number("SELECT place FROM line WHERE id = ?", line);
            sql.run(
                    "INSERT INTO node(id, folder, name, line, child) VALUES (?,?,?,?,0)",
                    node,
                    topOf(place),
                    Words.of("rebuild.lostName", String.valueOf(line), String.valueOf(node)),
                    line);
        }
    }

    /** The id of a place's own folder, made when it is not there. */
    private long topOf(long place) throws IOException {
        long top = sql.number("SELECT id FROM folder WHERE parent = 0 AND name = ?", String.valueOf(place));
        if (top == 0) {
            top = 1
                    + sql.number(
                            "SELECT max(coalesce((SELECT max(id) FROM folder), 0),"
                                    + " coalesce((SELECT max(folder) FROM node), 0), coalesce((SELECT max(folder) FROM span), 0))");
            sql.run("INSERT INTO folder(id, place, parent, name) VALUES (?,?,0,?)", top, place, String.valueOf(place));
        }
        return top;
    }

    private void folders() throws IOException {
        List<Long> lost = sql.list(
                "SELECT folder FROM node WHERE folder NOT IN (SELECT id FROM folder) UNION"
                        + " SELECT parent FROM folder WHERE parent <> 0 AND parent NOT IN (SELECT id FROM folder)",
                r -> r.getLong(1));
        for (long folder : lost) {
            long place = sql.number(
                    "SELECT coalesce((SELECT l.place FROM node n JOIN line l ON l.id = n.line WHERE n.folder = ?1 LIMIT 1),"
                            + " (SELECT place FROM folder WHERE parent = ?1 LIMIT 1), ?2)",
                    folder,
                    anyPlace());
            boolean isTop = sql.number("SELECT count(*) FROM folder WHERE parent = 0 AND name = ?", place + "") == 0;
            sql.run(
                    "INSERT INTO folder(id, place, parent, name) VALUES (?,?,?,?)",
                    folder,
                    place,
                    isTop ? 0 : topOf(place),
                    isTop ? String.valueOf(place) : Words.of("rebuild.lostFolder", String.valueOf(folder)));
        }
    }

    private void places() throws IOException {
        List<Long> lost = sql.list(
                "SELECT place FROM line WHERE place NOT IN (SELECT id FROM place) UNION"
                        + " SELECT place FROM folder WHERE place NOT IN (SELECT id FROM place)",
                r -> r.getLong(1));
        for (long place : lost) {
            String name = Words.of("rebuild.lostPlace", String.valueOf(place));
            sql.run(
                    "INSERT INTO place(id, root, name, rhythm, minutes, created) VALUES (?,?,?,?,0,0)",
                    place,
                    vault.root().resolve(name).toString(),
                    name,
                    Rhythm.Kind.BY_HAND.name());
        }
    }

    private void counts() throws IOException {
        sql.run("UPDATE line SET last = (SELECT max(number) FROM version v WHERE v.line = line.id)"
                + " WHERE last <> (SELECT max(number) FROM version v WHERE v.line = line.id)");
        String there = " FROM version v WHERE v.line = line.id AND NOT EXISTS (SELECT 1 FROM let_go g"
                + " WHERE g.line = v.line AND g.number = v.number AND g.gone <> 0)";
        sql.run("UPDATE line SET versions = (SELECT count(*)" + there + "), bytes = (SELECT coalesce(sum(v.size), 0)"
                + there + ")");
    }

    /** A listing names only versions that are there, and what is not removed is listed. */
    private void spans() throws IOException {
        sql.run(
                "DELETE FROM span WHERE kind <> 3 AND NOT EXISTS (SELECT 1 FROM node n JOIN version v ON v.line = n.line"
                        + " AND v.number = span.number WHERE n.id = span.node)");
        sql.run("UPDATE line SET removed = coalesce((SELECT max(s.valid_to) FROM node n JOIN span s ON s.node = n.id"
                + " AND s.folder = n.folder WHERE n.line = line.id), 1) WHERE removed = 0 AND NOT EXISTS (SELECT 1"
                + " FROM node n JOIN span s ON s.folder = n.folder AND s.node = n.id WHERE n.id = line.node"
                + " AND s.valid_to = 9223372036854775807)");
        sql.run(
                "UPDATE line SET removed = 0 WHERE removed <> 0 AND EXISTS (SELECT 1 FROM node n JOIN span s"
                        + " ON s.folder = n.folder AND s.node = n.id WHERE n.id = line.node AND s.valid_to = 9223372036854775807)");
    }
}
