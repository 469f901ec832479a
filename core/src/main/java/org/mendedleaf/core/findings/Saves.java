package org.mendedleaf.core.findings;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.HistoryQuery;
import org.mendedleaf.core.catalogue.Repeats;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.line.Origin;

/** Makes saves of the versions of a place, line by line, with what is known of their health. */
final class Saves {

    /** So many different ones are remembered: most are the same, and of a million files each would be kept for itself. */
    private static final int MOST = 1000;

    private final HealthStore store;
    private final Map<Health, Optional<Health>> known = new HashMap<>();
    private final Repeats repeats = new Repeats();
    /** Line by line, in the order of their numbers. */
    private final List<SavedVersion> all = new ArrayList<>();

    Saves(HealthStore store) {
        this.store = store;
    }

    /**
     * As {@link #save}, for who may not throw an exception that is checked.
     *
     * @throws UncheckedIOException when what is known cannot be read
     */
    void add(List<HistoryQuery.Row> line) {
        try {
            save(line);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Adds the versions of one line, the oldest first. */
    void save(List<HistoryQuery.Row> line) throws IOException {
        if (line.isEmpty()) {
            return;
        }
        Map<Integer, Resemblance> alike = store.alike(line.get(0).line());
        for (int i = 0; i < line.size(); i++) {
            HistoryQuery.Row row = line.get(i);
            HistoryQuery.Row before = i == 0 ? row : line.get(i - 1);
            boolean quiet = i > 0
                    && row.size() == before.size()
                    && row.mtimeNanos() == before.mtimeNanos()
                    && !row.digest().equals(before.digest());
            all.add(new SavedVersion(
                    row.line(),
                    row.number(),
                    i == 0 ? 0 : before.number(),
                    row.path(),
                    before.path(),
                    row.saved(),
                    row.who(),
                    row.size(),
                    i == 0 ? 0 : before.size(),
                    row.digest(),
                    quiet,
                    row.origin() == Origin.RESTORED,
                    same(store.health(row.digest(), row.path())),
                    Optional.ofNullable(alike.get(row.number()))));
        }
    }

    private Optional<Health> same(Optional<Health> health) {
        if (health.isEmpty()) {
            return health;
        }
        Optional<Health> before = known.get(health.get());
        if (before == null && known.size() < MOST) {
            known.put(health.get(), health);
        }
        return before == null ? health.map(this::shared) : before;
    }

    /** Contents differ, and most begin with the same bytes. */
    private Health shared(Health h) {
        return new Health(
                h.reason(),
                repeats.text(h.detail()),
                h.kind(),
                h.amount(),
                h.mass(),
                h.noise(),
                repeats.text(h.head()));
    }

    /** The same, with the path of its file that is here already: one of a million is not to be there twice. */
    NameChange withItsPath(NameChange turn) {
        int low = 0;
        int high = all.size() - 1;
        while (low <= high) {
            int middle = (low + high) >>> 1;
            SavedVersion save = all.get(middle);
            if (save.line() == turn.line()) {
                return save.path().equals(turn.from())
                        ? new NameChange(turn.line(), turn.at(), turn.who(), save.path(), turn.to(), turn.number())
                        : turn;
            }
            if (save.line() < turn.line()) {
                low = middle + 1;
            } else {
                high = middle - 1;
            }
        }
        return turn;
    }

    /** All that were added. */
    List<SavedVersion> all() {
        return all;
    }
}
