package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.NeedsYesException;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.systems.OutsideErasing;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/**
 * Erases versions of a file. In a folder they are let go with a grace time; in another system a version goes at once, after
 * the vault has taken it.
 */
@Command(name = "erase", description = "${bundle:cli.erase}")
public final class EraseCommand extends RetentionBase {

    @Parameters(paramLabel = "FILE", arity = "1..*", descriptionKey = "cli.option.files")
    List<Path> files = List.of();

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.erase.version")
    @Nullable
    String version;

    @Option(names = "--older", descriptionKey = "cli.erase.older")
    boolean older;

    @Option(names = "--all", descriptionKey = "cli.erase.all")
    boolean all;

    @Option(names = "--yes", descriptionKey = "cli.erase.yes")
    boolean yes;

    @Option(names = "--plan", descriptionKey = "cli.erase.plan")
    boolean plan;

    private final List<Object> rows = new ArrayList<>();

    public EraseCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        String named = version;
        int chosen = (named != null ? 1 : 0) + (older ? 1 : 0) + (all ? 1 : 0);
        if (chosen != 1) {
            throw new IllegalArgumentException(Words.of("cli.erase.one"));
        }
        if (named != null && files.size() > 1) {
            throw new IllegalArgumentException(Words.of("cli.oneVersionOfOne"));
        }
        for (Path file : files) {
            // Each is looked for before anything is erased.
            locate(file).close();
        }
        int code = ExitCodes.DONE;
        for (Path file : files) {
            code = Math.max(code, erase(file, named));
        }
        if (json && !rows.isEmpty()) {
            printJson(files.size() == 1 ? rows.get(0) : rows);
        }
        return code;
    }

    private int erase(Path file, @Nullable String named) throws IOException {
        try (Located located = locate(file)) {
            if (located.place().isOutside()) {
                if (all) {
                    throw new IllegalArgumentException(Words.of("cli.erase.outsideOne"));
                }
                return named == null ? olderOutside(located) : outside(located, named);
            }
            return inFolder(located, named);
        }
    }

    private int inFolder(Located located, @Nullable String named) throws IOException {
        Line line;
        try (Reading reading = located.vault().read()) {
            line = line(located, reading);
        }
        Erasing erasing = new Erasing(context(located));
        Erasing.What what = named != null ? Erasing.What.VERSION : older ? Erasing.What.OLDER : Erasing.What.ALL;
        int number = named == null ? 0 : version(line, named).number();
        Erasing.Consequences would = erasing.consequences(line.id(), what, number);
        if (!json) {
            would.words(line).forEach(this::line);
        }
        boolean nothing = would.numbers().isEmpty();
        if (plan || nothing) {
            if (json) {
                rows.add(Map.of(
                        "versions", would.numbers().stream().map(line::label).toList(),
                        "freedBytes", would.freedBytes(),
                        "words", would.words(line)));
            }
            return nothing ? ExitCodes.SOME_FAILED : ExitCodes.DONE;
        }
        if (!yes && !surroundings.confirms(Words.of("cli.erase.sure"))) {
            throw new NeedsYesException(Words.of("cli.needsYes"));
        }
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            Erasing.Done done = erasing.erase(line.id(), what, number, progress);
            if (json) {
                rows.add(Map.of(
                        "versions",
                                done.consequences().numbers().stream()
                                        .map(line::label)
                                        .toList(),
                        "freedBytes", done.consequences().freedBytes(),
                        "due", done.due().toString(),
                        "action", done.action()));
            } else {
                say("cli.erase.waits", Formats.full(done.due(), zone()));
            }
            return ExitCodes.DONE;
        }
    }

    private int outside(Located located, String named) throws IOException {
        Version wanted;
        try (Reading reading = located.vault().read()) {
            wanted = version(line(located, reading), named);
        }
        String what =
                Words.of("cli.erase.what", wanted.path(), named, located.place().where());
        if (plan) {
            planned(located, List.of(named), what);
            return ExitCodes.DONE;
        }
        if (!yes && !surroundings.confirms(what)) {
            throw new NeedsYesException(what + " " + Words.of("cli.needsYes"));
        }
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            new OutsideErasing(located.vault(), located.place(), registry(), clock(), who()).erase(wanted, progress);
        }
        if (json) {
            rows.add(Map.of("erased", named, "path", wanted.path()));
        } else {
            say("cli.erase.done", wanted.path(), named, located.place().where());
        }
        return ExitCodes.DONE;
    }

    private void planned(Located located, List<String> versions, String words) {
        if (json) {
            rows.add(Map.of("path", located.path(), "versions", versions, "words", List.of(words)));
        } else {
            line(words);
        }
    }

    /** All but the newest that the system holds. */
    private int olderOutside(Located located) throws IOException {
        List<Version> there;
        try (Reading reading = located.vault().read()) {
            Line line = line(located, reading);
            Map<Integer, List<Holder>> holders = reading.outside().holders(line);
            int newest = line.newest().map(Version::number).orElse(0);
            there = line.versions().stream()
                    .filter(v -> v.number() != newest
                            && holders.getOrDefault(v.number(), List.of()).stream()
                                    .anyMatch(h -> h.kind() == Holder.Kind.POINT))
                    .toList();
        }
        String where = located.place().where();
        if (there.isEmpty()) {
            say("cli.erase.outsideNone", located.path(), where);
            return ExitCodes.SOME_FAILED;
        }
        if (plan) {
            planned(
                    located,
                    there.stream().map(Version::label).toList(),
                    Words.of("cli.erase.outsideSure", there.size(), located.path(), where));
            return ExitCodes.DONE;
        }
        if (!yes && !surroundings.confirms(Words.of("cli.erase.outsideSure", there.size(), located.path(), where))) {
            throw new NeedsYesException(Words.of("cli.needsYes"));
        }
        Map<String, String> failed;
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            failed = new OutsideErasing(located.vault(), located.place(), registry(), clock(), who())
                    .erase(there, progress);
        }
        if (json) {
            rows.add(Map.of("path", located.path(), "erased", there.size() - failed.size(), "failed", failed));
        } else {
            say("cli.thin.erased", there.size() - failed.size(), where);
        }
        failed.forEach((what, why) -> complain(Words.of("cli.thin.notErased", what, why)));
        return failed.isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
    }
}
