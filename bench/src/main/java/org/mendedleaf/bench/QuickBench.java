package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.Stream;

/**
 * What everybody does every day, in a few minutes: whole processes of this program, and of another commit's beside them in
 * turns. Processor time is compared, which other work on the machine changes least. What looks worse is measured some more times
 * before it is called so.
 */
public final class QuickBench {

    /** Worse than this is called worse, when it is at least so many seconds. */
    private static final double WORSE = 1.15;

    private static final double WORSE_SECONDS = 0.03;

    private static final int ROUNDS = 3;
    private static final int MORE = 6;
    private static final int FILES = 1000;
    private static final long BYTES = 60_000_000;

    private final Path work;
    private final List<Side> sides = new ArrayList<>();
    private final List<String> worse = new ArrayList<>();

    /** One program with its own files. */
    private static final class Side {
        private final String name;
        private final Path program;
        private final Path folder;
        private final Path desk;
        private int saves;
        private int restores;

        Side(String name, Path program, Path work) throws IOException {
            this.name = name;
            this.program = program;
            this.folder = Files.createDirectories(work.resolve(name));
            this.desk = folder.resolve("desk");
        }

        Measured run(String... arguments) throws IOException, InterruptedException {
            List<String> command = new ArrayList<>(List.of(program.toString()));
            command.addAll(List.of(arguments));
            // A monitor is told by 4 that something needs attention.
            return Shell.measure(folder, command, 4);
        }
    }

    private interface Step {
        Measured run(Side side) throws Exception;
    }

    private QuickBench(Path work) {
        this.work = work;
    }

    /** Measures: {@code WORK PROGRAM [OTHER NAME]}; ends with 1 when something is worse than in the other one. */
    public static void main(String[] arguments) throws Exception {
        QuickBench bench = new QuickBench(Path.of(arguments[0]));
        bench.sides.add(new Side("now", Path.of(arguments[1]), bench.work));
        if (arguments.length > 2) {
            bench.sides.add(new Side(arguments[3], Path.of(arguments[2]), bench.work));
        }
        bench.run();
        bench.worse.forEach(System.out::println);
        System.exit(bench.worse.isEmpty() ? 0 : 1);
    }

    private void run() throws Exception {
        boolean compares = sides.size() > 1;
        System.out.println(
                compares
                        ? "| measure | now: wall / processor | " + sides.get(1).name + " | ratio of processor time | |"
                        : "| measure | wall / processor |");
        System.out.println(compares ? "|---|---|---|---|---|" : "|---|---|");
        for (Side side : sides) {
            Corpus.office(side.desk, FILES, BYTES);
            side.run("--version");
        }
        measure("`--version`", s -> s.run("--version"));
        measure("first capture of " + FILES + " files, " + BYTES / 1_000_000 + " MB", s -> {
            delete(s.folder.resolve("vault"));
            delete(s.folder.resolve("home"));
            return s.run("protect", "desk", "--vault", "vault", "--every", "hand");
        });
        measure("capture with nothing changed", s -> s.run("capture", "desk"));
        measure("capture of one save", s -> {
            Path file = Files.writeString(s.desk.resolve("d000/note.txt"), "saved for the " + ++s.saves + ". time");
            Files.setLastModifiedTime(file, FileTime.from(Instant.now().plusSeconds(s.saves)));
            return s.run("capture", "desk");
        });
        for (Side side : sides) {
            edit(side);
        }
        measure("`list`", s -> s.run("list", "desk/d000"));
        measure("`line`", s -> s.run("line", "desk/d000/note.txt"));
        measure("`status`", s -> s.run("status"));
        measure("`find` of a word", s -> s.run("find", "orchard"));
        measure("`compare` of two versions", s -> s.run("compare", "desk/d000/edited.odt", "--from", "1"));
        measure(
                "restore of all, verified",
                s -> s.run("restore", "desk", "--at", "now", "--to", "back" + ++s.restores));
        measure("`check --full`", s -> s.run("check", "--full"));
        measure("`space`", s -> s.run("space"));
    }

    /** A document of several versions, as all have them. */
    private static void edit(Side side) throws Exception {
        byte[] text = Corpus.text(new Random(9), 400_000);
        for (int i = 0; i < 3; i++) {
            System.arraycopy(
                    ("edit " + i).getBytes(java.nio.charset.StandardCharsets.US_ASCII), 0, text, 90_000 * i, 6);
            Path file = Files.write(side.desk.resolve("d000/edited.odt"), Corpus.document(text, new byte[0][]));
            Files.setLastModifiedTime(file, FileTime.from(Instant.now().plusSeconds(60 + i)));
            side.run("capture", "desk");
        }
    }

    private void measure(String name, Step step) throws Exception {
        List<List<Measured>> taken = new ArrayList<>();
        sides.forEach(s -> taken.add(new ArrayList<>()));
        rounds(step, taken, ROUNDS);
        if (sides.size() < 2) {
            System.out.printf("| %s | %s |%n", name, median(taken.get(0)).words());
            return;
        }
        if (isWorse(taken)) {
            rounds(step, taken, MORE);
        }
        Measured now = median(taken.get(0));
        Measured then = median(taken.get(1));
        double ratio = now.processor() / then.processor();
        String verdict = isWorse(taken) ? "worse" : "";
        System.out.printf(
                Locale.ROOT, "| %s | %s | %s | %.2f | %s |%n", name, now.words(), then.words(), ratio, verdict);
        if (isWorse(taken)) {
            worse.add(String.format(Locale.ROOT, "Worse than before: %s takes %.2f times as long.", name, ratio));
        }
    }

    private void rounds(Step step, List<List<Measured>> taken, int rounds) throws Exception {
        for (int i = 0; i < rounds; i++) {
            for (int side = 0; side < sides.size(); side++) {
                taken.get(side).add(step.run(sides.get(side)));
            }
        }
    }

    private static boolean isWorse(List<List<Measured>> taken) {
        double now = median(taken.get(0)).processor();
        double then = median(taken.get(1)).processor();
        return now > then * WORSE && now - then > WORSE_SECONDS;
    }

    private static Measured median(List<Measured> all) {
        return Measured.median(all.toArray(new Measured[0]));
    }

    private static void delete(Path path) throws IOException {
        if (Files.exists(path)) {
            try (Stream<Path> all = Files.walk(path)) {
                for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(each);
                }
            }
        }
    }
}
