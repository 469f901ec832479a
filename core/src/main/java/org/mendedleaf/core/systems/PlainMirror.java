package org.mendedleaf.core.systems;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/** Looks at a plain server, which keeps no versions: what changed there comes into the vault, group by group. */
final class PlainMirror extends MirrorPart {

    private static final int GROUP = 200;

    PlainMirror(Mirror mirror, OpenVault vault, Place place, OutsideSystem system) {
        super(mirror, vault, place, system);
    }

    /** Takes what changed, and removals. */
    Mirror.Result run(Instant now, Progress progress) throws IOException {
        Map<String, OutsideWriter.Known> known;
        try (Reading reading = vault.read()) {
            known = reading.outside().files(place);
        }
        List<OutsideSystem.InTree> tree = mirror.tree(RemoteSnapshot.LIVE);
        List<OutsideSystem.InTree> changed = tree.stream()
                .filter(f -> {
                    OutsideWriter.Known k = known.get(f.path());
                    return k == null || !k.tag().equals(f.tag());
                })
                .toList();
        progress.begin(
                Words.of("mirror.fetch", place.where()),
                changed.size(),
                changed.stream().mapToLong(f -> Math.max(0, f.size())).sum());
        Path temp = TemporaryFiles.folder();
        try {
            long points = 0;
            for (int from = 0; from < Math.max(1, changed.size()) && !progress.isCancelled(); from += GROUP) {
                List<OutsideSystem.InTree> some = changed.subList(from, Math.min(changed.size(), from + GROUP));
                Map<OutsideSystem.InTree, Path> fetched = fetch(some, temp, progress);
                points += store(fetched, now);
            }
            points += removals(tree, now);
            return new Mirror.Result(tree.size(), points, 0);
        } finally {
            deleteAll(temp);
        }
    }

    private Map<OutsideSystem.InTree, Path> fetch(List<OutsideSystem.InTree> files, Path temp, Progress progress)
            throws IOException {
        Map<OutsideSystem.InTree, Path> fetched = new LinkedHashMap<>();
        for (OutsideSystem.InTree f : files) {
            Path to = Files.createTempFile(temp, "content", "");
            try (OutputStream out = new SizedOutput(Files.newOutputStream(to), place.where(), f.size())) {
                system.read(name, f.path(), RemoteSnapshot.LIVE, Optional.empty(), out);
                fetched.put(f, to);
                progress.advance(1, Math.max(0, f.size()));
            } catch (SystemException.Missing | SystemException.Garbled e) {
                // Gone or changed while we looked: the next scan sees it as it is then.
                org.slf4j.LoggerFactory.getLogger(PlainMirror.class).debug("{} is not taken now", f.path(), e);
            }
        }
        return fetched;
    }

    private long store(Map<OutsideSystem.InTree, Path> fetched, Instant now) throws IOException {
        long points = 0;
        try (WriteSession session = mirror.write();
                var worker = new org.mendedleaf.core.vault.ContentWorker(session.chunks())) {
            OutsideWriter writer = new OutsideWriter(session, place);
            TreeMirror lines = new TreeMirror(writer, Duration.ZERO, Origin.SERVED, mirror::originOf);
            for (Map.Entry<OutsideSystem.InTree, Path> e : fetched.entrySet()) {
                try (FileChannel in = FileChannel.open(e.getValue())) {
                    points += lines.stored(e.getKey(), worker.store(in, n -> {}), now) ? 1 : 0;
                }
                Files.deleteIfExists(e.getValue());
            }
            RemoteSnapshot live = new RemoteSnapshot(RemoteSnapshot.LIVE, Moment.FAR, "", Optional.empty());
            if (!writer.cuts().contains(live)) {
                writer.cut(live);
            }
            session.commit();
        }
        return points;
    }

    private long removals(List<OutsideSystem.InTree> tree, Instant now) throws IOException {
        try (WriteSession session = mirror.write()) {
            OutsideWriter writer = new OutsideWriter(session, place);
            long n = TreeMirror.remove(writer, tree, now, true);
            session.commit();
            return n;
        }
    }

    private static void deleteAll(Path temp) {
        try (var files = Files.list(temp)) {
            for (Path file : files.toList()) {
                Files.deleteIfExists(file);
            }
            Files.deleteIfExists(temp);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(PlainMirror.class).debug("{} stays", temp, e);
        }
    }
}
