package org.mendedleaf.bench;

import java.io.IOException;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Detectors;
import org.mendedleaf.core.findings.Finding;
import org.mendedleaf.core.findings.History;
import org.mendedleaf.core.findings.NameChange;
import org.mendedleaf.core.findings.SavedVersion;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.vault.Digest;

/**
 * How much planted damage the detectors find, and how often they are wrong, in a year of an office: edits, forms that are
 * filled in, mass renames, exports that are written anew each day, pictures that are edited in bulk, archives, tidying up; with
 * damage of each kind in three strengths. The contents are real ones, and so is what is known of their health.
 *
 * <pre>{@code
 * FindingsBench [FILES] [SEED]
 * }</pre>
 */
public final class FindingsBench {

    private static final LocalDate START = LocalDate.of(2026, 1, 1);
    private static final int DAYS = 365;
    private static final double EDITS = 0.004;
    private static final List<String> PEOPLE = List.of("Ines", "Tomas", "Wilma", "Jory", "Adele", "Petra");

    /** What is done to files. */
    private enum Harm {
        SAVED_OVER,
        EMPTIED,
        CUT_SHORT,
        UNREADABLE,
        GARBLED_MANY,
        RENAMED_AND_GARBLED,
        REMOVED_MANY,
        CHANGED_UNSEEN,
        CROSSED
    }

    private enum Strength {
        MILD,
        MIDDLE,
        STRONG
    }

    private record Planted(Harm harm, Strength strength, Set<Long> lines, Instant from, Instant to) {}

    private static final class OfficeFile<T> {
        private final long line;
        private final Kind<T> kind;
        private final boolean export;
        private String path;
        private T state;
        private int number;
        private Instant saved = Instant.EPOCH;
        private String who = "";
        private byte[] bytes = {};
        private Resemblance.@Nullable Content content;
        private Resemblance.@Nullable Content before;
        private boolean removed;
        private boolean harmed;

        OfficeFile(long line, Kind<T> kind, boolean export, String path, T state) {
            this.line = line;
            this.kind = kind;
            this.export = export;
            this.path = path;
            this.state = state;
        }
    }

    private final Random random;
    private final Prose prose;
    private final List<Kind<?>> kinds;
    private final int count;
    private final List<OfficeFile<?>> files = new ArrayList<>();
    private final List<SavedVersion> saves = new ArrayList<>();
    private final List<NameChange> turns = new ArrayList<>();
    private final List<Planted> planted = new ArrayList<>();

    private FindingsBench(int count, long seed) {
        this.count = count;
        this.random = new Random(seed);
        this.prose = new Prose(random);
        // What is neither a document nor a picture is large, and tells the detectors nothing that others do not.
        this.kinds = Kind.all(prose).stream()
                .filter(k -> !k.name.startsWith("other") && !k.name.startsWith("photograph"))
                .toList();
    }

    /** Runs it and prints the tables. */
    public static void main(String[] arguments) throws Exception {
        System.setProperty("java.awt.headless", "true");
        int count = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 2500;
        long seed = arguments.length > 1 ? Long.parseLong(arguments[1]) : 2;
        FindingsBench bench = new FindingsBench(count, seed);
        bench.year();
        bench.report();
    }

    // The year.

    private void year() throws IOException {
        Instant first = START.atStartOfDay(ZoneOffset.UTC).toInstant().minus(Duration.ofDays(1));
        for (int i = 0; i < count; i++) {
            add(kinds.get(i % kinds.size()), false, "d" + i / 25 + "/", first.plusSeconds(i));
        }
        for (int i = 0; i < 10; i++) {
            add(kinds.get(i % 3), true, "Exports/", first.plusSeconds(i));
        }
        Map<Integer, List<Deed>> harm = plan();
        for (int day = 0; day < DAYS; day++) {
            LocalDate date = START.plusDays(day);
            Instant morning = date.atTime(8, 0).toInstant(ZoneOffset.UTC);
            boolean works = date.getDayOfWeek() != DayOfWeek.SATURDAY && date.getDayOfWeek() != DayOfWeek.SUNDAY;
            for (OfficeFile<?> f : files) {
                if (f.export) {
                    exported(f, morning.minusSeconds(3600));
                }
            }
            if (works) {
                work(day, morning);
            }
            for (Deed deed : harm.getOrDefault(day, List.of())) {
                deed.at(morning.plus(Duration.ofMinutes(30L + random.nextInt(480))));
            }
            mended(morning.plus(Duration.ofHours(11)));
        }
    }

    private interface Deed {
        void at(Instant when) throws IOException;
    }

    private <T> OfficeFile<T> add(Kind<T> kind, boolean export, String folder, Instant at) throws IOException {
        return add(kind, export, folder, kind.fresh(), at);
    }

    private <T> OfficeFile<T> add(Kind<T> kind, boolean export, String folder, T state, Instant at) throws IOException {
        long line = files.size() + 1L;
        OfficeFile<T> file =
                new OfficeFile<>(line, kind, export, folder + prose.name() + " " + line + kind.ending, state);
        files.add(file);
        save(file, kind.bytes(state), at, somebody(), false, false);
        return file;
    }

    private String somebody() {
        return PEOPLE.get(random.nextInt(PEOPLE.size()));
    }

    private <T> void exported(OfficeFile<T> file, Instant at) throws IOException {
        file.state = file.kind.fresh();
        save(file, file.kind.bytes(file.state), at, "Ines", false, false);
    }

    private <T> void edit(OfficeFile<T> file, Instant at, String who) throws IOException {
        file.state = file.kind.edit(file.state);
        save(file, file.kind.bytes(file.state), at, who, false, false);
    }

    private void work(int day, Instant morning) throws IOException {
        int edits = (int) Math.max(1, count * EDITS);
        for (int i = 0; i < edits; i++) {
            edit(any(), morning.plus(Duration.ofSeconds(random.nextInt(9 * 3600))), somebody());
        }
        for (OfficeFile<?> f : some(random.nextInt(3))) {
            remove(f, morning.plus(Duration.ofSeconds(random.nextInt(9 * 3600))), somebody());
            add(kinds.get(random.nextInt(kinds.size())), false, "d" + day + "/", morning.plus(Duration.ofHours(4)));
        }
        if (day % 7 == 2) {
            form(morning.plus(Duration.ofHours(2)));
        }
        if (day % 30 == 11) {
            List<OfficeFile<?>> some = some(30 + random.nextInt(90));
            Instant at = morning.plus(Duration.ofHours(3));
            for (OfficeFile<?> f : some) {
                rename(f, f.path.replaceFirst("/", "/2026 "), at, "Wilma");
                at = at.plusMillis(400);
            }
        }
        if (day % 90 == 40) {
            tidyUp(15 + random.nextInt(45), morning.plus(Duration.ofHours(5)));
        }
        if (day % 180 == 63) {
            // A word is replaced in many documents at once; pictures are edited in bulk.
            Instant at = morning.plus(Duration.ofHours(4));
            for (OfficeFile<?> f : some(50)) {
                edit(f, at, "Jory");
                at = at.plusSeconds(2);
            }
        }
    }

    private <T> void form(Instant at) throws IOException {
        @SuppressWarnings("unchecked")
        Kind<T> kind = (Kind<T>) kinds.get(random.nextInt(4));
        T form = kind.fresh();
        for (int i = 0; i < 5; i++) {
            add(kind, false, "Forms/", kind.sibling(form), at.plusSeconds(400L * i));
        }
    }

    private void tidyUp(int many, Instant from) {
        Instant at = from;
        for (OfficeFile<?> f : some(many)) {
            remove(f, at, "Petra");
            at = at.plusMillis(300);
        }
    }

    private void remove(OfficeFile<?> f, Instant at, String who) {
        turns.add(new NameChange(f.line, at, who, f.path, "", f.number));
        f.removed = true;
    }

    private void rename(OfficeFile<?> f, String to, Instant at, String who) {
        turns.add(new NameChange(f.line, at, who, f.path, to, f.number));
        f.path = to;
    }

    private OfficeFile<?> any() {
        while (true) {
            OfficeFile<?> f = files.get(random.nextInt(files.size()));
            if (!f.removed && !f.export && !f.harmed) {
                return f;
            }
        }
    }

    private List<OfficeFile<?>> some(int many) {
        Set<OfficeFile<?>> some = new java.util.LinkedHashSet<>();
        while (some.size() < Math.min(many, count / 4)) {
            some.add(any());
        }
        return List.copyOf(some);
    }

    private void save(OfficeFile<?> f, byte[] bytes, Instant at, String who, boolean quiet, boolean ours)
            throws IOException {
        Instant when = at.isAfter(f.saved) ? at : f.saved.plusSeconds(60);
        Resemblance.Content now = new Resemblance.Content(f.path, bytes);
        Optional<Resemblance> alike = Optional.empty();
        Resemblance.Content last = f.content;
        if (last != null) {
            boolean two = !who.equals(f.who) && Duration.between(f.saved, when).compareTo(Duration.ofHours(2)) <= 0;
            Optional<Resemblance.Content> older = two ? Optional.ofNullable(f.before) : Optional.empty();
            alike = Optional.of(Resemblance.of(last, now, older));
        }
        saves.add(new SavedVersion(
                f.line,
                f.number + 1,
                f.number,
                f.path,
                f.path,
                when,
                who,
                bytes.length,
                f.bytes.length,
                Digest.of(Digest.sha256().digest(bytes)),
                quiet,
                ours,
                Optional.of(health(f.path, bytes)),
                alike));
        f.number++;
        f.before = f.content;
        f.content = now;
        f.bytes = bytes;
        f.saved = when;
        f.who = who;
    }

    private static Health health(String path, byte[] bytes) throws IOException {
        return DocumentProcess.shared().health(path, bytes);
    }

    // The damage.

    private Map<Integer, List<Deed>> plan() {
        Map<Integer, List<Deed>> plan = new TreeMap<>();
        for (Harm harm : Harm.values()) {
            for (Strength strength : Strength.values()) {
                boolean many =
                        harm == Harm.GARBLED_MANY || harm == Harm.RENAMED_AND_GARBLED || harm == Harm.REMOVED_MANY;
                for (int i = 0; i < (many ? 4 : 12); i++) {
                    int day = 20 + random.nextInt(DAYS - 30);
                    plan.computeIfAbsent(day, k -> new ArrayList<>()).add(at -> harm(harm, strength, at));
                }
            }
        }
        return plan;
    }

    private void harm(Harm harm, Strength strength, Instant at) throws IOException {
        boolean many = harm == Harm.GARBLED_MANY || harm == Harm.RENAMED_AND_GARBLED || harm == Harm.REMOVED_MANY;
        int n = many
                ? switch (strength) {
                    case MILD -> harm == Harm.REMOVED_MANY ? 10 : 6;
                    case MIDDLE -> 40;
                    case STRONG -> 300;
                }
                : 1;
        List<OfficeFile<?>> targets = some(n);
        Set<Long> lines = new HashSet<>();
        Instant when = at;
        for (OfficeFile<?> f : targets) {
            lines.add(f.line);
            f.harmed = true;
            harm(harm, strength, f, when);
            when = when.plusMillis(700);
        }
        planted.add(new Planted(harm, strength, lines, at.minusSeconds(60), when.plus(Duration.ofHours(14))));
    }

    private <T> void harm(Harm harm, Strength strength, OfficeFile<T> f, Instant at) throws IOException {
        String who = somebody();
        switch (harm) {
            case SAVED_OVER -> save(f, over(f, strength), at, who, false, false);
            case EMPTIED -> save(f, emptied(f, strength), at, who, false, false);
            case CUT_SHORT -> save(f, cut(f.bytes, share(strength, 0.85, 0.5, 0.1)), at, who, false, false);
            case UNREADABLE -> save(f, broken(f.bytes, strength), at, who, false, false);
            case GARBLED_MANY -> save(f, noise(f.bytes.length), at, "Adele", false, false);
            case RENAMED_AND_GARBLED -> {
                rename(f, f.path + ".locked", at, "Adele");
                save(f, noise(f.bytes.length), at.plusMillis(50), "Adele", false, false);
            }
            case REMOVED_MANY -> remove(f, at, "Adele");
            case CHANGED_UNSEEN -> save(f, unseen(f.bytes, strength), at, who, true, false);
            case CROSSED -> crossed(f, strength, at);
        }
    }

    private static double share(Strength strength, double mild, double middle, double strong) {
        return strength == Strength.MILD ? mild : strength == Strength.MIDDLE ? middle : strong;
    }

    /** Over it comes an edited copy of another file of its kind, a new one of its kind, or one of another kind. */
    private <T> byte[] over(OfficeFile<T> f, Strength strength) {
        if (strength == Strength.STRONG) {
            Kind<?> other = f.kind;
            while (other.ending.equals(f.kind.ending)) {
                other = kinds.get(random.nextInt(kinds.size()));
            }
            return fresh(other);
        }
        if (strength == Strength.MILD) {
            for (OfficeFile<?> g : some(60)) {
                if (g != f && g.kind == f.kind) {
                    return g.bytes;
                }
            }
        }
        return f.kind.bytes(f.kind.fresh());
    }

    private static <T> byte[] fresh(Kind<T> kind) {
        return kind.bytes(kind.fresh());
    }

    /** Of the text a few percent are left, nothing but spaces, or nothing. What is no text is made empty. */
    private static byte[] emptied(OfficeFile<?> f, Strength strength) {
        boolean text = f.kind.ending.equals(".md") || f.kind.ending.equals(".csv");
        if (strength == Strength.STRONG || !text) {
            return new byte[0];
        }
        return strength == Strength.MIDDLE
                ? " \n \n".getBytes(java.nio.charset.StandardCharsets.UTF_8)
                : new String(f.bytes, java.nio.charset.StandardCharsets.UTF_8)
                        .substring(0, Math.max(1, f.bytes.length / 40))
                        .getBytes(java.nio.charset.StandardCharsets.UTF_8);
    }

    private static byte[] cut(byte[] bytes, double share) {
        return Arrays.copyOf(bytes, Math.max(1, (int) (bytes.length * share)));
    }

    /** A hole in the middle, the beginning overwritten, or all of it. */
    private byte[] broken(byte[] bytes, Strength strength) {
        if (strength == Strength.STRONG) {
            return noise(bytes.length);
        }
        byte[] broken = bytes.clone();
        int length = Math.max(16, bytes.length / 8);
        int from = strength == Strength.MILD ? bytes.length / 3 : 0;
        byte[] hole = noise(Math.min(length, bytes.length - from));
        System.arraycopy(hole, 0, broken, from, hole.length);
        return broken;
    }

    private byte[] noise(int length) {
        byte[] noise = new byte[Math.max(64, length)];
        random.nextBytes(noise);
        return noise;
    }

    /** A bit, a few bytes, or a block, at the same time and of the same size. */
    private byte[] unseen(byte[] bytes, Strength strength) {
        byte[] other = bytes.clone();
        int length = strength == Strength.MILD ? 1 : strength == Strength.MIDDLE ? 16 : Math.max(32, bytes.length / 10);
        int from = random.nextInt(Math.max(1, bytes.length - length));
        for (int i = from; i < Math.min(bytes.length, from + length); i++) {
            other[i] ^= (byte) (1 + random.nextInt(255));
        }
        return other;
    }

    /** Somebody saves an edit; half an hour later somebody else saves an edit of what was there before. */
    private <T> void crossed(OfficeFile<T> f, Strength strength, Instant at) throws IOException {
        T was = f.state;
        T theirs = was;
        int edits = strength == Strength.MILD ? 1 : strength == Strength.MIDDLE ? 3 : 8;
        for (int i = 0; i < edits; i++) {
            theirs = f.kind.edit(theirs);
        }
        save(f, f.kind.bytes(theirs), at, "Jory", false, false);
        f.state = f.kind.edit(was);
        save(f, f.kind.bytes(f.state), at.plus(Duration.ofMinutes(30)), "Wilma", false, false);
    }

    /** In the evening somebody has noticed, and all is as it was. */
    private void mended(Instant at) throws IOException {
        for (OfficeFile<?> f : files) {
            if (f.harmed) {
                f.harmed = false;
                f.path = f.path.replace(".locked", "");
                f.removed = false;
                back(f, at);
            }
        }
    }

    private <T> void back(OfficeFile<T> f, Instant at) throws IOException {
        save(f, f.kind.bytes(f.state), at, "Ines", false, true);
    }

    // The report.

    private void report() {
        History history = new History(1, saves, turns);
        long began = System.nanoTime();
        List<Finding> found = Detectors.find(history);
        double millis = (System.nanoTime() - began) / 1e6;
        System.out.printf(
                Locale.ROOT,
                "%,d files, %,d versions, %,d renames and removals in a year; detectors took %.0f ms%n%n",
                files.size(),
                saves.size(),
                turns.size(),
                millis);
        Set<Finding> right = new HashSet<>();
        Map<Harm, int[]> table = new EnumMap<>(Harm.class);
        for (Planted p : planted) {
            boolean is = false;
            for (Finding f : found) {
                boolean meets = !f.to().isBefore(p.from())
                        && !f.from().isAfter(p.to())
                        && f.marks().stream().anyMatch(m -> p.lines().contains(m.line()));
                if (meets) {
                    right.add(f);
                    is = true;
                }
            }
            int[] n = table.computeIfAbsent(p.harm(), k -> new int[6]);
            n[p.strength().ordinal() * 2]++;
            n[p.strength().ordinal() * 2 + 1] += is ? 1 : 0;
            if (!is && System.getenv("FINDINGS_DEBUG") != null) {
                missed(p);
            }
        }
        System.out.println("| planted | mild | middle | strong | all, % |");
        System.out.println("|---|---|---|---|---|");
        int[] sum = new int[6];
        for (Map.Entry<Harm, int[]> e : table.entrySet()) {
            row(e.getKey().name().toLowerCase(Locale.ROOT).replace('_', ' '), e.getValue());
            Arrays.setAll(sum, i -> sum[i] + e.getValue()[i]);
        }
        row("**all**", sum);
        Map<String, Integer> wrong = new LinkedHashMap<>();
        for (Finding f : found) {
            if (!right.contains(f)) {
                wrong.merge(f.kind() + " " + f.sure(), 1, Integer::sum);
                if (System.getenv("FINDINGS_DEBUG") != null) {
                    System.err.println("wrong: " + f.words() + " " + f.from() + " " + f.evidence());
                }
            }
        }
        int all = wrong.values().stream().mapToInt(Integer::intValue).sum();
        System.out.printf(Locale.ROOT, "%nWrong findings: %d, %.2f a week: %s%n", all, all / (DAYS / 7.0), wrong);
    }

    private void missed(Planted p) {
        for (SavedVersion s : saves) {
            if (p.lines().contains(s.line()) && !s.at().isBefore(p.from()) && !s.at().isAfter(p.to())) {
                System.err.println("missed " + p.harm() + " " + p.strength() + ": " + s.path() + " "
                        + s.health().map(Health::words).orElse("") + " " + s.likeness() + " " + s.sizeBefore() + " > "
                        + s.size());
            }
        }
    }

    private static void row(String name, int[] n) {
        int planted = n[0] + n[2] + n[4];
        int found = n[1] + n[3] + n[5];
        System.out.printf(
                Locale.ROOT,
                "| %s | %d of %d | %d of %d | %d of %d | %.1f |%n",
                name,
                n[1],
                n[0],
                n[3],
                n[2],
                n[5],
                n[4],
                100.0 * found / planted);
    }
}
