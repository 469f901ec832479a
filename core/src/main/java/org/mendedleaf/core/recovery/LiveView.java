package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.util.Optional;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.vault.Digest;

/** What a plan sees before anything is captured: what is live counts as kept, since a restore captures it first. */
final class LiveView extends PlacePlanTarget {

    LiveView(Reading reading, Place place) {
        super(reading, place);
    }

    @Override
    public Optional<Existing> at(String path) {
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            Optional<DiskEntry> disk = folder.find(RelativePath.name(path));
            if (disk.isEmpty()) {
                return Optional.empty();
            }
            DiskEntry d = disk.get();
            if (d.type() == DiskEntry.Type.FOLDER) {
                return Optional.of(new Existing(EntryKind.FOLDER, Optional.empty(), 0));
            }
            EntryKind kind = d.type() == DiskEntry.Type.LINK ? EntryKind.LINK : EntryKind.FILE;
            Optional<LiveEntry> live = reading.folders().live(place, path).filter(l -> l.kind() != EntryKind.FOLDER);
            return Optional.of(
                    live.isEmpty() ? new Existing(kind, Optional.empty(), 0) : existing(kind, live.get(), d));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        } catch (NotDirectoryException e) {
            return Optional.of(Existing.BLOCKED);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What was changed since its capture has a content that no version has yet. */
    private Existing existing(EntryKind kind, LiveEntry live, DiskEntry disk) throws IOException {
        Digest digest = InPlace.agrees(live, disk)
                ? reading.version(live.line(), live.number()).orElseThrow().digest()
                : Digest.of(new byte[32]);
        return new Existing(kind, Optional.of(digest), live.line());
    }
}
