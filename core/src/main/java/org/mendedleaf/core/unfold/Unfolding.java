package org.mendedleaf.core.unfold;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.UnfoldQueue;
import org.mendedleaf.core.catalogue.UnfoldQueue.Document;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Rest;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.UnfoldedContent;
import org.mendedleaf.core.vault.Unfolder;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Stores documents unfolded that were stored as they came: first those of lines with several versions, then those that were left
 * alone for a while, where that saves anything. The work is done without holding the vault; it is held for as long as a few
 * megabytes take to be appended, so that who captures hardly waits. What was committed stays when it is cut short, and the next
 * run goes on.
 */
public final class Unfolding {

    /** A document that is the only version of its line is looked at when nothing was saved for so long. */
    static final Duration ALONE_FOR = Duration.ofDays(1);

    /** Who still goes by a recipe after so long began before the program did. */
    private static final Duration REMEMBERED = Duration.ofDays(7);

    /** So much is made ready before it is stored, bytes and documents. */
    private static final long GROUP_BYTES = 8L << 20;

    private static final int GROUP = 50;

    private static final int PAGE = 100;

    /** What is added may be at most so much of what is given up for it. */
    private static final double WORTH = 0.9;

    private final OpenVault vault;
    private final Clock clock;
    private final Rest rest;
    private final boolean gently;
    private final boolean alone;

    private Unfolding(OpenVault vault, Clock clock, boolean gently, boolean alone) {
        this.vault = vault;
        this.clock = clock;
        this.gently = gently;
        this.alone = alone;
        this.rest = new Rest(gently ? 3 : 0);
    }

    /** Unfolding at once, of everything. */
    public static Unfolding atOnce(OpenVault vault, Clock clock) {
        return new Unfolding(vault, clock, false, true);
    }

    /**
     * Unfolding in the background: rests three times as long as it works, and leaves alone what is new and alone.
     *
     * @param alone whether it looks at documents that are the only versions of their lines, too
     */
    public static Unfolding inBackground(OpenVault vault, Clock clock, boolean alone) {
        return new Unfolding(vault, clock, true, alone);
    }

    /**
     * What was done.
     *
     * @param versions that are stored unfolded now
     * @param added bytes that the packs took for them
     * @param givenUp bytes in the packs that they do not need any longer
     * @param complete whether nothing is left to do for now
     */
    public record Result(int versions, long added, long givenUp, boolean complete) {}

    /** One document and what was made of it. */
    private record Made(Document document, UnfoldedContent content) {}

    /** How many documents a run would look at now. */
    long left() throws IOException {
        try (Reading reading = vault.read()) {
            UnfoldQueue queue = UnfoldQueue.of(reading);
            return queue.left() + (alone ? queue.leftAlone(aloneBefore()) : 0);
        }
    }

    private Instant aloneBefore() {
        return gently ? clock.instant().minus(ALONE_FOR) : clock.instant().plusSeconds(1);
    }

    /** Unfolds what there is to unfold. */
    public Result run(Progress progress) throws IOException {
        try (Unfolder unfolder = new Unfolder()) {
            Run run = new Run(unfolder, progress);
            boolean complete = run.lines() && run.alone();
            return new Result(run.versions, run.added, run.givenUp, complete);
        }
    }

    /** One run. */
    private final class Run {
        private final Unfolder unfolder;
        private final Progress progress;
        private int versions;
        private long added;
        private long givenUp;

        Run(Unfolder unfolder, Progress progress) {
            this.unfolder = unfolder;
            this.progress = progress;
        }

        private boolean isEnding() {
            return progress.isCancelled() || Thread.currentThread().isInterrupted();
        }

        /** Lines of several versions; returns whether it came to its end. */
        boolean lines() throws IOException {
            long after = 0;
            try (Reading reading = vault.read()) {
                progress.begin(Words.of("unfold.step"), UnfoldQueue.of(reading).left(), 0);
            }
            while (true) {
                List<Long> lines;
                try (Reading reading = vault.read()) {
                    lines = UnfoldQueue.of(reading).lines(after, PAGE);
                }
                if (lines.isEmpty()) {
                    return true;
                }
                for (long line : lines) {
                    if (!line(line)) {
                        return false;
                    }
                    after = line;
                }
            }
        }

        private boolean line(long line) throws IOException {
            List<Document> documents;
            try (Reading reading = vault.read()) {
                documents = UnfoldQueue.of(reading).documents(line);
            }
            List<Made> group = new ArrayList<>();
            List<Document> vain = new ArrayList<>();
            Set<Digest> contents = new HashSet<>();
            unfolder.begin();
            for (Document d : documents) {
                if (isEnding()) {
                    return false;
                }
                // Versions of the same content are stored anew together, with the first of them.
                if (contents.add(d.stored().digest())) {
                    make(d, group, vain);
                } else {
                    vain.add(d);
                }
                progress.advance(1, d.stored().length());
                if (unfolder.heldBytes() >= GROUP_BYTES || group.size() >= GROUP) {
                    store(group, vain, false);
                }
            }
            store(group, vain, false);
            return true;
        }

        private void make(Document d, List<Made> group, List<Document> vain) throws IOException {
            long began = System.nanoTime();
            try (Reading reading = vault.read()) {
                Optional<UnfoldedContent> made = unfolder.unfold(
                        reading.contents(), d.stored().recipe(), d.stored().digest());
                if (made.isPresent()) {
                    group.add(new Made(d, made.get()));
                } else {
                    vain.add(d);
                }
            } catch (VaultException.Damaged e) {
                // A check names it. It stays as it is.
                org.slf4j.LoggerFactory.getLogger(Unfolding.class)
                        .info("{}/{} stays as it is", d.line(), d.number(), e);
                vain.add(d);
            }
            rest.after(began);
        }

        /** Documents that are the only versions of their lines; returns whether it came to its end. */
        boolean alone() throws IOException {
            Instant before = aloneBefore();
            if (!alone) {
                return true;
            }
            long after = 0;
            try (Reading reading = vault.read()) {
                progress.begin(Words.of("unfold.step"), UnfoldQueue.of(reading).leftAlone(before), 0);
            }
            while (true) {
                List<Document> documents;
                try (Reading reading = vault.read()) {
                    documents = UnfoldQueue.of(reading).alone(after, before, PAGE);
                }
                if (documents.isEmpty()) {
                    return true;
                }
                for (Document d : documents) {
                    if (isEnding()) {
                        return false;
                    }
                    alone(d);
                    progress.advance(1, d.stored().length());
                    after = d.line();
                }
            }
        }

        /** Alone a document shares nothing, unless another one is much like it. */
        private void alone(Document d) throws IOException {
            List<Made> group = new ArrayList<>();
            List<Document> vain = new ArrayList<>();
            unfolder.begin();
            make(d, group, vain);
            if (!group.isEmpty()) {
                Optional<Document> like;
                try (Reading reading = vault.read()) {
                    like = UnfoldQueue.of(reading).like(group.get(0).content().sketch());
                }
                if (like.isPresent()) {
                    make(like.get(), group, vain);
                }
            }
            store(group, vain, true);
        }

        /** @param onlyIfItSaves whether they stay as they are when they take no less space unfolded */
        private void store(List<Made> group, List<Document> vain, boolean onlyIfItSaves) throws IOException {
            if (group.isEmpty() && vain.isEmpty()) {
                return;
            }
            try (WriteSession session = vault.write()) {
                for (Document d : vain) {
                    UnfoldQueue.done(session, d.line(), d.number());
                }
                boolean stays = onlyIfItSaves && !saves(group, session);
                for (Made m : group) {
                    if (!stays) {
                        replace(session, m);
                    } else {
                        UnfoldQueue.savesNothing(
                                session,
                                m.document().line(),
                                m.document().number(),
                                m.content().sketch());
                    }
                }
                UnfoldQueue.forgetReplaced(session, clock.instant().minus(REMEMBERED));
                session.note(UnfoldQueue.UNFOLDED, session.note(UnfoldQueue.UNFOLDED) + 1);
                session.commit();
                added += session.chunks().addedBytes();
            }
            group.clear();
            vain.clear();
            unfolder.begin();
        }

        private static boolean saves(List<Made> group, WriteSession session) throws IOException {
            long adds =
                    UnfoldedContent.addedBytes(group.stream().map(Made::content).toList(), session.chunks());
            return adds
                    <= WORTH
                            * group.stream()
                                    .mapToLong(m -> m.content().givenUpBytes())
                                    .sum();
        }

        private void replace(WriteSession session, Made m) throws IOException {
            Document d = m.document();
            Optional<Document> now = UnfoldQueue.of(session).document(d.line(), d.number());
            boolean same = now.isPresent()
                    && now.get().stored().recipe().equals(d.stored().recipe());
            if (!same) {
                // It was let go meanwhile, or stored anew.
                UnfoldQueue.done(session, d.line(), d.number());
                return;
            }
            Optional<Recipe> recipe = m.content().store(session.chunks());
            if (recipe.isPresent()) {
                versions += UnfoldQueue.replace(session, d.line(), d.stored(), recipe.get(), clock.instant());
                givenUp += m.content().givenUpBytes();
                session.note(
                        UnfoldQueue.REPLACED,
                        session.note(UnfoldQueue.REPLACED) + m.content().givenUpBytes());
            }
        }
    }
}
