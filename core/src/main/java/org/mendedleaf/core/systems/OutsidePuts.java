package org.mendedleaf.core.systems;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.OwnFile;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/** Puts files into a place of another system. */
final class OutsidePuts {

    private final OutsideFiles files;
    private final OpenVault vault;
    private final OutsideSystem system;

    OutsidePuts(OutsideFiles files) {
        this.files = files;
        this.vault = files.vault;
        this.system = files.system;
    }

    /** Puts files in, several at a time. */
    PutResult put(List<Revision> revisions, Progress progress) throws IOException {
        Set<String> paths = new LinkedHashSet<>();
        for (Revision r : revisions) {
            if (!paths.add(r.path())) {
                throw new IllegalArgumentException(Words.of("put.twice", r.path()));
            }
        }
        boolean staged = revisions.stream().anyMatch(r -> r.stage() != DraftChoice.BY_RULE);
        if (staged && !files.hasDrafts()) {
            throw new IllegalArgumentException(Words.of("put.noDrafts", files.place.where()));
        }
        files.look(Progress.NONE);
        Map<String, Integer> before = new HashMap<>();
        long bytes = 0;
        for (Revision r : revisions) {
            before.put(r.path(), OutsideFiles.current(files.line(r.path())));
            files.secure(r.path());
            bytes += Files.isRegularFile(r.file()) ? Files.size(r.file()) : 0;
        }
        progress.begin(Words.of("put.step"), revisions.size(), bytes);
        Map<String, Digest> digests = new ConcurrentHashMap<>();
        Map<String, String> failed = Transfers.run(
                revisions,
                Revision::path,
                r -> {
                    Digest sha = OutsideFiles.digest(r.file());
                    digests.put(r.path(), sha);
                    Instant modified = Files.getLastModifiedTime(r.file()).toInstant();
                    String point = files.putOne(r.path(), r.file(), sha, modified, r.note());
                    if (r.stage() == DraftChoice.PUBLISHED) {
                        system.publish(files.name, r.path(), point, "", OutsideFiles.key());
                    }
                    progress.advance(1, Files.size(r.file()));
                },
                progress);
        files.look(Progress.NONE);
        Map<String, Integer> numbers = new LinkedHashMap<>();
        long action = files.note(ActionKind.PUT, 0, before, numbers);
        List<String> same = new ArrayList<>();
        for (String path : before.keySet()) {
            if (!numbers.containsKey(path) && !failed.containsKey(path)) {
                numbers.put(path, before.get(path));
                same.add(path);
            }
        }
        Map<String, String> labels = new LinkedHashMap<>();
        for (Map.Entry<String, Integer> e : numbers.entrySet()) {
            labels.put(
                    e.getKey(),
                    files.line(e.getKey()).map(l -> l.label(e.getValue())).orElse(""));
        }
        List<String> stayed = takeAway(revisions, failed, same, digests, action);
        boolean cancelled = failed.values().remove(Transfers.NOT_STARTED);
        while (failed.values().remove(Transfers.NOT_STARTED)) {
            // All that were not begun are none that failed.
            cancelled = true;
        }
        return new PutResult(action, labels, failed, same, stayed, cancelled);
    }

    /** Files that shall not stay where they were go, once the vault has what the undo would need. */
    private List<String> takeAway(
            List<Revision> revisions,
            Map<String, String> failed,
            List<String> same,
            Map<String, Digest> digests,
            long action)
            throws IOException {
        List<String> stayed = new ArrayList<>();
        for (Revision r : revisions) {
            if (!r.take() || failed.containsKey(r.path())) {
                continue;
            }
            if (same.contains(r.path()) || action == 0) {
                stayed.add(Words.of("put.stayedSame", r.file()));
                continue;
            }
            try {
                takeAway(r, Objects.requireNonNull(digests.get(r.path())), action);
            } catch (IOException e) {
                stayed.add(r.file() + ": " + Failures.words(e));
            }
        }
        return stayed;
    }

    private void takeAway(Revision r, Digest put, long action) throws IOException {
        Version v = files.line(r.path()).flatMap(Line::newest).orElseThrow();
        if (Files.isSymbolicLink(r.file())) {
            throw new IOException(Words.of("put.link"));
        }
        if (!put.equals(OutsideFiles.digest(r.file()))) {
            throw new IOException(Words.of("restore.changedMeanwhile"));
        }
        RemarkStore.Taken taken = new RemarkStore.Taken(
                r.file().toRealPath(LinkOption.NOFOLLOW_LINKS).toString(), v.line(), v.number());
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks());
                FileChannel in = FileChannel.open(r.file())) {
            OutsideWriter.fill(session, v.line(), v.number(), worker.store(in, n -> {}));
            RemarkStore.taken(session, action, taken);
            session.commit();
        }
        try {
            OwnFile.delete(r.file(), now -> put.equals(OutsideFiles.digest(now)));
        } catch (IOException e) {
            try (WriteSession session = vault.write()) {
                RemarkStore.notTaken(session, action, taken);
                session.commit();
            }
            throw e;
        }
    }
}
