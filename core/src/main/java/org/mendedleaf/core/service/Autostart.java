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
 * How the background service and the tray icon are started with the session of their user, by the means of each platform: a unit of
 * systemd for users, or where there is none, and for the icon always, an entry that desktops start by themselves (XDG Autostart); an
 * agent of launchd on macOS; a script in the Startup folder on Windows. Only what is written here is ever removed again.
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

    /** What is started. */
    private enum Program {
        SERVICE("mended-leaf-service", "org.mendedleaf.service", "Mended Leaf: keeps the past of your files"),
        TRAY("mended-leaf-tray", "org.mendedleaf.tray", "Mended Leaf: whether your files are kept");

        private final String file;
        private final String agent;
        private final String title;

        Program(String file, String agent, String title) {
            this.file = file;
            this.agent = agent;
            this.title = title;
        }
    }

    private static final String UNIT = "mended-leaf.service";

    private final Program program;
    private final Means means;
    private final Path file;
    private final List<String> command;
    private final Runner runner;

    private Autostart(Program program, Means means, Path file, List<String> command, Runner runner) {
        this.program = program;
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
        return of(Program.SERVICE, platform, environment, command, runner);
    }

    /**
     * The means of this platform for the tray icon, which belongs to a desktop.
     *
     * @param command what shows the icon and stays until it ends
     */
    public static Autostart tray(String platform, Map<String, String> environment, List<String> command, Runner runner)
            throws IOException {
        return of(Program.TRAY, platform, environment, command, runner);
    }

    private static Autostart of(
            Program program, String platform, Map<String, String> environment, List<String> command, Runner runner)
            throws IOException {
        String os = platform.toLowerCase(Locale.ROOT);
        Path home = UserFolders.home();
        if (os.startsWith("mac")) {
            Path agent = home.resolve("Library/LaunchAgents").resolve(program.agent + ".plist");
            return new Autostart(program, Means.LAUNCHD, agent, command, runner);
        }
        if (os.startsWith("win")) {
            Path roaming = Path.of(environment.getOrDefault(
                    "APPDATA", home.resolve("AppData/Roaming").toString()));
            Path script = roaming.resolve("Microsoft/Windows/Start Menu/Programs/Startup")
                    .resolve(program.file + ".vbs");
            return new Autostart(program, Means.STARTUP_FOLDER, script, command, runner);
        }
        Path settings = UserFolders.settings(environment);
        // It answers only where a session of this user is kept by it.
        if (program == Program.SERVICE && runner.run(List.of("systemctl", "--user", "show-environment")) == 0) {
            return new Autostart(
                    program, Means.SYSTEMD, settings.resolve("systemd/user").resolve(UNIT), command, runner);
        }
        return new Autostart(
                program, Means.XDG, settings.resolve("autostart").resolve(program.file + ".desktop"), command, runner);
    }

    /** Which means it is. */
    public Means means() {
        return means;
    }

    /** The file that it is. */
    public Path file() {
        return file;
    }

    /** Whether it is started with the session. */
    public boolean isInstalled() {
        return Files.isRegularFile(file);
    }

    /**
     * Has it started with every session from now on, and starts it now where the means do so.
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
                SuccessExitStatus=143
                Nice=10
                IOSchedulingClass=idle

                [Install]
                WantedBy=default.target
                """.formatted(quoted("\"", "\\\"", "%%"));
            case XDG -> """
                [Desktop Entry]
                Type=Application
                Name=%s
                Exec=%s
                Icon=mended-leaf
                NoDisplay=true
                X-GNOME-Autostart-enabled=true
                """.formatted(program.title, again() + quoted("\"", "\\\\\"", "%%"));
            case LAUNCHD -> launchd();
            case STARTUP_FOLDER ->
                // A script of this kind opens no window of its own.
                "CreateObject(\"WScript.Shell\").Run \"" + quoted("\"\"", "", "%") + "\", 0, False\r\n";
        };
    }

    /** Desktops start it once; its script starts it again when it ends otherwise than asked. */
    private String again() {
        return program == Program.SERVICE ? "/usr/bin/env " + Programs.RESTART + " " : "";
    }

    /** It is started again when it ends otherwise than asked, and gives way to what somebody does. */
    private static final String BACKGROUND = """
                <key>KeepAlive</key>
                <dict>
                    <key>SuccessfulExit</key>
                    <false/>
                </dict>
                <key>ProcessType</key>
                <string>Background</string>
            """;

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
                %s</dict>
                </plist>
                """.formatted(program.agent, arguments, program == Program.SERVICE ? BACKGROUND : "");
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
