package org.mendedleaf.bench;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyHealing;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.vault.Digest;

/**
 * Kills a writing process at random moments and looks at what it leaves: the vault opens, a full check is clean, every
 * acknowledged version comes back bit for bit, a copy of the vault says what it said, no live file is half written, and a roll back, a put, an adoption or a fold
 * that was cut short can be undone to exactly what was there before.
 */
public final class CrashHarness {

    private final Path folder;
    private final Random random;
    private final Map<String, String> acknowledged = new HashMap<>();
    private final Set<String> intended = new HashSet<>();
    private int unfolded;
    private String before = "";
    private final Map<ActionKind, String> states = new EnumMap<>(ActionKind.class);
    private boolean rebuilding;
    private int rebuilds;
    private boolean healing;
    private int healings;
    private int copies;
    private final Set<String> made = new HashSet<>();
    private ActionKind under = ActionKind.ROLLED_BACK;
    private final Map<ActionKind, Integer> undone = new EnumMap<>(ActionKind.class);

    /** A harness in this folder, which is its own. */
    public CrashHarness(Path folder, long seed) {
        this.folder = folder;
        this.random = new Random(seed);
    }

    /**
     * What was seen.
     *
     * @param kills of the writing process
     * @param acknowledged versions that were checked after the last kill
     * @param unfolded how many of them are stored unfolded
     * @param rebuilds of the catalogue that were cut short
     * @param healings of a damaged pack that were cut short
     * @param copies of the vault that were looked at
     * @param undone actions that were cut short, and undone afterwards, by kind
     * @param failures in words; empty when every promise was kept
     */
    public record Outcome(
            int kills,
            int acknowledged,
            int unfolded,
            int rebuilds,
            int healings,
            int copies,
            Map<ActionKind, Integer> undone,
            List<String> failures) {}

    /** Kills so many times, all on one vault that goes on growing. */
    public Outcome run(int kills) throws IOException, InterruptedException {
        for (int i = 0; i < kills; i++) {
            killOnce(random.nextLong(), "work");
            List<String> failures = inspect();
            if (!failures.isEmpty()) {
                return new Outcome(i + 1, acknowledged.size(), unfolded, rebuilds, healings, copies, undone, failures);
            }
        }
        return new Outcome(kills, acknowledged.size(), unfolded, rebuilds, healings, copies, undone, List.of());
    }

    /**
     * Kills a process that makes one vault after the other so many times; what it leaves can be gone on with.
     *
     * @return vaults that were looked at, and what is wrong
     */
    public Outcome runMaking(int kills) throws IOException, InterruptedException {
        int looked = 0;
        for (int i = 0; i < kills; i++) {
            killOnce(random.nextLong(), "make");
            for (int n = 0; Files.exists(folder.resolve("made" + n)); n++) {
                Path at = folder.resolve("made" + n);
                List<String> failures = goesOn(at, made.contains("made" + n));
                if (!failures.isEmpty()) {
                    return new Outcome(i + 1, looked, 0, 0, 0, 0, Map.of(), failures);
                }
                looked++;
                delete(at);
            }
            made.clear();
        }
        return new Outcome(kills, looked, 0, 0, 0, 0, Map.of(), List.of());
    }

    /** Whoever protects the folder again goes on with what a kill left. */
    private static List<String> goesOn(Path at, boolean isMade) throws IOException {
        Path desk = at.resolve("desk");
        if (!Files.exists(desk.resolve("a.txt"))) {
            return List.of();
        }
        Clock clock = Clock.system(ZoneOffset.UTC);
        try (OpenVault vault = OpenVault.openOrCreate(at.resolve("vault"), "harness", Duration.ofSeconds(5))) {
            try (Reading reading = vault.read()) {
                if (isMade && reading.line(reading.places().get(0), "a.txt").isEmpty()) {
                    return List.of(at + " was made, and its first version is gone");
                }
            }
            Place place = Protect.place(vault, desk.toRealPath(), Rhythm.ON_SAVE, List.of(), clock, "Ines");
            new Capture(vault, place, clock, (path, owner) -> owner).run(CaptureScope.WHOLE, Progress.NONE);
            VaultCheck.Report report = new VaultCheck(vault).run(true, Progress.NONE);
            try (Reading reading = vault.read()) {
                return report.isClean() && reading.line(place, "a.txt").isPresent()
                        ? List.of()
                        : List.of(at + ": " + report.damages() + report.lost());
            }
        } catch (IOException | IllegalArgumentException e) {
            return List.of(at + " cannot be gone on with: " + e.getMessage());
        }
    }

    private static void delete(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        }
    }

    private void killOnce(long seed, String how) throws IOException, InterruptedException {
        Process child = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-XX:+UseSerialGC",
                        "-cp",
                        System.getProperty("java.class.path"),
                        CrashChild.class.getName(),
                        folder.toString(),
                        Long.toString(seed),
                        how)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        // Most are killed at work, however long a busy machine takes to start them; some while they open the vault.
        CountDownLatch ready = new CountDownLatch(random.nextInt(4) == 0 ? 0 : 1);
        long after = how.equals("make") ? random.nextInt(600) : 300L + random.nextInt(1500);
        Thread killer = new Thread(() -> {
            try {
                ready.await();
                TimeUnit.MILLISECONDS.sleep(after);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            // Through its handle: what it said before stays readable.
            child.toHandle().destroyForcibly();
        });
        killer.start();
        try (BufferedReader out = child.inputReader(StandardCharsets.UTF_8)) {
            for (String line = out.readLine(); line != null; line = out.readLine()) {
                String[] words = line.split(" ", -1);
                if (words[0].equals("READY")) {
                    ready.countDown();
                } else if (words[0].equals("WILL") && words.length == 2 && words[1].length() == 64) {
                    intended.add(words[1]);
                } else if (words[0].equals("ACK") && words.length == 4 && words[3].length() == 64) {
                    acknowledged.put(words[1] + " " + words[2], words[3]);
                } else if (words[0].equals("GOES") && words.length == 3) {
                    acknowledged.remove(words[1] + " " + words[2]);
                } else if (words[0].equals("BEFORE") && words.length == 3 && words[2].length() == 64) {
                    under = ActionKind.valueOf(words[1]);
                    before = words[2];
                    states.put(under, before);
                } else if (words[0].equals("MADE") && words.length == 2) {
                    made.add(words[1]);
                } else if (words[0].equals("REBUILD")) {
                    rebuilding = true;
                } else if (words[0].equals("REBUILT")) {
                    rebuilding = false;
                } else if (words[0].equals("DAMAGED")) {
                    healing = true;
                } else if (words[0].equals("HEALED")) {
                    healing = false;
                } else if (words[0].equals("DONE")) {
                    before = "";
                }
            }
        }
        // A child that ended by itself never said that it is ready.
        ready.countDown();
        killer.join();
        child.waitFor();
    }

    private List<String> inspect() throws IOException {
        if (!Files.exists(folder.resolve("vault/VAULT"))) {
            return acknowledged.isEmpty() ? List.of() : List.of("the vault is gone");
        }
        try (OpenVault vault =
                OpenVault.openOrCreate(folder.resolve("vault"), "crash harness", Duration.ofSeconds(5))) {
            rebuilds += rebuilding ? 1 : 0;
            rebuilding = false;
            Optional<String> copied = copy(vault);
            if (copied.isPresent()) {
                return List.of(copied.get());
            }
            vault.write().close();
            VaultCheck.Report report = new VaultCheck(vault).run(true, Progress.NONE);
            if (!report.isClean()) {
                return report.damages();
            }
            try (Reading reading = vault.read()) {
                unfolded = 0;
                for (Map.Entry<String, String> e : acknowledged.entrySet()) {
                    String failure = compare(reading, e.getKey(), e.getValue());
                    if (!failure.isEmpty()) {
                        return List.of(failure);
                    }
                }
            }
            if (!before.isEmpty()) {
                return undone(vault);
            }
        }
        return halfWritten();
    }

    /**
     * The copy says what the vault said when it was last in step, whatever was cut short; it heals the vault, and then it is
     * brought in step and is whole.
     */
    private Optional<String> copy(OpenVault vault) throws IOException {
        Copies all = new Copies(vault, Clock.system(ZoneOffset.UTC), "harness");
        Optional<CopyStatus> status = all.in(folder.resolve("copy"));
        if (status.isEmpty()) {
            return Optional.empty();
        }
        VaultCopy copy = status.get().copy();
        copies++;
        // Killed before anything was copied, it has no catalogue, and nothing to lose.
        if (Files.exists(copy.folder().resolve("catalogue.db"))) {
            VaultCheck.Report cut = check(copy);
            if (!cut.lost().isEmpty()) {
                return Optional.of("the copy lost " + cut.lost());
            }
        } else if (status.get().seen().good().isPresent()) {
            return Optional.of("the copy that was in step has no catalogue");
        }
        if (healing) {
            healing = false;
            healings++;
            new CopyHealing(all).healVault(copy, Set.copyOf(vault.folder().packNumbers()));
        }
        all.run(copy, Progress.NONE);
        VaultCheck.Report whole = check(copy);
        return whole.isClean() ? Optional.empty() : Optional.of("the copy is damaged: " + whole.damages());
    }

    private static VaultCheck.Report check(VaultCopy copy) throws IOException {
        try (OpenVault open = OpenVault.open(copy.folder(), "harness", Duration.ofSeconds(5))) {
            return new VaultCheck(open).run(true, Progress.NONE);
        }
    }

    /** What was cut short is undone, and the folder is as it was before it. */
    private List<String> undone(OpenVault vault) throws IOException {
        String wanted = before;
        before = "";
        Path desk = folder.resolve("desk");
        if (!CrashChild.state(desk).equals(wanted)) {
            wanted = turnBack(vault, wanted);
        }
        return CrashChild.state(desk).equals(wanted)
                ? halfWritten()
                : List.of(under + " that was cut short could not be undone to what was there before");
    }

    /**
     * Undoes; an undo that came to its end is done again, and one that did not is gone on with, and so is a redo.
     *
     * @param wanted how the folder was before what was cut short
     * @return how it must be now
     */
    private String turnBack(OpenVault vault, String wanted) throws IOException {
        Optional<Action> undo;
        Optional<Action> redo;
        Place place;
        try (Reading reading = vault.read()) {
            undo = JournalStore.of(reading).lastUndoable();
            redo = JournalStore.of(reading).lastRedoable();
            place = reading.places().get(0);
        }
        Clock clock = Clock.system(ZoneOffset.UTC);
        Recovery recovery = new Recovery(new WorkContext(vault, place, clock, (path, owner) -> owner, "harness"));
        boolean again = under == ActionKind.REDONE || under == ActionKind.UNDONE;
        if (again && redo.isPresent()) {
            recovery.redo(redo.get(), Progress.NONE);
            undone.merge(under, 1, Integer::sum);
            return states.getOrDefault(ActionKind.UNDONE, "");
        }
        if (undo.isPresent()
                && (undo.get().kind() == under || (again && undo.get().kind() == ActionKind.ROLLED_BACK))) {
            recovery.undo(undo.get());
            undone.merge(under, 1, Integer::sum);
            return under == ActionKind.UNDONE ? states.getOrDefault(ActionKind.ROLLED_BACK, "") : wanted;
        }
        return wanted;
    }

    private String compare(Reading reading, String key, String sha256) throws IOException {
        String[] ids = key.split(" ", -1);
        Line line = reading.line(Long.parseLong(ids[0])).orElse(null);
        if (line == null) {
            return "the line " + ids[0] + " was acknowledged and is gone";
        }
        var version = line.version(Integer.parseInt(ids[1]));
        if (version.isEmpty()) {
            return "version " + key + " was acknowledged and is gone";
        }
        unfolded += version.get().recipe().unfolded().isPresent() ? 1 : 0;
        String found = reading.contents().sha256(version.get().recipe()).hex();
        return found.equals(sha256) ? "" : "version " + key + " has another content";
    }

    private List<String> halfWritten() throws IOException {
        try (Stream<Path> all = Files.walk(folder.resolve("desk"))) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                boolean own = SafeFolder.isOwnName(file.getFileName().toString());
                if (!own) {
                    String sha =
                            java.util.HexFormat.of().formatHex(Digest.sha256().digest(Files.readAllBytes(file)));
                    if (!intended.contains(sha)) {
                        return List.of(file + " holds what nobody wrote: half of a file");
                    }
                }
            }
        }
        return List.of();
    }

    /** Runs the harness: {@code KILLS [SEED]}. Ends with exit code 1 when a promise was broken. */
    public static void main(String[] arguments) throws Exception {
        int kills = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 200;
        long seed = arguments.length > 1 ? Long.parseLong(arguments[1]) : 20261123;
        int left = kills;
        int versions = 0;
        int unfolded = 0;
        int rebuilds = 0;
        int healings = 0;
        int copies = 0;
        Map<ActionKind, Integer> cut = new EnumMap<>(ActionKind.class);
        // A new vault every 20 kills: first captures are hit too, and a check does not grow without end.
        while (left > 0) {
            Path folder = Files.createTempDirectory("mended-leaf-crash");
            int now = Math.min(20, left);
            Outcome outcome = new CrashHarness(folder, seed + left).run(now);
            versions += outcome.acknowledged();
            unfolded += outcome.unfolded();
            rebuilds += outcome.rebuilds();
            healings += outcome.healings();
            copies += outcome.copies();
            outcome.undone().forEach((kind, n) -> cut.merge(kind, n, Integer::sum));
            System.out.println(kills - left + now + " kills, " + versions + " acknowledged versions, "
                    + unfolded + " of them unfolded, cut short and undone: "
                    + cut + ", rebuilds cut short: " + rebuilds + ", healings cut short: " + healings
                    + ", copies of the vault looked at: " + copies + ", "
                    + (outcome.failures().isEmpty() ? "all back" : outcome.failures()));
            if (!outcome.failures().isEmpty()) {
                System.out.println("kept for a look: " + folder);
                System.exit(1);
            }
            left -= now;
            delete(folder);
        }
        Path folder = Files.createTempDirectory("mended-leaf-crash");
        Outcome making = new CrashHarness(folder, seed).runMaking(Math.max(1, kills / 10));
        System.out.println(making.kills() + " kills while vaults were made, " + making.acknowledged()
                + " of them gone on with, " + (making.failures().isEmpty() ? "all well" : making.failures()));
        if (!making.failures().isEmpty()) {
            System.exit(1);
        }
        delete(folder);
    }
}
