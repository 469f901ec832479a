package org.mendedleaf.core.disk;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Locale;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * The libraries in machine code that SQLite, Zstandard and JNA bring along, taken out of their jars once for each version. By
 * themselves they take them out at each start, into the folder for temporary files, where each kill leaves them.
 */
public final class NativeLibraries {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(NativeLibraries.class);
    private static boolean done;

    private NativeLibraries() {}

    /** Makes them ready; does nothing the second time. Where it cannot be done, the libraries help themselves. */
    public static synchronized void ready() {
        if (done) {
            return;
        }
        done = true;
        try {
            sqlite();
            zstd();
        } catch (IOException | RuntimeException e) {
            log.debug("native libraries are taken out at each start", e);
        }
    }

    /** Makes ready what calls functions of the system; it is asked for when it is first needed. */
    public static synchronized void readyForSystemCalls() {
        try {
            String name = System.mapLibraryName("jnidispatch");
            String resource = "/com/sun/jna/" + com.sun.jna.Platform.RESOURCE_PREFIX + "/" + name;
            Path file = takeOut(com.sun.jna.Platform.class, name, () -> resource, com.sun.jna.Native.VERSION);
            if (file != null) {
                System.setProperty("jna.boot.library.path", String.valueOf(file.getParent()));
                // Otherwise it makes a folder in each user's home for files that it does not write.
                if (System.getProperty("jna.tmpdir") == null) {
                    System.setProperty("jna.tmpdir", System.getProperty("java.io.tmpdir"));
                }
            }
        } catch (IOException | RuntimeException e) {
            log.debug("the library is taken out at each start", e);
        }
    }

    private static Path folder() throws IOException {
        String chosen = System.getProperty("mendedleaf.natives", "");
        Path folder = chosen.isEmpty()
                ? UserFolders.cache(System.getenv()).resolve("mended-leaf").resolve("native")
                : Path.of(chosen);
        Access.OWNER.createFolders(folder);
        return folder;
    }

    private static void sqlite() throws IOException {
        String name = org.sqlite.util.LibraryLoaderUtil.getNativeLibName();
        // Which one it is takes a look at all files that this process has mapped.
        Path file = takeOut(
                org.sqlite.SQLiteJDBCLoader.class,
                name,
                () -> org.sqlite.util.LibraryLoaderUtil.getNativeLibResourcePath() + "/" + name,
                org.sqlite.SQLiteJDBCLoader.getVersion());
        if (file != null) {
            System.setProperty("org.sqlite.lib.path", String.valueOf(file.getParent()));
            System.setProperty("org.sqlite.lib.name", String.valueOf(file.getFileName()));
        }
    }

    private static void zstd() throws IOException {
        String os = System.getProperty("os.name").toLowerCase(Locale.ROOT);
        String arch = System.getProperty("os.arch");
        String version = com.github.luben.zstd.util.ZstdVersion.VERSION;
        String system = os.startsWith("linux") ? "linux" : os.startsWith("mac") ? "darwin" : "win";
        String ending = switch (system) {
            case "linux" -> "so";
            case "darwin" -> "dylib";
            default -> "dll";
        };
        String machine = system.equals("darwin") ? arch.replace("amd64", "x86_64") : arch.replace("x86_64", "amd64");
        String name = "libzstd-jni-" + version + "." + ending;
        String resource = "/" + system + "/" + machine + "/" + name;
        Path file = takeOut(com.github.luben.zstd.util.Native.class, name, () -> resource, version);
        if (file != null) {
            System.setProperty("ZstdNativePath", file.toString());
        }
    }

    /** Copies a library out of its jar, unless it is there already; null when the jar has none for this machine. */
    private static @Nullable Path takeOut(Class<?> from, String name, Supplier<String> resource, String version)
            throws IOException {
        Path folder = folder().resolve(version + "-" + System.getProperty("os.arch"));
        Path file = folder.resolve(name);
        if (Files.isRegularFile(file)) {
            return file;
        }
        try (InputStream in = from.getResourceAsStream(resource.get())) {
            if (in == null) {
                return null;
            }
            Access.OWNER.createFolders(folder);
            Path beside = Files.createTempFile(folder, "new", ".part");
            Files.copy(in, beside, StandardCopyOption.REPLACE_EXISTING);
            Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            return file;
        }
    }
}
