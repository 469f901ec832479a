package org.mendedleaf.cli.past;

import java.io.IOException;
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
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.find.FindIndex;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Fills the index of words, makes it anew, or leaves a folder out of it. */
@Command(name = "index", description = "${bundle:cli.index}")
public final class IndexCommand extends Base {

    @Parameters(paramLabel = "FOLDER", arity = "0..1", descriptionKey = "cli.index.folder")
    @Nullable
    Path folder;

    @Option(names = "--anew", descriptionKey = "cli.index.anew")
    boolean anew;

    @Option(names = "--off", descriptionKey = "cli.index.off")
    boolean off;

    @Option(names = "--on", descriptionKey = "cli.index.on")
    boolean on;

    public IndexCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Path named = folder;
        if (off || on) {
            if (named == null || off && on) {
                throw new IllegalArgumentException(Words.of("cli.index.which"));
            }
            try (Located located = locate(named)) {
                return set(located);
            }
        }
        List<Object> all = new ArrayList<>();
        int code = eachVault((path, open) -> {
            if (anew) {
                FindIndex.remove(open.folder());
            }
            fill(path, open, all);
            return ExitCodes.DONE;
        });
        if (json) {
            printJson(all);
        }
        return code;
    }

    private void fill(Path path, OpenVault open, List<Object> all) throws IOException {
        Indexer.Result result;
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            result = new Indexer(open, false).run(progress);
        }
        try (FindIndex index = FindIndex.open(open.folder())) {
            FindIndex.Size size = index.size();
            if (json) {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("vault", path.toString());
                map.put("added", result.added());
                map.put("removed", result.removed());
                map.put("complete", result.complete());
                map.put("versions", size.versions());
                map.put("contents", size.contents());
                map.put("characters", size.chars());
                map.put("bytes", size.bytes());
                all.add(map);
            } else {
                say(
                        "cli.index.done",
                        path,
                        size.versions(),
                        size.contents(),
                        Formats.size(size.bytes()),
                        result.added(),
                        result.removed());
            }
        }
    }

    private int set(Located located) throws IOException {
        try (Reading reading = located.vault().read();
                FindIndex index = FindIndex.open(located.vault().folder())) {
            index.off(located.place(), off, reading.lines().ids(located.place()));
        }
        if (json) {
            printJson(Map.of("place", located.place().where(), "searched", on));
        } else {
            say(off ? "cli.index.isOff" : "cli.index.isOn", located.place().where());
        }
        return ExitCodes.DONE;
    }
}
