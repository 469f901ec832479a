package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;

/** Where a content is: lines, versions and files that hold it. */
public final class ContentQuery {

    /** Versions with this digest, by their index; the digest is parameter 1. */
    static final String DIGEST = "substr(digest, 1, 4) = substr(?1, 1, 4) AND digest = ?1";

    /** Versions with this SHA-256 where that is not their digest. */
    private static final String PLAIN =
            "sha256 IS NOT NULL AND sha256 <> digest" + " AND substr(sha256, 1, 4) = substr(?1, 1, 4) AND sha256 = ?1";

    private final Sql sql;
    private final PathIds names;

    ContentQuery(Sql sql, PathIds names) {
        this.sql = sql;
        this.names = names;
    }

    /** Lines in other systems that hold one of these contents. */
    public List<Long> outsideLines(Digest sha256) throws IOException {
        return sql.list(
                "SELECT DISTINCT v.line FROM version v JOIN line l ON l.id = v.line JOIN place p ON p.id = l.place"
                        + " WHERE v.sha256 = ? AND v.origin >= 5 AND p.root LIKE 'outside:%' LIMIT 50",
                r -> r.getLong(1), sha256.bytes());
    }

    /** Lines in folders that are known to hold this content. */
    public List<Long> folderLines(Digest sha256, long size) throws IOException {
        return sql.list(
                "SELECT DISTINCT v.line FROM (SELECT line, size, sha256 FROM version WHERE " + DIGEST
                        + " UNION ALL SELECT line, size, sha256 FROM version WHERE " + PLAIN
                        + ") v JOIN line l ON l.id = v.line JOIN place p ON p.id = l.place"
                        + " WHERE v.size = ?2 AND v.sha256 = ?1 AND p.root NOT LIKE 'outside:%' LIMIT 50",
                r -> r.getLong(1),
                sha256.bytes(),
                size);
    }

    /** Files that are there in a place whose current version has this content. */
    public List<String> paths(Place place, Digest digest, long size) throws IOException {
        List<String> found = new ArrayList<>();
        for (long node : sql.list(
                "SELECT l.node FROM (SELECT line, number, size FROM version WHERE " + DIGEST
                        + " UNION ALL SELECT line, number, size FROM version WHERE " + PLAIN
                        + ") v CROSS JOIN line l ON l.id = v.line AND l.last = v.number"
                        + " WHERE l.place = ?2 AND l.removed = 0 AND v.size = ?3",
                r -> r.getLong(1),
                digest.bytes(),
                place.id(),
                size)) {
            found.add(names.nodePath(node));
        }
        return found;
    }

    /** All versions with this content. */
    public List<Version> versions(Digest digest) throws IOException {
        record Key(long line, int number) {}
        List<Version> found = new ArrayList<>();
        for (Key key : sql.list(
                "SELECT line, number FROM version WHERE " + DIGEST,
                r -> new Key(r.getLong(1), r.getInt(2)),
                digest.bytes())) {
            new LineQuery(sql, names).version(key.line(), key.number()).ifPresent(found::add);
        }
        return found;
    }
}
