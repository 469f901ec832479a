package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.line.Space;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ContentReader;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.VaultFolder;

/**
 * A view of a vault for reading: of one state of it, the one at its first question, until it is given back by closing it.
 * What is captured meanwhile is seen by the next view. One thread at a time.
 *
 * <pre>{@code
 * try (Reading reading = vault.read()) {
 *     for (Place place : reading.places()) {
 *         reading.folders().liveFiles(place).forEach(f -> System.out.println(f.path()));
 *     }
 * }
 * }</pre>
 */
public final class Reading implements AutoCloseable {

    private final OpenVault vault;
    private final Sql sql;
    private final PathIds names;
    private final int generation;
    private @Nullable ContentReader contents;

    /**
     * A view.
     *
     * @param generation counts how often the catalogue was replaced by another
     */
    Reading(OpenVault vault, Sql sql, int generation) {
        this.vault = vault;
        this.sql = sql;
        this.generation = generation;
        this.names = new PathIds(sql);
    }

    /** The vault that is read. */
    public OpenVault vault() {
        return vault;
    }

    public Sql sql() {
        return sql;
    }

    int generation() {
        return generation;
    }

    /** From here on questions see what the vault is by then. */
    private void endState() throws IOException {
        try {
            sql.connection().rollback();
        } catch (SQLException e) {
            throw Catalogue.translate(vault.folder(), e);
        }
    }

    /** The contents behind versions. */
    public ContentReader contents() throws IOException {
        if (contents == null) {
            try {
                contents = new ContentReader(vault.folder(), sql.connection(), new AsOfNow(vault.folder()));
            } catch (SQLException e) {
                throw Catalogue.translate(vault.folder(), e);
            }
        }
        return contents;
    }

    /** The catalogue as it is by now. */
    private record AsOfNow(VaultFolder folder) implements ContentReader.Now {
        @Override
        public Connection open() throws IOException {
            return Catalogue.openForReading(folder);
        }

        @Override
        public Optional<Recipe> recipe(Recipe before) throws IOException {
            try (Sql now = new Sql(folder, open())) {
                return UnfoldQueue.nowOf(now, before);
            }
        }
    }

    /** A number that is kept beside the rows, see {@link WriteSession#note(String)}; 0 before it was set. */
    public long note(String name) throws IOException {
        return sql.number("SELECT value FROM counter WHERE name = ?", name);
    }

    /** The number of the last change that is seen; each change of a vault has the next one. */
    public long commit() throws IOException {
        return new PackTables(sql).commit();
    }

    /** What is another after anything was captured, done, let go, held or ruled. */
    public String state() throws IOException {
        return sql.list(
                        "SELECT coalesce((SELECT id || ':' || ended FROM capture ORDER BY id DESC LIMIT 1), 0) || '/'"
                                + " || coalesce((SELECT max(id) FROM journal), 0)"
                                + " || ':' || coalesce((SELECT max(id) FROM journal_end), 0)"
                                + " || '/' || coalesce((SELECT value FROM counter WHERE name = '" + WriteSession.LET_GO
                                + "'), 0)"
                                + " || '/' || (SELECT count(*) || '/' || coalesce(sum(lifted), 0) FROM hold)"
                                + " || '/' || (SELECT count(*) || '/' || coalesce(sum(erased), 0) FROM snapshot)"
                                + " || '/' || coalesce((SELECT max(id) FROM ruleset), 0)",
                        r -> r.getString(1))
                .get(0);
    }

    /**
     * What is another after anything was captured or done in one place, or let go anywhere. What takes several commits, as a first
     * capture, makes one when it begins and another when it has ended.
     */
    public String state(long place) throws IOException {
        return sql.first(
                                "SELECT id || ':' || ended FROM capture WHERE place = ? ORDER BY id DESC LIMIT 1",
                                r -> r.getString(1),
                                place)
                        .orElse("")
                + "/"
                + sql.first(
                                "SELECT j.id || ':' || (SELECT coalesce(max(e.id), 0) FROM journal_end e WHERE e.journal = j.id)"
                                        + " FROM journal j WHERE j.place = ? ORDER BY j.id DESC LIMIT 1",
                                r -> r.getString(1),
                                place)
                        .orElse("")
                + "/"
                + note(WriteSession.LET_GO);
    }

    /** All places of the vault, in the order in which they were protected. */
    public List<Place> places() throws IOException {
        return new PlaceQuery(sql).all();
    }

    /** The place whose folder this is or in which it lies. */
    public Optional<Place> placeOf(Path path) throws IOException {
        return places().stream()
                .filter(p -> !p.isOutside() && path.startsWith(p.root()))
                .findFirst();
    }

    /** A place in another system, if this vault knows it. */
    public Optional<Place> outsidePlace(String system, String name) throws IOException {
        Source wanted = new Source.Outside(system, name);
        return places().stream().filter(p -> p.source().equals(wanted)).findFirst();
    }

    /** The line of a file by its path, as it is now or was once; what is there now comes first. */
    public Optional<Line> line(Place place, String path) throws IOException {
        return new LineQuery(sql, names).find(place, path);
    }

    /** A line by its id. */
    public Optional<Line> line(long id) throws IOException {
        return new LineQuery(sql, names).get(id, places());
    }

    /** Whether a file is there now; nothing else of its line is read. */
    public boolean isThere(long line) throws IOException {
        return sql.number("SELECT count(*) FROM line WHERE id = ? AND removed = 0", line) > 0;
    }

    /** One version of a line. */
    public Optional<Version> version(long line, int number) throws IOException {
        return new LineQuery(sql, names).version(line, number);
    }

    /** What folders hold, and held at a moment. */
    public FolderQuery folders() {
        return new FolderQuery(sql, names);
    }

    /** When a place changed, and when it was captured. */
    public ChangeQuery changes() {
        return new ChangeQuery(sql, names);
    }

    /** What other systems hold, as it was when they were looked at last. */
    public OutsideQuery outside() {
        return new OutsideQuery(sql);
    }

    /** Where a content is. */
    public ContentQuery content() {
        return new ContentQuery(sql, names);
    }

    /** What is known of lines beyond themselves. */
    public LineQuery lines() {
        return new LineQuery(sql, names);
    }

    /** How a place stands. */
    public PlaceState state(Place place) throws IOException {
        return new PlaceQuery(sql).state(place, names);
    }

    /** Bytes that the packs take. */
    public long packBytes() throws IOException {
        return sql.number("SELECT coalesce(sum(committed), 0) FROM pack");
    }

    /** How much the vault holds and takes. */
    public Space space() throws IOException {
        return new PlaceQuery(sql).space();
    }

    void dispose() throws IOException {
        if (contents != null) {
            contents.close();
        }
        sql.close();
    }

    @Override
    public void close() throws IOException {
        try {
            endState();
        } catch (IOException e) {
            // A view that cannot be ended serves nobody any longer.
            dispose();
            return;
        }
        vault.giveBack(this);
    }
}
