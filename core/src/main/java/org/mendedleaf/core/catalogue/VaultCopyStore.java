package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.time.Moment;

/** The copies of the vault and how they stand, in the catalogue. */
public final class VaultCopyStore {

    private final Sql sql;

    private VaultCopyStore(Sql sql) {
        this.sql = sql;
    }

    /** As a reader sees them. */
    public static VaultCopyStore of(Reading reading) {
        return new VaultCopyStore(reading.sql());
    }

    /** The copies that are kept in step, in the order in which they were begun. */
    public List<VaultCopy> all() throws IOException {
        return sql.list(
                "SELECT id, folder, at, who FROM vault_copy WHERE ended = 0 ORDER BY id",
                r -> new VaultCopy(
                        r.getLong(1), Path.of(r.getString(2)), Moment.instant(r.getLong(3)), r.getString(4)));
    }

    /** What there is to copy now. */
    public VaultCopy.Extent extent() throws IOException {
        PackTables tables = new PackTables(sql);
        return new VaultCopy.Extent(tables.packs(), tables.commit());
    }

    /** Number of the last commit. */
    public long commit() throws IOException {
        return new PackTables(sql).commit();
    }

    /** Numbers of the packs. */
    public Set<Long> packs() throws IOException {
        return new PackTables(sql).numbers();
    }

    /** How a copy stands, as far as was seen. */
    public VaultCopy.State state(VaultCopy copy) throws IOException {
        return sql.first(
                        "SELECT tried, good, commits, bytes, packs, checked, trouble FROM copy_state WHERE copy = ?",
                        r -> new VaultCopy.State(
                                moment(r.getLong(1)),
                                moment(r.getLong(2)),
                                r.getLong(3),
                                r.getLong(4),
                                numbers(r.getString(5)),
                                moment(r.getLong(6)),
                                r.getString(7)),
                        copy.id())
                .orElse(VaultCopy.State.NONE);
    }

    private static Optional<Instant> moment(long micros) {
        return micros == 0 ? Optional.empty() : Optional.of(Moment.instant(micros));
    }

    private static Set<Long> numbers(String text) {
        return text.isEmpty()
                ? Set.of()
                : Arrays.stream(text.split(",")).map(Long::valueOf).collect(Collectors.toSet());
    }

    /** Begins a copy. */
    public static VaultCopy add(WriteSession session, Path folder, Instant now, String who) throws IOException {
        long id = session.nextId(WriteSession.Table.VAULT_COPY);
        session.apply(Op.VAULT_COPY, id, folder.toString(), Moment.micros(now), who);
        return new VaultCopy(id, folder, now, who);
    }

    /** Ends a copy: it is kept in step no longer. What is in its folder stays. */
    public static void end(WriteSession session, VaultCopy copy, Instant now, String who) throws IOException {
        session.apply(Op.VAULT_COPY_ENDS, Moment.micros(now), who, copy.id());
        session.applyUnlogged("DELETE FROM copy_state WHERE copy = ?", copy.id());
    }

    /** Notes how a copy stands. */
    public static void note(WriteSession session, VaultCopy copy, VaultCopy.State s) throws IOException {
        session.applyUnlogged(
                "INSERT OR REPLACE INTO copy_state(copy, tried, good, commits, bytes, packs, checked, trouble)"
                        + " VALUES (?,?,?,?,?,?,?,?)",
                copy.id(),
                micros(s.tried()),
                micros(s.good()),
                s.commit(),
                s.bytes(),
                s.packs().stream().sorted().map(String::valueOf).collect(Collectors.joining(",")),
                micros(s.checked()),
                s.trouble());
    }

    private static long micros(Optional<Instant> at) {
        return at.map(Moment::micros).orElse(0L);
    }
}
