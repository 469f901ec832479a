package org.mendedleaf.cli.revise;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.intake.StrayCopies;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Shows safety copies that programs left, and takes them in. */
@Command(name = "strays", description = "${bundle:cli.strays}")
public final class StraysCommand extends Base {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.strays.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Option(names = "--in", paramLabel = "DIR", descriptionKey = "cli.strays.in")
    List<Path> in = new ArrayList<>();

    @Option(names = "--adopt", descriptionKey = "cli.strays.adopt")
    boolean adopt;

    @Option(names = "--only", paramLabel = "NAME", descriptionKey = "cli.strays.only")
    @Nullable
    String only;

    @Option(names = "--take", descriptionKey = "cli.put.take")
    boolean take;

    public StraysCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder);
                TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            folderOnly(located);
            StrayCopies copies = new StrayCopies(located.vault(), located.place(), evidence(located), clock());
            List<Path> others = in.isEmpty() ? settings().strayFolders() : in;
            List<Stray> found = copies.find(located.path(), others).stream()
                    .filter(s -> only == null
                            || String.valueOf(s.file().getFileName()).equals(only))
                    .toList();
            if (!adopt) {
                print(found);
                return ExitCodes.DONE;
            }
            // Of several copies of one file the newest that brings something is taken in.
            Map<String, Stray> newest = new LinkedHashMap<>();
            found.stream().filter(Stray::isNews).forEach(s -> newest.putIfAbsent(s.belongsTo(), s));
            List<Revision> revisions =
                    newest.values().stream().map(s -> copies.revision(s, take)).toList();
            if (revisions.isEmpty()) {
                if (json) {
                    printJson(Map.of("versions", Map.of(), "failed", Map.of()));
                }
                say("cli.strays.nothing");
                return ExitCodes.DONE;
            }
            PutResult result = new Recovery(context(located)).adopt(revisions, progress);
            result.failed().forEach((path, why) -> complain(path + ": " + why));
            result.stayed().forEach(this::complain);
            if (json) {
                printJson(Map.of("versions", result.labels(), "failed", result.failed()));
            } else {
                newest.forEach((path, s) -> {
                    if (result.labels().containsKey(path)) {
                        say(
                                s.present() ? "cli.strays.adopted" : "cli.strays.back",
                                path,
                                result.labels().get(path),
                                s.file().getFileName());
                    }
                });
            }
            return result.failed().isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
    }

    private void print(List<Stray> found) throws java.io.IOException {
        List<Object> all = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        for (Stray s : found) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("file", s.file().toString());
            map.put("belongsTo", s.belongsTo());
            map.put("present", s.present());
            map.put("kind", s.kind().name());
            map.put("modified", s.modified().toString());
            map.put("size", s.size());
            map.put("sharedPercent", s.shared());
            map.put("sameAsVersion", s.sameAs());
            all.add(map);
            rows.add(List.of(
                    String.valueOf(s.file().getFileName()),
                    Formats.moment(s.modified(), now(), zone()),
                    Formats.size(s.size()),
                    s.kind().words(),
                    Words.of(s.present() ? "stray.of" : "stray.ofGone", s.belongsTo()),
                    !s.sameAs().isEmpty()
                            ? Words.of("stray.same", s.sameAs())
                            : s.shared() < 0 ? "" : Words.of("intake.common", s.shared())));
        }
        if (json) {
            printJson(all);
        } else if (rows.isEmpty()) {
            say("cli.strays.none", folder);
        } else {
            table(rows, "llrlll");
        }
    }
}
