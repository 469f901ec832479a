package org.mendedleaf.bench.model;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.mendedleaf.bench.Corpus;
import org.mendedleaf.bench.model.Promised.Change;
import org.mendedleaf.bench.model.Promised.Held;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.unfold.Unfolding;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.VaultException;

/**
 * Runs random commands over a folder and its vault, and beside them a small model of what was promised: what the files hold
 * after each command, which versions must come back, what may not be let go, and what an undo brings back. After every so many
 * commands every version that must come back is read.
 *
 * <pre>{@code
 * ModelRun [COMMANDS] [SEED]
 * }</pre>
 */
public final class ModelRun implements AutoCloseable {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(ModelRun.class);

    private static final int FOLDERS = 4;
    private static final int FILES = 5;
    private static final int LOOK_EVERY = 20;

    private final Random random;
    private final Office office;
    private final Path aside;
    private final Promised model = new Promised();
    private final Map<String, Integer> done = new TreeMap<>();
    private final Deque<String> story = new ArrayDeque<>();
    private final List<String> contents = new ArrayList<>();
    private int compared;
    private boolean everDamaged;

    /** A run in this folder, which is its own. */
    public ModelRun(Path folder, long seed) throws IOException {
        random = new Random(seed);
        office = new Office(folder);
        aside = Files.createDirectories(folder.resolve("aside"));
    }

    /**
     * What was seen.
     *
     * @param commands by their names
     * @param compared versions that were read and compared, all in all
     * @param failure what was promised and is not so, with the commands before it; empty when all is
     */
    public record Outcome(Map<String, Integer> commands, int compared, String failure) {}

    /** A promise that is broken. */
    private static final class Broken extends RuntimeException {
        private static final long serialVersionUID = 1;

        Broken(String words) {
            super(words);
        }
    }

    private static void promise(boolean kept, String words) {
        if (!kept) {
            throw new Broken(words);
        }
    }

    /** Runs so many commands. */
    public Outcome run(int commands) {
        try {
            for (int i = 0; i < commands; i++) {
                office.later(Duration.ofMinutes(1));
                step();
                if (i % LOOK_EVERY == LOOK_EVERY - 1) {
                    lookAtAll();
                }
            }
            capture();
            lookAtAll();
            return new Outcome(done, compared, "");
        } catch (IOException | RuntimeException e) {
            StringBuilder words = new StringBuilder(String.valueOf(e));
            if (!(e instanceof Broken)) {
                words.append(" at ")
                        .append(List.of(e.getStackTrace()).subList(0, Math.min(6, e.getStackTrace().length)));
            }
            story.forEach(s -> words.append('\n').append(s));
            return new Outcome(done, compared, words.toString());
        }
    }

    private void step() throws IOException {
        switch (random.nextInt(28)) {
            case 0, 1, 2, 3, 4 -> save();
            case 5, 6, 7 -> {
                tell("capture", "");
                capture();
            }
            case 8, 9 -> put();
            case 10, 11 -> move();
            case 12, 13 -> restore();
            case 14 -> remove();
            case 15 -> erase();
            case 16 -> hold();
            case 17 -> thin();
            case 18 -> reclaim();
            case 19 -> snapshot();
            case 20, 21 -> undo();
            case 22 -> redo();
            case 23 -> clock();
            case 24 -> check();
            case 25 -> {
                if (random.nextInt(3) == 0) {
                    damage();
                }
            }
            case 26 -> unfold();
            default -> protect();
        }
    }

    private void tell(String command, String about) {
        done.merge(command, 1, Integer::sum);
        story.addLast(command + " " + about);
        if (story.size() > 40) {
            story.removeFirst();
        }
    }

    private String path() {
        return "d" + random.nextInt(FOLDERS) + "/f" + random.nextInt(FILES);
    }

    /** Something new, or something that was there before. */
    private String content() {
        if (!contents.isEmpty() && random.nextInt(8) == 0) {
            return contents.get(random.nextInt(contents.size()));
        }
        byte[] noise = new byte[random.nextInt(20) == 0 ? 60_000 : 300 + random.nextInt(500)];
        random.nextBytes(noise);
        String text =
                random.nextInt(3) == 0 ? document(noise) : Base64.getEncoder().encodeToString(noise);
        contents.add(text);
        return text;
    }

    /** An office document whose text is much like that of all others. */
    private String document(byte[] noise) {
        byte[] words = Corpus.text(new Random(5), 12_000 + noise.length);
        System.arraycopy(Base64.getEncoder().encode(noise), 0, words, random.nextInt(10_000), 200);
        try {
            return new String(Corpus.document(words, new byte[][] {}), StandardCharsets.ISO_8859_1);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private void save() throws IOException {
        String path = path();
        tell("save", path);
        String content = content();
        office.save(path, content);
        model.disk.put(path, content);
    }

    private void move() throws IOException {
        String from = path();
        String to = path();
        if (model.disk.containsKey(from) && !model.disk.containsKey(to)) {
            tell("move", from + " " + to);
            Files.createDirectories(office.desk.resolve(to).getParent());
            Files.move(office.desk.resolve(from), office.desk.resolve(to));
            model.disk.put(to, model.disk.remove(from));
        }
    }

    private void capture() throws IOException {
        office.capture();
        learn();
    }

    /** After a capture the newest version of each file has its content, and nothing else is there. */
    private void learn() throws IOException {
        try (Reading reading = office.vault.read()) {
            Set<String> there = new HashSet<>();
            reading.folders().tree(office.place, "", Moment.FAR).forEach((path, e) -> {
                if (e.kind() != EntryKind.FOLDER) {
                    there.add(path);
                }
            });
            promise(
                    there.equals(model.disk.keySet()),
                    "the catalogue has " + there + " where the folder has " + model.disk.keySet());
        }
        learn(model.disk.keySet());
    }

    /** These files were captured as they are now. */
    private void learn(Set<String> paths) throws IOException {
        sameDisk();
        try (Reading reading = office.vault.read()) {
            for (String path : paths) {
                String content = java.util.Objects.requireNonNull(model.disk.get(path));
                Line line = reading.line(office.place, path).orElseThrow(() -> new Broken(path + " has no line"));
                Version newest = line.newest().orElseThrow();
                Promised.Key key = new Promised.Key(line.id(), newest.number());
                model.isAt(path, line.id());
                String known = model.kept.get(key);
                if (model.hurt.containsKey(key)) {
                    continue;
                }
                promise(!model.waiting.containsKey(key), "what is current was let go: " + path);
                promise(
                        (known == null ? read(reading, newest) : known).equals(content),
                        path + " is not what its newest version is: " + key);
                model.kept.put(key, content);
            }
        }
    }

    private static String read(Reading reading, Version version) throws IOException {
        java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
        reading.contents().read(version.recipe(), out::writeBytes);
        return out.toString(StandardCharsets.ISO_8859_1);
    }

    private void sameDisk() throws IOException {
        Map<String, String> real = office.disk();
        if (!real.equals(model.disk)) {
            Set<String> other = new HashSet<>(real.keySet());
            other.addAll(model.disk.keySet());
            other.removeIf(p -> java.util.Objects.equals(real.get(p), model.disk.get(p)));
            throw new Broken("other files than expected: " + other);
        }
    }

    /** What can be undone is noted with how the files were before it. */
    private void acted(long action, Map<String, String> before) {
        if (action != 0) {
            model.changes.put(action, new Change(before, new TreeMap<>(model.disk)));
        }
    }

    private void put() throws IOException {
        String path = path();
        tell("put", path);
        String content = content();
        Path file = Files.writeString(aside.resolve("in"), content, StandardCharsets.ISO_8859_1);
        Map<String, String> before = new TreeMap<>(model.disk);
        PutResult result = office.recovery()
                .put(List.of(new Revision(file, path, "put in", DraftChoice.BY_RULE, false)), Progress.NONE);
        promise(result.failed().isEmpty(), "put failed: " + result.failed());
        model.disk.put(path, content);
        acted(result.action(), before);
        learn(Set.of(path));
    }

    private Optional<Promised.Key> some(Set<Promised.Key> keys) {
        List<Promised.Key> all = new ArrayList<>(keys);
        all.sort(Comparator.comparingLong(Promised.Key::line).thenComparingInt(Promised.Key::number));
        return all.isEmpty() ? Optional.empty() : Optional.of(all.get(random.nextInt(all.size())));
    }

    private void restore() throws IOException {
        Optional<Promised.Key> key = some(model.kept.keySet());
        if (key.isEmpty()) {
            return;
        }
        Version version;
        String path;
        try (Reading reading = office.vault.read()) {
            Line line = reading.line(key.get().line()).orElseThrow();
            path = line.path();
            version = line.version(key.get().number()).orElseThrow();
        }
        tell("restore", path + " " + key.get());
        Map<String, String> before = new TreeMap<>(model.disk);
        RestoreResult result =
                office.recovery().restore(List.of(new RestoreItem(version, path)), Collision.REPLACE, Progress.NONE);
        RestoreResult.Item item = result.items().get(0);
        promise(item.outcome() != RestoreResult.Outcome.FAILED, "restore of " + path + " failed: " + item.why());
        model.disk.put(path, model.kept.get(key.get()));
        acted(result.action(), before);
        learn(Set.of(path));
    }

    private void remove() throws IOException {
        if (model.disk.isEmpty()) {
            return;
        }
        List<String> paths = new ArrayList<>(model.disk.keySet());
        String path = paths.get(random.nextInt(paths.size()));
        tell("remove", path);
        Map<String, String> before = new TreeMap<>(model.disk);
        FileWork.Removal removal = office.recovery().remove(List.of(path));
        promise(removal.failed().isEmpty(), "remove failed: " + removal.failed());
        model.disk.remove(path);
        acted(removal.action(), before);
    }

    private void erase() throws IOException {
        capture();
        Optional<Promised.Key> key = some(model.kept.keySet());
        if (key.isEmpty()) {
            return;
        }
        Erasing.What what = Erasing.What.values()[random.nextInt(3)];
        Line line;
        try (Reading reading = office.vault.read()) {
            line = reading.line(key.get().line()).orElseThrow();
        }
        boolean live = model.disk.containsKey(line.path()) && line.removed().isEmpty();
        tell("erase", what + " " + line.path() + " " + key.get());
        Map<String, String> before = new TreeMap<>(model.disk);
        Erasing.Done erased;
        try {
            erased = office.erasing().erase(line.id(), what, key.get().number(), Progress.NONE);
        } catch (IOException e) {
            promise(!model.hurt.isEmpty(), "erase failed: " + e.getMessage());
            sameDisk();
            return;
        }
        Set<Promised.Key> gone = new HashSet<>();
        erased.consequences().numbers().forEach(n -> gone.add(new Promised.Key(line.id(), n)));
        gone.forEach(
                k -> promise(!model.isProtected(k), "what is held or in a snapshot was erased: " + model.protects(k)));
        if (live && erased.consequences().removes()) {
            model.disk.remove(line.path());
        } else if (live && erased.consequences().current() > 0) {
            Promised.Key current =
                    new Promised.Key(line.id(), erased.consequences().current());
            model.disk.put(line.path(), java.util.Objects.requireNonNull(model.kept.get(current)));
        }
        model.goes(erased.action(), gone);
        acted(erased.action(), before);
        learn();
    }

    private void hold() throws IOException {
        if (!model.holds.isEmpty() && random.nextInt(3) == 0) {
            long id = new ArrayList<>(model.holds.keySet()).get(random.nextInt(model.holds.size()));
            tell("unhold", String.valueOf(id));
            office.holds().lift(id);
            model.holds.remove(id);
            return;
        }
        capture();
        Optional<Promised.Key> key = some(model.kept.keySet());
        if (key.isEmpty()) {
            return;
        }
        Line line;
        try (Reading reading = office.vault.read()) {
            line = reading.line(key.get().line()).orElseThrow();
        }
        switch (random.nextInt(3)) {
            case 0 -> {
                tell("hold", line.path() + " " + key.get());
                Hold hold = office.holds()
                        .version(office.place, line.id(), key.get().number(), line.path(), "why", Optional.empty());
                Held held = Held.of("");
                held.versions().add(key.get());
                model.holds.put(hold.id(), held);
            }
            case 1 -> {
                tell("hold", line.path());
                Hold hold = office.holds().line(office.place, line.id(), line.path(), "why", Optional.empty());
                Held held = Held.of("");
                held.lines().add(line.id());
                model.holds.put(hold.id(), held);
            }
            default -> {
                String folder = "d" + random.nextInt(FOLDERS);
                tell("hold", folder);
                try {
                    Hold hold = office.holds().folder(office.place, folder, "why", Optional.empty());
                    model.holds.put(hold.id(), Held.of(folder + "/"));
                } catch (IllegalArgumentException e) {
                    // No such folder yet.
                    return;
                }
                learn();
            }
        }
    }

    private void thin() throws IOException {
        capture();
        int keep = 1 + random.nextInt(3);
        tell("thin", "to the last " + keep);
        ThinPlan plan;
        Set<Promised.Key> going = new HashSet<>();
        try (Reading reading = office.vault.read()) {
            VersionTable t = VersionTable.of(reading);
            Verdicts v = Verdicts.of(t, HoldStore.of(reading).standing(), RuleSet.NONE, office.now(), Office.CALENDAR);
            plan = ThinPlan.of(
                    v,
                    new SpaceTable(t),
                    new ThinPlan.Limits(0, "", Set.of(), keep, Optional.empty(), Optional.empty(), false));
            plan.going().stream().forEach(row -> going.add(new Promised.Key(t.lineId(t.lineOf(row)), t.number(row))));
        }
        going.forEach(k ->
                promise(!model.isProtected(k), "what is held or in a snapshot would be thinned: " + model.protects(k)));
        Thinning.Done thinned = new Thinning(office.vault, office.clock(), Office.WHO).thin(plan, Progress.NONE);
        promise(
                thinned.versions() == going.size(),
                thinned.versions() + " went of " + going.size() + " that were said");
        for (long action : thinned.actions()) {
            model.goes(action, going);
            acted(action, new TreeMap<>(model.disk));
        }
    }

    /** Ends the grace of all that waits: what is protected by now has to be there still, of the rest nothing is promised. */
    private void reclaim() throws IOException {
        tell("reclaim", "");
        Reclaim.Done reclaimed = new Reclaim(office.vault, office.clock()).endGrace(Office.WHO, Progress.NONE);
        promise(reclaimed.damaged().isEmpty() || everDamaged, "reclaim failed: " + reclaimed.damaged());
        for (Map.Entry<Promised.Key, String> e : Map.copyOf(model.waiting).entrySet()) {
            if (model.isProtected(e.getKey())) {
                model.kept.put(e.getKey(), e.getValue());
            }
        }
        model.waiting.clear();
    }

    private void unfold() throws IOException {
        tell("unfold", "");
        Unfolding.Result result = Unfolding.atOnce(office.vault, office.clock()).run(Progress.NONE);
        promise(result.complete(), "unfolding did not come to its end");
    }

    private void snapshot() throws IOException {
        if (!model.snapshots.isEmpty() && random.nextInt(3) == 0) {
            long id = new ArrayList<>(model.snapshots.keySet()).get(random.nextInt(model.snapshots.size()));
            tell("erase snapshot", String.valueOf(id));
            office.snapshots().erase(List.of(id));
            // Undoing would bring it back; the model takes it for gone, which asks for less.
            model.snapshots.remove(id);
            return;
        }
        tell("snapshot", "");
        Snapshot taken = office.snapshots().take("", "s", Progress.NONE);
        learn();
        Set<Promised.Key> shown = new HashSet<>();
        try (Reading reading = office.vault.read()) {
            for (String path : model.disk.keySet()) {
                Line line = reading.line(office.place, path).orElseThrow();
                shown.add(
                        new Promised.Key(line.id(), line.newest().orElseThrow().number()));
            }
        }
        model.snapshots.put(taken.id(), shown);
    }

    private void undo() throws IOException {
        Optional<Action> last;
        try (Reading reading = office.vault.read()) {
            last = JournalStore.of(reading).lastUndoable();
        }
        if (last.isEmpty()) {
            return;
        }
        tell("undo", last.get().words());
        FileWork.Undone undone = office.recovery().undo(last.get());
        turned(last.get().id(), undone, true);
    }

    private void redo() throws IOException {
        Optional<Action> undo;
        try (Reading reading = office.vault.read()) {
            undo = JournalStore.of(reading).lastRedoable();
        }
        if (undo.isEmpty()) {
            return;
        }
        long original = undo.get().undoes();
        tell("redo", undone(original));
        FileWork.Undone again = office.recovery().redo(undo.get(), Progress.NONE);
        turned(original, again, false);
    }

    private static String undone(long action) {
        return "action " + action;
    }

    /** After an undo the files are as before the action, after a redo as after it, where nothing else changed them since. */
    private void turned(long action, FileWork.Undone turned, boolean undo) throws IOException {
        // What is gone for good, or damaged, cannot be part of it, and is said.
        promise(
                !model.hurt.isEmpty() || turned.failed().stream().allMatch(w -> w.contains("let go")),
                "not undone: " + turned.failed());
        Change change = model.changes.get(action);
        if (undo) {
            model.comesBack(action);
        } else {
            model.goesAgain(action);
        }
        if (change != null
                && turned.failed().isEmpty()
                && (undo ? change.after() : change.before()).equals(model.disk)) {
            model.disk.clear();
            model.disk.putAll(undo ? change.before() : change.after());
        } else {
            Map<String, String> real = office.disk();
            model.disk.clear();
            model.disk.putAll(real);
        }
        capture();
    }

    private void clock() throws IOException {
        if (random.nextInt(4) == 0) {
            tell("clock", "twenty years ahead for one capture");
            office.later(Duration.ofDays(20 * 365));
            capture();
            office.later(Duration.ofDays(-20 * 365));
        } else {
            int hours = random.nextInt(24 * 20);
            tell("clock", hours + " hours later");
            office.later(Duration.ofHours(hours));
        }
        Reclaim.Done due = new Reclaim(office.vault, office.clock()).run(Progress.NONE);
        if (due.versions() > 0) {
            // What was due went; of what waits still nothing is known to the model but that it may be gone.
            forgetWaiting();
        }
    }

    private void forgetWaiting() throws IOException {
        try (Reading reading = office.vault.read()) {
            for (Map.Entry<Promised.Key, String> e : Map.copyOf(model.waiting).entrySet()) {
                Optional<Version> v =
                        reading.version(e.getKey().line(), e.getKey().number());
                boolean gone = v.isEmpty() || v.get().recipe().isElsewhere();
                if (gone) {
                    promise(!model.isProtected(e.getKey()), "what is held went when its grace ended: " + e.getKey());
                    model.waiting.remove(e.getKey());
                }
            }
        }
    }

    private void check() throws IOException {
        tell("check", "");
        VaultCheck.Report report = new VaultCheck(office.vault).run(true, Progress.NONE);
        // Bytes that were damaged are found for as long as they are in a pack, also when nothing needs them any more.
        promise(report.isClean() || everDamaged, "the check finds " + report.damages() + report.lost());
        promise(report.lost().isEmpty() || !model.hurt.isEmpty(), "the check finds lost " + report.lost());
    }

    private void protect() throws IOException {
        tell("protect", "again");
        PlaceChange change = random.nextBoolean()
                ? new PlaceChange(null, List.of("*.zzz"), List.of())
                : new PlaceChange(null, List.of(), List.of("*.zzz"));
        Protect.place(office.vault, office.desk, change, office.clock(), Office.WHO);
        capture();
    }

    /** Flips a byte that some version needs: only those are hurt that need its chunk, and those that live files hold heal. */
    private void damage() throws IOException {
        capture();
        Optional<Promised.Key> key = some(model.kept.keySet());
        if (key.isEmpty()) {
            return;
        }
        tell("damage", key.get().toString());
        Set<Promised.Key> expected = new HashSet<>();
        try (Reading reading = office.vault.read()) {
            Version version = version(reading, key.get());
            List<ChunkPlace> places = reading.contents().places(version.recipe());
            if (places.isEmpty()) {
                return;
            }
            ChunkPlace chunk = places.get(random.nextInt(places.size()));
            for (Promised.Key k : model.kept.keySet()) {
                if (needs(reading, k, chunk)) {
                    expected.add(k);
                }
            }
            // Of what was let go and is damaged then nothing is promised.
            for (Promised.Key k : Set.copyOf(model.waiting.keySet())) {
                if (needs(reading, k, chunk)) {
                    model.waiting.remove(k);
                }
            }
            Path pack = office.vault.folder().pack(chunk.pack());
            byte[] bytes = Files.readAllBytes(pack);
            bytes[(int) chunk.offset() + chunk.storedBytes() - 1] ^= 1;
            Files.write(pack, bytes);
        }
        everDamaged = true;
        office.vault.closeIdle();
        for (Promised.Key k : expected) {
            model.hurt.put(k, model.kept.remove(k));
        }
        new VaultCheck(office.vault).run(true, Progress.NONE);
        capture();
        heal();
        for (String path : model.disk.keySet()) {
            try (Reading reading = office.vault.read()) {
                Line line = reading.line(office.place, path).orElseThrow();
                Promised.Key newest =
                        new Promised.Key(line.id(), line.newest().orElseThrow().number());
                promise(!model.hurt.containsKey(newest), path + " is in the folder and was not stored anew");
            }
        }
    }

    private static boolean needs(Reading reading, Promised.Key key, ChunkPlace chunk) throws IOException {
        Version version = version(reading, key);
        return !version.recipe().isElsewhere()
                && reading.contents().places(version.recipe()).stream().anyMatch(p -> p.id() == chunk.id());
    }

    private static Version version(Reading reading, Promised.Key key) throws IOException {
        return reading.version(key.line(), key.number()).orElseThrow(() -> new Broken("there is no version " + key));
    }

    /** What was hurt comes back right, or not at all; what comes back is promised again. */
    private void heal() throws IOException {
        try (Reading reading = office.vault.read()) {
            for (Map.Entry<Promised.Key, String> e : Map.copyOf(model.hurt).entrySet()) {
                try {
                    String found = read(reading, version(reading, e.getKey()));
                    promise(found.equals(e.getValue()), "a damaged version is given out: " + e.getKey());
                    model.hurt.remove(e.getKey());
                    model.kept.put(e.getKey(), e.getValue());
                } catch (VaultException.Damaged | VaultException.Elsewhere x) {
                    log.debug("{} is damaged, and that is said", e.getKey(), x);
                }
            }
        }
    }

    private void lookAtAll() throws IOException {
        sameDisk();
        heal();
        try (Reading reading = office.vault.read()) {
            for (Map.Entry<Promised.Key, String> e : model.kept.entrySet()) {
                String found;
                try {
                    found = read(reading, version(reading, e.getKey()));
                } catch (VaultException x) {
                    throw new Broken("version " + e.getKey() + " cannot be read: " + x.words());
                }
                promise(found.equals(e.getValue()), "version " + e.getKey() + " has another content");
                compared++;
            }
        }
    }

    @Override
    public void close() throws IOException {
        office.close();
    }

    /** Runs from the command line; ends with code 1 when a promise was broken. */
    public static void main(String[] arguments) throws IOException {
        int commands = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 10_000;
        long seed = arguments.length > 1 ? Long.parseLong(arguments[1]) : 20261127;
        Map<String, Integer> all = new TreeMap<>();
        int compared = 0;
        int ran = 0;
        // A new vault for every so many: first captures count too, and a look at all does not grow without end.
        for (int round = 0; ran < commands; round++) {
            int now = Math.min(500, commands - ran);
            Path folder = Files.createTempDirectory("mended-leaf-model");
            Outcome outcome;
            try (ModelRun run = new ModelRun(folder, seed + round)) {
                outcome = run.run(now);
            }
            ran += now;
            compared += outcome.compared();
            outcome.commands().forEach((name, n) -> all.merge(name, n, Integer::sum));
            System.out.println(ran + " commands, " + compared + " versions compared"
                    + (outcome.failure().isEmpty() ? ", all as promised" : ": " + outcome.failure()));
            if (!outcome.failure().isEmpty()) {
                System.out.println("seed " + (seed + round) + ", kept for a look: " + folder);
                System.exit(1);
            }
            delete(folder);
        }
        System.out.println(all);
    }

    private static void delete(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }
}
