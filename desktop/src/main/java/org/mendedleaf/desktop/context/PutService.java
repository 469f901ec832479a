package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Announcer;
import org.mendedleaf.core.intake.Evidence;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.preview.DocumentText;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.systems.ContentFetch;
import org.mendedleaf.core.words.Words;

/** Puts one revision in: asks the guard, then puts it in at once or hands the doubt over. */
public final class PutService {

    private final AppContext context;

    /** Putting in at this desk. */
    public PutService(AppContext context) {
        this.context = context;
    }

    /**
     * A revision that may be the wrong file.
     *
     * @param target path in the place
     */
    public record Doubt(OpenPlace openPlace, Path file, String target, PutOptions options, Judgement judgement) {}

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
    public static Evidence evidence(AppContext context, OpenPlace openPlace) {
        ContentFetch fetch = new ContentFetch(openPlace.vault(), context.registry());
        return new Evidence(
                openPlace.vault(), openPlace.place(), context.clock(), v -> fetch.bytes(v, DocumentText.MOST));
    }

    /** Asks the guard off the screen's thread; what is sure goes in. */
    public void put(OpenPlace openPlace, Path file, String target, PutOptions options, Hearer hearer) {
        context.background()
                .run(
                        () -> evidence(context, openPlace).judge(file, target),
                        judgement -> {
                            if (judgement.outcome() == Judgement.Outcome.SURE) {
                                carryOut(openPlace, file, target, options, hearer);
                            } else {
                                hearer.doubtful(new Doubt(openPlace, file, target, options, judgement));
                            }
                        },
                        hearer::failed);
    }

    /** Puts it in whatever the guard thinks, as a job. */
    public void carryOut(OpenPlace openPlace, Path file, String target, PutOptions options, Hearer hearer) {
        String name = RelativePath.name(target);
        context.jobs()
                .start(
                        Words.of("job.put", name),
                        progress -> {
                            Revision revision = new Revision(
                                    file, target, options.note(), options.stage(), options.take(), options.author());
                            PutResult result = context.work(openPlace).put(List.of(revision), progress);
                            if (result.failed().containsKey(target)) {
                                throw new IOException(result.failed().get(target));
                            }
                            return words(openPlace, target, options, result);
                        },
                        words -> {
                            hearer.done(words.text(), words.changed());
                            context.changed();
                        },
                        hearer::failed);
    }

    private record Said(String text, boolean changed) {}

    private Said words(OpenPlace openPlace, String target, PutOptions options, PutResult result) throws IOException {
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
            said.addAll(tell(openPlace, target, options.tell()));
        }
        return new Said(String.join(" ", said), !same);
    }

    /** What was put in stays in, whatever becomes of the messages. */
    private List<String> tell(OpenPlace openPlace, String target, List<String> names) throws IOException {
        try {
            Announcer.Told told = new Announcer(
                            openPlace.vault(),
                            openPlace.place(),
                            context.clock(),
                            context.settings().who(),
                            context.settings()::address,
                            context.settings().outbox())
                    .tell(target, names);
            List<String> said = new ArrayList<>(told.left());
            if (!told.messages().isEmpty()) {
                said.add(Words.of(
                        "files.told", told.messages().size(), context.settings().outbox()));
            }
            return said;
        } catch (IllegalArgumentException e) {
            return List.of(Failures.named(e));
        }
    }

    /** Puts an earlier version back, for a content that is the same as that, as a job. */
    public void restore(Doubt doubt, Consumer<String> done, Consumer<Exception> failed) {
        int number = doubt.judgement().identicalTo();
        String label = doubt.judgement().identicalLabel();
        context.jobs()
                .start(
                        Words.of("job.restore", RelativePath.name(doubt.target())),
                        progress -> {
                            OpenPlace openPlace = doubt.openPlace();
                            org.mendedleaf.core.line.Version v;
                            try (Reading reading = openPlace.vault().read()) {
                                v = reading.line(openPlace.place(), doubt.target())
                                        .flatMap(l -> l.version(number))
                                        .orElseThrow();
                            }
                            org.mendedleaf.core.line.Version here =
                                    openPlace.place().isOutside()
                                            ? v
                                            : new ContentFetch(openPlace.vault(), context.registry())
                                                    .intoVault(v, progress);
                            return context.work(openPlace)
                                    .restore(
                                            List.of(new org.mendedleaf.core.recovery.RestoreItem(here, doubt.target())),
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
                            context.changed();
                        },
                        failed);
    }
}
