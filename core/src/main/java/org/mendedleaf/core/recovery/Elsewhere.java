package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/** Writes versions into a folder that need not be protected. What is there is never replaced, since nobody keeps it. */
public final class Elsewhere {

    private final OpenVault vault;
    private final Path folder;

    /** Writing into this folder, which is made when it is not there. */
    public Elsewhere(OpenVault vault, Path folder) {
        this.vault = vault;
        this.folder = folder;
    }

    /** What restoring these into the folder would do. */
    public RestorePlan plan(List<Wish> wishes, Collision rule) {
        return RestorePlanner.plan(wishes, this::existing, rule);
    }

    private Optional<Existing> existing(String path) {
        try (SafeFolder parent = SafeFolder.open(folder, RelativePath.parent(path))) {
            Optional<DiskEntry> disk = parent.find(RelativePath.name(path));
            return disk.map(d -> new Existing(
                    d.type() == DiskEntry.Type.FOLDER ? EntryKind.FOLDER : EntryKind.FILE, Optional.empty(), 0));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        } catch (NotDirectoryException e) {
            return Optional.of(new Existing(EntryKind.FOLDER, Optional.empty(), 0));
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** Restores into the folder. */
    public RestoreResult restore(List<Wish> wishes, Collision rule, Progress progress) throws IOException {
        Files.createDirectories(folder);
        RestorePlan plan = plan(wishes, rule);
        progress.begin(Words.of("restore.step"), plan.items().size(), plan.bytes());
        List<RestoreResult.Item> results = new ArrayList<>();
        try (Reading reading = vault.read()) {
            for (RestorePlan.Item item : plan.items()) {
                if (progress.isCancelled()) {
                    return new RestoreResult(0, results, true);
                }
                results.add(write(reading, item, progress));
                progress.advance(1, 0);
            }
        }
        return new RestoreResult(0, results, false);
    }

    private RestoreResult.Item write(Reading reading, RestorePlan.Item item, Progress progress) {
        if (!item.writes()) {
            boolean refused = item.step() == RestorePlan.Step.REFUSE;
            return new RestoreResult.Item(
                    item, refused ? RestoreResult.Outcome.FAILED : RestoreResult.Outcome.LEFT, 0, item.why());
        }
        try (SafeFolder parent = SafeFolder.openOrCreate(folder, RelativePath.parent(item.target()), made -> {})) {
            SafeWrite write = new SafeWrite(parent, reading.contents());
            String beside = write.writeBeside(item.version(), progress);
            String name = RelativePath.name(item.target());
            if (parent.find(name).isPresent()) {
                write.deleteQuietly(beside);
                return new RestoreResult.Item(
                        item, RestoreResult.Outcome.FAILED, 0, Words.of("restore.changedMeanwhile"));
            }
            write.place(beside, name);
            parent.force();
            return new RestoreResult.Item(item, RestoreResult.Outcome.DONE, 0, "");
        } catch (IOException | IllegalArgumentException e) {
            return new RestoreResult.Item(item, RestoreResult.Outcome.FAILED, 0, Failures.words(e));
        }
    }

    /**
     * Saves a copy of one version under a name that says which it is, and that nothing has yet.
     *
     * @return the file
     */
    public Path copy(Version version, ZoneId zone, Progress progress) throws IOException {
        String name = FileNames.ofVersion(RelativePath.name(version.path()), version.number(), version.saved(), zone);
        RestoreResult result = restore(List.of(new Wish(version, name)), Collision.KEEP_BOTH, progress);
        if (result.items().isEmpty()) {
            throw new java.io.InterruptedIOException(Words.of("restore.cancelled"));
        }
        RestoreResult.Item item = result.items().get(0);
        if (item.outcome() != RestoreResult.Outcome.DONE) {
            throw new IOException(item.why());
        }
        return folder.resolve(item.plan().target());
    }
}
