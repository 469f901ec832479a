package org.mendedleaf.core.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What starts the service with a session, in the words of each platform. */
class AutostartTest {

    private static final List<String> COMMAND = List.of("/opt/my apps/mended-leaf", "service", "run");

    @TempDir
    private Path temp;

    private final List<String> ran = new ArrayList<>();

    private Autostart autostart(String platform, boolean systemd) throws IOException {
        Map<String, String> environment = Map.of(
                "XDG_CONFIG_HOME",
                temp.toString(),
                "APPDATA",
                temp.resolve("roaming").toString());
        return Autostart.of(platform, environment, COMMAND, words -> {
            ran.add(String.join(" ", words));
            return systemd ? 0 : 127;
        });
    }

    @Test
    void withSystemdItIsAUnitThatIsEnabledAndStartedAndLeavesNothingBehind() throws IOException {
        Autostart autostart = autostart("Linux", true);
        assertThat(autostart.means()).isEqualTo(Autostart.Means.SYSTEMD);
        assertThat(autostart.isInstalled()).isFalse();
        ran.clear();
        assertThat(autostart.install()).isTrue();
        assertThat(ran)
                .containsExactly("systemctl --user daemon-reload", "systemctl --user enable --now mended-leaf.service");
        assertThat(autostart.isInstalled()).isTrue();
        assertThat(Files.readString(temp.resolve("systemd/user/mended-leaf.service")))
                .contains("ExecStart=\"/opt/my apps/mended-leaf\" \"service\" \"run\"\n")
                .contains("Restart=on-failure\n")
                // What Java ends with when it is asked to end: no failure, and nothing to be started again.
                .contains("SuccessExitStatus=143\n")
                .contains("Nice=10\n");

        ran.clear();
        autostart.remove();
        assertThat(ran)
                .containsExactly(
                        "systemctl --user disable --now mended-leaf.service", "systemctl --user daemon-reload");
        assertThat(autostart.isInstalled()).isFalse();
        ran.clear();
        autostart.remove();
        assertThat(ran).as("what is not there is not removed").isEmpty();
    }

    @Test
    void whereThereIsNoSystemdDesktopsStartIt() throws IOException {
        Autostart autostart = autostart("Linux", false);
        assertThat(autostart.means()).isEqualTo(Autostart.Means.XDG);
        assertThat(autostart.install()).as("nothing starts it now").isFalse();
        assertThat(Files.readString(temp.resolve("autostart/mended-leaf-service.desktop")))
                .startsWith("[Desktop Entry]\n")
                // Desktops start it once: its script does it again.
                .contains(
                        "Exec=/usr/bin/env MENDED_LEAF_RESTART=yes \"/opt/my apps/mended-leaf\" \"service\" \"run\"\n");
        autostart.remove();
        assertThat(temp.resolve("autostart")).isEmptyDirectory();
    }

    @Test
    void whatMeansSomethingElseInAUnitIsWrittenOut() throws IOException {
        Autostart autostart = Autostart.of(
                "Linux",
                Map.of("XDG_CONFIG_HOME", temp.toString()),
                List.of("/odd/50% \"off\" \\ here/mended-leaf"),
                words -> 0);
        assertThat(autostart.text()).contains("ExecStart=\"/odd/50%% \\\"off\\\" \\\\ here/mended-leaf\"\n");
    }

    @Test
    void macOsHasAnAgentAndWindowsAScriptWithoutAWindow() throws IOException {
        assertThat(autostart("Mac OS X", true).means()).isEqualTo(Autostart.Means.LAUNCHD);
        assertThat(autostart("Mac OS X", true).text())
                .contains("<string>/opt/my apps/mended-leaf</string>")
                .contains("<key>RunAtLoad</key>");
        Autostart windows = autostart("Windows 11", true);
        assertThat(windows.means()).isEqualTo(Autostart.Means.STARTUP_FOLDER);
        assertThat(windows.text())
                .isEqualTo(
                        "CreateObject(\"WScript.Shell\").Run \"\"\"/opt/my apps/mended-leaf\"\" \"\"service\"\" \"\"run\"\"\", 0,"
                                + " False\r\n");
        assertThat(windows.file().toString()).contains("roaming").contains("Startup");
    }
}
