package org.mendedleaf.desktop.intake;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Evidence;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.intake.Telling;
import org.mendedleaf.core.preview.DocumentText;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.systems.Fetch;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.shell.Desk;
import org.mendedleaf.desktop.shell.Held;

/** Puts one revision in: asks the guard, then puts it in at once or hands the doubt over. */
public final class Putting {

    private final Desk desk;

    /** Putting in at this desk. */
    public Putting(Desk desk) {
        this.desk = desk;
    }

    /**
     * A revision that may be the wrong file.
     *
     * @param target path in the place
     */
    public record Doubt(Held held, Path file, String target, PutOptions options, Judgement judgement) {}

    /** What hears of how it went. */
    public interface Hearer {
        /** Somebody should look first. */
        void doubtful(Doubt doubt);

        /** It is in; {@code undo} is whether anything changed. */
        void done(String words, boolean undo);

        /** It could not be put in. */
        void failed(Exception e);
    }

    /** The guard's evidence on files of a place. */
    public static Evidence evidence(Desk desk, Held held) {
        Fetch fetch = new Fetch(held.vault(), desk.book());
        return new Evidence(held.vault(), held.place(), desk.clock(), v -> fetch.bytes(v, DocumentText.MOST));
    }

    /** Asks the guard off the screen's thread; what is sure goes in. */
    public void put(Held held, Path file, String target, PutOptions options, Hearer hearer) {
        desk.background()
                .run(
                        () -> evidence(desk, held).judge(file, target),
                        judgement -> {
                            if (judgement.outcome() == Judgement.Outcome.SURE) {
                                carryOut(held, file, target, options, hearer);
                            } else {
                                hearer.doubtful(new Doubt(held, file, target, options, judgement));
                            }
                        },
                        hearer::failed);
    }

    /** Puts it in whatever the guard thinks, as a job. */
    public void carryOut(Held held, Path file, String target, PutOptions options, Hearer hearer) {
        String name = RelativePath.name(target);
        desk.jobs()
                .start(
                        Words.of("job.put", name),
                        progress -> {
                            Revision revision =
                                    new Revision(file, target, options.note(), options.stage(), options.take());
                            PutResult result = desk.work(held).put(List.of(revision), progress);
                            if (result.failed().containsKey(target)) {
                                throw new IOException(result.failed().get(target));
                            }
                            return words(held, target, options, result);
                        },
                        words -> {
                            hearer.done(words.text(), words.changed());
                            desk.changed();
                        },
                        hearer::failed);
    }

    private record Said(String text, boolean changed) {}

    private Said words(Held held, String target, PutOptions options, PutResult result) throws IOException {
        if (result.cancelled() && result.labels().isEmpty()) {
            return new Said(Words.of("restore.cancelled"), false);
        }
        String name = RelativePath.name(target);
        String label = result.labels().getOrDefault(target, "");
        boolean same = result.same().contains(target);
        List<String> said = new ArrayList<>();
        said.add(Words.of(same ? "files.putSame" : "files.put", name, label));
        said.addAll(result.stayed());
        if (!same && !options.tell().isEmpty()) {
            said.addAll(tell(held, target, options.tell()));
        }
        return new Said(String.join(" ", said), !same);
    }

    /** What was put in stays in, whatever becomes of the messages. */
    private List<String> tell(Held held, String target, List<String> names) throws IOException {
        try {
            Telling.Told told = new Telling(
                            held.vault(),
                            held.place(),
                            desk.clock(),
                            desk.home().who(),
                            desk.home()::address,
                            desk.home().outbox())
                    .tell(target, names);
            List<String> said = new ArrayList<>(told.left());
            if (!told.messages().isEmpty()) {
                said.add(Words.of(
                        "files.told", told.messages().size(), desk.home().outbox()));
            }
            return said;
        } catch (IllegalArgumentException e) {
            return List.of(String.valueOf(e.getMessage()));
        }
    }

    /** Puts an earlier version back, for a content that is the same as that, as a job. */
    void restore(Doubt doubt, Consumer<String> done, Consumer<Exception> failed) {
        int number = doubt.judgement().identicalTo();
        String label = doubt.judgement().identicalLabel();
        desk.jobs()
                .start(
                        Words.of("job.restore", RelativePath.name(doubt.target())),
                        progress -> {
                            Held held = doubt.held();
                            org.mendedleaf.core.line.Version v;
                            try (Reading reading = held.vault().read()) {
                                v = reading.line(held.place(), doubt.target())
                                        .flatMap(l -> l.version(number))
                                        .orElseThrow();
                            }
                            org.mendedleaf.core.line.Version here = held.place().isOutside()
                                    ? v
                                    : new Fetch(held.vault(), desk.book()).intoVault(v, progress);
                            return desk.work(held)
                                    .restore(
                                            List.of(new org.mendedleaf.core.recovery.Wish(here, doubt.target())),
                                            org.mendedleaf.core.recovery.Collision.REPLACE,
                                            progress);
                        },
                        result -> {
                            done.accept(Words.of(
                                    "files.restored",
                                    RelativePath.name(doubt.target()),
                                    label,
                                    result.items().isEmpty()
                                            ? label
                                            : result.items().get(0).label()));
                            desk.changed();
                        },
                        failed);
    }
}
