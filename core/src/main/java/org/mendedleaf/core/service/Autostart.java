package org.mendedleaf.core.service;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.mendedleaf.core.disk.UserFolders;

/**
 * How the background service is started with the session of its user, by the means of each platform: a unit of systemd for users, or
 * where there is none an entry that desktops start by themselves (XDG Autostart); an agent of launchd on macOS; a script in the
 * Startup folder on Windows. Only what is written here is ever removed again.
 */
public final class Autostart {

    /** Runs a command of the system; what it prints and how it ends is told back. */
    public interface Runner {
        /** Runs it to its end and returns its exit code; 127 where there is no such command. */
        int run(List<String> command) throws IOException;
    }

    /** Which means a platform has. */
    public enum Means {
        /** A unit of systemd for users. */
        SYSTEMD,
        /** An entry that desktops start. */
        XDG,
        /** An agent of launchd. */
        LAUNCHD,
        /** A script in the Startup folder. */
        STARTUP_FOLDER
    }

    private static final String UNIT = "mended-leaf.service";
    private static final String AGENT = "org.mendedleaf.service";

    private final Means means;
    private final Path file;
    private final List<String> command;
    private final Runner runner;

    private Autostart(Means means, Path file, List<String> command, Runner runner) {
        this.means = means;
        this.file = file;
        this.command = command;
        this.runner = runner;
    }

    /**
     * The means of this platform.
     *
     * @param command what starts the service and stays until it ends
     */
    public static Autostart of(String platform, Map<String, String> environment, List<String> command, Runner runner)
            throws IOException {
        String os = platform.toLowerCase(Locale.ROOT);
        Path home = UserFolders.home();
        if (os.startsWith("mac")) {
            Path agent = home.resolve("Library/LaunchAgents").resolve(AGENT + ".plist");
            return new Autostart(Means.LAUNCHD, agent, command, runner);
        }
        if (os.startsWith("win")) {
            Path roaming = Path.of(environment.getOrDefault(
                    "APPDATA", home.resolve("AppData/Roaming").toString()));
            Path script = roaming.resolve("Microsoft/Windows/Start Menu/Programs/Startup/mended-leaf-service.vbs");
            return new Autostart(Means.STARTUP_FOLDER, script, command, runner);
        }
        Path settings = UserFolders.settings(environment);
        // It answers only where a session of this user is kept by it.
        if (runner.run(List.of("systemctl", "--user", "show-environment")) == 0) {
            return new Autostart(Means.SYSTEMD, settings.resolve("systemd/user").resolve(UNIT), command, runner);
        }
        return new Autostart(Means.XDG, settings.resolve("autostart/mended-leaf-service.desktop"), command, runner);
    }

    /** Which means it is. */
    public Means means() {
        return means;
    }

    /** The file that it is. */
    public Path file() {
        return file;
    }

    /** Whether the service is started with the session. */
    public boolean isInstalled() {
        return Files.isRegularFile(file);
    }

    /**
     * Has the service started with every session from now on, and starts it now where the means do so.
     *
     * @return whether it was started now
     */
    public boolean install() throws IOException {
        Files.createDirectories(file.getParent());
        Path beside = file.resolveSibling(file.getFileName() + ".new");
        Files.writeString(beside, text());
        Files.move(beside, file, StandardCopyOption.REPLACE_EXISTING);
        return switch (means) {
            case SYSTEMD ->
                runner.run(List.of("systemctl", "--user", "daemon-reload")) == 0
                        && runner.run(List.of("systemctl", "--user", "enable", "--now", UNIT)) == 0;
            case LAUNCHD -> runner.run(List.of("launchctl", "load", "-w", file.toString())) == 0;
            case XDG, STARTUP_FOLDER -> false;
        };
    }

    /** Has it started by itself no more; one that runs is ended where the means do so. */
    public void remove() throws IOException {
        if (!isInstalled()) {
            return;
        }
        switch (means) {
            case SYSTEMD -> runner.run(List.of("systemctl", "--user", "disable", "--now", UNIT));
            case LAUNCHD -> runner.run(List.of("launchctl", "unload", "-w", file.toString()));
            case XDG, STARTUP_FOLDER -> {}
        }
        Files.deleteIfExists(file);
        if (means == Means.SYSTEMD) {
            runner.run(List.of("systemctl", "--user", "daemon-reload"));
        }
    }

    /** What stands in the file. */
    String text() {
        return switch (means) {
            case SYSTEMD -> """
                [Unit]
                Description=Mended Leaf: keeps the past of your files
                After=default.target

                [Service]
                ExecStart=%s
                Restart=on-failure
                RestartSec=10
                Nice=10
                IOSchedulingClass=idle

                [Install]
                WantedBy=default.target
                """.formatted(quoted("\"", "\\\"", "%%"));
            case XDG -> """
                [Desktop Entry]
                Type=Application
                Name=Mended Leaf: keeps the past of your files
                Exec=%s
                Icon=mended-leaf
                NoDisplay=true
                X-GNOME-Autostart-enabled=true
                """.formatted(quoted("\"", "\\\\\"", "%%"));
            case LAUNCHD -> launchd();
            case STARTUP_FOLDER ->
                // A script of this kind opens no window of its own.
                "CreateObject(\"WScript.Shell\").Run \"" + quoted("\"\"", "", "%") + "\", 0, False\r\n";
        };
    }

    private String launchd() {
        StringBuilder arguments = new StringBuilder();
        for (String word : command) {
            String safe = word.replace("&", "&amp;").replace("<", "&lt;");
            arguments.append("        <string>").append(safe).append("</string>\n");
        }
        return """
                <?xml version="1.0" encoding="UTF-8"?>
                <!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">
                <plist version="1.0">
                <dict>
                    <key>Label</key>
                    <string>%s</string>
                    <key>ProgramArguments</key>
                    <array>
                %s    </array>
                    <key>RunAtLoad</key>
                    <true/>
                    <key>KeepAlive</key>
                    <dict>
                        <key>SuccessfulExit</key>
                        <false/>
                    </dict>
                    <key>ProcessType</key>
                    <string>Background</string>
                </dict>
                </plist>
                """.formatted(AGENT, arguments);
    }

    /** The words of the command, each between marks, with what means something else there written out. */
    private String quoted(String mark, String inside, String percent) {
        StringBuilder line = new StringBuilder();
        for (String word : command) {
            String safe = word.replace("\\", mark.equals("\"") ? "\\\\" : "\\")
                    .replace("\"", inside)
                    .replace("%", percent);
            line.append(line.isEmpty() ? "" : " ").append(mark).append(safe).append(mark);
        }
        return line.toString();
    }
}
