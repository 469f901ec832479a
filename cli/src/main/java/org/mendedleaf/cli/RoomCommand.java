package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.VersionTable;
import org.mendedleaf.core.retention.RoomReport;
import org.mendedleaf.core.retention.RoomTable;
import org.mendedleaf.core.retention.RoomTree;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Shows where the room goes, exactly. */
@Command(name = "room", description = "${bundle:cli.room}")
final class RoomCommand extends RetentionBase {

    private static final int LARGEST = 10;

    @Parameters(arity = "0..1", paramLabel = "PATH", descriptionKey = "cli.room.path")
    @Nullable
    Path path;

    @Option(names = "--largest", descriptionKey = "cli.room.largest")
    boolean largest;

    RoomCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> all = new ArrayList<>();
        int code = eachMeant(path, m -> {
            try (Reading reading = m.vault().read()) {
                VersionTable table = VersionTable.of(reading);
                RoomReport room = RoomReport.of(m.vault().folder(), new RoomTable(table));
                RoomTree tree = RoomTree.of(table, now());
                RoomTree.Node node = m.place() == 0
                        ? tree.root()
                        : tree.find(m.place(), m.path())
                                .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", path)));
                if (json) {
                    all.add(json(m.vault().folder().root(), room, tree, node));
                } else {
                    print(m.vault().folder().root(), room, tree, node);
                }
                return Main.DONE;
            }
        });
        if (json) {
            printJson(all);
        }
        return code;
    }

    private List<RoomTree.Node> shown(RoomTree tree, RoomTree.Node node) {
        List<RoomTree.Node> rows =
                new ArrayList<>(largest ? tree.largest(LARGEST) : node.isFile() ? List.of(node) : node.children());
        rows.sort(Comparator.comparingLong((RoomTree.Node n) -> n.share().takenBytes())
                .reversed());
        return rows;
    }

    private void print(Path vault, RoomReport room, RoomTree tree, RoomTree.Node node) {
        say(
                "cli.room.vault",
                vault,
                Say.size(room.all()),
                Say.size(room.inUse()),
                Say.size(room.waiting()),
                Say.size(room.unused()),
                Say.size(room.bookkeeping()),
                Say.size(room.free()));
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of(
                "",
                Words.of("room.live"),
                Words.of("room.versions"),
                Words.of("room.withVersions"),
                Words.of("room.taken"),
                Words.of("room.only"),
                Words.of("room.share")));
        for (RoomTree.Node n : shown(tree, node)) {
            rows.add(row(largest ? n.path() : n.name() + (n.isFile() ? "" : "/"), n));
        }
        if (!node.isFile()) {
            rows.add(row(Words.of("room.sum"), node));
        }
        table(rows, "lrrrrrr");
    }

    private static List<String> row(String name, RoomTree.Node n) {
        return List.of(
                name,
                Say.size(n.liveBytes()),
                Say.number(n.share().versions()),
                Say.size(n.share().versionBytes()),
                Say.size(n.share().takenBytes()),
                Say.size(n.share().onlyBytes()),
                Math.round(n.ofParent() * 100) + " %");
    }

    private Map<String, Object> json(Path vault, RoomReport room, RoomTree tree, RoomTree.Node node) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("vault", vault.toString());
        map.put("inUse", room.inUse());
        map.put("waiting", room.waiting());
        map.put("unused", room.unused());
        map.put("bookkeeping", room.bookkeeping());
        map.put("all", room.all());
        map.put("free", room.free());
        map.put("of", json(node));
        map.put("inside", shown(tree, node).stream().map(RoomCommand::json).toList());
        Map<String, Object> kinds = new LinkedHashMap<>();
        tree.kinds().forEach((k, s) -> kinds.put(k.name(), share(s)));
        map.put("kinds", kinds);
        Map<String, Object> ages = new LinkedHashMap<>();
        tree.ages().forEach((a, s) -> ages.put(a.name(), share(s)));
        map.put("ages", ages);
        return map;
    }

    private static Map<String, Object> share(RoomTree.Share s) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("versions", s.versions());
        map.put("bytesWithVersions", s.versionBytes());
        map.put("takenBytes", s.takenBytes());
        map.put("onlyBytes", s.onlyBytes());
        return map;
    }

    private static Map<String, Object> json(RoomTree.Node n) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", n.path().isEmpty() ? n.name() : n.path());
        map.put("file", n.isFile());
        map.put("liveBytes", n.liveBytes());
        map.putAll(share(n.share()));
        return map;
    }
}
