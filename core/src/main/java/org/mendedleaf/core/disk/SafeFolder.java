package org.mendedleaf.core.disk;

import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.SecureDirectoryStream;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributeView;
import java.nio.file.attribute.FileAttributeView;
import java.nio.file.attribute.FileOwnerAttributeView;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFileAttributeView;
import java.util.Iterator;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/**
 * An open folder inside a root, reached name by name without ever following a link, and worked in relative to itself.
 *
 * <p>So nothing outside the root can be read or written through it, whatever names and links somebody puts in the way
 * meanwhile, and paths may be longer than the system takes in one piece (on Linux 4,095 bytes).
 *
 * <p>It is built on {@link SecureDirectoryStream}, that is on {@code openat} and its kin. Where the platform has none, as on Windows, it
 * is checked before and after each step that nothing was put in the way; what that cannot do is said at {@link PortableFolder}.
 */
public final class SafeFolder implements Closeable {

    /** What names of our own unfinished files begin with. */
    private static final String OWN_PREFIX = ".mended-leaf-";

    private static final Pattern OWN_NAME =
            Pattern.compile("\\.mended-leaf-[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}");

    /** Paths that are longer than the system takes in one piece are not asked for in one piece. Characters. */
    private static final int LONGEST_ASKED = 800;

    private static final LinkOption NO_FOLLOW = LinkOption.NOFOLLOW_LINKS;

    private final Path root;
    private final String path;
    private final SecureDirectoryStream<Path> stream;
    private final boolean hasUnix;
    private final Map<Integer, String> owners = new ConcurrentHashMap<>();

    private SafeFolder(Path root, String path, SecureDirectoryStream<Path> stream) {
        this.root = root;
        this.path = path;
        this.stream = stream;
        this.hasUnix = root.getFileSystem().supportedFileAttributeViews().contains("unix");
    }

    /**
     * Opens the folder at {@code path} below {@code root}.
     *
     * @throws NoSuchFileException when it is not there
     * @throws NotDirectoryException when a name on the way is something else, such as a link
     */
    public static SafeFolder open(Path root, String path) throws IOException {
        SafeFolder at = new SafeFolder(root, "", stream(root));
        for (String name : RelativePath.names(path)) {
            at = at.into(name);
        }
        return at;
    }

    /** As {@link #open}, making the folders that are missing; each that was made is told. */
    public static SafeFolder openOrCreate(Path root, String path, java.util.function.Consumer<String> made)
            throws IOException {
        SafeFolder at = open(root, "");
        for (String name : RelativePath.names(path)) {
            if (at.find(name).isEmpty()) {
                at.makeFolder(name);
                made.accept(RelativePath.child(at.path, name));
            }
            at = at.into(name);
        }
        return at;
    }

    /** A root, opened the way that the platform has. */
    private static SecureDirectoryStream<Path> stream(Path root) throws IOException {
        if (!LinuxNames.isOff()) {
            DirectoryStream<Path> stream = Files.newDirectoryStream(root);
            if (stream instanceof SecureDirectoryStream<Path> secure) {
                return secure;
            }
            stream.close();
        }
        return PortableFolder.open(root);
    }

    /** Opens a folder in this one, and closes this one. */
    private SafeFolder into(String name) throws IOException {
        try (this) {
            return child(name);
        }
    }

    /** Opens a folder in this one; this one stays open. */
    public SafeFolder child(String name) throws IOException {
        Path step = name(name);
        String childPath = RelativePath.child(path, name);
        try {
            return new SafeFolder(root, childPath, stream.newDirectoryStream(step, NO_FOLLOW));
        } catch (FileSystemException e) {
            if (find(name).isPresent() && find(name).get().type() != DiskEntry.Type.FOLDER) {
                throw new NotDirectoryException(childPath);
            }
            throw e;
        }
    }

    private Path name(String name) {
        return RawNames.path(root.getFileSystem(), RelativePath.requireName(name));
    }

    /** Where this is, from the root. */
    public String path() {
        return path;
    }

    /** Takes one name of a folder. */
    public interface Visitor {
        /**
         * A name, as {@link RawNames} writes it, and what it is. */
        void entry(String name, DiskEntry entry) throws IOException;

        /** A name that was there a moment ago and cannot be asked about. */
        void failed(String name, IOException why) throws IOException;
    }

    /** Gives out all names, in the order of the system; once for each open folder. */
    public void list(Visitor visitor) throws IOException {
        try {
            for (Iterator<Path> names = stream.iterator(); names.hasNext(); ) {
                Path name = names.next().getFileName();
                String text = RawNames.text(name);
                DiskEntry what;
                try {
                    what = entry(name);
                } catch (NoSuchFileException e) {
                    // What is gone since it was listed needs no word.
                    continue;
                } catch (IOException e) {
                    visitor.failed(text, e);
                    continue;
                }
                visitor.entry(text, what);
            }
        } catch (DirectoryIteratorException e) {
            throw e.getCause();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /**
     * What a name is, with the time of its last change. That is asked by the path, in one question; where that cannot be
     * asked, or somebody put another folder in the way, it is not known.
     */
    private DiskEntry entry(Path name) throws IOException {
        if (!hasUnix || path.length() > LONGEST_ASKED) {
            return DiskEntry.of(view(name).readAttributes());
        }
        try {
            return DiskEntry.of(
                    Files.readAttributes(RawNames.resolve(root, path).resolve(name), DiskEntry.UNIX, NO_FOLLOW));
        } catch (FileSystemException | UnsupportedOperationException | java.nio.file.InvalidPathException e) {
            return DiskEntry.of(view(name).readAttributes());
        }
    }

    /** As {@link #find}, with the time of the last change where the system says it. */
    public Optional<DiskEntry> look(String name) throws IOException {
        try {
            return Optional.of(entry(name(name)));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        }
    }

    private BasicFileAttributeView view(Path name) throws IOException {
        BasicFileAttributeView posix = view(name, PosixFileAttributeView.class);
        BasicFileAttributeView view = posix != null ? posix : view(name, BasicFileAttributeView.class);
        if (view == null) {
            throw new FileSystemException(name.toString(), null, Words.of("disk.notSecure"));
        }
        return view;
    }

    private <V extends FileAttributeView> @Nullable V view(Path name, Class<V> type) throws IOException {
        try {
            return stream.getFileAttributeView(name, type, NO_FOLLOW);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /** What a name is, if it is there. */
    public Optional<DiskEntry> find(String name) throws IOException {
        try {
            return Optional.of(DiskEntry.of(view(name(name)).readAttributes()));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        }
    }

    /** Name of a file's owner; empty where the system does not say. That of a number is asked for once for each folder. */
    public String owner(String name) {
        Integer number = ownerNumber(name);
        String known = number == null ? null : owners.get(number);
        if (known != null) {
            return known;
        }
        try {
            FileOwnerAttributeView view = view(name(name), FileOwnerAttributeView.class);
            String owner = view == null ? "" : DiskEntry.owner(view);
            if (number != null) {
                owners.put(number, owner);
            }
            return owner;
        } catch (IOException e) {
            return "";
        }
    }

    private @Nullable Integer ownerNumber(String name) {
        if (!hasUnix || path.length() > LONGEST_ASKED) {
            return null;
        }
        try {
            Path file = RawNames.resolve(root, path).resolve(name(name));
            return Files.getAttribute(file, "unix:uid", NO_FOLLOW) instanceof Integer uid ? uid : null;
        } catch (IOException | UnsupportedOperationException | java.nio.file.InvalidPathException e) {
            return null;
        }
    }

    /** Opens a file for reading; a link is refused. */
    public SeekableByteChannel read(String name) throws IOException {
        return stream.newByteChannel(name(name), Set.of(StandardOpenOption.READ, NO_FOLLOW));
    }

    /** As {@link #read(String)}, in a way that not every system has. */
    SeekableByteChannel read(String name, OpenOption how) throws IOException {
        return stream.newByteChannel(name(name), Set.of(StandardOpenOption.READ, NO_FOLLOW, how));
    }

    /** The target of a link, as {@link RawNames} writes it. */
    public String readLink(String name) throws IOException {
        return RawNames.text(Files.readSymbolicLink(RawNames.resolve(root, RelativePath.child(path, name))));
    }

    /** Opens a new file for writing and reading; only its owner may read it, until it gets permissions of its own. */
    public FileChannel create(String name) throws IOException {
        SeekableByteChannel channel = stream.newByteChannel(
                name(name),
                Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE, StandardOpenOption.READ, NO_FOLLOW),
                Access.OWNER.ofFiles());
        if (channel instanceof FileChannel file) {
            return file;
        }
        channel.close();
        throw new FileSystemException(name, null, Words.of("disk.notSecure"));
    }

    /** Brings what was written into a file to its disk. */
    public void forceFile(String name) throws IOException {
        try (SeekableByteChannel channel =
                stream.newByteChannel(name(name), Set.of(StandardOpenOption.WRITE, NO_FOLLOW))) {
            if (channel instanceof FileChannel file) {
                file.force(true);
            }
        }
    }

    /** Whether a name is one that only {@link #ownName} gives. Capture leaves such files out, the next restore removes them. */
    public static boolean isOwnName(String name) {
        return name.startsWith(OWN_PREFIX) && OWN_NAME.matcher(name).matches();
    }

    /** A fresh name for something unfinished. */
    public static String ownName() {
        return OWN_PREFIX + UUID.randomUUID();
    }

    /** Makes a folder: beside the root under a name of ours, then moved to where it belongs, however deep. */
    public void makeFolder(String name) throws IOException {
        Path target = name(name);
        if (find(name).isPresent()) {
            throw new FileAlreadyExistsException(RelativePath.child(path, name));
        }
        String beside = ownName();
        Files.createDirectory(root.resolve(beside));
        moveFromRoot(beside, target);
    }

    /** Makes a symbolic link, which points to whatever it says. */
    public void makeLink(String name, String linkTarget) throws IOException {
        String beside = ownName();
        Files.createSymbolicLink(root.resolve(beside), RawNames.path(root.getFileSystem(), linkTarget));
        moveFromRoot(beside, name(name));
    }

    private void moveFromRoot(String beside, Path target) throws IOException {
        try (SecureDirectoryStream<Path> top = stream(root)) {
            try {
                top.move(root.getFileSystem().getPath(beside), stream, target);
            } catch (IOException e) {
                Files.deleteIfExists(root.resolve(beside));
                throw e;
            }
        }
    }

    /** Renames a file within this folder, replacing what has that name already. */
    public void rename(String from, String to) throws IOException {
        stream.move(name(from), stream, name(to));
    }

    /**
     * Lets two names of this folder change places, at once: at no moment is one of them missing, and nothing is replaced.
     *
     * @return false where the system has no such way; nothing was changed then
     */
    public boolean exchange(String one, String other) throws IOException {
        return LinuxNames.exchange(root, path, RelativePath.requireName(one), RelativePath.requireName(other));
    }

    /**
     * Gives a file or link another name in this folder that nothing has. Where the system has no such way, a second name is
     * made and the first taken away; where there are no second names either, it is asked first.
     *
     * @throws FileAlreadyExistsException when something has that name; nothing was changed then
     */
    public void renameNew(String from, String to) throws IOException {
        if (LinuxNames.renameNew(root, path, RelativePath.requireName(from), RelativePath.requireName(to))) {
            return;
        }
        Path here = RawNames.resolve(root, path);
        try {
            Files.createLink(RawNames.resolve(here, to), RawNames.resolve(here, from));
        } catch (FileAlreadyExistsException | NoSuchFileException e) {
            throw e;
        } catch (FileSystemException | UnsupportedOperationException e) {
            if (find(to).isPresent()) {
                throw new FileAlreadyExistsException(RelativePath.child(path, to));
            }
            rename(from, to);
            return;
        }
        delete(from);
    }

    /** Whether some program has a file open for writing; empty where that cannot be asked. */
    public Optional<Boolean> isBeingWritten(String name) throws IOException {
        return Optional.ofNullable(LinuxNames.isBeingWritten(root, path, RelativePath.requireName(name)));
    }

    /** Removes a file or link. */
    public void delete(String name) throws IOException {
        stream.deleteFile(name(name));
    }

    /** Removes an empty folder. */
    public void deleteFolder(String name) throws IOException {
        stream.deleteDirectory(name(name));
    }

    /** Sets permissions and modified time of a file or folder. */
    public void setAttributes(String name, long mtimeNanos, int mode) throws IOException {
        PosixFileAttributeView posix = view(name(name), PosixFileAttributeView.class);
        if (posix != null) {
            posix.setPermissions(DiskEntry.permissions(mode));
        }
        FileTime time = FileTime.from(mtimeNanos, TimeUnit.NANOSECONDS);
        BasicFileAttributeView view = view(name(name));
        view.setTimes(time, null, null);
        if (view.readAttributes().lastModifiedTime().to(TimeUnit.NANOSECONDS) != mtimeNanos) {
            setExactTime(name, time);
        }
    }

    /** Relative to a folder, JDK 17 sets microseconds only; by its path, the same file takes nanoseconds. */
    private void setExactTime(String name, FileTime time) {
        Path whole = RawNames.resolve(root, RelativePath.child(path, name));
        try {
            Files.getFileAttributeView(whole, BasicFileAttributeView.class, NO_FOLLOW)
                    .setTimes(time, null, null);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(SafeFolder.class).debug("time of {} in microseconds only", name, e);
        }
    }

    /** Writes a small file whole and synced. */
    public void write(String name, byte[] bytes) throws IOException {
        try (FileChannel out = create(name)) {
            Durable.write(out, ByteBuffer.wrap(bytes));
            out.force(true);
        }
    }

    /** Makes the names in this folder durable. */
    public void force() {
        Durable.forceFolder(RawNames.resolve(root, path));
    }

    @Override
    public void close() throws IOException {
        stream.close();
    }
}
