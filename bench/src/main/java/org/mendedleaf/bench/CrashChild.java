package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyHealing;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.Folding;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.recovery.Rollback;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.unfold.Unfolding;
import org.mendedleaf.core.vault.Digest;

/**
 * The process that is killed: it edits files, captures, restores, mends, puts in, adopts, folds, rolls back, lets go, reclaims,
 * copies the vault and heals it without end, and says on its standard output what it is about to write ("WILL sha256"), which versions were acknowledged ("ACK line
 * number sha256"), and how the folder looked before something that can be undone as a whole ("BEFORE kind digest", then
 * "DONE").
 */
final class CrashChild {

    private static final int FILES = 24;

    private final byte[] prose = Corpus.text(new Random(3), 160_000);
    private final Random random;
    private final Path desk;
    private final Path aside;
    private final Path folder;
    private OpenVault vault;
    private final Place place;
    private final Clock clock = Clock.system(ZoneOffset.UTC);
    private final Authors authors = (path, owner) -> owner;

    private CrashChild(Path folder, long seed) throws IOException {
        random = new Random(seed);
        this.folder = folder;
        desk = Files.createDirectories(folder.resolve("desk")).toRealPath();
        aside = Files.createDirectories(folder.resolve("aside"));
        vault = open();
        place = Protect.place(vault, desk, Rhythm.ON_SAVE, List.of(), clock, "Ines");
    }

    private OpenVault open() throws IOException {
        return OpenVault.openOrCreate(folder.resolve("vault"), "crash child", Duration.ofSeconds(10));
    }

    /** Runs until it is killed: {@code FOLDER SEED}; with {@code make} behind it, makes one vault after the other. */
    public static void main(String[] arguments) throws IOException {
        if (arguments.length > 2 && arguments[2].equals("make")) {
            make(Path.of(arguments[0]));
        }
        CrashChild child = new CrashChild(Path.of(arguments[0]), Long.parseLong(arguments[1]));
        say("READY");
        while (true) {
            child.edit();
            child.capture();
            child.restore();
            if (child.random.nextInt(2) == 0) {
                child.thin();
            }
            if (child.random.nextInt(2) == 0) {
                child.reclaim();
            }
            if (child.random.nextInt(2) == 0) {
                child.unfold();
            }
            if (child.random.nextInt(8) == 0) {
                child.rebuild();
            }
            if (child.random.nextInt(2) == 0) {
                child.copyVault();
            }
            if (child.random.nextInt(4) == 0) {
                child.heal();
            }
            switch (child.random.nextInt(7)) {
                case 0, 1 -> child.rollBack();
                case 2 -> child.put(false);
                case 3 -> child.put(true);
                case 4 -> child.mend();
                default -> child.fold();
            }
        }
    }

    private static void say(String words) {
        System.out.println(words);
        System.out.flush();
    }

    private void edit() throws IOException {
        for (int i = 0; i < 1 + random.nextInt(8); i++) {
            byte[] content = some(random.nextInt(10) == 0 ? 600_000 : random.nextInt(30_000));
            Path beside = aside.resolve("edit");
            Files.write(beside, content);
            say("WILL " + hex(content));
            String name = (random.nextBoolean() ? "sub/" : "") + "file" + random.nextInt(FILES);
            Files.createDirectories(desk.resolve("sub"));
            Files.move(beside, desk.resolve(name), StandardCopyOption.ATOMIC_MOVE);
        }
        if (random.nextInt(4) == 0) {
            Files.deleteIfExists(desk.resolve("file" + random.nextInt(FILES)));
        }
    }

    /** Noise, or an office document whose text shares most with all others: such a one is unfolded. */
    private byte[] some(int length) throws IOException {
        if (random.nextInt(3) > 0) {
            return Corpus.noise(random, length);
        }
        byte[] text = Arrays.copyOf(prose, 20_000 + random.nextInt(prose.length - 20_000));
        for (int i = 0; i < 4; i++) {
            text[random.nextInt(text.length)] = 'x';
        }
        return Corpus.document(text, new byte[][] {Corpus.noise(random, length / 4)});
    }

    private static String hex(byte[] content) {
        return HexFormat.of().formatHex(Digest.sha256().digest(content));
    }

    private void capture() throws IOException {
        new Capture(vault, place, clock, authors).run(CaptureScope.WHOLE, Progress.NONE);
        try (Stream<Path> all = Files.walk(desk);
                Reading reading = vault.read()) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                var line = reading.line(place, desk.relativize(file).toString());
                if (line.isPresent()) {
                    acknowledge(line.get(), reading);
                }
            }
        }
    }

    private static void acknowledge(Line line, Reading reading) throws IOException {
        Version v = line.newest().orElseThrow();
        say("ACK " + line.id() + " " + v.number() + " "
                + reading.contents().sha256(v.recipe()).hex());
    }

    private void restore() throws IOException {
        String path = "file" + random.nextInt(FILES);
        Line line;
        Version wanted;
        try (Reading reading = vault.read()) {
            var found = reading.line(place, path);
            if (found.isEmpty()) {
                return;
            }
            line = found.get();
            List<Version> here = line.versions().stream()
                    .filter(v -> !v.recipe().isElsewhere())
                    .toList();
            wanted = here.get(random.nextInt(here.size()));
        }
        recovery().restore(List.of(new RestoreItem(wanted, line.path())), Collision.REPLACE, Progress.NONE);
        try (Reading reading = vault.read()) {
            acknowledge(reading.line(line.id()).orElseThrow(), reading);
        }
    }

    /** The whole folder, to some moment since the first capture. */
    private void rollBack() throws IOException {
        java.time.Instant first;
        try (Reading reading = vault.read()) {
            first = reading.changes().firstCapture(place).orElseThrow();
        }
        long span = Math.max(1, Duration.between(first, clock.instant()).toMillis());
        java.time.Instant at = clock.instant().minusMillis((long) (random.nextDouble() * span));
        new Capture(vault, place, clock, authors).run(CaptureScope.WHOLE, Progress.NONE);
        before(ActionKind.ROLLED_BACK);
        long action = recovery()
                .rollBack(new Rollback(List.of(""), at, random.nextBoolean()), Progress.NONE)
                .action();
        say("DONE");
        if (action != 0 && random.nextBoolean()) {
            undoAndRedo(action);
        }
    }

    /** Undoes, undoes the undo, and undoes again; each can be cut short. */
    private void undoAndRedo(long action) throws IOException {
        before(ActionKind.UNDONE);
        recovery().undo(action(action));
        say("DONE");
        Optional<Action> undo;
        try (Reading reading = vault.read()) {
            undo = JournalStore.of(reading).lastRedoable();
        }
        if (undo.isPresent()) {
            before(ActionKind.REDONE);
            recovery().redo(undo.get(), Progress.NONE);
            say("DONE");
            before(ActionKind.UNDONE);
            recovery().undo(action(action));
            say("DONE");
        }
    }

    private Action action(long id) throws IOException {
        try (Reading reading = vault.read()) {
            return JournalStore.of(reading).get(id).orElseThrow();
        }
    }

    /** What was harmed gets its last good version back, many files at once. */
    private void mend() throws IOException {
        capture();
        List<String> paths = new ArrayList<>();
        for (int i :
                random.ints(0, FILES).distinct().limit(1 + random.nextInt(10)).toArray()) {
            String path = "file" + i;
            if (Files.exists(desk.resolve(path))) {
                Path beside = aside.resolve("harm");
                Files.write(beside, content(20_000));
                Files.move(beside, desk.resolve(path), StandardCopyOption.ATOMIC_MOVE);
                paths.add(path);
            }
        }
        capture();
        List<RestoreItem> requested = new ArrayList<>();
        try (Reading reading = vault.read()) {
            for (String path : paths) {
                List<Version> all = reading.line(place, path).orElseThrow().versions();
                if (all.size() > 1 && !all.get(1).recipe().isElsewhere()) {
                    requested.add(new RestoreItem(all.get(1), path));
                }
            }
        }
        before(ActionKind.MENDED);
        recovery()
                .restore(
                        new RestoreRequest(
                                ActionKind.MENDED,
                                requested,
                                Collisions.all(Collision.REPLACE),
                                List.of(),
                                List.of(),
                                List.of()),
                        Progress.NONE);
        say("DONE");
    }

    private Copies copies() {
        return new Copies(vault, clock, "child");
    }

    private VaultCopy copyVault() throws IOException {
        Copies copies = copies();
        Path to = folder.toRealPath().resolve("copy");
        Optional<CopyStatus> known = copies.in(to);
        VaultCopy copy = known.isPresent() ? known.get().copy() : copies.add(to).copy();
        copies.run(copy, Progress.NONE);
        return copy;
    }

    /** Packs are damaged, and come back from the copy. */
    private void heal() throws IOException {
        VaultCopy copy = copyVault();
        List<Long> packs = vault.folder().packNumbers();
        Path pack = vault.folder().pack(packs.get(random.nextInt(packs.size())));
        byte[] bytes = Files.readAllBytes(pack);
        if (bytes.length < 500) {
            return;
        }
        say("DAMAGED");
        int at = 100 + random.nextInt(bytes.length - 200);
        try (var out = java.nio.channels.FileChannel.open(pack, java.nio.file.StandardOpenOption.WRITE)) {
            out.write(java.nio.ByteBuffer.wrap(Corpus.noise(random, Math.min(5000, bytes.length - at))), at);
        }
        new CopyHealing(copies()).healVault(copy, Set.copyOf(packs));
        say("HEALED");
    }

    /** The catalogue is made anew from the packs. */
    private void rebuild() throws IOException {
        vault.close();
        say("REBUILD");
        Rebuild.run(folder.resolve("vault"), "crash child", Duration.ofSeconds(10), clock);
        say("REBUILT");
        vault = open();
    }

    /** Makes vaults until it is killed, each with a first capture. */
    private static void make(Path folder) throws IOException {
        say("READY");
        int number = 0;
        while (Files.exists(folder.resolve("made" + number))) {
            number++;
        }
        while (true) {
            Path at = folder.resolve("made" + number++);
            Path desk = Files.createDirectories(at.resolve("desk")).toRealPath();
            Files.writeString(desk.resolve("a.txt"), "there before");
            Clock clock = Clock.system(ZoneOffset.UTC);
            try (OpenVault made = OpenVault.openOrCreate(at.resolve("vault"), "maker", Duration.ofSeconds(10))) {
                Place place = Protect.place(made, desk, Rhythm.ON_SAVE, List.of(), clock, "Ines");
                new Capture(made, place, clock, (path, owner) -> owner).run(CaptureScope.WHOLE, Progress.NONE);
            }
            say("MADE " + at.getFileName());
        }
    }

    private Recovery recovery() {
        return new Recovery(new WorkContext(vault, place, clock, authors, "child"));
    }

    private void before(ActionKind kind) throws IOException {
        say("BEFORE " + kind + " " + state(desk));
    }

    private byte[] content(int most) throws IOException {
        byte[] content = some(random.nextInt(most));
        say("WILL " + hex(content));
        return content;
    }

    /** Several files from elsewhere, as revisions of what is there and as new files; some do not stay where they were. */
    private void put(boolean adopt) throws IOException {
        List<Revision> revisions = new ArrayList<>();
        for (int i :
                random.ints(0, FILES).distinct().limit(1 + random.nextInt(12)).toArray()) {
            Path file = aside.resolve("in" + i);
            Files.write(file, content(i % 5 == 0 ? 400_000 : 20_000));
            revisions.add(new Revision(file, "file" + i, "put in", DraftChoice.BY_RULE, random.nextBoolean()));
        }
        new Capture(vault, place, clock, authors).run(CaptureScope.WHOLE, Progress.NONE);
        before(adopt ? ActionKind.ADOPTED : ActionKind.PUT);
        PutResult result =
                adopt ? recovery().adopt(revisions, Progress.NONE) : recovery().put(revisions, Progress.NONE);
        say("DONE");
        if (!result.failed().isEmpty()) {
            throw new IllegalStateException(result.failed().toString());
        }
        try (Reading reading = vault.read()) {
            for (Revision r : revisions) {
                acknowledge(reading.line(place, r.path()).orElseThrow(), reading);
            }
        }
    }

    /** All but some of the newest versions are let go, with no grace: from then on nobody is promised them. */
    private void thin() throws IOException {
        ThinPlan plan;
        try (Reading reading = vault.read()) {
            VersionTable t = VersionTable.of(reading);
            Verdicts v = Verdicts.of(
                    t,
                    List.of(),
                    RuleSet.NONE,
                    clock.instant(),
                    new org.mendedleaf.core.retention.Calendar(ZoneOffset.UTC, java.time.DayOfWeek.MONDAY));
            plan = ThinPlan.of(
                    v,
                    new SpaceTable(t),
                    new ThinPlan.Limits(
                            0,
                            "",
                            java.util.Set.of(),
                            1 + random.nextInt(4),
                            Optional.empty(),
                            Optional.empty(),
                            false));
            plan.going().stream().forEach(row -> say("GOES " + t.lineId(t.lineOf(row)) + " " + t.number(row)));
        }
        new Thinning(vault, clock, "child").thin(plan, Progress.NONE);
    }

    private void reclaim() throws IOException {
        new Reclaim(vault, clock).endGrace("Ada", Progress.NONE);
    }

    /** Documents are stored anew, and what they were stored as before goes. */
    private void unfold() throws IOException {
        Unfolding.atOnce(vault, clock).run(Progress.NONE);
        new Reclaim(vault, clock).run(Progress.NONE);
    }

    /** Scattered copies become one file. */
    private void fold() throws IOException {
        Files.createDirectories(desk.resolve("plans"));
        List<String> order = new ArrayList<>();
        for (int i = 0; i < 2 + random.nextInt(5); i++) {
            String path = "plans/plan v" + i;
            Path beside = aside.resolve("copy");
            Files.write(beside, content(i == 1 ? 300_000 : 9_000));
            Files.move(beside, desk.resolve(path), StandardCopyOption.ATOMIC_MOVE);
            order.add(path);
        }
        capture();
        before(ActionKind.FOLDED);
        recovery().fold(List.of(new Folding("plans/plan", order)), Progress.NONE);
        say("DONE");
        try (Reading reading = vault.read()) {
            acknowledge(reading.line(place, "plans/plan").orElseThrow(), reading);
        }
    }

    /** Names and contents of all files of a folder, as one digest. */
    static String state(Path folder) throws IOException {
        StringBuilder all = new StringBuilder();
        try (Stream<Path> walk = Files.walk(folder)) {
            for (Path file : walk.filter(Files::isRegularFile).sorted().toList()) {
                if (!SafeFolder.isOwnName(String.valueOf(file.getFileName()))) {
                    all.append(folder.relativize(file)).append(' ').append(hex(Files.readAllBytes(file)));
                }
            }
        }
        return hex(all.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8));
    }
}
