package org.mendedleaf.core.disk;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.DirectoryStream;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.NotDirectoryException;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.SecureDirectoryStream;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.FileAttributeView;
import java.util.Arrays;
import java.util.Iterator;
import java.util.Set;
import org.mendedleaf.core.words.Words;

/**
 * An open folder on a platform that cannot work relative to one ({@code openat}): it is reached by its path, and before and after each
 * step it is checked that this path is still the folder that was opened, and no link on the way.
 *
 * <p>What that cannot do: somebody who may change folders on the way, and who puts a link there and takes it away again just between the
 * two checks, has one step done in another folder. A file that was opened or made there is given up; one that was moved or removed is not
 * brought back. And paths have the length that the system allows in one piece.
 */
final class PortableFolder implements SecureDirectoryStream<Path> {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(PortableFolder.class);

    private static final LinkOption NO_FOLLOW = LinkOption.NOFOLLOW_LINKS;

    private final Path folder;

    /** What the folder's path led to when it was opened. */
    private final Path real;

    private final DirectoryStream<Path> names;

    private PortableFolder(Path folder, Path real, DirectoryStream<Path> names) {
        this.folder = folder;
        this.real = real;
        this.names = names;
    }

    /** Opens a root, which may be reached by links. */
    static PortableFolder open(Path root) throws IOException {
        return new PortableFolder(root, root.toRealPath(), Files.newDirectoryStream(root));
    }

    /** A name in this folder; one that this system takes for more than a name, as with a backslash in it on Windows, is refused. */
    private Path in(Path name) throws FileSystemException {
        try {
            Path path = folder.resolve(name.toString());
            if (folder.equals(path.getParent()) && path.normalize().equals(path)) {
                return path;
            }
        } catch (InvalidPathException e) {
            log.debug("{} is no name here", name, e);
        }
        throw new FileSystemException(name.toString(), null, Words.of("preflight.name", name));
    }

    /** Refuses to go on when the path is not the folder any more that was opened. */
    private void check() throws IOException {
        if (!folder.toRealPath().equals(real)) {
            throw new FileSystemException(folder.toString(), null, Words.of("disk.movedAway"));
        }
    }

    /** A folder that is no link, nor what else leads elsewhere, such as a junction. */
    private static boolean isFolder(Path path) throws IOException {
        BasicFileAttributes a = Files.readAttributes(path, BasicFileAttributes.class, NO_FOLLOW);
        return a.isDirectory() && !a.isSymbolicLink() && !a.isOther();
    }

    @Override
    public SecureDirectoryStream<Path> newDirectoryStream(Path name, LinkOption... options) throws IOException {
        check();
        Path child = in(name);
        if (!isFolder(child)) {
            throw new NotDirectoryException(child.toString());
        }
        DirectoryStream<Path> stream = Files.newDirectoryStream(child);
        try {
            Path childReal = child.toRealPath();
            if (!isFolder(child) || !real.equals(childReal.getParent())) {
                throw new NotDirectoryException(child.toString());
            }
            check();
            return new PortableFolder(child, childReal, stream);
        } catch (IOException | RuntimeException e) {
            stream.close();
            throw e;
        }
    }

    @Override
    public SeekableByteChannel newByteChannel(
            Path name, Set<? extends OpenOption> options, FileAttribute<?>... attributes) throws IOException {
        check();
        Path file = in(name);
        boolean isNew = options.contains(StandardOpenOption.CREATE_NEW);
        FileChannel channel = FileChannel.open(file, options, supported(attributes));
        try {
            check();
            return channel;
        } catch (IOException e) {
            channel.close();
            if (isNew) {
                Files.deleteIfExists(file);
            }
            throw e;
        }
    }

    private FileAttribute<?>[] supported(FileAttribute<?>... attributes) {
        Set<String> views = folder.getFileSystem().supportedFileAttributeViews();
        return Arrays.stream(attributes)
                .filter(a -> a.name().indexOf(':') < 0
                        || views.contains(a.name().substring(0, a.name().indexOf(':'))))
                .toArray(FileAttribute<?>[]::new);
    }

    @Override
    public void deleteFile(Path name) throws IOException {
        check();
        if (isFolder(in(name))) {
            throw new FileSystemException(in(name).toString(), null, Words.of("disk.isFolder"));
        }
        Files.delete(in(name));
    }

    @Override
    public void deleteDirectory(Path name) throws IOException {
        check();
        if (!isFolder(in(name))) {
            throw new NotDirectoryException(in(name).toString());
        }
        Files.delete(in(name));
    }

    @Override
    public void move(Path from, SecureDirectoryStream<Path> to, Path target) throws IOException {
        PortableFolder other = (PortableFolder) to;
        check();
        other.check();
        // Whether the first alone replaces what is there is left to the system.
        Files.move(in(from), other.in(target), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        other.check();
    }

    @Override
    public <V extends FileAttributeView> V getFileAttributeView(Class<V> type) {
        return Files.getFileAttributeView(folder, type);
    }

    @Override
    public <V extends FileAttributeView> V getFileAttributeView(Path name, Class<V> type, LinkOption... options) {
        try {
            return Files.getFileAttributeView(in(name), type, options);
        } catch (FileSystemException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public Iterator<Path> iterator() {
        return names.iterator();
    }

    @Override
    public void close() throws IOException {
        names.close();
    }
}
