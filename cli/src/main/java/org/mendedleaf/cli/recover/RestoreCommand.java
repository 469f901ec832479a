package org.mendedleaf.cli.recover;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Outcomes;
import org.mendedleaf.cli.base.ReportOption;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.BagArchive;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.Destination;
import org.mendedleaf.core.recovery.FolderRestore;
import org.mendedleaf.core.recovery.PlanReport;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.recovery.Selection;
import org.mendedleaf.core.recovery.ZipArchive;
import org.mendedleaf.core.rules.NotAllowedException;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Brings earlier versions and removed files back. */
@Command(name = "restore", description = "${bundle:cli.restore}")
public final class RestoreCommand extends Base {

    @Parameters(paramLabel = "FILE", arity = "1..*", descriptionKey = "cli.restore.files")
    List<Path> files = List.of();

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.option.version")
    @Nullable
    String version;

    @Option(names = "--at", paramLabel = "MOMENT", descriptionKey = "cli.option.at")
    @Nullable
    String at;

    @Option(names = "--from", paramLabel = "SYSTEM:PLACE/PATH", descriptionKey = "cli.restore.from")
    @Nullable
    Path from;

    @Option(names = "--to", paramLabel = "DIR|FILE.zip", descriptionKey = "cli.restore.to")
    @Nullable
    Path to;

    @Option(names = "--as", paramLabel = "folder|zip|bag", descriptionKey = "cli.restore.as")
    @Nullable
    String as;

    @Option(
            names = "--on-collision",
            paramLabel = "replace|keep-both|rename-other|skip",
            descriptionKey = "cli.restore.collision")
    @Nullable
    String onCollision;

    @Option(names = "--plan", descriptionKey = "cli.restore.plan")
    boolean planOnly;

    @Mixin
    private final ReportOption reportOption = new ReportOption();

    public RestoreCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (version != null && at != null) {
            throw new IllegalArgumentException(Words.of("cli.restore.both"));
        }
        Path target = to;
        if (target == null && as != null) {
            throw new IllegalArgumentException(Words.of("cli.restore.asWithoutTo"));
        }
        if (reportOption.isWanted() && byPlace(files).size() > 1) {
            throw new IllegalArgumentException(Words.of("cli.restore.onePlace"));
        }
        int code = ExitCodes.DONE;
        List<List<Map<String, Object>>> rows = new ArrayList<>();
        List<List<Path>> groups = byPlace(files);
        if (groups.size() > 1 && target != null && form(target) != Form.FOLDER) {
            throw new IllegalArgumentException(Words.of("cli.restore.onePlace"));
        }
        for (List<Path> group : groups) {
            try (Located located = locate(group.get(0))) {
                List<RestoreItem> requested = new ArrayList<>();
                List<TreeAt.Folder> folders = new ArrayList<>();
                for (Path file : group) {
                    try (Located each = locate(file)) {
                        requested.addAll(requested(each, target != null, folders));
                    }
                }
                RestoreRequest request =
                        RestoreRequest.restore(requested, Collisions.all(rule(target != null)), folders);
                code = Math.max(code, run(located, request, target, rows));
            }
        }
        if (json) {
            printJson(
                    rows.size() == 1
                            ? rows.get(0)
                            : rows.stream().flatMap(List::stream).toList());
        }
        return code;
    }

    private enum Form {
        FOLDER,
        ZIP,
        BAG
    }

    private Form form(Path target) {
        boolean zipName =
                String.valueOf(target.getFileName()).toLowerCase(Locale.ROOT).endsWith(".zip");
        String typed = as;
        if (typed == null) {
            return zipName ? Form.ZIP : Form.FOLDER;
        }
        return switch (typed) {
            case "folder" -> Form.FOLDER;
            case "zip" -> Form.ZIP;
            case "bag" -> Form.BAG;
            default -> throw new IllegalArgumentException(Words.of("cli.restore.badAs", typed));
        };
    }

    private Destination destination(Located located, @Nullable Path target) throws IOException {
        if (target == null) {
            return work(located);
        }
        return switch (form(target)) {
            case FOLDER -> new FolderRestore(located.vault(), Protect.realOfNew(target));
            case ZIP -> new ZipArchive(located.vault(), Protect.realOfNew(target));
            case BAG -> new BagArchive(located.vault(), Protect.realOfNew(target), clock());
        };
    }

    private int run(Located located, RestoreRequest asked, @Nullable Path target, List<List<Map<String, Object>>> rows)
            throws IOException {
        Destination destination = destination(located, target);
        if (planOnly) {
            RestorePlan plan = plan(destination, asked);
            report(located, plan);
            rows.add(PlanReport.items(plan));
            if (!json) {
                Outcomes.print(this, plan);
            }
            return plan.count(RestorePlan.Step.REFUSE) > 0 || !plan.preflight().isGood()
                    ? ExitCodes.SOME_FAILED
                    : ExitCodes.DONE;
        }
        RestoreRequest request = asked;
        if (target != null || !located.place().isOutside()) {
            List<Version> versions = inVault(
                    located.vault(),
                    asked.requested().stream().map(RestoreItem::version).toList());
            List<RestoreItem> here = new ArrayList<>();
            for (int i = 0; i < versions.size(); i++) {
                here.add(new RestoreItem(
                        versions.get(i), asked.requested().get(i).target()));
            }
            request = asked.with(here);
        }
        if (reportOption.isWanted()) {
            report(located, plan(destination, request));
        }
        RestoreResult result;
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            result = destination.restore(request, progress);
        }
        rows.add(Outcomes.json(result));
        boolean failed = result.count(RestoreResult.Outcome.FAILED) > 0;
        if (!json) {
            return Outcomes.print(this, result);
        }
        return failed ? ExitCodes.SOME_FAILED : ExitCodes.DONE;
    }

    private RestorePlan plan(Destination destination, RestoreRequest request) throws IOException {
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            return destination.plan(request, progress);
        }
    }

    /** Writes what is going to be done, if that is wanted. */
    private void report(Located located, RestorePlan plan) throws IOException {
        String named = files.size() == 1 ? located.path() : Words.of("plan.several", files.size());
        String title = Words.of(
                "report.plan.restore", named.isEmpty() ? located.place().label() : named);
        reportOption.write(this, () -> PlanReport.report(plan, title, now(), zone()));
    }

    private Collision rule(boolean elsewhere) {
        String typed = onCollision;
        if (typed == null) {
            return elsewhere ? Collision.KEEP_BOTH : Collision.REPLACE;
        }
        return switch (typed) {
            case "replace" -> Collision.REPLACE;
            case "keep-both" -> Collision.KEEP_BOTH;
            case "rename-other" -> Collision.KEEP_BOTH_RENAME_OTHER;
            case "skip" -> Collision.SKIP;
            default -> throw new IllegalArgumentException(Words.of("cli.restore.badCollision", typed));
        };
    }

    private List<RestoreItem> requested(Located located, boolean elsewhere, List<TreeAt.Folder> folders)
            throws IOException {
        try (Reading reading = located.vault().read()) {
            boolean isFolder = reading.folders().isFolder(located.place(), located.path());
            Line line = located.path().isEmpty()
                    ? null
                    : reading.line(located.place(), located.path()).orElse(null);
            if (line == null && isFolder) {
                return folder(located, reading, elsewhere, folders);
            }
            if (line == null) {
                throw new IllegalArgumentException(Words.of("cli.noLine", located.file()));
            }
            Version wanted = from == null ? version(located, reading, line(located, reading)) : borrowed(located, line);
            return List.of(new RestoreItem(wanted, elsewhere ? RelativePath.name(wanted.path()) : line.path()));
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
            String note = Words.of("restore.fromNote", other.place().where(), v.label());
            return inVault(other.vault(), v).borrowed(line.id(), note);
        }
    }

    private Version version(Located located, Reading reading, Line line) throws IOException {
        if (version != null) {
            return version(line, version);
        }
        if (at != null) {
            Instant moment = moment(at, located);
            int number = reading.lines()
                    .numberAt(line.id(), moment)
                    .orElseThrow(
                            () -> new IllegalArgumentException(Words.of("cli.notThere", line.path(), safe(moment))));
            // Who may not see drafts gets what was published last by then.
            return line.versions().stream()
                    .filter(v -> v.number() <= number)
                    .findFirst()
                    .orElseThrow(
                            () -> new NotAllowedException(Words.of("rights.nothingThen", line.path(), safe(moment))));
        }
        if (line.removed().isEmpty()) {
            throw new IllegalArgumentException(Words.of("cli.restore.which", line.path()));
        }
        return line.newest().orElseThrow();
    }

    private String safe(Instant moment) {
        try {
            return full(moment);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** A folder: all its files of the moment, or with none given, those that are removed. */
    private List<RestoreItem> folder(Located located, Reading reading, boolean elsewhere, List<TreeAt.Folder> folders)
            throws IOException {
        if (version != null) {
            throw new IllegalArgumentException(Words.of("cli.restore.folderVersion", located.file()));
        }
        Instant moment = moment(at, located);
        List<String> paths = at == null
                ? Selection.removedIn(reading, located.place(), located.path(), moment)
                : List.of(located.path());
        if (paths.isEmpty()) {
            throw new IllegalArgumentException(Words.of("cli.restore.nothingRemoved", located.file()));
        }
        RestoreRequest request = new Selection(paths, moment)
                .request(reading, located.place(), false, Collisions.all(Collision.REPLACE), Progress.NONE);
        String above = elsewhere ? RelativePath.parent(located.path()) : "";
        for (TreeAt.Folder f : request.folders()) {
            folders.add(new TreeAt.Folder(below(above, f.path()), f.mtimeNanos(), f.mode()));
        }
        return request.requested().stream()
                .map(w -> new RestoreItem(w.version(), below(above, w.target())))
                .toList();
    }

    private static String below(String above, String path) {
        return above.isEmpty() ? path : path.substring(above.length() + 1);
    }
}
