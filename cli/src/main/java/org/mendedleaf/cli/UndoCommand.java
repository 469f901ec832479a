package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.JournalStore;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Takes an action back: the last one, or one of a list. */
@Command(name = "undo", description = "${bundle:cli.undo}", mixinStandardHelpOptions = true)
final class UndoCommand extends Base {

    private static final int MOST = 50;

    @Option(names = "--list", descriptionKey = "cli.undo.list")
    boolean list;

    @Option(names = "--action", paramLabel = "N", descriptionKey = "cli.undo.action")
    long number;

    UndoCommand(Surroundings surroundings) {
        super(surroundings);
    }

    private record Candidate(Path vault, Action action, Place place) {}

    /** What can be undone in all vaults, newest first. */
    private List<Candidate> candidates() throws IOException {
        List<Candidate> found = new ArrayList<>();
        for (Path folder : vaults()) {
            try (OpenVault open = open(folder);
                    Reading reading = open.read()) {
                for (Action a : JournalStore.of(reading).undoable(MOST)) {
                    reading.places().stream()
                            .filter(p -> p.id() == a.place())
                            .findFirst()
                            .ifPresent(p -> found.add(new Candidate(folder, a, p)));
                }
            }
        }
        found.sort(Comparator.comparing((Candidate c) -> c.action().at()).reversed());
        return found;
    }

    @Override
    public Integer call() throws Exception {
        List<Candidate> all = candidates();
        if (list) {
            print(all);
            return Main.DONE;
        }
        List<Candidate> chosen = number == 0
                ? all
                : all.stream().filter(c -> c.action().id() == number).toList();
        if (chosen.isEmpty()) {
            throw new IllegalArgumentException(
                    number == 0 ? Words.of("cli.undo.nothing") : Words.of("cli.undo.noAction", String.valueOf(number)));
        }
        if (number != 0 && chosen.size() > 1) {
            throw new IllegalArgumentException(Words.of("cli.undo.manyVaults", String.valueOf(number)));
        }
        return undo(chosen.get(0));
    }

    private int undo(Candidate chosen) throws IOException {
        try (OpenVault open = open(chosen.vault());
                TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            FileWork.Undone undone = work(open, chosen.place()).undo(chosen.action(), progress);
            undone.failed().forEach(this::complain);
            if (json) {
                printJson(Map.of(
                        "undone", chosen.action().kind().name(),
                        "done", undone.done(),
                        "failed", undone.failed()));
            } else {
                undone.done().forEach(path -> line(Words.of("cli.undo.done", path)));
            }
            return undone.failed().isEmpty() ? Main.DONE : Main.SOME_FAILED;
        }
    }

    private void print(List<Candidate> all) throws IOException {
        if (json) {
            printJson(all.stream().map(UndoCommand::map).toList());
            return;
        }
        if (all.isEmpty()) {
            say("cli.undo.nothing");
        }
        List<List<String>> rows = new ArrayList<>();
        for (Candidate c : all) {
            rows.add(List.of(
                    String.valueOf(c.action().id()),
                    Say.moment(c.action().at(), now(), zone()),
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
