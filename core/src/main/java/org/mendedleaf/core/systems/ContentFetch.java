package org.mendedleaf.core.systems;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.DamagedChunks;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/** Gets contents from whoever holds them and can be reached, nearest first. */
public final class ContentFetch {

    private final OpenVault vault;
    private final SystemRegistry registry;

    /** Fetching for this vault. */
    public ContentFetch(OpenVault vault, SystemRegistry registry) {
        this.vault = vault;
        this.registry = registry;
    }

    /**
     * Makes sure that the content of a version is in the vault, whole. What is known to be damaged there is fetched from
     * whoever else holds it, and stored anew.
     *
     * @return the version as it stands now, with its content
     * @throws SystemException when none who holds it can be reached; the message says whom it was tried with
     */
    public Version intoVault(Version version, Progress progress) throws IOException {
        boolean there = !version.recipe().isElsewhere();
        if (there && !isKnownToBeDamaged(version)) {
            return version;
        }
        MergedPoint point = point(version);
        for (MergedPoint.Copy c : point.copies()) {
            Version v = c.version();
            // Another line of this vault has the same content already.
            if (!there && c.holder().kind() == Holder.Kind.VAULT && DamagedChunks.isWhole(vault, v.recipe())) {
                return fill(
                        version,
                        new StoredContent(
                                v.recipe(), v.size(), v.digest(), v.sha256().orElse(null)));
            }
        }
        Path temp = TemporaryFiles.file(".content");
        try {
            download(point, version, temp, progress);
            StoredContent content = store(version, temp);
            // A part of it may have been in the vault and be damaged there, which shows now: it is stored anew then.
            if (!DamagedChunks.isWhole(vault, content.recipe())) {
                content = store(version, temp);
                if (!DamagedChunks.isWhole(vault, content.recipe())) {
                    throw new VaultException.Damaged(Words.of("fetch.notWhole", version.path()));
                }
            }
            return again(version);
        } catch (SystemException e) {
            if (there) {
                // The vault's own damage is what there is to say.
                return version;
            }
            throw e;
        } finally {
            Files.deleteIfExists(temp);
        }
    }

    /** As {@link #intoVault(Version, Progress)}, of many; those that are there are not asked for one by one. */
    public List<Version> intoVault(List<Version> versions, Progress progress) throws IOException {
        BitSet missing = new BitSet();
        try (Reading reading = vault.read()) {
            for (int i = 0; i < versions.size(); i++) {
                Recipe recipe = versions.get(i).recipe();
                missing.set(i, recipe.isElsewhere() || DamagedChunks.isKnownFor(reading, recipe));
            }
        }
        List<Version> here = new ArrayList<>(versions);
        for (int i = missing.nextSetBit(0); i >= 0; i = missing.nextSetBit(i + 1)) {
            here.set(i, intoVault(versions.get(i), progress));
        }
        return here;
    }

    private boolean isKnownToBeDamaged(Version version) throws IOException {
        try (Reading reading = vault.read()) {
            return DamagedChunks.isKnownFor(reading, version.recipe());
        }
    }

    /** What was damaged in the vault may be stored otherwise: unfolded, for one. */
    private StoredContent store(Version version, Path file) throws IOException {
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks());
                FileChannel in = FileChannel.open(file)) {
            StoredContent content = worker.store(in, n -> {});
            if (version.recipe().isElsewhere() || content.digest().equals(version.digest())) {
                OutsideWriter.fill(session, version.line(), version.number(), content);
            }
            session.commit();
            return content;
        }
    }

    /**
     * The bytes of a version, from the vault or from whoever holds it; nothing is kept.
     *
     * @param most larger contents are not asked for, bytes
     * @return empty when it is larger or nobody can give it now
     */
    public Optional<byte[]> bytes(Version version, long most) throws IOException {
        if (version.size() > most) {
            return Optional.empty();
        }
        Path temp = TemporaryFiles.file(".content");
        try {
            toFile(version, temp, Progress.NONE);
            return Optional.of(Files.readAllBytes(temp));
        } catch (SystemException e) {
            org.slf4j.LoggerFactory.getLogger(ContentFetch.class).debug("{} cannot be had now", version.path(), e);
            return Optional.empty();
        } finally {
            Files.deleteIfExists(temp);
        }
    }

    /** Writes the content of a version into a file, from the vault or from whoever holds it. */
    void toFile(Version version, Path file, Progress progress) throws IOException {
        if (version.recipe().isElsewhere()) {
            download(point(version), version, file, progress);
            return;
        }
        try (Reading reading = vault.read();
                FileChannel out = FileChannel.open(file, java.nio.file.StandardOpenOption.WRITE)) {
            reading.contents().copy(version.recipe(), out);
        }
    }

    private MergedPoint point(Version version) throws IOException {
        Line line;
        try (Reading reading = vault.read()) {
            line = reading.line(version.line()).orElseThrow();
        }
        return MergedLine.of(vault, line, registry, false)
                .point(version.line(), version.number())
                .orElseThrow(() -> new SystemException.Missing(Words.of("fetch.unknown", version.path())));
    }

    private void download(MergedPoint point, Version version, Path file, Progress progress) throws IOException {
        List<String> failed = new ArrayList<>();
        List<String> asked = new ArrayList<>();
        for (MergedPoint.Copy copy : point.copies()) {
            String place = copy.holder().place().where();
            // A system that could not be reached is not asked once more for its next point.
            if (copy.holder().kind() == Holder.Kind.VAULT || asked.contains(place)) {
                continue;
            }
            try (OutputStream out = new SizedOutput(Files.newOutputStream(file), place, version.size())) {
                progress.begin(Words.of("fetch.step", version.path(), place), 1, version.size());
                OutsideSystem system = registry.system(copy.holder().place());
                system.read(
                        copy.holder().place().outside().orElseThrow().place(),
                        copy.version().path(),
                        copy.holder().point(),
                        version.sha256(),
                        out);
                progress.advance(1, version.size());
                return;
            } catch (SystemException.Unreachable | SystemException.Unplugged e) {
                asked.add(place);
                failed.add(e.words());
            } catch (SystemException e) {
                failed.add(place + ": " + e.words());
            }
        }
        throw failed.isEmpty()
                ? new SystemException.Missing(Words.of("fetch.nobody", version.path()))
                : new SystemException.Unreachable(Words.of("fetch.failed", version.path(), String.join(" ", failed)));
    }

    private Version fill(Version version, StoredContent content) throws IOException {
        try (WriteSession session = vault.write()) {
            OutsideWriter.fill(session, version.line(), version.number(), content);
            session.commit();
        }
        return again(version);
    }

    private Version again(Version version) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.line(version.line())
                    .flatMap(l -> l.version(version.number()))
                    .orElseThrow();
        }
    }
}
