package org.mendedleaf.core.findings;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.Repeats;
import org.mendedleaf.core.catalogue.SideDatabase;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.VaultFolder;

/** Health of contents, each once, how versions are like each other, and what was found; beside the catalogue. */
public final class HealthStore extends SideDatabase {

    private static final String NAME = "health.db";
    private static final int VERSION = 1;

    private static final String[] TABLES = {
        "CREATE TABLE health (digest BLOB NOT NULL, ending TEXT NOT NULL, reason TEXT NOT NULL, detail TEXT NOT NULL,"
                + " kind TEXT NOT NULL, amount INTEGER NOT NULL, mass INTEGER NOT NULL, noise INTEGER NOT NULL,"
                + " head TEXT NOT NULL, PRIMARY KEY (digest, ending)) WITHOUT ROWID",
        "CREATE TABLE alike (line INTEGER NOT NULL, number INTEGER NOT NULL, other INTEGER NOT NULL,"
                + " shared INTEGER NOT NULL, beginning INTEGER NOT NULL, kept INTEGER NOT NULL,"
                + " PRIMARY KEY (line, number, other)) WITHOUT ROWID",
        "CREATE TABLE found (place INTEGER NOT NULL, seq INTEGER NOT NULL, kind TEXT NOT NULL, sure TEXT NOT NULL,"
                + " began INTEGER NOT NULL, ended INTEGER NOT NULL, evidence TEXT NOT NULL,"
                + " PRIMARY KEY (place, seq)) WITHOUT ROWID",
        "CREATE TABLE mark (place INTEGER NOT NULL, seq INTEGER NOT NULL, i INTEGER NOT NULL, line INTEGER NOT NULL,"
                + " path TEXT NOT NULL, number INTEGER NOT NULL, good INTEGER NOT NULL, good_path TEXT NOT NULL,"
                + " at INTEGER NOT NULL, who TEXT NOT NULL, fate TEXT NOT NULL, proof TEXT NOT NULL,"
                + " PRIMARY KEY (place, seq, i)) WITHOUT ROWID",
        "CREATE TABLE looked (place INTEGER PRIMARY KEY, at INTEGER NOT NULL, files INTEGER NOT NULL)",
        "PRAGMA user_version = " + VERSION
    };

    /** How far the vault had come when a place was last looked at; an earlier program leaves it as it is. */
    private static final String SEEN =
            "CREATE TABLE IF NOT EXISTS seen (place INTEGER PRIMARY KEY, number INTEGER NOT NULL)";

    /** The state of a place in which it was judged last. */
    private static final String JUDGED =
            "CREATE TABLE IF NOT EXISTS judged (place INTEGER PRIMARY KEY, state TEXT NOT NULL)";

    /** When all of a place was judged last, and what happened there last, see {@link LateEvents}. */
    private static final String[] LATE = {
        "CREATE TABLE IF NOT EXISTS judged_whole (place INTEGER PRIMARY KEY, at INTEGER NOT NULL)",
        "CREATE TABLE IF NOT EXISTS late_event (place INTEGER NOT NULL, kind TEXT NOT NULL, line INTEGER NOT NULL,"
                + " at INTEGER NOT NULL, PRIMARY KEY (place, kind, line, at)) WITHOUT ROWID"
    };

    private HealthStore(Path file) throws IOException {
        super(file);
    }

    /** Something that is equal as long as nothing was written to it; cheap to ask for. */
    public static String state(VaultFolder vault) {
        StringBuilder state = new StringBuilder();
        for (String ending : new String[] {"", "-wal"}) {
            Path each = Path.of(file(vault) + ending);
            try {
                state.append(' ').append(Files.size(each)).append('@').append(Files.getLastModifiedTime(each));
            } catch (IOException e) {
                state.append(" -");
            }
        }
        return state.toString();
    }

    private static Path file(VaultFolder vault) {
        return vault.root().resolve(NAME);
    }

    /** Opens what is known of a vault; when that cannot be read it is begun anew. */
    public static HealthStore open(VaultFolder vault) throws IOException {
        Optional<HealthStore> there = openIfThere(vault);
        if (there.isPresent()) {
            return there.get();
        }
        HealthStore store = make(vault, NAME, HealthStore::new, TABLES);
        store.execute(SEEN);
        store.execute(JUDGED);
        store.execute(LATE);
        return store;
    }

    /** Opens what is known of a vault, if anything is. */
    public static Optional<HealthStore> openIfThere(VaultFolder vault) {
        if (!Files.exists(file(vault))) {
            return Optional.empty();
        }
        try {
            HealthStore store = new HealthStore(file(vault));
            if (store.version() == VERSION) {
                // Whoever only reads does not write: that would wait for who does.
                if (store.number("SELECT count(*) FROM sqlite_master WHERE name IN ('seen', 'judged',"
                                + " 'judged_whole', 'late_event')")
                        < 4) {
                    store.execute(SEEN);
                    store.execute(JUDGED);
                    store.execute(LATE);
                }
                return Optional.of(store);
            }
            store.close();
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(HealthStore.class).info("what is known of health cannot be read", e);
        }
        return Optional.empty();
    }

    private static String ending(String path) {
        String name = RelativePath.name(path).toLowerCase(java.util.Locale.ROOT);
        return name.substring(Math.max(0, name.lastIndexOf('.')));
    }

    /** The health of a content that has this name. */
    public Optional<Health> health(Digest digest, String path) throws IOException {
        List<Health> found = new ArrayList<>();
        query(
                "SELECT reason, detail, kind, amount, mass, noise, head FROM health WHERE digest = ? AND ending = ?",
                r -> found.add(new Health(
                        Health.Reason.valueOf(r.getString(1)),
                        r.getString(2),
                        Health.Kind.valueOf(r.getString(3)),
                        r.getLong(4),
                        r.getLong(5),
                        r.getInt(6),
                        r.getString(7))),
                digest.bytes(),
                ending(path));
        return found.stream().findFirst();
    }

    /**
     * What is wrong with versions of a line, as a message, by number, as far as anybody looked.
     *
     * @return nothing of what is well
     */
    public static Map<Integer, String> troubles(VaultFolder vault, Line line) {
        Map<Integer, String> troubles = new HashMap<>();
        Optional<HealthStore> there = line.place().isOutside() ? Optional.empty() : openIfThere(vault);
        if (there.isEmpty()) {
            return troubles;
        }
        try (HealthStore store = there.get()) {
            for (Version v : line.versions()) {
                store.health(v.digest(), v.path())
                        .filter(h -> h.state() == Health.State.BROKEN || h.state() == Health.State.DOUBTFUL)
                        .ifPresent(h -> troubles.put(v.number(), h.words()));
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(HealthStore.class).info("what is known of health cannot be read", e);
        }
        return troubles;
    }

    void put(Digest digest, String path, Health h) throws IOException {
        run(
                "INSERT OR REPLACE INTO health VALUES (?,?,?,?,?,?,?,?,?)",
                digest.bytes(),
                ending(path),
                h.reason().name(),
                h.detail(),
                h.kind().name(),
                h.amount(),
                h.mass(),
                h.noise(),
                h.head());
    }

    /** How versions of a line are like the one before each, by number. */
    Map<Integer, Resemblance> alike(long line) throws IOException {
        Map<Integer, Resemblance> all = new HashMap<>();
        query(
                "SELECT number, shared, beginning, kept FROM alike WHERE line = ? ORDER BY other",
                r -> all.put(r.getInt(1), new Resemblance(r.getInt(2), r.getInt(3) != 0, r.getInt(4))),
                line);
        return all;
    }

    /** How a version is like another one of its line. */
    Optional<Resemblance> alike(long line, int number, int other) throws IOException {
        List<Resemblance> found = new ArrayList<>();
        query(
                "SELECT shared, beginning, kept FROM alike WHERE line = ? AND number = ? AND other = ?",
                r -> found.add(new Resemblance(r.getInt(1), r.getInt(2) != 0, r.getInt(3))),
                line,
                number,
                other);
        return found.stream().findFirst();
    }

    void put(long line, int number, int other, Resemblance r) throws IOException {
        run(
                "INSERT OR REPLACE INTO alike VALUES (?,?,?,?,?,?)",
                line,
                number,
                other,
                r.shared(),
                r.beginning() ? 1 : 0,
                r.kept());
    }

    /** The number of the change up to which what was found in a place was judged; 0 while nobody looked. */
    long seen(long place) throws IOException {
        return number("SELECT number FROM seen WHERE place = ?", place);
    }

    /** Has what is found next take the place of what was found, however far the vault had come then. */
    void forgetSeen(long place) throws IOException {
        run("DELETE FROM seen WHERE place = ?", place);
        run("DELETE FROM judged WHERE place = ?", place);
        run("DELETE FROM judged_whole WHERE place = ?", place);
    }

    /** When all of a place was judged last; empty when that has to be done. */
    Optional<Instant> judgedWhole(long place) throws IOException {
        long at = number("SELECT at FROM judged_whole WHERE place = ?", place);
        return at == 0 ? Optional.empty() : Optional.of(Instant.ofEpochMilli(at));
    }

    /** What happened last in a place. */
    List<LateEvents.Event> late(long place) throws IOException {
        List<LateEvents.Event> late = new ArrayList<>();
        query(
                "SELECT kind, line, at FROM late_event WHERE place = ?",
                r -> late.add(new LateEvents.Event(
                        LateEvents.Kind.valueOf(r.getString(1)), r.getLong(2), Moment.instant(r.getLong(3)))),
                place);
        return late;
    }

    private void late(long place, List<LateEvents.Event> late) throws IOException {
        run("DELETE FROM late_event WHERE place = ?", place);
        for (LateEvents.Event e : late) {
            run(
                    "INSERT OR REPLACE INTO late_event VALUES (?,?,?,?)",
                    place,
                    e.kind().name(),
                    e.line(),
                    Moment.micros(e.at()));
        }
    }

    /** Whether something is found of one of these files. */
    boolean marks(long place, Set<Long> lines) throws IOException {
        boolean[] found = {false};
        query("SELECT DISTINCT line FROM mark WHERE place = ?", r -> found[0] |= lines.contains(r.getLong(1)), place);
        return found[0];
    }

    /** Notes that what was found in a place is so up to a later commit too, of which only the changes were judged. */
    void stillSo(long place, Instant at, Judged judged) throws IOException {
        together(() -> {
            if (seen(place) > judged.commit()) {
                return;
            }
            judged(place, judged);
            stillSo(place, at);
        });
    }

    /**
     * Up to where a place was judged.
     *
     * @param commit the number of the last change that was seen
     * @param state of the place
     * @param late what happened there last
     */
    record Judged(long commit, String state, List<LateEvents.Event> late) {}

    private void judged(long place, Judged judged) throws IOException {
        run("INSERT OR REPLACE INTO seen VALUES (?,?)", place, judged.commit());
        run("INSERT OR REPLACE INTO judged VALUES (?,?)", place, judged.state());
        late(place, judged.late());
    }

    /** Whether a place was judged in this state. */
    boolean isJudged(long place, String state) throws IOException {
        return number("SELECT count(*) FROM judged WHERE place = ? AND state = ?", place, state) > 0;
    }

    /** Notes that a place was looked at again, and is as it was. */
    void stillSo(long place, Instant at) throws IOException {
        run("UPDATE looked SET at = ? WHERE place = ?", at.toEpochMilli(), place);
    }

    /**
     * Takes the place of what was found before, unless that was judged by a later state of the vault: of two that look at once
     * the one that began first may come last.
     *
     * @param versions how many there are
     */
    void found(long place, List<Found> all, Instant at, long versions, Judged judged) throws IOException {
        together(() -> {
            if (seen(place) > judged.commit()) {
                return;
            }
            judged(place, judged);
            run("INSERT OR REPLACE INTO judged_whole VALUES (?,?)", place, at.toEpochMilli());
            run("DELETE FROM found WHERE place = ?", place);
            run("DELETE FROM mark WHERE place = ?", place);
            for (int seq = 0; seq < all.size(); seq++) {
                put(place, seq, all.get(seq));
            }
            run("INSERT OR REPLACE INTO looked VALUES (?,?,?)", place, at.toEpochMilli(), versions);
        });
    }

    private void put(long place, int seq, Found found) throws IOException {
        Finding f = found.finding();
        run(
                "INSERT INTO found VALUES (?,?,?,?,?,?,?)",
                place,
                seq,
                f.kind().name(),
                f.sure().name(),
                Moment.micros(f.from()),
                Moment.micros(f.to()),
                String.join("\n", f.evidence()));
        for (int i = 0; i < found.files().size(); i++) {
            Found.OfFile file = found.files().get(i);
            Finding.Mark m = file.mark();
            run(
                    "INSERT INTO mark VALUES (?,?,?,?,?,?,?,?,?,?,?,?)",
                    place,
                    seq,
                    i,
                    m.line(),
                    m.path(),
                    m.number(),
                    m.good(),
                    m.goodPath(),
                    Moment.micros(m.at()),
                    m.who(),
                    file.fate().name(),
                    file.proof());
        }
    }

    /** What was found in a place, the latest first. */
    List<Found> found(long place) throws IOException {
        Map<Integer, List<Found.OfFile>> files = new HashMap<>();
        // There may be a million files in one event: what is the same in all of them is kept once.
        Repeats repeats = new Repeats();
        query(
                "SELECT seq, line, path, number, good, good_path, at, who, fate, proof FROM mark WHERE place = ?"
                        + " ORDER BY seq, i",
                r -> {
                    String path = r.getString(3);
                    String goodPath = r.getString(6);
                    Finding.Mark mark = new Finding.Mark(
                            r.getLong(2),
                            path,
                            r.getInt(4),
                            r.getInt(5),
                            goodPath.equals(path) ? path : goodPath,
                            repeats.moment(r.getLong(7)),
                            repeats.text(r.getString(8)));
                    files.computeIfAbsent(r.getInt(1), k -> new ArrayList<>())
                            .add(new Found.OfFile(
                                    mark, Found.Fate.valueOf(r.getString(9)), repeats.text(r.getString(10))));
                },
                place);
        List<Found> all = new ArrayList<>();
        query(
                "SELECT seq, kind, sure, began, ended, evidence FROM found WHERE place = ? ORDER BY seq",
                r -> {
                    List<Found.OfFile> of = files.getOrDefault(r.getInt(1), List.of());
                    Finding finding = new Finding(
                            place,
                            Finding.Kind.valueOf(r.getString(2)),
                            Finding.Certainty.valueOf(r.getString(3)),
                            Moment.instant(r.getLong(4)),
                            Moment.instant(r.getLong(5)),
                            of.stream().map(Found.OfFile::mark).toList(),
                            List.of(r.getString(6).split("\n")));
                    all.add(new Found(finding, of));
                },
                place);
        return all;
    }

    /** When a place was last looked at. */
    Optional<Instant> looked(long place) throws IOException {
        List<Instant> found = new ArrayList<>();
        query("SELECT at FROM looked WHERE place = ?", r -> found.add(Instant.ofEpochMilli(r.getLong(1))), place);
        return found.stream().findFirst();
    }
}
