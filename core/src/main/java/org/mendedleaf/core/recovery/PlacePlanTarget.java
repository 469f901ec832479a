package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.file.NoSuchFileException;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;

/** What a plan sees of a protected folder. */
abstract class PlacePlanTarget implements PlanTarget {

    /**
     * So much is compared in one plan where the system says when a file was changed, which no program sets back; where it does
     * not say that, everything is. Bytes.
     */
    static final long COMPARED = 64L << 20;

    final Reading reading;
    final Place place;
    private long compared;

    PlacePlanTarget(Reading reading, Place place) {
        this.reading = reading;
        this.place = place;
    }

    @Override
    public List<String> below(String folder) {
        return FolderContents.of(place, folder);
    }

    @Override
    public Optional<String> elsewhere(Version version, String path) {
        return VersionOutcomes.pathNow(reading, version).filter(now -> !now.equals(path));
    }

    @Override
    public Optional<String> missing(Version version) {
        return VersionOutcomes.words(reading, version);
    }

    /** Size and times can be set to anything, so the contents are compared before it is said that nothing is to be done. */
    @Override
    public boolean isReallyThere(String path, Version version) {
        if (version.kind() != EntryKind.FILE || version.recipe().isElsewhere()) {
            return true;
        }
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            Optional<DiskEntry> disk = folder.find(RelativePath.name(path));
            if (disk.isEmpty() || disk.get().type() != DiskEntry.Type.FILE) {
                return false;
            }
            if (disk.get().changedNanos() != 0 && compared + version.size() > COMPARED) {
                return true;
            }
            compared += version.size();
            try (InputStream live = Channels.newInputStream(folder.read(RelativePath.name(path)))) {
                return Digest.of(live).equals(sha256(version));
            }
        } catch (NoSuchFileException e) {
            return false;
        } catch (IOException e) {
            // What cannot be read, on either side, cannot be called another content.
            return true;
        }
    }

    private Digest sha256(Version version) throws IOException {
        Optional<Digest> known = version.sha256();
        return known.isPresent() ? known.get() : reading.contents().sha256(version.recipe());
    }
}
