package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Elsewhere;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.recovery.Wish;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Brings earlier versions and removed files back. */
@Command(name = "restore", description = "${bundle:cli.restore}", mixinStandardHelpOptions = true)
final class RestoreCommand extends Base {

    @Parameters(paramLabel = "FILE", arity = "1..*", descriptionKey = "cli.restore.files")
    List<Path> files = List.of();

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.option.version")
    int version;

    @Option(names = "--at", paramLabel = "MOMENT", descriptionKey = "cli.option.at")
    @Nullable
    String at;

    @Option(names = "--from", paramLabel = "SYSTEM:PLACE/PATH", descriptionKey = "cli.restore.from")
    @Nullable
    Path from;

    @Option(names = "--to", paramLabel = "DIR", descriptionKey = "cli.restore.to")
    @Nullable
    Path to;

    @Option(names = "--on-collision", paramLabel = "replace|keep-both|skip", descriptionKey = "cli.restore.collision")
    @Nullable
    String onCollision;

    @Option(names = "--plan", descriptionKey = "cli.restore.plan")
    boolean planOnly;

    RestoreCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (version > 0 && at != null) {
            throw new IllegalArgumentException(Words.of("cli.restore.both"));
        }
        Path target = to;
        int code = Main.DONE;
        List<Object> rows = new ArrayList<>();
        for (List<Path> group : byPlace()) {
            try (Located located = locate(group.get(0))) {
                List<Wish> wishes = new ArrayList<>();
                for (Path file : group) {
                    try (Located each = locate(file)) {
                        wishes.addAll(wishes(each, target != null));
                    }
                }
                code = Math.max(code, run(located, wishes, target, rows));
            }
        }
        if (json) {
            printJson(rows);
        }
        return code;
    }

    /** Files of one place are restored in one step, which one undo takes back. */
    private List<List<Path>> byPlace() throws IOException {
        Map<String, List<Path>> groups = new LinkedHashMap<>();
        for (Path file : files) {
            try (Located located = locate(file)) {
                String key =
                        located.vault().folder().root() + ":" + located.place().id();
                groups.computeIfAbsent(key, k -> new ArrayList<>()).add(file);
            }
        }
        return List.copyOf(groups.values());
    }

    private int run(Located located, List<Wish> asked, @Nullable Path target, List<Object> rows) throws IOException {
        List<Wish> wishes = asked;
        Elsewhere elsewhere = target == null ? null : new Elsewhere(located.vault(), Protect.realOfNew(target));
        Collision rule = rule(elsewhere != null);
        if (planOnly) {
            RestorePlan plan = elsewhere == null ? work(located).plan(wishes, rule) : elsewhere.plan(wishes, rule);
            rows.addAll(Outcomes.json(plan));
            if (!json) {
                Outcomes.print(this, plan);
            }
            return plan.count(RestorePlan.Step.REFUSE) > 0 ? Main.SOME_FAILED : Main.DONE;
        }
        if (elsewhere != null || !located.place().isOutside()) {
            List<Wish> here = new ArrayList<>();
            for (Wish w : wishes) {
                here.add(new Wish(inVault(located.vault(), w.version()), w.target()));
            }
            wishes = here;
        }
        RestoreResult result;
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            result = elsewhere == null
                    ? work(located).restore(wishes, rule, progress)
                    : elsewhere.restore(wishes, rule, progress);
        }
        rows.addAll(Outcomes.json(result));
        boolean failed = result.count(RestoreResult.Outcome.FAILED) > 0;
        if (!json) {
            return Outcomes.print(this, result);
        }
        return failed ? Main.SOME_FAILED : Main.DONE;
    }

    private Collision rule(boolean elsewhere) {
        String typed = onCollision;
        if (typed == null) {
            return elsewhere ? Collision.KEEP_BOTH : Collision.REPLACE;
        }
        return switch (typed) {
            case "replace" -> Collision.REPLACE;
            case "keep-both" -> Collision.KEEP_BOTH;
            case "skip" -> Collision.SKIP;
            default -> throw new IllegalArgumentException(Words.of("cli.restore.badCollision", typed));
        };
    }

    private List<Wish> wishes(Located located, boolean elsewhere) throws IOException {
        try (Reading reading = located.vault().read()) {
            boolean isFolder = reading.isFolder(located.place(), located.path());
            Line line = located.path().isEmpty()
                    ? null
                    : reading.line(located.place(), located.path()).orElse(null);
            if (line == null && isFolder) {
                return folder(located, reading, elsewhere);
            }
            if (line == null) {
                throw new IllegalArgumentException(Words.of("cli.noLine", located.file()));
            }
            Version wanted = from == null ? version(located, reading, line) : borrowed(located, line);
            return List.of(new Wish(wanted, elsewhere ? RelativePath.name(wanted.path()) : line.path()));
        }
    }

    /** A version of the same file in another place. */
    private Version borrowed(Located located, Line line) throws IOException {
        Path source = java.util.Objects.requireNonNull(from);
        try (Located other = locate(source);
                Reading reading = other.vault().read()) {
            if (!other.vault().folder().root().equals(located.vault().folder().root())) {
                throw new IllegalArgumentException(Words.of("cli.restore.otherVault", source));
            }
            Line theirs = reading.line(other.place(), other.path())
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", source)));
            Version v = version(other, reading, theirs);
            String note = Words.of("restore.fromNote", other.place().where(), v.number());
            return inVault(other.vault(), v).borrowed(line.id(), note);
        }
    }

    private Version version(Located located, Reading reading, Line line) throws IOException {
        if (version > 0) {
            return line.version(version)
                    .orElseThrow(() -> new IllegalArgumentException(Words.of(
                            "cli.noVersion",
                            line.path(),
                            version,
                            line.versions().size())));
        }
        if (at != null) {
            Instant moment = moment(at, located);
            int number = reading.numberAt(line.id(), moment)
                    .orElseThrow(() -> new IllegalArgumentException(
                            Words.of("cli.notThere", line.path(), Say.full(moment, moments()))));
            return line.version(number).orElseThrow();
        }
        if (line.removed().isEmpty()) {
            throw new IllegalArgumentException(Words.of("cli.restore.which", line.path()));
        }
        return line.newest().orElseThrow();
    }

    private java.time.ZoneId moments() {
        try {
            return zone();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** A folder: all its files of the moment, or with none given, those that are removed. */
    private List<Wish> folder(Located located, Reading reading, boolean elsewhere) throws IOException {
        if (version > 0) {
            throw new IllegalArgumentException(Words.of("cli.restore.folderVersion", located.file()));
        }
        List<Wish> wishes = new ArrayList<>();
        String above = RelativePath.parent(located.path());
        if (at == null) {
            removedIn(located, reading, located.path(), above, elsewhere, wishes);
            if (wishes.isEmpty()) {
                throw new IllegalArgumentException(Words.of("cli.restore.nothingRemoved", located.file()));
            }
            return wishes;
        }
        for (Map.Entry<String, Entry> e : reading.tree(located.place(), located.path(), moment(at, located))
                .entrySet()) {
            if (e.getValue().kind() != EntryKind.FOLDER) {
                Version v = reading.line(e.getValue().line())
                        .orElseThrow()
                        .version(e.getValue().number())
                        .orElseThrow();
                wishes.add(new Wish(v, elsewhere ? below(above, e.getKey()) : e.getKey()));
            }
        }
        return wishes;
    }

    private static String below(String above, String path) {
        return above.isEmpty() ? path : path.substring(above.length() + 1);
    }

    private void removedIn(
            Located located, Reading reading, String folder, String above, boolean elsewhere, List<Wish> into)
            throws IOException {
        for (Entry e : reading.listing(located.place(), folder, now(), true)) {
            String path = RelativePath.child(folder, e.name());
            if (e.kind() == EntryKind.FOLDER) {
                removedIn(located, reading, path, above, elsewhere, into);
            } else if (e.removed().isPresent()) {
                Version v = reading.line(e.line()).orElseThrow().newest().orElseThrow();
                into.add(new Wish(v, elsewhere ? below(above, path) : path));
            }
        }
    }
}
