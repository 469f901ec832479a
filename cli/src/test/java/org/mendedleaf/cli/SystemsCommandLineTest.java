package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.cli.base.Outcome;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.standins.StandIn;
import org.mendedleaf.standins.StandIns;
import org.mendedleaf.standins.TlsFront;

/** Other systems from the command line, as a new user would try them. */
class SystemsCommandLineTest {

    @TempDir
    Path temp;

    private StandIns outside;
    private Path desk;
    private String out = "";
    private String err = "";
    private final List<String> asked = new ArrayList<>();

    @BeforeEach
    void start() throws IOException {
        outside = new StandIns(temp.resolve("outside"), "ines");
        desk = Files.createDirectory(temp.resolve("desk")).toRealPath();
    }

    @AfterEach
    void end() throws IOException {
        outside.close();
    }

    private int run(String... arguments) {
        StringWriter o = new StringWriter();
        StringWriter e = new StringWriter();
        int code = Main.run(
                arguments,
                Map.of("MENDED_LEAF_HOME", temp.resolve("home").toString()),
                Clock.system(ZoneOffset.UTC),
                new PrintWriter(o),
                new PrintWriter(e));
        out = o.toString();
        err = e.toString();
        JsonAnswers.hold(arguments, out);
        return code;
    }

    private JsonNode json(String... arguments) throws IOException {
        String[] all = java.util.Arrays.copyOf(arguments, arguments.length + 1);
        all[arguments.length] = "--json";
        assertThat(run(all)).as(out + err).isLessThan(2);
        return new ObjectMapper().readTree(out);
    }

    private int connect(StandIn s, String name) {
        return run(
                "connect",
                name,
                s.address(),
                "--token",
                s.token("ines"),
                "--vault",
                temp.resolve("vault").toString());
    }

    /** As with somebody at the terminal, who gives this answer. */
    private int ask(boolean answer, String... arguments) {
        StringWriter o = new StringWriter();
        StringWriter e = new StringWriter();
        Surroundings surroundings = new Surroundings(
                Map.of("MENDED_LEAF_HOME", temp.resolve("home").toString()),
                Clock.system(ZoneOffset.UTC),
                new PrintWriter(o),
                new PrintWriter(e),
                Optional.of(question -> {
                    asked.add(question);
                    return answer;
                }));
        int code = Main.run(arguments, surroundings);
        out = o.toString();
        err = e.toString();
        return code;
    }

    private String file(String name, String text) throws IOException {
        return Files.writeString(temp.resolve(name), text).toString();
    }

    @Test
    void withoutSystemsThereIsAHintHowToConnectOne() {
        assertThat(run("systems")).isZero();
        assertThat(out).contains("connect NAME ADDRESS");
    }

    @Test
    void aSystemIsAskedWhatItIsAndRemembered() throws IOException {
        assertThat(connect(outside.objects(), "Archive")).as(err).isZero();
        assertThat(out).contains("Archive is connected, object store, no places yet");
        JsonNode systems = json("systems");
        assertThat(systems.get(0).path("kind").asText()).isEqualTo("object-store");
        assertThat(systems.get(0).path("can").toString()).contains("PAUSING").doesNotContain("SNAPSHOTS");
        assertThat(Files.getPosixFilePermissions(temp.resolve("home/settings.json")))
                .hasSize(2);
    }

    @Test
    void aCertificateThatNobodySignedIsShownAndTrustedOnceItIsChosen() throws IOException {
        String vault = temp.resolve("vault").toString();
        try (TlsFront front = new TlsFront(outside.objects().address(), "localhost", 0)) {
            String token = outside.objects().token("ines");
            String[] connect = {"connect", "Archive", front.address(), "--token", token, "--vault", vault};
            assertThat(run(connect)).isEqualTo(Outcome.NOT_CONNECTED.code());
            assertThat(err).contains("nobody whom this computer trusts", "--certificate " + front.fingerprint());
            assertThat(ask(false, connect)).isEqualTo(Outcome.NOT_CONNECTED.code());
            assertThat(json("systems")).isEmpty();
            String[] chosen = Arrays.copyOf(connect, connect.length + 2);
            chosen[connect.length] = "--certificate";
            chosen[connect.length + 1] = "AB:CD";
            assertThat(run(chosen)).isEqualTo(2);
            chosen[connect.length + 1] = "00".repeat(32);
            assertThat(run(chosen)).isEqualTo(Outcome.NOT_CONNECTED.code());
            assertThat(err).contains("another certificate").doesNotContain("--certificate");
            chosen[connect.length + 1] = front.fingerprint().replace(":", "");
            assertThat(run(chosen)).as(err).isZero();
            assertThat(json("systems").get(0).path("answers").asBoolean(true)).isTrue();
        }
    }

    @Test
    void whoSitsAtTheTerminalIsAskedWhetherACertificateIsTrusted() throws IOException {
        try (TlsFront front = new TlsFront(outside.objects().address(), "localhost", 0)) {
            assertThat(ask(
                            true,
                            "connect",
                            "Archive",
                            front.address(),
                            "--token",
                            outside.objects().token("ines"),
                            "--vault",
                            temp.resolve("vault").toString()))
                    .as(err)
                    .isZero();
            assertThat(asked).singleElement().asString().contains(front.fingerprint());
        }
    }

    @Test
    void whatIsWrongWithAConnectionIsSaidAndNothingIsRemembered() throws IOException {
        StandIn s = outside.objects();
        String vault = temp.resolve("vault").toString();
        assertThat(run("connect", "A", s.address(), "--token", "wrong", "--vault", vault))
                .isEqualTo(Outcome.NOT_ALLOWED.code());
        assertThat(err).contains("A does not accept the token");
        assertThat(run("connect", "A", "ftp://x", "--vault", vault)).isEqualTo(2);
        assertThat(run("connect", "a:b", s.address(), "--vault", vault)).isEqualTo(2);
        assertThat(run("connect", "A", s.address(), "--kind", "shoebox", "--vault", vault))
                .isEqualTo(2);
        assertThat(err).contains("backup-drive");
        assertThat(json("systems")).isEmpty();
    }

    @Test
    void aTokenCanStandInAFileSoThatNobodySeesIt() throws IOException {
        StandIn s = outside.objects();
        String vault = temp.resolve("vault").toString();
        String file = file("token", s.token("ines") + "\n");
        assertThat(run("connect", "Archive", s.address(), "--token-file", file, "--vault", vault))
                .as(err)
                .isZero();
        assertThat(err).doesNotContain("other programs");
        assertThat(connect(outside.objects(), "Other")).isZero();
        assertThat(err).contains("--token-file keeps it to yourself");
        assertThat(run("connect", "A", s.address(), "--token-file", file("two", "a\nb\n"), "--vault", vault))
                .isEqualTo(2);
        assertThat(err).contains("one line is expected");
        assertThat(run("connect", "A", s.address(), "--token-file", file("none", "\n"), "--vault", vault))
                .isEqualTo(2);
        assertThat(run("connect", "A", s.address(), "--token-file", file, "--token", "x", "--vault", vault))
                .isEqualTo(2);
        assertThat(err).contains("Give the token once");
        assertThat(run("connect", "A", s.address(), "--token-file", temp + "/nowhere", "--vault", vault))
                .isNotZero();
    }

    @Test
    void nothingIsSentWithoutEncryptionToAnotherComputerUnlessThatIsChosen() throws IOException {
        String vault = temp.resolve("vault").toString();
        assertThat(run("connect", "A", "http://library.invalid", "--token", "secret", "--vault", vault))
                .isEqualTo(2);
        assertThat(err).contains("without encryption").contains("--plain-http");
        assertThat(run("connect", "A", "http://library.invalid", "--plain-http", "--vault", vault))
                .isEqualTo(Outcome.NOT_CONNECTED.code());
        assertThat(json("systems")).isEmpty();
    }

    @Test
    void aFileGoesThroughItsWholeLifeInAnotherSystem() throws IOException {
        connect(outside.objects(), "Archive");
        assertThat(json(
                                "connect",
                                "Archive",
                                outside.objects().address(),
                                "--token",
                                outside.objects().token("ines"),
                                "--vault",
                                temp.resolve("vault").toString())
                        .get("kind")
                        .asText())
                .isEqualTo("object-store");
        assertThat(json("place", "create", "Archive:data").get("place").asText())
                .isEqualTo("Archive:data");
        assertThat(run("place", "create", "Archive:logs", "--set", "expire-days=30"))
                .as(err)
                .isZero();
        assertThat(out).contains("forgotten 30 days later");
        assertThat(run("put", file("a", "one"), "--as", "Archive:logs/2026/press.csv", "--note", "first"))
                .as(err)
                .isZero();
        assertThat(run("put", file("b", "two"), "--as", "Archive:logs/2026/press.csv"))
                .isZero();
        assertThat(out).contains("2026/press.csv is now version 2");

        assertThat(run("list", "Archive:logs")).isZero();
        assertThat(out).contains("2026/");
        JsonNode line = json("line", "Archive:logs/2026/press.csv");
        assertThat(line.path("points")).hasSize(2);
        assertThat(line.path("points").get(1).path("note").asText()).isEqualTo("first");
        assertThat(line.path("points").get(1).path("heldBy").toString()).isEqualTo("[\"Archive:logs\"]");
        assertThat(line.path("points").get(1).path("forgotten").asText()).isNotEmpty();

        assertThat(run("restore", "Archive:logs/2026/press.csv", "--version", "1"))
                .as(err)
                .isZero();
        assertThat(json("line", "Archive:logs/2026/press.csv")
                        .path("points")
                        .get(0)
                        .path("restoredFrom")
                        .asInt())
                .isEqualTo(1);
        assertThat(run("undo")).as(err).isZero();
        assertThat(run("remove", "Archive:logs/2026/press.csv")).isZero();
        assertThat(run("list", "Archive:logs/2026")).isZero();
        assertThat(out).doesNotContain("press.csv");
        assertThat(run("undo")).isZero();
        assertThat(run(
                        "copy",
                        "Archive:logs/2026/press.csv",
                        "--version",
                        "1",
                        "--to",
                        temp.resolve("c").toString()))
                .as(err)
                .isZero();
        assertThat(Files.readString(Path.of(out.strip().substring("Saved ".length()))))
                .isEqualTo("one");
    }

    private void five() throws IOException {
        connect(outside.objects(), "Archive");
        run("place", "create", "Archive:logs");
        for (int i = 1; i <= 5; i++) {
            run("put", file("a", "text " + i), "--as", "Archive:logs/dir/x");
        }
    }

    private long heldThere() throws IOException {
        long n = 0;
        for (JsonNode p : json("line", "Archive:logs/dir/x").path("points")) {
            n += p.path("heldBy").toString().contains("Archive:logs") ? 1 : 0;
        }
        return n;
    }

    @Test
    void aSystemIsThinnedWithAPlanAReportAndAnUndo() throws IOException {
        five();
        Path report = temp.resolve("report.csv");
        assertThat(run("thin", "Archive:logs", "--keep-last", "2", "--plan"))
                .as(err)
                .isZero();
        assertThat(out).contains("3 versions of 1 file").contains("would be erased in Archive:logs");
        assertThat(heldThere()).isEqualTo(5);
        assertThat(run("thin", "Archive:logs", "--keep-last", "2", "--report", report.toString()))
                .as(err)
                .isZero();
        assertThat(out).contains("3 versions are erased in Archive:logs").contains("takes them back until");
        assertThat(heldThere()).isEqualTo(2);
        assertThat(Files.readString(report)).contains("dir/x");
        assertThat(run("undo")).as(err).isZero();
        assertThat(json("thin", "Archive:logs/dir/x", "--keep-last", "2", "--plan")
                        .path("versions")
                        .asInt())
                .isZero();
    }

    @Test
    void whatIsHeldOfASystemIsTakenAndNotErased() throws IOException {
        five();
        assertThat(run("hold", "Archive:logs/dir/x", "--version", "1", "--reason", "audit"))
                .as(err)
                .isZero();
        assertThat(out).contains("The vault has taken 1 version of it");
        assertThat(run("erase", "Archive:logs/dir/x", "--older")).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(heldThere()).isEqualTo(5);
        assertThat(run("erase", "Archive:logs/dir/x", "--older", "--yes")).isEqualTo(1);
        assertThat(out).contains("3 versions are erased");
        assertThat(err).contains("version 1 of dir/x is still there").contains("audit");
        assertThat(heldThere()).isEqualTo(2);
        assertThat(run("erase", "Archive:logs/dir/x", "--all", "--yes")).isEqualTo(2);
    }

    @Test
    void aSystemOfSnapshotsSaysHowItIsThinned() throws IOException {
        connect(outside.files(), "Server");
        assertThat(run("place", "create", "Server:share")).as(err).isZero();
        assertThat(run("thin", "Server:share", "--keep-last", "2")).isNotZero();
        assertThat(err).contains("keeps whole snapshots").contains("place set");
    }

    @Test
    void aVersionIsErasedOnlyWithYesAndTheVaultKeepsIt() throws IOException {
        connect(outside.objects(), "Archive");
        run("place", "create", "Archive:logs");
        run("put", file("a", "one"), "--as", "Archive:logs/x");
        run("put", file("b", "two"), "--as", "Archive:logs/x");
        assertThat(run("erase", "Archive:logs/x", "--version", "1")).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(err).contains("Use --yes");
        assertThat(run("erase", "Archive:logs/x", "--version", "1", "--yes"))
                .as(err)
                .isZero();
        JsonNode line = json("line", "Archive:logs/x");
        assertThat(line.path("points").get(1).path("heldBy").toString()).isEqualTo("[\"vault\"]");
        assertThat(run("erase", temp.resolve("desk/x").toString(), "--version", "1", "--yes"))
                .isEqualTo(2);
    }

    @Test
    void settingsAreSaidBeforeAndAfterAndWrongOnesRefused() {
        connect(outside.files(), "Server");
        assertThat(run("place", "create", "Server:common", "--set", "snapshot-keep=5"))
                .isZero();
        assertThat(run("snapshot", "take", "Server:common", "--label", "before pressing"))
                .as(err)
                .isZero();
        assertThat(run("place", "set", "Server:common", "--set", "snapshot-every=day", "--plan"))
                .isZero();
        assertThat(out).contains("Before:").contains("It would be:").contains("Each day the server takes a snapshot");
        assertThat(run("place", "set", "Server:common", "--set", "snapshot-every=fortnight"))
                .isEqualTo(2);
        assertThat(err).contains("hand, hour, day, week");
        assertThat(run("place", "set", "Server:common", "--set", "versioning=on"))
                .isEqualTo(2);
        assertThat(run("place", "set", "Server:common", "--member", "rana=editor"))
                .isEqualTo(2);
        assertThat(run("place", "set", "Server:nowhere", "--set", "snapshot-keep=2"))
                .isEqualTo(2);
        assertThat(run("place", "set", "Nobody:common", "--set", "snapshot-keep=2"))
                .isEqualTo(2);
    }

    @Test
    void membersComeAndGo() throws IOException {
        connect(outside.library(), "Library");
        run("place", "create", "Library:Minutes", "--member", "rana=reader", "--member", "tomas=editor");
        run("place", "set", "Library:Minutes", "--member", "rana=none", "--member", "jory=owner");
        String members = json("place", "list", "Library").get(0).path("members").toString();
        assertThat(members).contains("tomas").contains("jory").doesNotContain("rana");
    }

    @Test
    void aFolderIsBackedUpAndItsLineSaysSo() throws IOException {
        Files.writeString(desk.resolve("rota.csv"), "mon,ines\n");
        run("protect", desk.toString(), "--vault", temp.resolve("vault").toString());
        connect(outside.drive(), "Drive");
        assertThat(run("place", "create", "Drive:desk", "--backs-up", desk.toString()))
                .as(err)
                .isZero();
        assertThat(run("capture", "Drive:desk")).as(err).isZero();
        assertThat(out).contains("1 file in the run, 1 of them sent");
        assertThat(run("line", desk.resolve("rota.csv").toString())).isZero();
        assertThat(out).contains("vault, Drive:desk");

        outside.drive().plug(false);
        assertThat(run("capture")).isEqualTo(1);
        assertThat(err).contains("Drive is not plugged in");
        assertThat(run("line", desk.resolve("rota.csv").toString())).isZero();
        assertThat(run("systems")).isEqualTo(1);
    }

    @Test
    void aVersionFromAnotherSystemIsRestoredIntoTheFolder() throws IOException {
        Files.writeString(desk.resolve("rota.csv"), "mon,ines\n");
        run("protect", desk.toString(), "--vault", temp.resolve("vault").toString());
        connect(outside.files(), "Server");
        run("place", "create", "Server:common", "--same-as", desk.toString());
        run("put", file("s", "tue,rana\n"), "--as", "Server:common/rota.csv");
        assertThat(run("line", desk.resolve("rota.csv").toString())).isZero();
        assertThat(out).contains("in Server:common as 1").contains("Server:common only");
        assertThat(run(
                        "restore",
                        desk.resolve("rota.csv").toString(),
                        "--from",
                        "Server:common/rota.csv",
                        "--version",
                        "1"))
                .as(err)
                .isZero();
        assertThat(Files.readString(desk.resolve("rota.csv"))).isEqualTo("tue,rana\n");
        assertThat(run("line", desk.resolve("rota.csv").toString())).isZero();
        assertThat(out).contains("restored from elsewhere").contains("from Server:common, version 1");
        assertThat(run("undo")).isZero();
        assertThat(Files.readString(desk.resolve("rota.csv"))).isEqualTo("mon,ines\n");
    }

    @Test
    void aFileIsPutIntoAFolderAsTheNextVersionWithItsNote() throws IOException {
        Files.writeString(desk.resolve("rota.csv"), "mon,ines\n");
        run("protect", desk.toString(), "--vault", temp.resolve("vault").toString());
        String target = desk.resolve("rota.csv").toString();
        assertThat(run("put", file("n", "wed,jory\n"), "--as", target, "--note", "after the meeting"))
                .as(err)
                .isZero();
        assertThat(Files.readString(desk.resolve("rota.csv"))).isEqualTo("wed,jory\n");
        assertThat(run("line", target)).isZero();
        assertThat(out).contains("put in").contains("after the meeting");
        assertThat(run("put", file("n", "wed,jory\n"), "--as", target)).isZero();
        assertThat(out).contains("version 2");
        assertThat(run(
                        "put",
                        file("m", "new"),
                        "--as",
                        desk.resolve("new/file.txt").toString()))
                .as(err)
                .isZero();
        assertThat(Files.readString(desk.resolve("new/file.txt"))).isEqualTo("new");
        assertThat(run("undo")).isZero();
        assertThat(desk.resolve("new/file.txt")).doesNotExist();
        assertThat(run("put", temp.resolve("nothing").toString(), "--as", target))
                .isEqualTo(1);
        assertThat(run("put", desk.toString(), "--as", target)).isEqualTo(2);
    }

    @Test
    void whatWillBeForgottenIsTakenIntoTheVault() throws IOException {
        connect(outside.objects(), "Archive");
        run("place", "create", "Archive:logs", "--set", "expire-days=7");
        run("put", file("a", "one"), "--as", "Archive:logs/x");
        run("put", file("b", "two"), "--as", "Archive:logs/x");
        assertThat(run("take", "Archive:logs/x", "--soon", "--json")).as(err).isZero();
        assertThat(out).contains("x, version 1 of Archive:logs, is in the vault now");
        assertThat(run("take", "Archive:logs/x", "--soon")).isZero();
        assertThat(out).contains("already");
        assertThat(json("line", "Archive:logs/x")
                        .path("points")
                        .get(1)
                        .path("heldBy")
                        .toString())
                .contains("vault");
    }

    @Test
    void anAwaySystemIsShownAsItWasKnown() throws IOException {
        connect(outside.library(), "Library");
        run("place", "create", "Library:Minutes");
        run("put", file("a", "one"), "--as", "Library:Minutes/march.odt", "--yes");
        outside.library().faults().away(true);
        assertThat(run("list", "Library:Minutes")).isZero();
        assertThat(out).contains("march.odt");
        assertThat(err).contains("Library does not answer");
        assertThat(json("place", "list").get(0).path("state").asText()).isEqualTo("AWAY");
        assertThat(run("disconnect", "Library", "--json")).isZero();
        assertThat(run("disconnect", "Library")).isEqualTo(Outcome.NOT_CONNECTED.code());
    }
}
