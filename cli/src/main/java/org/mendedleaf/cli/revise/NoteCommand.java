package org.mendedleaf.cli.revise;

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
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.Visibility;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Writes, shows and finds what people say of versions and files. */
@Command(name = "note", description = "${bundle:cli.note}")
public final class NoteCommand extends Base {

    @Parameters(index = "0", paramLabel = "FILE|FOLDER", descriptionKey = "cli.note.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Parameters(index = "1..*", paramLabel = "TEXT", descriptionKey = "cli.note.text")
    List<String> more = List.of();

    @Option(names = "--text", paramLabel = "TEXT", descriptionKey = "cli.note.textOption")
    @Nullable
    String text;

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.note.version")
    @Nullable
    String version;

    @Option(names = "--comment", descriptionKey = "cli.note.comment")
    boolean comment;

    @Option(names = "--find", paramLabel = "TEXT", descriptionKey = "cli.note.find")
    @Nullable
    String find;

    @Mixin
    private final CardOptions options = new CardOptions();

    public NoteCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        String words = text;
        if (words == null && more.size() > 1) {
            throw new IllegalArgumentException(Words.of("cli.note.oneText"));
        }
        if (words == null) {
            return note(file, more.isEmpty() ? null : more.get(0));
        }
        List<Path> files = new ArrayList<>(List.of(file));
        more.forEach(each -> files.add(Path.of(each)));
        for (Path each : files) {
            // Each is looked for before anything is written.
            locate(each).close();
        }
        int code = ExitCodes.DONE;
        for (Path each : files) {
            code = Math.max(code, note(each, words));
        }
        return code;
    }

    private int note(Path which, @Nullable String words) throws IOException {
        try (Located located = locate(which)) {
            String wanted = find;
            if (wanted != null) {
                return find(located, wanted);
            }
            Line line;
            FileProperties card;
            try (Reading reading = located.vault().read()) {
                line = line(located, reading);
                card = RemarkStore.of(reading).card(line.id());
            }
            if (options.isGiven()) {
                card = options.of(card);
                lineWork(located).card(line.path(), card);
            }
            if (words != null) {
                String named = version;
                Version v = named == null
                        ? line.newest()
                                .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", located.file())))
                        : version(line, named);
                if (comment) {
                    lineWork(located).comment(v, words);
                } else {
                    lineWork(located).note(v, words);
                }
                if (!json) {
                    say(comment ? "cli.note.commented" : "cli.note.noted", line.path(), v.label());
                    return ExitCodes.DONE;
                }
            }
            show(located, card);
            return ExitCodes.DONE;
        }
    }

    /** The lines of a text below each other, with nothing in them that a terminal would obey. */
    private static String indented(String text) {
        return text.lines().map(Base::printable).collect(java.util.stream.Collectors.joining("\n    "));
    }

    private void show(Located located, FileProperties card) throws IOException {
        List<Object> all = new ArrayList<>();
        try (Reading reading = located.vault().read()) {
            Line line = line(located, reading);
            List<Comment> comments = RemarkStore.of(reading).comments(line.id());
            if (!json && !card.isNothing()) {
                say("cli.note.card", card.category(), Words.of("visibility." + card.visibility()));
            }
            for (Version v : line.versions()) {
                List<Comment> here =
                        comments.stream().filter(c -> c.number() == v.number()).toList();
                if (v.note().isEmpty() && here.isEmpty()) {
                    continue;
                }
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("version", v.label());
                map.put("note", v.note());
                map.put(
                        "comments",
                        here.stream()
                                .map(c -> Map.of("who", c.who(), "at", c.at().toString(), "words", c.words()))
                                .toList());
                all.add(map);
                if (!json) {
                    say(
                            "cli.note.of",
                            v.label(),
                            Formats.moment(v.saved(), now(), zone()),
                            v.who(),
                            indented(v.note()));
                    for (Comment c : here) {
                        say("cli.note.commentOf", c.who(), Formats.moment(c.at(), now(), zone()), indented(c.words()));
                    }
                }
            }
        }
        if (json) {
            printJson(Map.of(
                    "category", card.category(),
                    "visible", card.visibility().name(),
                    "versions", all));
        } else if (all.isEmpty()) {
            say("cli.note.none");
        }
    }

    private int find(Located located, String wanted) throws IOException {
        List<Object> all = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        try (Reading reading = located.vault().read()) {
            for (RemarkStore.Hit h : RemarkStore.of(reading).find(located.place(), wanted)) {
                boolean inside = located.path().isEmpty() || (h.path() + "/").startsWith(located.path() + "/");
                Line line = reading.line(h.line()).orElseThrow();
                boolean seen = Visibility.see(reading, line, who())
                        .flatMap(l -> l.version(h.number()))
                        .isPresent();
                if (!inside || !seen) {
                    continue;
                }
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("path", h.path());
                map.put("version", line.label(h.number()));
                map.put("who", h.who());
                map.put("at", h.at().toString());
                map.put("note", h.isNote());
                map.put("words", h.words());
                all.add(map);
                rows.add(List.of(
                        h.path(),
                        line.label(h.number()),
                        Formats.moment(h.at(), now(), zone()),
                        h.who(),
                        h.words().strip().replaceAll("\\s+", " ")));
            }
        }
        if (json) {
            printJson(all);
        } else if (rows.isEmpty()) {
            say("cli.note.notFound", wanted);
        } else {
            table(rows, "lrlll");
        }
        return ExitCodes.DONE;
    }
}
