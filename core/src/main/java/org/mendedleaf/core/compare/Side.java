package org.mendedleaf.core.compare;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * One side of a comparison: a content and what it is called.
 *
 * @param name of its file, by which its kind is told where its bytes leave that open
 * @param said which point it is, as a message
 * @param content all of it
 */
public record Side(String name, String said, byte[] content) {

    /**
     * A version.
     *
     * @throws IOException with a message for the user, when it is too large or not in the vault
     */
    public static Side version(Reading reading, Version version) throws IOException {
        String said = Words.of("compare.side.version", version.label());
        if (version.recipe().isElsewhere()) {
            throw new IOException(Words.of("compare.side.away", version.label()));
        }
        fits(version.size());
        ByteArrayOutputStream out = new ByteArrayOutputStream((int) version.size());
        reading.contents().read(version.recipe(), out::write);
        return new Side(version.path(), said, out.toByteArray());
    }

    /** What a folder of this machine holds at a path now; empty when there is no file. No link is followed. */
    public static Optional<Side> live(Place place, String path) throws IOException {
        if (place.isOutside()) {
            return Optional.empty();
        }
        String name = RelativePath.name(path);
        try (SafeFolder folder = SafeFolder.open(place.root(), RelativePath.parent(path))) {
            Optional<DiskEntry> entry = folder.find(name);
            if (entry.isEmpty() || entry.get().type() != DiskEntry.Type.FILE) {
                return Optional.empty();
            }
            fits(entry.get().size());
            try (InputStream in = Channels.newInputStream(folder.read(name))) {
                return Optional.of(new Side(path, Words.of("compare.side.now"), whole(in)));
            }
        } catch (NoSuchFileException | NotDirectoryException e) {
            return Optional.empty();
        }
    }

    /** A file of this machine. */
    public static Side disk(Path file) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new IOException(Words.of(
                    Files.exists(file, LinkOption.NOFOLLOW_LINKS) ? "compare.side.noFile" : "compare.side.missing",
                    file));
        }
        fits(Files.size(file));
        String name = RawNames.text(file.getFileName());
        try (InputStream in = Files.newInputStream(file)) {
            return new Side(name, name, whole(in));
        }
    }

    private static byte[] whole(InputStream in) throws IOException {
        byte[] content = in.readNBytes(Compare.MOST + 1);
        fits(content.length);
        return content;
    }

    private static void fits(long size) throws IOException {
        if (size > Compare.MOST) {
            throw new IOException(Words.of("compare.tooLarge", Formats.size(Compare.MOST)));
        }
    }
}
