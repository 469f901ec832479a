package org.mendedleaf.cli.keep;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.retention.SpaceReport;
import org.mendedleaf.core.retention.SpaceShare;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.SpaceTree;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Shows where the space goes, exactly. */
@Command(name = "space", description = "${bundle:cli.space}")
public final class SpaceCommand extends RetentionBase {

    private static final int LARGEST = 10;

    @Parameters(arity = "0..1", paramLabel = "PATH", descriptionKey = "cli.space.path")
    @Nullable
    Path path;

    @Option(names = "--largest", descriptionKey = "cli.space.largest")
    boolean largest;

    public SpaceCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> all = new ArrayList<>();
        int code = eachMeant(path, m -> {
            try (Reading reading = m.vault().read()) {
                VersionTable table = VersionTable.of(reading);
                SpaceReport space = SpaceReport.of(m.vault().folder(), new SpaceTable(table));
                SpaceTree tree = SpaceTree.of(table, now());
                SpaceTree.Node node = m.place() == 0
                        ? tree.root()
                        : tree.find(m.place(), m.path())
                                .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", path)));
                if (json) {
                    all.add(json(m.vault().folder().root(), space, tree, node));
                } else {
                    print(m.vault().folder().root(), space, tree, node);
                }
                return ExitCodes.DONE;
            }
        });
        if (json) {
            printJson(all);
        }
        return code;
    }

    private List<SpaceTree.Node> shown(SpaceTree tree, SpaceTree.Node node) {
        List<SpaceTree.Node> rows =
                new ArrayList<>(largest ? tree.largest(LARGEST) : node.isFile() ? List.of(node) : node.children());
        rows.sort(Comparator.comparingLong((SpaceTree.Node n) -> n.share().takenBytes())
                .reversed());
        return rows;
    }

    private void print(Path vault, SpaceReport space, SpaceTree tree, SpaceTree.Node node) {
        say(
                "cli.space.vault",
                vault,
                Formats.size(space.all()),
                Formats.size(space.inUse()),
                Formats.size(space.waiting()),
                Formats.size(space.unused()),
                Formats.size(space.bookkeeping()),
                Formats.size(space.free()));
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of(
                "",
                Words.of("space.live"),
                Words.of("space.versions"),
                Words.of("space.withVersions"),
                Words.of("space.taken"),
                Words.of("space.only"),
                Words.of("space.share")));
        for (SpaceTree.Node n : shown(tree, node)) {
            rows.add(row(largest ? n.path() : n.name() + (n.isFile() ? "" : "/"), n));
        }
        if (!node.isFile()) {
            rows.add(row(Words.of("space.sum"), node));
        }
        table(rows, "lrrrrrr");
    }

    private static List<String> row(String name, SpaceTree.Node n) {
        return List.of(
                name,
                Formats.size(n.liveBytes()),
                Formats.number(n.share().versions()),
                Formats.size(n.share().versionBytes()),
                Formats.size(n.share().takenBytes()),
                Formats.size(n.share().onlyBytes()),
                Math.round(n.ofParent() * 100) + " %");
    }

    private Map<String, Object> json(Path vault, SpaceReport space, SpaceTree tree, SpaceTree.Node node) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("vault", vault.toString());
        map.put("inUse", space.inUse());
        map.put("waiting", space.waiting());
        map.put("unused", space.unused());
        map.put("bookkeeping", space.bookkeeping());
        map.put("all", space.all());
        map.put("free", space.free());
        map.put("of", json(node));
        map.put("inside", shown(tree, node).stream().map(SpaceCommand::json).toList());
        Map<String, Object> kinds = new LinkedHashMap<>();
        tree.kinds().forEach((k, s) -> kinds.put(k.name(), share(s)));
        map.put("kinds", kinds);
        Map<String, Object> ages = new LinkedHashMap<>();
        tree.ages().forEach((a, s) -> ages.put(a.name(), share(s)));
        map.put("ages", ages);
        return map;
    }

    private static Map<String, Object> share(SpaceShare s) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("versions", s.versions());
        map.put("bytesWithVersions", s.versionBytes());
        map.put("takenBytes", s.takenBytes());
        map.put("onlyBytes", s.onlyBytes());
        return map;
    }

    private static Map<String, Object> json(SpaceTree.Node n) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", n.path().isEmpty() ? n.name() : n.path());
        map.put("file", n.isFile());
        map.put("liveBytes", n.liveBytes());
        map.putAll(share(n.share()));
        return map;
    }
}
