package org.mendedleaf.core.recovery;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.apache.commons.compress.archivers.zip.UnixStat;
import org.apache.commons.compress.archivers.zip.Zip64Mode;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/**
 * Writes versions into a new ZIP file, with their times and permissions. It is written beside its name, synced, read back
 * and compared, and gets its name at the end; cancelled or killed before that, nothing is left of it.
 */
public final class ZipArchive implements Destination {

    private static final int IN_MEMORY = 8 << 20;

    private final OpenVault vault;
    private final Path file;

    /** A file that is not there yet. */
    public ZipArchive(OpenVault vault, Path file) {
        this.vault = vault;
        this.file = file;
    }

    @Override
    public RestorePlan plan(RestoreRequest request, Progress progress) throws IOException {
        RestorePlan plan = RestorePlanner.plan(
                request, TargetView.empty(vault), TargetFacts.of(folder()).inZip(), progress);
        return Files.exists(file)
                ? new RestorePlan(plan.items(), plan.preflight().stoppedBy(Words.of("archive.exists", file)))
                : plan;
    }

    private Path folder() {
        Path parent = file.toAbsolutePath().getParent();
        return parent == null ? file.toAbsolutePath() : parent;
    }

    @Override
    public RestoreResult restore(RestoreRequest request, Progress progress) throws IOException {
        Optional<RestorePlan> planned = planNow(request, progress);
        if (planned.isEmpty()) {
            return RestoreResult.CANCELLED;
        }
        RestorePlan plan = planned.get();
        if (!plan.preflight().isGood()) {
            throw new IOException(plan.preflight().stops());
        }
        // Each byte is written and read back.
        progress.begin(Words.of("archive.step"), plan.items().size(), plan.bytes() * 2);
        Files.createDirectories(folder());
        Path beside = folder().resolve(SafeFolder.ownName());
        try {
            Map<RestorePlan.Item, String> failed = new HashMap<>();
            boolean whole = write(beside, plan, request, failed, progress) && prove(beside, plan, failed, progress);
            if (!whole) {
                return RestoreResult.CANCELLED;
            }
            OwnFile.place(beside, file);
            Durable.forceFolder(folder());
            return result(plan, failed);
        } catch (FileAlreadyExistsException e) {
            throw new IOException(Words.of("archive.exists", file), e);
        } finally {
            Files.deleteIfExists(beside);
        }
    }

    static RestoreResult result(RestorePlan plan, Map<RestorePlan.Item, String> failed) {
        List<RestoreResult.Item> items = new ArrayList<>();
        for (RestorePlan.Item i : plan.items()) {
            String why = failed.get(i);
            items.add(
                    why != null
                            ? RestoreResult.Item.failed(i, why)
                            : i.writes() ? RestoreResult.Item.done(i) : RestoreResult.Item.untouched(i));
        }
        return new RestoreResult(0, items, false);
    }

    private boolean write(
            Path beside,
            RestorePlan plan,
            RestoreRequest request,
            Map<RestorePlan.Item, String> failed,
            Progress progress)
            throws IOException {
        try (Reading reading = vault.read();
                FileChannel channel =
                        Access.OWNER.open(beside, Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE));
                ZipArchiveOutputStream out = new ZipArchiveOutputStream(channel)) {
            out.setEncoding("UTF-8");
            out.setUseZip64(Zip64Mode.AsNeeded);
            for (TreeAt.Folder f : request.folders()) {
                ZipArchiveEntry entry = new ZipArchiveEntry(f.path() + "/");
                entry.setUnixMode(f.mode() | UnixStat.DIR_FLAG);
                entry.setLastModifiedTime(time(f.mtimeNanos()));
                out.putArchiveEntry(entry);
                out.closeArchiveEntry();
            }
            for (RestorePlan.Item i : plan.items()) {
                if (progress.isCancelled()) {
                    return false;
                }
                if (i.writes()) {
                    try {
                        add(out, reading, i, progress);
                    } catch (Unreadable e) {
                        failed.put(i, Failures.words(e.why));
                    }
                }
                progress.advance(1, 0);
            }
            out.finish();
            channel.force(true);
            return true;
        }
    }

    private static FileTime time(long nanos) {
        return FileTime.from(nanos, TimeUnit.NANOSECONDS);
    }

    /** A content of the vault cannot be read; the archive itself is well. */
    private static final class Unreadable extends Exception {
        private static final long serialVersionUID = 1;
        private final transient IOException why;

        Unreadable(IOException why) {
            super(why);
            this.why = why;
        }
    }

    private static void add(ZipArchiveOutputStream out, Reading reading, RestorePlan.Item item, Progress progress)
            throws IOException, Unreadable {
        Version v = item.version();
        // What cannot be read to its end must not stand in the archive by half.
        ByteArrayOutputStream small = new ByteArrayOutputStream();
        try {
            reading.contents().read(v.recipe(), chunk -> {
                if (v.size() <= IN_MEMORY) {
                    small.write(chunk);
                }
            });
        } catch (IOException | IllegalArgumentException e) {
            throw new Unreadable(e instanceof IOException io ? io : new IOException(e.getMessage(), e));
        }
        ZipArchiveEntry entry = new ZipArchiveEntry(item.target());
        entry.setUnixMode(v.mode() | (v.kind() == EntryKind.LINK ? UnixStat.LINK_FLAG : UnixStat.FILE_FLAG));
        entry.setLastModifiedTime(time(v.mtimeNanos()));
        entry.setSize(v.size());
        out.putArchiveEntry(entry);
        OutputStream to = out;
        if (v.size() <= IN_MEMORY) {
            small.writeTo(to);
            progress.advance(0, v.size());
        } else {
            reading.contents().read(v.recipe(), chunk -> {
                to.write(chunk);
                progress.advance(0, chunk.length);
            });
        }
        out.closeArchiveEntry();
    }

    private boolean prove(Path beside, RestorePlan plan, Map<RestorePlan.Item, String> failed, Progress progress)
            throws IOException {
        Proof proof = new Proof();
        try (Reading reading = vault.read();
                ZipFile zip = ZipFile.builder().setPath(beside).get()) {
            for (RestorePlan.Item i : plan.items()) {
                if (progress.isCancelled()) {
                    return false;
                }
                if (i.writes() && !failed.containsKey(i)) {
                    ZipArchiveEntry entry = zip.getEntry(i.target());
                    if (entry == null) {
                        throw new IOException(Words.of("restore.differs"));
                    }
                    try (InputStream in = zip.getInputStream(entry)) {
                        proof.compare(
                                in,
                                i.version(),
                                reading.contents().parts(i.version().recipe()));
                    }
                    progress.advance(0, i.version().size());
                }
            }
        }
        return true;
    }
}
