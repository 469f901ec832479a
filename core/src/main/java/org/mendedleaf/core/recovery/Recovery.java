package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.JournalStore;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LiveEntry;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.line.WriteSession;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.words.Words;

/**
 * Brings earlier contents back into a protected folder, removes files recoverably, and undoes both.
 *
 * <p>Before anything is touched, what is live and not yet captured is captured. Each file is written beside its target,
 * synced, read back, compared, and moved into place; then its point is put down and committed. A crash in between leaves
 * either the old content or the new one, both of them in the vault.
 */
public final class Recovery implements FileWork {

    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final Authors authors;
    private final String who;

    /**
     * Recovery within a place.
     *
     * @param who does it; stands at the new points and in the journal
     */
    public Recovery(OpenVault vault, Place place, Clock clock, Authors authors, String who) {
        this.vault = vault;
        this.place = place;
        this.clock = clock;
        this.authors = authors;
        this.who = who;
    }

    /** What restoring these would do now; captures nothing and changes nothing. */
    @Override
    public RestorePlan plan(List<Wish> wishes, Collision rule) throws IOException {
        try (Reading reading = vault.read()) {
            return RestorePlanner.plan(wishes, path -> new LiveView(reading, place).existing(path), rule);
        }
    }

    /** Restores versions to their paths. */
    @Override
    public RestoreResult restore(List<Wish> wishes, Collision rule, Progress progress) throws IOException {
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            InPlace files = files(session, reading);
            files.captureFirst(wishes.stream().map(Wish::target).toList());
            RestorePlan plan = RestorePlanner.plan(wishes, path -> existing(files, path), rule);
            progress.begin(Words.of("restore.step"), plan.items().size(), plan.bytes());
            Noting noting = new Noting(session, ActionKind.RESTORED, 0);
            List<RestoreResult.Item> results = new ArrayList<>();
            boolean cancelled = false;
            for (RestorePlan.Item item : plan.items()) {
                cancelled = progress.isCancelled();
                if (cancelled) {
                    break;
                }
                results.add(carryOut(files, item, noting, progress));
                progress.advance(1, 0);
            }
            return new RestoreResult(noting.action(), results, cancelled);
        }
    }

    private static Optional<Existing> existing(InPlace files, String path) {
        try {
            return files.existing(path);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private RestoreResult.Item carryOut(InPlace files, RestorePlan.Item item, Noting noting, Progress progress)
            throws IOException {
        if (!item.writes()) {
            RestoreResult.Outcome outcome =
                    item.step() == RestorePlan.Step.REFUSE ? RestoreResult.Outcome.FAILED : RestoreResult.Outcome.LEFT;
            return new RestoreResult.Item(item, outcome, 0, item.why());
        }
        try {
            boolean mayReplace = item.step() == RestorePlan.Step.REPLACE;
            int number = files.put(item.version(), item.target(), mayReplace, noting, progress);
            noting.commit();
            return new RestoreResult.Item(item, RestoreResult.Outcome.DONE, number, "");
        } catch (org.mendedleaf.core.vault.VaultException.Damaged e) {
            return failed(item, e);
        } catch (org.mendedleaf.core.vault.VaultException e) {
            throw e;
        } catch (IOException | IllegalArgumentException e) {
            return failed(item, e);
        }
    }

    private static RestoreResult.Item failed(RestorePlan.Item item, Exception e) {
        return new RestoreResult.Item(item, RestoreResult.Outcome.FAILED, 0, Failures.words(e));
    }

    /**
     * Puts the content of a file from anywhere in as the next version of the line under a path, or as a new file. What is
     * live there is captured first.
     *
     * @param note that shall stand at the version; empty for none
     * @return number of the version; that of the current one when the content is the same
     */
    public int put(Path file, String path, String note, Progress progress) throws IOException {
        RelativePath.requirePath(path);
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            InPlace files = files(session, reading);
            files.captureFirst(List.of(path));
            Optional<Existing> there = files.existing(path);
            if (there.isPresent() && there.get().digest().isEmpty()) {
                boolean folder = there.get().kind() == EntryKind.FOLDER;
                throw new IOException(Words.of(folder ? "plan.folderInTheWay" : "plan.notKept"));
            }
            StoredContent content;
            try (ContentWorker worker = new ContentWorker(session.chunks());
                    FileChannel in = FileChannel.open(file)) {
                progress.begin(Words.of("restore.step"), 1, in.size());
                content = worker.store(in, n -> progress.advance(0, n));
            }
            // Its bytes must be there for reading before it is put in place.
            session.commit();
            Optional<LiveEntry> live = files.live(path);
            if (live.isPresent()
                    && there.flatMap(Existing::digest)
                            .filter(content.digest()::equals)
                            .isPresent()) {
                return live.get().number();
            }
            Noting noting = new Noting(session, ActionKind.PUT, 0);
            long nanos = java.nio.file.Files.getLastModifiedTime(file).to(java.util.concurrent.TimeUnit.NANOSECONDS);
            Version version = new Version(
                    live.map(LiveEntry::line).orElse(0L),
                    0,
                    clock.instant(),
                    clock.instant(),
                    who,
                    Origin.UPLOADED,
                    0,
                    EntryKind.FILE,
                    content.length(),
                    nanos,
                    live.map(LiveEntry::mode).orElse(0644),
                    content.digest(),
                    Optional.ofNullable(content.sha256()),
                    content.recipe(),
                    note,
                    path);
            int number = files.put(version, path, true, noting, progress);
            noting.commit();
            return number;
        }
    }

    /** Removes files from their folders; their lines get a removal point and lose nothing. */
    @Override
    public Removal remove(List<String> paths) throws IOException {
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            InPlace files = files(session, reading);
            files.captureFirst(paths);
            Noting noting = new Noting(session, ActionKind.REMOVED, 0);
            List<String> removed = new ArrayList<>();
            List<String> failed = new ArrayList<>();
            for (String path : paths) {
                try {
                    files.remove(path, noting);
                    noting.commit();
                    removed.add(path);
                } catch (org.mendedleaf.core.vault.VaultException e) {
                    throw e;
                } catch (IOException e) {
                    failed.add(path + ": " + Failures.words(e));
                }
            }
            return new Removal(noting.action(), removed, failed);
        }
    }

    /** Puts everything that an action changed back to what was there before it. */
    @Override
    public Undone undo(Action action) throws IOException {
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            InPlace files = files(session, reading);
            List<Action.Item> items = new ArrayList<>(action.items());
            java.util.Collections.reverse(items);
            files.captureFirst(items.stream().map(Recovery::path).toList());
            Noting noting = new Noting(session, ActionKind.UNDONE, action.id());
            List<String> done = new ArrayList<>();
            List<String> failed = new ArrayList<>();
            for (Action.Item item : items) {
                try {
                    undo(files, reading, item, noting);
                    done.add(path(item));
                } catch (org.mendedleaf.core.vault.VaultException.Full e) {
                    throw e;
                } catch (IOException e) {
                    failed.add(path(item) + ": " + Failures.words(e));
                }
            }
            noting.begin();
            noting.commit();
            return new Undone(action, done, failed);
        }
    }

    private static String path(Action.Item item) {
        return RelativePath.child(item.folder(), item.name());
    }

    private void undo(InPlace files, Reading reading, Action.Item item, Noting noting) throws IOException {
        if (item.line() == 0) {
            files.removeFolder(item.folder(), item.name());
            return;
        }
        Optional<LiveEntry> live = files.live(path(item));
        if (item.before() == 0) {
            if (live.isPresent() && live.get().line() == item.line()) {
                files.remove(path(item), noting);
            }
            return;
        }
        Line line = reading.line(item.line()).orElseThrow();
        Version before = line.version(item.before()).orElseThrow();
        boolean there = live.isPresent() && live.get().line() == item.line();
        if (there
                && files.lines()
                        .content(item.line(), live.get().number())
                        .digest()
                        .equals(before.digest())) {
            return;
        }
        files.put(before, path(item), true, noting, Progress.NONE);
    }

    private InPlace files(WriteSession session, Reading reading) throws IOException {
        return new InPlace(vault, session, place, clock, authors, who, reading.contents());
    }

    /** Notes changes in the journal as they happen. */
    private final class Noting implements Consumer<InPlace.Done> {
        private final WriteSession session;
        private final ActionKind kind;
        private final long undoes;
        private final List<InPlace.Done> waiting = new ArrayList<>();
        private long action;
        private int seq;

        Noting(WriteSession session, ActionKind kind, long undoes) {
            this.session = session;
            this.kind = kind;
            this.undoes = undoes;
        }

        long action() {
            return action;
        }

        @Override
        public void accept(InPlace.Done done) {
            waiting.add(done);
        }

        void begin() throws IOException {
            if (action == 0) {
                action = JournalStore.begin(
                        session, new Action(0, clock.instant(), who, kind, place.id(), undoes, false, List.of()));
            }
        }

        void commit() throws IOException {
            begin();
            for (InPlace.Done d : waiting) {
                JournalStore.add(
                        session,
                        action,
                        seq++,
                        d.folder(),
                        new Action.Item(d.line(), "", d.name(), d.before(), d.after()));
            }
            waiting.clear();
            session.commit();
        }
    }
}
