package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileState;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Puts files from anywhere into a protected folder, as next versions or new files: all contents into the vault first, then
 * each file into place, then those files away from where they were that shall not stay there.
 */
final class PutWork {

    private final WriteSession session;
    private final Place place;
    private final InPlace files;
    private final JournalWriter noting;
    private final Clock clock;
    private final String who;
    private final Origin origin;
    private final Map<String, String> labels = new LinkedHashMap<>();
    private final Map<String, String> failed = new LinkedHashMap<>();
    private final List<String> same = new ArrayList<>();
    private final List<String> stayed = new ArrayList<>();

    PutWork(WriteSession session, Place place, InPlace files, Clock clock, String who, ActionKind kind, Origin origin) {
        this.session = session;
        this.place = place;
        this.files = files;
        this.clock = clock;
        this.who = who;
        this.origin = origin;
        this.noting = new JournalWriter(session, place, clock, who, kind, true);
    }

    /** A file whose content is in the vault. */
    private record Stored(Revision revision, Task.Put task, BasicFileAttributes was) {}

    PutResult run(List<Revision> revisions, Progress progress) throws IOException {
        long bytes = 0;
        for (Revision r : revisions) {
            bytes += Files.isRegularFile(r.file()) ? Files.size(r.file()) : 0;
        }
        progress.begin(Words.of("put.step"), revisions.size(), bytes);
        List<Stored> stored = new ArrayList<>();
        boolean cancelled = false;
        try (ContentWorker worker = new ContentWorker(session.chunks())) {
            for (Revision r : revisions) {
                if (progress.isCancelled()) {
                    cancelled = true;
                    break;
                }
                try {
                    store(r, worker, progress).ifPresent(stored::add);
                } catch (InterruptedIOException e) {
                    cancelled = true;
                    break;
                } catch (VaultException e) {
                    throw e;
                } catch (IOException e) {
                    failed.put(r.path(), Failures.words(e));
                }
            }
        }
        // Their bytes must be there for reading before they are put in place.
        session.commit();
        if (!cancelled && !stored.isEmpty()) {
            cancelled = !place(stored, progress);
        }
        noting.end(failed.size());
        return new PutResult(noting.action(), labels, failed, same, stayed, cancelled);
    }

    private Optional<Stored> store(Revision r, ContentWorker worker, Progress progress) throws IOException {
        Optional<Existing> there = files.existing(r.path());
        if (there.isPresent() && there.get().digest().isEmpty()) {
            boolean folder = there.get().kind() == EntryKind.FOLDER;
            throw new IOException(Words.of(folder ? "plan.folderInTheWay" : "plan.notKept"));
        }
        BasicFileAttributes was = TakingAway.attributes(r.file());
        StoredContent content;
        try (FileChannel in = FileChannel.open(r.file())) {
            content = worker.store(in, n -> progress.advance(0, n));
        }
        if (!TakingAway.looksSame(was, TakingAway.attributes(r.file()))) {
            throw new IOException(Words.of("put.changing", r.file().getFileName()));
        }
        progress.stopIfCancelled();
        Optional<LiveEntry> live = files.live(r.path());
        boolean unchanged = live.isPresent()
                && there.flatMap(Existing::digest)
                        .filter(content.digest()::equals)
                        .isPresent();
        if (unchanged) {
            labels.put(
                    r.path(),
                    files.lines()
                            .edition(live.get().line(), live.get().number())
                            .label());
            same.add(r.path());
            if (r.take()) {
                stayed.add(Words.of("put.stayedSame", r.file()));
            }
            return Optional.empty();
        }
        Version version = new Version(
                line(r, live),
                0,
                clock.instant(),
                clock.instant(),
                r.author().isEmpty() ? who : r.author(),
                origin,
                0,
                new FileState(
                        EntryKind.FILE,
                        content.length(),
                        was.lastModifiedTime().to(TimeUnit.NANOSECONDS),
                        live.map(LiveEntry::mode).orElse(0644),
                        content.digest(),
                        Optional.ofNullable(content.sha256()),
                        content.recipe()),
                r.note(),
                r.path());
        return Optional.of(new Stored(r, new Task.Put(version, r.path(), true, "", r.stage()), was));
    }

    /** A name that comes back goes on with the line that ended under it. */
    private long line(Revision r, Optional<LiveEntry> live) throws IOException {
        if (live.isPresent()) {
            return live.get().line();
        }
        Optional<Long> folder = files.lines().knownFolder(place, RelativePath.parent(r.path()));
        return folder.isEmpty()
                ? 0
                : files.lines()
                        .gone(folder.get(), RelativePath.name(r.path()))
                        .map(LineWriter.Gone::line)
                        .orElse(0L);
    }

    /** Returns whether all of it came to its end. */
    private boolean place(List<Stored> stored, Progress progress) throws IOException {
        List<Task> tasks = new ArrayList<>();
        stored.forEach(s -> tasks.add(s.task()));
        List<Task.Outcome> outcomes = files.run(tasks, noting, progress);
        List<Stored> done = new ArrayList<>();
        boolean whole = outcomes.size() == tasks.size();
        for (int i = 0; i < outcomes.size(); i++) {
            Stored s = stored.get(i);
            Task.Outcome o = outcomes.get(i);
            if (Task.Outcome.CANCELLED.equals(o)) {
                whole = false;
            } else if (o.isGood()) {
                labels.put(s.revision().path(), o.label());
                done.add(s);
            } else {
                failed.put(s.revision().path(), o.why());
            }
        }
        TakingAway away = new TakingAway(session, place, files, noting);
        for (Stored s : done) {
            if (s.revision().take()) {
                String why = away.run(s.revision(), s.was());
                if (why != null) {
                    stayed.add(s.revision().file() + ": " + why);
                }
            }
        }
        return whole;
    }
}
