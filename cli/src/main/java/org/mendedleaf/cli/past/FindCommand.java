package org.mendedleaf.cli.past;

import java.io.IOException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.FindQuery;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.find.FindWords;
import org.mendedleaf.core.find.Finder;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Finds words in all versions of all files, and in what is said of them. */
@Command(name = "find", description = "${bundle:cli.find}")
public final class FindCommand extends Base {

    private static final int FILES_MOST = 50;

    @Parameters(paramLabel = "WORDS", arity = "1..*", descriptionKey = "cli.find.words")
    @SuppressWarnings("NullAway.Init")
    List<String> words;

    @Option(names = "--in", paramLabel = "FOLDER", descriptionKey = "cli.find.in")
    @Nullable
    Path in;

    @Option(names = "--kind", paramLabel = "ENDING", descriptionKey = "cli.find.kind")
    String kind = "";

    @Option(names = "--by", paramLabel = "PERSON", descriptionKey = "cli.find.by")
    String by = "";

    @Option(names = "--removed", descriptionKey = "cli.find.removed")
    boolean removed;

    @Option(names = "--present", descriptionKey = "cli.find.present")
    boolean present;

    @Option(names = "--text", descriptionKey = "cli.find.text")
    boolean text;

    @Option(names = "--names", descriptionKey = "cli.find.names")
    boolean names;

    @Option(names = "--from", paramLabel = "MOMENT", descriptionKey = "cli.find.from")
    @Nullable
    String from;

    @Option(names = "--to", paramLabel = "MOMENT", descriptionKey = "cli.find.to")
    @Nullable
    String to;

    @Option(names = "--as-it-is", descriptionKey = "cli.find.asItIs")
    boolean asItIs;

    public FindCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> all = new ArrayList<>();
        long found = 0;
        Path where = in;
        if (where != null) {
            try (Located located = locate(where)) {
                found += vault(located.vault(), Optional.of(located), all);
            }
        } else {
            for (Path folder : vaults()) {
                try (OpenVault open = open(folder)) {
                    found += vault(open, Optional.empty(), all);
                }
            }
        }
        if (json) {
            printJson(all);
        } else if (found == 0) {
            say("cli.find.nothing");
        }
        return ExitCodes.DONE;
    }

    private long vault(OpenVault vault, Optional<Located> located, List<Object> all) throws IOException {
        Wanted wanted = Wanted.parse(String.join(" ", quoted()), false, narrow(located));
        if (!asItIs && !names) {
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                new Indexer(vault, false).run(progress);
            }
        }
        Finder finder = new Finder(vault, who());
        Finder.Found found = finder.find(wanted, FILES_MOST);
        for (Finder.FileHit hit : found.files()) {
            if (json) {
                all.add(map(hit));
            } else {
                print(hit);
            }
        }
        for (Finder.SnapshotHit hit : found.snapshots()) {
            if (json) {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("snapshot", hit.snapshot().label());
                map.put("place", hit.place().where());
                map.put("at", hit.snapshot().at().toString());
                all.add(map);
            } else {
                line(Words.of(
                        "cli.find.snapshot",
                        hit.snapshot().label(),
                        hit.place().where(),
                        full(hit.snapshot().at())));
            }
        }
        if (!json && found.more()) {
            say("cli.find.more", FILES_MOST);
        }
        if (!json && !found.complete() && !names) {
            Finder.Share share = finder.share();
            if (share.indexed() < share.all()) {
                say("cli.find.partly", share.indexed(), share.all());
            }
        }
        return (long) found.files().size() + found.snapshots().size();
    }

    /** What a shell gives as one word with spaces in it was meant as a phrase. */
    private List<String> quoted() {
        return words.stream()
                .map(w -> w.contains(" ") && !w.contains("\"")
                        ? (w.startsWith("-") ? "-\"" + w.substring(1) : "\"" + w) + "\""
                        : w)
                .toList();
    }

    private Wanted.Narrow narrow(Optional<Located> located) throws IOException {
        Wanted.Presence presence =
                removed ? Wanted.Presence.REMOVED : present ? Wanted.Presence.PRESENT : Wanted.Presence.ALL;
        Wanted.Field field = text ? Wanted.Field.TEXT : names ? Wanted.Field.NAMES : Wanted.Field.ALL;
        return new Wanted.Narrow(
                located.map(l -> l.place().id()),
                located.map(Located::path).orElse(""),
                kind.startsWith(".") ? kind.substring(1) : kind,
                since(from),
                until(to),
                by,
                presence,
                field);
    }

    private void print(Finder.FileHit hit) throws IOException {
        Line line = hit.line();
        String where = line.place().isOutside()
                ? line.place().where() + "/" + line.path()
                : line.place().root().resolve(line.path()).toString();
        ZoneId zone = zone();
        line(line.removed().isPresent() ? Words.of("cli.find.removedFile", where) : where);
        for (Finder.Span span : hit.spans()) {
            line("  " + FindWords.of(line, span, v -> Formats.full(v.saved(), zone)));
        }
        if (!hit.snippet().isEmpty()) {
            line("  … " + hit.snippet().replace("\u0002", "[").replace("\u0003", "]"));
        }
        for (FindQuery.Said said : hit.said()) {
            line("  " + FindWords.of(line, said));
        }
    }

    private static Map<String, Object> map(Finder.FileHit hit) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("place", hit.line().place().where());
        map.put("path", hit.line().path());
        map.put("removed", hit.line().removed().isPresent());
        map.put("snippet", hit.snippet().replace("\u0002", "").replace("\u0003", ""));
        List<Object> spans = new ArrayList<>();
        for (Finder.Span span : hit.spans()) {
            Map<String, Object> s = new LinkedHashMap<>();
            s.put("first", span.first().label());
            s.put("last", span.last().label());
            s.put("gone", span.gone().map(Version::label).orElse(null));
            s.put("goneBy", span.gone().map(Version::who).orElse(null));
            spans.add(s);
        }
        map.put("spans", spans);
        List<Object> said = new ArrayList<>();
        for (FindQuery.Said s : hit.said()) {
            Map<String, Object> m = new LinkedHashMap<>();
            m.put("in", s.in().name());
            m.put("text", s.text());
            m.put("version", s.number() == 0 ? null : hit.line().label(s.number()));
            said.add(m);
        }
        map.put("said", said);
        return map;
    }
}
