package org.mendedleaf.standins;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;

/** The four stand-ins of one folder, running. */
public final class StandIns implements AutoCloseable {

    private static final long SERVER_BYTES = 2_000_000_000L;
    private static final long DRIVE_BYTES = 24_000_000L;

    private final Library library;
    private final ObjectStore objects;
    private final FileServer files;
    private final BackupDrive drive;
    private final Thread ticker;

    /**
     * Starts them.
     *
     * @param folder where they keep what they hold, a folder each
     * @param owner whose tokens are made
     */
    public StandIns(Path folder, String owner) throws IOException {
        Files.createDirectories(folder);
        closeToOthers(folder);
        library = new Library(folder.resolve("library"), owner);
        objects = new ObjectStore(folder.resolve("object-store"), owner);
        files = new FileServer(folder.resolve("file-server"), owner, SERVER_BYTES);
        drive = new BackupDrive(folder.resolve("backup-drive"), owner, DRIVE_BYTES);
        ticker = new Thread(this::tick, "stand-ins");
        ticker.setDaemon(true);
        ticker.start();
    }

    /** The tokens stand in there. */
    private static void closeToOthers(Path folder) throws IOException {
        if (Files.getFileStore(folder).supportsFileAttributeView("posix")) {
            Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwx------"));
        }
    }

    private void tick() {
        try {
            while (true) {
                Thread.sleep(1000);
                for (StandIn s : all()) {
                    s.tick();
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(StandIns.class).warn("the clock of the stand-ins stopped", e);
        }
    }

    /** All four. */
    public List<StandIn> all() {
        return List.of(library, objects, files, drive);
    }

    /** The office library. */
    public Library library() {
        return library;
    }

    /** The object store. */
    public ObjectStore objects() {
        return objects;
    }

    /** The file server. */
    public FileServer files() {
        return files;
    }

    /** The backup drive. */
    public BackupDrive drive() {
        return drive;
    }

    @Override
    public void close() throws IOException {
        ticker.interrupt();
        for (StandIn s : all()) {
            s.close();
        }
    }
}
