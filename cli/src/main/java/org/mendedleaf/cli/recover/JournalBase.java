package org.mendedleaf.cli.recover;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Option;

/** What undoing and taking an undo back have in common. A vault that is away is said, and those that are there go on. */
abstract class JournalBase extends Base {

    private static final int MOST = 50;

    @Option(names = "--list", descriptionKey = "cli.undo.list")
    boolean list;

    @Option(names = "--action", paramLabel = "N", descriptionKey = "cli.undo.action")
    long number;

    @Option(names = "--plan", descriptionKey = "cli.undo.plan")
    boolean plan;

    public JournalBase(Surroundings surroundings) {
        super(surroundings);
    }

    /** Actions of one vault that this command is for, newest first. */
    abstract List<Action> actions(JournalStore journal, int most) throws IOException;

    /** The one that is meant when none is named. */
    abstract Optional<Action> last(JournalStore journal) throws IOException;

    abstract FileWork.Undone run(FileWork work, Action action, Progress progress) throws IOException;

    abstract String words(FileWork.Undone done);

    /**
     * That there is nothing to do.
     *
     * @param others whether there would be something when it were named
     */
    abstract String nothing(boolean others);

    abstract String jsonKey();

    /**
     * An action with where it was done.
     *
     * @param isLast whether it is meant when none is named, of its vault
     */
    private record Candidate(Path vault, Action action, Place place, boolean isLast) {}

    /** All of all vaults that are there, newest first. */
    private List<Candidate> candidates() throws Exception {
        List<Candidate> found = new ArrayList<>();
        eachVault((folder, open) -> {
            try (Reading reading = open.read()) {
                JournalStore journal = JournalStore.of(reading);
                long last = last(journal).map(Action::id).orElse(0L);
                for (Action a : actions(journal, MOST)) {
                    reading.places().stream()
                            .filter(p -> p.id() == a.place())
                            .findFirst()
                            .ifPresent(p -> found.add(new Candidate(folder, a, p, a.id() == last)));
                }
                return ExitCodes.DONE;
            }
        });
        found.sort(Comparator.comparing((Candidate c) -> c.action().at()).reversed());
        return found;
    }

    @Override
    public Integer call() throws Exception {
        List<Candidate> all = candidates();
        if (list) {
            print(all);
            return ExitCodes.DONE;
        }
        List<Candidate> chosen = all.stream()
                .filter(c -> number == 0 ? c.isLast() : c.action().id() == number)
                .toList();
        if (chosen.isEmpty()) {
            throw new IllegalArgumentException(
                    number == 0 ? nothing(!all.isEmpty()) : Words.of("cli.undo.noAction", String.valueOf(number)));
        }
        if (number != 0 && chosen.size() > 1) {
            throw new IllegalArgumentException(Words.of("cli.undo.manyVaults", String.valueOf(number)));
        }
        if (plan) {
            print(chosen.subList(0, 1));
            return ExitCodes.DONE;
        }
        return run(chosen.get(0));
    }

    private int run(Candidate chosen) throws IOException {
        try (OpenVault open = open(chosen.vault());
                TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            FileWork.Undone done = run(work(open, chosen.place()), chosen.action(), progress);
            if (json) {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put(jsonKey(), done.action().kind().name());
                map.put("action", done.action().id());
                map.put("words", done.action().words());
                map.put("done", done.done());
                map.put("nothingToChange", done.nothing());
                map.put("failed", done.failed());
                printJson(map);
            } else if (done.failed().isEmpty()) {
                line(words(done));
            }
            if (!done.failed().isEmpty()) {
                complain(words(done));
            }
            return done.failed().isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
    }

    private void print(List<Candidate> all) throws IOException {
        if (json) {
            printJson(all.stream().map(JournalBase::map).toList());
            return;
        }
        if (all.isEmpty()) {
            line(nothing(false));
        }
        List<List<String>> rows = new ArrayList<>();
        for (Candidate c : all) {
            rows.add(List.of(
                    String.valueOf(c.action().id()),
                    Formats.moment(c.action().at(), now(), zone()),
                    c.action().who(),
                    c.place().label(),
                    c.action().words()));
        }
        table(rows, "rllll");
    }

    private static Map<String, Object> map(Candidate c) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("action", c.action().id());
        map.put("kind", c.action().kind().name());
        map.put("at", c.action().at().toString());
        map.put("who", c.action().who());
        map.put("place", c.place().where());
        map.put("vault", c.vault().toString());
        map.put("items", c.action().items().size());
        return map;
    }
}
