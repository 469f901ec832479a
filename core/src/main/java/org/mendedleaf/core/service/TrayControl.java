package org.mendedleaf.core.service;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.disk.Access;

/**
 * The switch for the tray icon, which says whether files are kept. The icon is a small program of its own: nothing else needs it. It is
 * switched on by what starts it with the session, and one that runs ends by itself when that is gone.
 */
public final class TrayControl {

    /** With this argument the program is the tray icon. */
    public static final String ARGUMENT = "--tray";

    private static final String LOCK = "tray-lock";

    private final Path settings;
    private final Autostart autostart;
    private final List<String> command;
    private final Spawner spawner;

    /** Starts a program that outlives this one. */
    public interface Spawner {
        /** Starts it and does not wait. */
        void start(List<String> command) throws IOException;
    }

    /**
     * The tray icon of these settings.
     *
     * @param program what starts the window; {@value #ARGUMENT} is added
     */
    public TrayControl(
            Path settings,
            String platform,
            Map<String, String> environment,
            List<String> program,
            Autostart.Runner runner,
            Spawner spawner)
            throws IOException {
        this.settings = settings;
        this.command = new ArrayList<>(program);
        this.command.add(ARGUMENT);
        this.spawner = spawner;
        this.autostart = Autostart.tray(platform, environment, this.command, runner);
    }

    /** The tray icon of these settings, of this platform, started by this program. */
    public static TrayControl here(Path settings, Map<String, String> environment) throws IOException {
        List<String> program = Programs.withSettings(settings, environment, Programs.window());
        return new TrayControl(
                settings, System.getProperty("os.name"), environment, program, Programs::run, Programs::spawn);
    }

    /** Whether it is switched on. */
    public boolean isInstalled() {
        return autostart.isInstalled();
    }

    /** By what it is started with every session. */
    public Autostart autostart() {
        return autostart;
    }

    /** Has it shown now, and with every session from now on. */
    public void install() throws IOException {
        if (!autostart.install()) {
            // A second one sees that there is one, and ends.
            spawner.start(command);
        }
    }

    /** Has it shown no more; one that is shown goes within seconds. */
    public void remove() throws IOException {
        autostart.remove();
    }

    /** Taken by the one that is shown; goes with its process. */
    public static final class Shown implements AutoCloseable {

        private final FileChannel channel;

        private Shown(FileChannel channel) {
            this.channel = channel;
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }

    /** Says that this process shows it; empty when another one of this user does. */
    public Optional<Shown> show() throws IOException {
        Access.OWNER.createFolders(settings);
        Path lock = settings.resolve(LOCK);
        Access.OWNER.createFile(lock);
        FileChannel channel = FileChannel.open(lock, StandardOpenOption.WRITE);
        try {
            FileLock taken = channel.tryLock();
            if (taken != null) {
                return Optional.of(new Shown(channel));
            }
        } catch (OverlappingFileLockException e) {
            // This very process shows it.
        }
        channel.close();
        return Optional.empty();
    }
}
