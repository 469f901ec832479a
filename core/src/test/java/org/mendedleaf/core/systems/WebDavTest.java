package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.Revision;

/** A plain place on an independent WebDAV server, when one is installed; the vault keeps its versions. */
class WebDavTest {

    private static final Path SERVER = Path.of("/usr/sbin/lighttpd");
    private static final Path MODULE = Path.of("/usr/lib/lighttpd/mod_webdav.so");

    @TempDir
    Path temp;

    private Rig rig;
    private Process server;
    private Path shared;
    private Place place;

    @BeforeEach
    void start() throws Exception {
        assumeTrue(
                Files.isExecutable(SERVER) && Files.exists(MODULE),
                "no WebDAV server is installed; install lighttpd and lighttpd-mod-webdav to run this");
        rig = new Rig(temp);
        int port;
        try (ServerSocket socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        shared = Files.createDirectories(temp.resolve("served/club files"));
        Path conf = Files.writeString(
                temp.resolve("server.conf"), """
                server.modules = ("mod_webdav")
                server.document-root = "%s"
                server.bind = "127.0.0.1"
                server.port = %d
                webdav.activate = "enable"
                webdav.is-readonly = "disable"
                webdav.sqlite-db-name = "%s"
                """.formatted(temp.resolve("served"), port, temp.resolve("dav.db")));
        server = new ProcessBuilder(SERVER.toString(), "-D", "-f", conf.toString())
                .redirectErrorStream(true)
                .redirectOutput(temp.resolve("server.log").toFile())
                .start();
        String address = "http://127.0.0.1:" + port + "/club%20files";
        for (int i = 0; i < 100 && !answers(address); i++) {
            Thread.sleep(50);
        }
        Connection c = rig.connecting().connect("club", null, new Endpoint(address, ""), rig.vault(), Rig.QUICK);
        assertThat(c.kind()).isEqualTo(SystemKind.WEBDAV);
        place = rig.connecting().takeIn(c, rig.vault()).get(0);
    }

    private static boolean answers(String address) {
        try {
            HttpURLConnection c =
                    (HttpURLConnection) URI.create(address + "/").toURL().openConnection();
            c.setRequestMethod("OPTIONS");
            return c.getResponseCode() < 500;
        } catch (IOException e) {
            return false;
        }
    }

    @AfterEach
    void end() throws Exception {
        if (server != null) {
            server.destroy();
            server.waitFor(5, TimeUnit.SECONDS);
        }
        if (rig != null) {
            rig.close();
        }
    }

    private void serve(String name, String text) throws IOException {
        rig.later(Duration.ofMinutes(10));
        Path file = shared.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        Files.setLastModifiedTime(file, FileTime.from(rig.now()));
        rig.later(Duration.ofMinutes(1));
    }

    @Test
    void whatChangesOnTheServerBecomesAVersionInTheVault() throws IOException {
        serve("Äpfel/rota & more.txt", "one");
        assertThat(rig.look(place).points()).isEqualTo(1);
        serve("Äpfel/rota & more.txt", "two");
        assertThat(rig.look(place).points()).isEqualTo(1);
        assertThat(rig.look(place).points()).isZero();
        List<Version> versions = rig.line(place, "Äpfel/rota & more.txt").versions();
        assertThat(versions).hasSize(2);
        server.destroy();
        assertThat(rig.text(versions.get(1))).isEqualTo("one");
        assertThat(rig.text(versions.get(0))).isEqualTo("two");
    }

    @Test
    void aFileThatIsGoneThereIsRemovedHereAndCanBePutBack() throws IOException {
        serve("a.txt", "one");
        rig.look(place);
        Files.delete(shared.resolve("a.txt"));
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        assertThat(rig.line(place, "a.txt").removed()).isPresent();
        Version v = rig.line(place, "a.txt").newest().orElseThrow();
        rig.later(Duration.ofMinutes(1));
        rig.work(place).restore(List.of(new RestoreItem(v, "a.txt")), Collision.REPLACE, Progress.NONE);
        assertThat(Files.readString(shared.resolve("a.txt"))).isEqualTo("one");
    }

    @Test
    void aRevisionIsPutInAndTheOldOneStaysInTheVault() throws IOException {
        serve("deep/er/a.txt", "one");
        rig.look(place);
        rig.work(place)
                .put(
                        List.of(
                                new Revision(rig.file("in", "two"), "deep/er/a.txt", ""),
                                new Revision(rig.file("in2", "new"), "other/b.txt", "")),
                        Progress.NONE);
        assertThat(Files.readString(shared.resolve("deep/er/a.txt"))).isEqualTo("two");
        assertThat(Files.readString(shared.resolve("other/b.txt"))).isEqualTo("new");
        assertThat(rig.text(rig.line(place, "deep/er/a.txt").version(1).orElseThrow()))
                .isEqualTo("one");
        rig.work(place).remove(List.of("deep/er/a.txt"));
        assertThat(shared.resolve("deep/er/a.txt")).doesNotExist();
    }

    @Test
    void aServerThatIsGoneIsSaidToBeAway() throws Exception {
        serve("a.txt", "one");
        rig.look(place);
        server.destroy();
        server.waitFor(5, TimeUnit.SECONDS);
        assertThatThrownBy(() -> rig.look(place)).isInstanceOf(SystemException.Unreachable.class);
        assertThat(rig.line(place, "a.txt").removed()).as("away is not removed").isEmpty();
    }
}
