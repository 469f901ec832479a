package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * The chain of the journal: each entry carries a digest (SHA-256) of what it says, who, when, what and where, and of the digest
 * of the entry before it. So no entry can be changed, taken out or put in between without all links after it being wrong.
 * Source: S. Haber and W. S. Stornetta, "How to time-stamp a digital document", Journal of Cryptology 1991. Entries from before
 * version 10 of the catalogue are not in it.
 */
public final class JournalChain {

    private static final byte[] FIRST = new byte[32];

    private JournalChain() {}

    private record Entry(long id, long at, String who, int kind, long place) {
        byte[] after(byte[] before) {
            MessageDigest sha = Digest.sha256();
            sha.update(before);
            return sha.digest(
                    (id + "\n" + at + "\n" + who + "\n" + kind + "\n" + place).getBytes(StandardCharsets.UTF_8));
        }
    }

    /** Links an entry that was just noted to the one before it. */
    static void link(WriteSession session, long id, long at, String who, int kind, long place) throws IOException {
        byte[] before = session.sql()
                .first("SELECT digest FROM journal_link ORDER BY journal DESC LIMIT 1", r -> r.getBytes(1))
                .orElse(FIRST);
        session.apply(Op.JOURNAL_LINK, id, new Entry(id, at, who, kind, place).after(before));
    }

    /** What is wrong with the chain, as a message: the first link that is broken; empty when none is. */
    public static Optional<String> broken(Sql sql) throws IOException {
        record Link(long id, byte[] digest) {}
        List<Link> links = sql.list(
                "SELECT journal, digest FROM journal_link ORDER BY journal",
                r -> new Link(r.getLong(1), r.getBytes(2)));
        byte[] before = FIRST;
        for (Link link : links) {
            Optional<Entry> entry = sql.first(
                    "SELECT id, at, who, kind, place FROM journal WHERE id = ?",
                    r -> new Entry(r.getLong(1), r.getLong(2), r.getString(3), r.getInt(4), r.getLong(5)),
                    link.id());
            if (entry.isEmpty()) {
                return Optional.of(Words.of("check.journal.gone", String.valueOf(link.id())));
            }
            byte[] expected = entry.get().after(before);
            if (!MessageDigest.isEqual(expected, link.digest())) {
                return Optional.of(Words.of("check.journal.changed", String.valueOf(link.id())));
            }
            before = link.digest();
        }
        List<Long> loose = new ArrayList<>(
                links.isEmpty()
                        ? List.of()
                        : sql.list(
                                "SELECT id FROM journal WHERE id > ? AND id NOT IN (SELECT journal FROM journal_link)",
                                r -> r.getLong(1),
                                links.get(0).id()));
        return loose.stream().findFirst().map(id -> Words.of("check.journal.loose", String.valueOf(id)));
    }
}
