package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The files in messages that are kept as files are among what came, and say who sent them. */
class MailArrivalsTest {

    private static final Instant NOW = Instant.parse("2026-05-04T10:00:00Z");

    @TempDir
    Path temp;

    private Path mail;

    @BeforeEach
    void make() throws IOException {
        mail = Files.createDirectories(temp.resolve("Mail"));
    }

    /** A message with a text and one file. */
    static String message(String from, String subject, String time, String name, String content) {
        return "From: " + from + "\nTo: Ines <ines@orchard.example>\nSubject: " + subject
                + "\nDate: Mon, 4 May 2026 " + time + ":00 +0000\nMIME-Version: 1.0\n"
                + "Content-Type: multipart/mixed; boundary=\"b1\"\n\n"
                + "--b1\nContent-Type: text/plain; charset=utf-8\n\nHere it is.\nFrom here on it is yours.\n"
                + "--b1\nContent-Type: application/octet-stream; name=\"" + name + "\"\n"
                + "Content-Disposition: attachment; filename=\"" + name + "\"\nContent-Transfer-Encoding: base64\n\n"
                + Base64.getMimeEncoder().encodeToString(content.getBytes(StandardCharsets.UTF_8))
                + "\n--b1--\n";
    }

    private List<Arrivals.Arrival> look(Path folder, String wanted) {
        return Arrivals.look(List.of(folder), wanted, 50, NOW);
    }

    private static List<String> said(List<Arrivals.Arrival> all) {
        return all.stream()
                .map(a -> a.name() + " from "
                        + a.mail().map(Arrivals.Mail::from).orElse("nobody") + ": "
                        + a.mail().map(Arrivals.Mail::subject).orElse(""))
                .toList();
    }

    @Test
    void theFilesOfMessagesInAFolderCameAndTheMessagesDidNot() throws IOException {
        Files.writeString(
                mail.resolve("1.eml"),
                message("Jory Penrose <jory@orchard.example>", "The lease", "08:00", "lease.txt", "one"));
        Files.writeString(
                mail.resolve("2.eml"),
                message(
                        "=?utf-8?q?Wilma_Gr=C3=BCn?= <w@x.example>",
                        "=?utf-8?q?Pl=C3=A4ne?=",
                        "09:00",
                        "plan.txt",
                        "two"));
        Files.writeString(mail.resolve("3.eml"), "From: a@b.example\nSubject: only words\n\nNo file here.\n");
        Files.writeString(mail.resolve("notes.txt"), "beside it");
        List<Arrivals.Arrival> all = look(mail, "lease.txt");
        assertThat(said(all).subList(0, 1)).containsExactly("lease.txt from Jory Penrose: The lease");
        assertThat(all.get(0).likely()).isTrue();
        assertThat(said(all))
                .containsExactlyInAnyOrder(
                        "lease.txt from Jory Penrose: The lease",
                        "plan.txt from Wilma Grün: Pläne",
                        "notes.txt from nobody: ");
        assertThat(all.get(0).came()).isEqualTo(Instant.parse("2026-05-04T08:00:00Z"));
        assertThat(all.get(0).size()).isEqualTo(3);
        assertThat(all.get(0).content()).hasContent("one").hasFileName("lease.txt");
        assertThat(Files.getLastModifiedTime(all.get(0).content()))
                .as("the file is as old as the message")
                .isEqualTo(FileTime.from(all.get(0).came()));
        assertThat(all.get(0).content())
                .as("it is written once")
                .isEqualTo(all.get(0).content());
    }

    @Test
    void aMaildirHasItsMessagesInNewAndCur() throws IOException {
        for (String name : List.of("cur", "new", "tmp")) {
            Files.createDirectories(mail.resolve(name));
        }
        Files.writeString(mail.resolve("cur/1.host:2,S"), message("a@x.example", "old", "07:00", "a.txt", "a"));
        Files.writeString(mail.resolve("new/2.host"), message("b@x.example", "new", "08:00", "b.txt", "b"));
        Files.writeString(mail.resolve("tmp/3.host"), message("c@x.example", "half written", "09:00", "c.txt", "c"));
        assertThat(said(look(mail, ""))).containsExactly("b.txt from b@x.example: new", "a.txt from a@x.example: old");
        Files.move(mail.resolve("new/2.host"), mail.resolve("cur/2.host:2,S"));
        assertThat(said(look(mail, ""))).as("read meanwhile").hasSize(2);
    }

    @Test
    void anMboxHasItsMessagesOneAfterAnother() throws IOException {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < 100; i++) {
            all.append("From someone Mon May  4 08:00:00 2026\n")
                    .append(message(
                            "p" + i + "@x.example",
                            "number " + i,
                            String.format("%02d:%02d", i / 60, i % 60),
                            "f" + i + ".txt",
                            "content " + i))
                    .append('\n');
        }
        Path box = mail.resolve("Inbox");
        Files.writeString(box, all);
        Files.writeString(mail.resolve("Inbox.index"), "From no message");
        List<Arrivals.Arrival> inFolder = look(mail, "");
        assertThat(said(inFolder)).contains("f99.txt from p99@x.example: number 99", "Inbox.index from nobody: ");
        assertThat(said(inFolder)).as("only the newest").doesNotContain("f0.txt from p0@x.example: number 0");
        List<Arrivals.Arrival> alone = look(box, "");
        assertThat(alone).as("the file itself can be named").hasSize(50);
        assertThat(alone.get(0).content()).hasContent(alone.get(0).name().replaceAll("f(\\d+).txt", "content $1"));
        Files.writeString(
                box,
                "From x\n" + message("q@x.example", "later", "09:00", "late.txt", "late") + "\n",
                java.nio.file.StandardOpenOption.APPEND);
        assertThat(said(look(box, ""))).contains("late.txt from q@x.example: later");
    }

    @Test
    void aFolderInWhichNoNameCameOrWentIsNotListedAgainAndAnyOtherIs() throws IOException {
        FileTime old = FileTime.from(Instant.now().minusSeconds(1000));
        for (String name : List.of("cur", "new")) {
            Files.createDirectories(mail.resolve(name));
        }
        Files.writeString(mail.resolve("cur/1.host:2,S"), message("a@x.example", "one", "07:00", "a.txt", "a"));
        for (Path folder : List.of(mail.resolve("cur"), mail.resolve("new"), mail)) {
            Files.setLastModifiedTime(folder, old);
        }
        assertThat(said(look(mail, ""))).hasSize(1);
        Files.writeString(mail.resolve("cur/2.host:2,S"), message("b@x.example", "two", "08:00", "b.txt", "b"));
        Files.setLastModifiedTime(mail.resolve("cur"), old);
        assertThat(said(look(mail, ""))).as("its time says that nothing came").hasSize(1);
        Files.setLastModifiedTime(mail.resolve("cur"), FileTime.from(Instant.now()));
        assertThat(said(look(mail, ""))).hasSize(2);
    }

    @Test
    void picturesOfTheTextAndDamagedMessagesBringNothing() throws IOException {
        Files.writeString(
                mail.resolve("1.eml"),
                "From: a@x.example\nSubject: s\nMIME-Version: 1.0\nContent-Type: multipart/related; boundary=b\n\n"
                        + "--b\nContent-Type: text/html\n\n<img src=\"cid:1\">\n"
                        + "--b\nContent-Type: image/png; name=\"logo.png\"\nContent-ID: <1>\n"
                        + "Content-Disposition: inline; filename=\"logo.png\"\n\nx\n--b--\n");
        Files.writeString(
                mail.resolve("2.eml"), "Content-Type: multipart/mixed; boundary=\"never\"\n\nname= nothing ends here");
        byte[] noise = new byte[3000];
        new java.util.Random(7).nextBytes(noise);
        Files.write(mail.resolve("3.eml"), noise);
        Files.writeString(mail.resolve("4.eml"), message("", "=?broken?", "08:00", "../../up.txt", "up"));
        List<Arrivals.Arrival> all = look(mail, "");
        assertThat(said(all)).containsExactly("../../up.txt from : =?broken?");
        assertThat(all.get(0).content().getFileName())
                .as("no way out of its folder")
                .hasToString(".._.._up.txt");
    }

    @Test
    void twoFilesOfOneNameInOneMessageAreTwo() throws IOException {
        String one = message("a@x.example", "both", "08:00", "a.txt", "first");
        String part = one.substring(one.indexOf("--b1\nContent-Type: application"), one.indexOf("--b1--"));
        Files.writeString(
                mail.resolve("1.eml"),
                one.replace(
                        "--b1--\n",
                        part.replace(
                                        Base64.getMimeEncoder()
                                                .encodeToString("first".getBytes(StandardCharsets.UTF_8)),
                                        Base64.getMimeEncoder()
                                                .encodeToString("second".getBytes(StandardCharsets.UTF_8)))
                                + "--b1--\n"));
        List<String> contents = new ArrayList<>();
        for (Arrivals.Arrival a : look(mail, "")) {
            contents.add(Files.readString(a.content()));
        }
        assertThat(contents).containsExactlyInAnyOrder("first", "second");
    }

    @Test
    void whoSentItIsCalledAsHere() throws IOException {
        Files.writeString(mail.resolve("1.eml"), message("J. P. <JORY@orchard.example>", "s", "08:00", "a.txt", "a"));
        Arrivals.Mail sent = look(mail, "").get(0).mail().orElseThrow();
        assertThat(sent.author(Map.of("Jory", "jory@orchard.example"))).isEqualTo("Jory");
        assertThat(sent.author(Map.of("Jory", "other@orchard.example"))).isEqualTo("J. P.");
    }
}
