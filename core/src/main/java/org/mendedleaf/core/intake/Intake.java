package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/** Reads files that come in and proposes what shall become of them. Changes nothing. */
public final class Intake {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(Intake.class);

    /** With so much in common with a file of another name, a new file may be meant as its next version. */
    private static final double LIKELY = 0.5;

    /** A new file is compared with so many files of its folder at the most. */
    private static final int COMPARED_MOST = 60;

    /** So many are compared at a time. */
    private static final int THREADS_MOST = 4;

    private static final long CANCEL_MILLIS = 200;

    private final OpenVault vault;
    private final Place place;
    private final Evidence evidence;

    /** Intake into this place. */
    public Intake(OpenVault vault, Place place, Evidence evidence) {
        this.vault = vault;
        this.place = place;
        this.evidence = evidence;
    }

    /**
     * Proposes what shall become of files and folders that somebody dropped.
     *
     * @param dropped files and folders; of folders, all that is below them
     * @param folder of the place that they are dropped into
     * @param taken what becomes of those whose name is taken
     * @throws IOException with a message for the user, when one cannot be read
     * @throws java.io.InterruptedIOException when somebody cancelled
     */
    public IntakePlan plan(List<Path> dropped, String folder, NameTaken taken, Progress progress) throws IOException {
        return plan(dropped, folder, taken, false, progress);
    }

    /** The same; with {@code hidden}, of hidden folders too. */
    public IntakePlan plan(List<Path> dropped, String folder, NameTaken taken, boolean hidden, Progress progress)
            throws IOException {
        List<String> passedOver = new ArrayList<>();
        List<Matcher.Incoming> incoming = new DroppedFiles(place).read(dropped, hidden, passedOver, progress);
        LineIndex index;
        try (Reading reading = vault.read()) {
            index = LineIndex.of(reading, place);
        }
        List<Matcher.Proposal> proposals = Matcher.match(incoming, index, folder);
        progress.begin(Words.of("intake.comparing"), proposals.size(), 0);
        List<Evidence.Work<IntakeRow>> work = new ArrayList<>();
        Set<String> used = new HashSet<>();
        for (Matcher.Proposal p : proposals) {
            if (p.kind() == Matcher.Kind.NEW_FILE) {
                used.add(p.target());
            }
        }
        for (Matcher.Proposal p : proposals) {
            work.add(row(p, index, folder, taken, used));
        }
        List<IntakeRow> rows = evidence.together(() -> all(work, progress));
        return new IntakePlan(folder, rows, passedOver);
    }

    /** Does what compares files, some at a time, and gives what comes out in the order of the work. */
    private static List<IntakeRow> all(List<Evidence.Work<IntakeRow>> work, Progress progress) throws IOException {
        ExecutorService threads = Executors.newFixedThreadPool(Math.max(1, Math.min(THREADS_MOST, processors())), r -> {
            Thread thread = new Thread(r, "intake");
            thread.setDaemon(true);
            return thread;
        });
        try {
            List<Future<IntakeRow>> begun =
                    work.stream().map(w -> threads.submit(w::run)).toList();
            List<IntakeRow> rows = new ArrayList<>();
            for (Future<IntakeRow> each : begun) {
                rows.add(result(each, progress));
                progress.advance(1, 0);
            }
            return rows;
        } finally {
            threads.shutdownNow();
            awaitEnd(threads);
        }
    }

    private static int processors() {
        return Runtime.getRuntime().availableProcessors();
    }

    /** Whoever goes on closes what the threads read from. */
    private static void awaitEnd(ExecutorService threads) {
        boolean interrupted = false;
        boolean ended = false;
        while (!ended) {
            try {
                ended = threads.awaitTermination(1, TimeUnit.SECONDS);
            } catch (InterruptedException e) {
                interrupted = true;
            }
        }
        if (interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    private static IntakeRow result(Future<IntakeRow> begun, Progress progress) throws IOException {
        while (true) {
            progress.stopIfCancelled();
            try {
                return begun.get(CANCEL_MILLIS, TimeUnit.MILLISECONDS);
            } catch (TimeoutException e) {
                log.trace("a comparison takes long", e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new java.io.InterruptedIOException(Words.of("restore.cancelled"));
            } catch (ExecutionException e) {
                if (e.getCause() instanceof IOException failed) {
                    throw failed;
                }
                throw new IllegalStateException(e.getCause());
            }
        }
    }

    /** What is said of a proposal, as work where files have to be compared for it; names are given in order. */
    private Evidence.Work<IntakeRow> row(
            Matcher.Proposal p, LineIndex index, String folder, NameTaken taken, Set<String> used) {
        IntakeRow.Fate fate = IntakeRow.Fate.valueOf(p.kind().name());
        IntakeRow row =
                new IntakeRow(p.incoming(), fate, p.target(), p.how(), p.candidates(), Optional.empty(), "", false);
        boolean sameName = fate == IntakeRow.Fate.NEW_VERSION && p.how() == Matcher.How.PATH;
        if (sameName && taken == NameTaken.SKIP) {
            return () -> row.choose(IntakeRow.Fate.SKIPPED, p.target());
        }
        if (sameName && taken == NameTaken.KEEP_BOTH) {
            String free = Matcher.free(p.target(), used, index);
            return () -> row.choose(IntakeRow.Fate.NEW_FILE, free);
        }
        if (fate == IntakeRow.Fate.NEW_VERSION || fate == IntakeRow.Fate.UNSURE) {
            return () -> row.judged(evidence.judge(p.incoming().file(), p.target()));
        }
        return fate == IntakeRow.Fate.NEW_FILE ? () -> newFile(row, p, index, folder) : () -> row;
    }

    private IntakeRow newFile(IntakeRow row, Matcher.Proposal p, LineIndex index, String folder) throws IOException {
        Optional<String> alike = alike(p.incoming(), index, folder);
        if (alike.isEmpty()) {
            return row;
        }
        Judgement j = evidence.judge(p.incoming().file(), alike.get());
        return new IntakeRow(
                p.incoming(),
                IntakeRow.Fate.UNSURE,
                alike.get(),
                Matcher.How.CONTENT,
                List.of(alike.get(), p.target()),
                Optional.of(j),
                "",
                false);
    }

    /** Asks the guard again, after somebody chose another target. */
    public IntakeRow judge(IntakeRow row) throws IOException {
        return row.fate() == IntakeRow.Fate.NEW_VERSION
                ? row.judged(evidence.judge(row.incoming().file(), row.target()))
                : row;
    }

    /** A file of the folder that a file of another name has much in common with. */
    private Optional<String> alike(Matcher.Incoming in, LineIndex index, String folder) throws IOException {
        String ending = NameStem.endingOf(RelativePath.name(in.relative()));
        List<LineIndex.Entry> near = index.in(folder).stream()
                .filter(e -> NameStem.endingOf(RelativePath.name(e.path())).equals(ending))
                .sorted(Comparator.comparingLong(e -> Math.abs(e.size() - in.size())))
                .limit(COMPARED_MOST)
                .toList();
        if (near.isEmpty() || in.size() == 0) {
            return Optional.empty();
        }
        Features incoming = evidence.features(in.file());
        String best = "";
        double most = LIKELY;
        double second = 0;
        try (Reading reading = vault.read()) {
            for (LineIndex.Entry e : near) {
                Version v = reading.version(e.line(), e.number()).orElseThrow();
                if (v.recipe().isElsewhere()) {
                    continue;
                }
                Optional<Features> there = evidence.features(reading, v);
                OptionalDouble share = there.isEmpty() || there.get().kind() != incoming.kind()
                        ? OptionalDouble.empty()
                        : Likeness.of(incoming, there.get(), List.of());
                double s = share.orElse(0);
                if (s >= most) {
                    second = best.isEmpty() ? 0 : most;
                    best = e.path();
                    most = s;
                } else {
                    second = Math.max(second, s);
                }
            }
        }
        // Where several are alike it is one more of its kind, as with forms that are filled in.
        return best.isEmpty() || second > most - 0.1 ? Optional.empty() : Optional.of(best);
    }

    /** Whether this is a file or folder that could come in. */
    public static boolean canComeIn(Path path) {
        return Files.isDirectory(path) || Files.isRegularFile(path, LinkOption.NOFOLLOW_LINKS);
    }
}
