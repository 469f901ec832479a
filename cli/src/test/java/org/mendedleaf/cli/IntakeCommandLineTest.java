package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.Outcome;
import org.mendedleaf.cli.base.Surroundings;

/** Putting in revisions with nothing but the command line. */
class IntakeCommandLineTest extends TerminalTest {

    private static final String WORDS = "apples pears quinces medlars cherries plums damsons sloes walnuts hazels ";

    private static String text(int seed, int lines) {
        String[] words = WORDS.split(" ");
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < lines; i++) {
            for (int k = 0; k < 9; k++) {
                text.append(words[(seed * 7 + i * 3 + k * k * seed) % words.length])
                        .append(seed * 31 + i * k)
                        .append(' ');
            }
            text.append('\n');
        }
        return text.toString();
    }

    private String incoming(String name, String text) throws IOException {
        later(1);
        Path file = temp.resolve("in").resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        Files.setLastModifiedTime(file, FileTime.from(now));
        return file.toString();
    }

    @Test
    void aDoubtfulContentNeedsAYesAndNothingIsDoneWithoutIt() throws Exception {
        String ledger = save("ledger.txt", text(1, 20));
        protect();
        String wrong = incoming("ledger.txt", text(5, 20));
        assertThat(run("put", wrong, "--as", ledger)).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(err).contains("most likely the wrong file").contains("--yes");
        assertThat(Path.of(ledger)).hasContent(text(1, 20));
        assertThat(run("put", wrong, "--as", ledger, "--plan")).isEqualTo(1);
        assertThat(run("put", wrong, "--as", ledger, "--yes", "--note", "on purpose"))
                .isZero();
        assertThat(out).contains("ledger.txt is now version 2");
        String right = incoming("ledger (1).txt", text(5, 20) + "one more line\n");
        assertThat(run("put", right, "--as", ledger)).isZero();
        assertThat(run("put", right, "--as", ledger)).isZero();
        assertThat(out).contains("Nothing was put in");
        assertThat(run("undo")).isZero();
        assertThat(Path.of(ledger)).hasContent(text(5, 20));
    }

    @Test
    void atATerminalTheDoubtfulIsAskedAbout() throws Exception {
        String ledger = save("ledger.txt", text(1, 20));
        protect();
        String wrong = incoming("ledger.txt", text(5, 20));
        List<String> asked = new ArrayList<>();
        for (boolean answer : new boolean[] {false, true}) {
            StringWriter o = new StringWriter();
            PrintWriter to = new PrintWriter(o);
            Surroundings at = new Surroundings(
                    Map.of("MENDED_LEAF_HOME", temp.resolve("home").toString()),
                    Clock.fixed(now.plusSeconds(600), ZoneOffset.UTC),
                    to,
                    to,
                    Optional.of(question -> {
                        asked.add(question);
                        return answer;
                    }));
            int code = Main.run(new String[] {"put", wrong, "--as", ledger}, at);
            assertThat(code).isEqualTo(answer ? 0 : Outcome.NEEDS_YES.code());
        }
        assertThat(asked).hasSize(2);
        assertThat(Path.of(ledger)).hasContent(text(5, 20));
    }

    @Test
    void aFolderIsPutInAsAPlanAndThenInTruth() throws Exception {
        save("d/a.txt", text(1, 15));
        save("d/b.txt", text(2, 15));
        protect();
        incoming("drop/a final.txt", text(1, 15) + "more\n");
        incoming("drop/b.txt", text(9, 15));
        incoming("drop/c/new.txt", "new");
        String drop = temp.resolve("in/drop").toString();
        JsonNode plan = json("put", drop, "--into", desk.resolve("d").toString(), "--plan");
        assertThat(plan.findValuesAsText("fate")).containsExactly("NEW_VERSION", "UNSURE", "NEW_FILE");
        assertThat(desk.resolve("d/c")).doesNotExist();
        assertThat(run("put", drop, "--into", desk.resolve("d").toString())).isEqualTo(1);
        assertThat(err).contains("1 file was left out");
        assertThat(desk.resolve("d/a.txt")).hasContent(text(1, 15) + "more\n");
        assertThat(desk.resolve("d/b.txt")).hasContent(text(2, 15));
        assertThat(desk.resolve("d/c/new.txt")).hasContent("new");
        assertThat(run("put", drop, "--into", desk.resolve("d").toString(), "--yes"))
                .isZero();
        assertThat(desk.resolve("d/b.txt")).hasContent(text(9, 15));
    }

    @Test
    void draftsArePublishedAndReadersSeeOnlyThat() throws Exception {
        String lease = save("lease.txt", text(1, 10));
        protect();
        run("people", "Ines", "--works-here");
        assertThat(run("place", "set", desk.toString(), "--set", "numbering=drafts", "--member", "Tomas=editor"))
                .isZero();
        assertThat(out).contains("Changes are drafts (3.1, 3.2)").contains("Members: Tomas (editor)");
        String draft = incoming("lease.txt", text(1, 10) + "second\n");
        assertThat(run("put", draft, "--as", lease, "--draft")).isZero();
        assertThat(out).contains("now version 1.1");
        JsonNode reader = json("line", lease, "--working-as", "Adele");
        assertThat(reader.findValuesAsText("version")).containsExactly("1");
        assertThat(run("publish", lease, "--working-as", "Adele")).isEqualTo(Outcome.NOT_ALLOWED.code());
        assertThat(err).contains("Adele is a reader in desk and may not publish there");
        assertThat(run("publish", lease, "--note", "as signed")).isZero();
        assertThat(out).contains("published as version 2");
        assertThat(run("line", lease)).isZero();
        assertThat(out).contains("as signed").contains("published");
        assertThat(run("publish", lease)).isEqualTo(2);
        assertThat(run(
                        "copy",
                        lease,
                        "--version",
                        "2",
                        "--to",
                        temp.resolve("c").toString(),
                        "--working-as",
                        "Adele"))
                .isZero();
    }

    @Test
    void aFileIsCheckedOutByOneAndHandedBackAsOneVersion() throws Exception {
        String lease = save("lease.txt", text(1, 10));
        protect();
        assertThat(run("checkout", lease, "--working-as", "Tomas")).isZero();
        assertThat(json("checkout", desk.toString(), "--list").at("/0/who").asText())
                .isEqualTo("Tomas");
        String other = incoming("x.txt", text(1, 10) + "by Ines\n");
        assertThat(run("put", other, "--as", lease, "--working-as", "Ines")).isEqualTo(1);
        assertThat(err).contains("Tomas has lease.txt checked out");
        String mine = incoming("mine.txt", text(1, 10) + "by Tomas\n");
        assertThat(run("checkin", lease, "--with", mine, "--note", "done", "--working-as", "Tomas"))
                .isZero();
        assertThat(out).contains("checked in as version 2");
        assertThat(run("checkin", lease, "--working-as", "Tomas")).isEqualTo(2);
        run("checkout", lease, "--working-as", "Tomas");
        assertThat(run("checkin", lease, "--give-up", "--working-as", "Tomas")).isZero();
        assertThat(run("checkout", desk.toString(), "--list")).isZero();
        assertThat(out).contains("Nothing is checked out");
    }

    @Test
    void anEditBehindACheckOutIsAFindingInTheStatus() throws Exception {
        String lease = save("lease.txt", text(1, 10));
        protect();
        run("checkout", lease, "--working-as", "Tomas");
        save("lease.txt", "somebody else");
        run("capture", "--working-as", "Jory");
        assertThat(run("status")).isZero();
        assertThat(out).contains("Jory changed lease.txt in its folder while Tomas had it checked out");
        assertThat(json("line", lease).at("/findings/0").asText()).contains("version 1.1");
    }

    @Test
    void notesAndCommentsAreWrittenShownAndFound() throws Exception {
        String lease = save("lease.txt", "one");
        protect();
        assertThat(run("note", lease, "as sent to the owner", "--category", "Leases"))
                .isZero();
        assertThat(run("note", lease, "he called back", "--comment", "--working-as", "Tomas"))
                .isZero();
        assertThat(run("note", lease)).isZero();
        assertThat(out)
                .contains("Filed under \"Leases\"")
                .contains("as sent to the owner")
                .contains("Tomas");
        assertThat(json("note", desk.toString(), "--find", "CALLED")
                        .at("/0/words")
                        .asText())
                .isEqualTo("he called back");
        assertThat(run("note", lease, "--version", "9", "x")).isEqualTo(2);
        assertThat(run("undo")).isZero();
        assertThat(json("note", lease).at("/versions/0/note").asText()).isEmpty();
    }

    @Test
    void scatteredCopiesAreFoldedAndComeBack() throws Exception {
        save("plan v1.txt", text(1, 15));
        save("plan v2 FINAL.txt", text(1, 15) + "two\n");
        save("plan (1).txt", text(1, 15) + "two\nthree\n");
        save("other.txt", text(4, 9));
        protect();
        assertThat(run("fold", desk.toString(), "--plan")).isZero();
        assertThat(out).contains("plan.txt, 3 versions").contains("% in common");
        assertThat(desk.resolve("plan v1.txt")).exists();
        assertThat(run("fold", desk.toString())).isZero();
        assertThat(desk.resolve("plan.txt")).hasContent(text(1, 15) + "two\nthree\n");
        assertThat(desk.resolve("plan v1.txt")).doesNotExist();
        assertThat(run("fold", desk.toString())).isZero();
        assertThat(out).contains("no scattered copies");
        assertThat(run("undo")).isZero();
        assertThat(desk.resolve("plan v1.txt")).exists();
        assertThat(desk.resolve("plan.txt")).doesNotExist();
        assertThat(run("fold", desk.toString(), "--only", "nothing.txt")).isEqualTo(2);
    }

    @Test
    void safetyCopiesAreShownAndTakenIn() throws Exception {
        String plan = save("plan.txt", text(1, 15));
        protect();
        save("plan.txt.bak", text(1, 15) + "kept by the program\n");
        assertThat(run("strays", desk.toString())).isZero();
        assertThat(out).contains("plan.txt.bak").contains("of plan.txt");
        assertThat(run("strays", desk.toString(), "--adopt")).isZero();
        assertThat(Path.of(plan)).hasContent(text(1, 15) + "kept by the program\n");
        assertThat(run("strays", desk.toString(), "--adopt")).isZero();
        assertThat(out).contains("nothing to take in");
        run("remove", plan);
        assertThat(json("strays", desk.toString()).at("/0/present").asBoolean()).isFalse();
        assertThat(run("strays", desk.toString(), "--adopt", "--take")).isZero();
        assertThat(out).contains("plan.txt is back");
        assertThat(desk.resolve("plan.txt.bak")).doesNotExist();
        assertThat(run("undo")).isZero();
        assertThat(desk.resolve("plan.txt.bak")).exists();
    }

    @Test
    void peopleAreToldByFilesInTheOutboxAndNobodyElseIs() throws Exception {
        String lease = save("lease.txt", text(1, 10));
        protect();
        run("people", "Tomas", "--mail", "tomas@orchard.example");
        assertThat(run("people", "Tomas", "--mail", "not an address")).isEqualTo(2);
        String next = incoming("lease.txt", text(1, 10) + "more\n");
        assertThat(run("put", next, "--as", lease, "--tell", "Tomas", "--note", "signed"))
                .isZero();
        try (var messages = Files.list(temp.resolve("home/outbox"))) {
            assertThat(messages)
                    .singleElement()
                    .satisfies(m -> assertThat(Files.readString(m))
                            .contains("To: Tomas <tomas@orchard.example>")
                            .contains("signed"));
        }
        String again = incoming("lease.txt", text(1, 10) + "more and more\n");
        assertThat(run("put", again, "--as", lease, "--tell", "Jory")).isEqualTo(2);
        assertThat(err).contains("No mail address is known of Jory");
        assertThat(Files.readString(Path.of(lease))).as("nothing is half done").isEqualTo(text(1, 10) + "more\n");
        assertThat(json("line", lease).at("/points")).hasSize(2);
    }

    @Test
    void whatCannotBeToldLeavesWhatWasPutInAndSaysSo() throws Exception {
        String lease = save("lease.txt", text(1, 10));
        protect();
        run("people", "Tomas", "--mail", "tomas@orchard.example");
        Files.writeString(temp.resolve("home/outbox"), "no folder");
        String next = incoming("lease.txt", text(1, 10) + "more\n");
        assertThat(run("put", next, "--as", lease, "--tell", "Tomas")).isEqualTo(1);
        assertThat(err).contains("lease.txt is in, but what should follow was not done");
        assertThat(out).contains("version 2");
        assertThat(Files.readString(Path.of(lease))).endsWith("more\n");
    }

    @Test
    void peopleAreToldOfEachOfManyFilesThatGoIn() throws Exception {
        save("lease.txt", text(1, 10));
        save("plan.txt", text(20, 30));
        protect();
        run("people", "Tomas", "--mail", "tomas@orchard.example");
        String one = incoming("lease.txt", text(1, 10) + "more\n");
        String two = incoming("plan.txt", text(20, 30) + "more\n");
        assertThat(run("put", one, two, "--into", desk.toString(), "--tell", "Tomas", "--category", "contracts"))
                .isZero();
        try (var messages = Files.list(temp.resolve("home/outbox"))) {
            assertThat(messages).hasSize(2);
        }
        assertThat(run("note", desk.resolve("plan.txt").toString())).isZero();
        assertThat(out).contains("contracts");
    }

    @Test
    void aNameThatIsTakenIsDealtWithAsChosenAlsoForOneFile() throws Exception {
        String lease = save("lease.txt", text(1, 10));
        protect();
        String next = incoming("lease.txt", text(1, 10) + "more\n");
        assertThat(run("put", next, "--as", lease, "--on-taken", "skip")).isZero();
        assertThat(out).contains("lease.txt is there already. Nothing was put in.");
        assertThat(run("put", next, "--as", lease, "--on-taken", "keep-both")).isZero();
        assertThat(Files.readString(Path.of(lease))).isEqualTo(text(1, 10));
        assertThat(Files.readString(desk.resolve("lease (2).txt"))).endsWith("more\n");
        assertThat(run("put", next, "--as", lease, "--on-taken", "keep-both")).isZero();
        assertThat(desk.resolve("lease (3).txt")).exists();
        assertThat(run("put", next, "--as", lease, "--on-taken", "whatever")).isEqualTo(2);
        assertThat(run("put", next, "--as", lease, "--on-taken", "version", "--yes"))
                .isZero();
        assertThat(json("line", lease).at("/points")).hasSize(2);
    }

    @Test
    void whatCameLastIsListedWithTheLikelyOnesFirst() throws Exception {
        incoming("lease (1).txt", "x");
        incoming("other.txt", "y");
        assertThat(run("arrivals", "--folders", temp.resolve("in").toString())).isZero();
        JsonNode found = json("arrivals", "--for", "lease.txt");
        assertThat(found.at("/0/likely").asBoolean()).isTrue();
        assertThat(found).hasSize(2);
    }

    private static String message(String from, String subject, String name, String content) {
        return "From: " + from + "\nSubject: " + subject
                + "\nDate: Mon, 4 May 2026 08:30:00 +0000\nMIME-Version: 1.0\n"
                + "Content-Type: multipart/mixed; boundary=\"b1\"\n\n--b1\nContent-Type: text/plain\n\nHere it is.\n"
                + "--b1\nContent-Disposition: attachment; filename=\"" + name + "\"\n\n" + content + "\n--b1--\n";
    }

    @Test
    void whatCameByMailGoesOntoItsLineWithItsSenderAndSubject() throws Exception {
        String ledger = save("ledger.txt", text(1, 20));
        protect();
        later(5);
        Path mail = Files.createDirectories(temp.resolve("Mail/cur"));
        Files.createDirectories(temp.resolve("Mail/new"));
        Files.writeString(
                mail.resolve("1.host:2,S"),
                message(
                        "Jory Penrose <jory@orchard.example>",
                        "The ledger as agreed",
                        "Ledger 2.txt",
                        text(1, 20) + "more"));
        assertThat(run("people", "Jory", "--mail", "jory@orchard.example")).isZero();
        assertThat(run("arrivals", "--folders", temp.resolve("Mail").toString()))
                .isZero();
        assertThat(out).contains("Ledger 2.txt").contains("from Jory: The ledger as agreed");
        assertThat(json("arrivals").at("/0/subject").asText()).isEqualTo("The ledger as agreed");
        assertThat(run("put", "--arrived", "plan.txt", "--as", ledger)).isEqualTo(2);
        assertThat(err).contains("Nothing called plan.txt came into");
        assertThat(run("put", "--arrived", "Ledger 2.txt", "--as", ledger, "--take"))
                .isEqualTo(2);
        assertThat(run("put", "--arrived", "ledger 2.txt", "--as", ledger)).isZero();
        assertThat(out)
                .contains("came by mail from Jory: The ledger as agreed")
                .contains("ledger.txt is now version 2");
        assertThat(run("line", ledger)).isZero();
        assertThat(out).contains("Jory").contains("The ledger as agreed");
        assertThat(mail.resolve("1.host:2,S")).as("the message stays").exists();
        assertThat(run("put", "--arrived", "x", "y", "--as", ledger)).isEqualTo(2);
        assertThat(run("put", "--arrived", "x", "--into", desk.toString())).isEqualTo(2);
    }

    @Test
    void wrongUseIsSaid() throws Exception {
        String a = save("a.txt", "x");
        protect();
        assertThat(run("put", a)).isEqualTo(2);
        assertThat(run("put", a, "--as", a, "--into", desk.toString())).isEqualTo(2);
        assertThat(run("put", a, "--as", a, "--draft", "--publish")).isEqualTo(2);
        assertThat(run("put", a, "--as", a, "--draft")).isEqualTo(2);
        assertThat(run("put", temp.resolve("nowhere").toString(), "--as", a)).isEqualTo(1);
        assertThat(run("place", "set", desk.toString(), "--set", "expire-days=3"))
                .isEqualTo(2);
    }

    @Test
    void whatArrivedIsLikelyByItsContentAndNotByItsNameAlone() throws IOException {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 60; i++) {
            text.append("Row ")
                    .append(i * 37 % 61)
                    .append(" was pruned by hand on day ")
                    .append(i)
                    .append(".\n");
        }
        String file = save("plan.txt", text.toString());
        assertThat(protect()).isZero();
        save("plan.txt", text + "And watered.\n");
        assertThat(run("capture")).isZero();
        Path down = Files.createDirectory(temp.resolve("down"));
        Files.writeString(down.resolve("scan0001.txt"), text);
        Files.writeString(down.resolve("from Wilma.txt"), text + "And watered.\nAnd fed.\n");
        Files.writeString(down.resolve("plan.txt"), "%PDF-1.7 something else altogether under the right name");
        Files.writeString(down.resolve("other.txt"), "Nothing to do with it.\n".repeat(50));
        JsonNode all = json("arrivals", "--folders", down.toString(), "--for", file);
        java.util.Map<String, Boolean> likely = new java.util.TreeMap<>();
        all.forEach(a -> likely.put(
                Path.of(a.get("file").asText()).getFileName().toString(),
                a.get("likely").asBoolean()));
        assertThat(likely)
                .containsEntry("scan0001.txt", true)
                .containsEntry("from Wilma.txt", true)
                .containsEntry("plan.txt", false)
                .containsEntry("other.txt", false);
        assertThat(run("arrivals", "--for", temp.resolve("nowhere/plan.txt").toString()))
                .as("a file that nobody keeps has its name only")
                .isZero();
    }

    @Test
    void whatProgramsKeepInAFolderIsCountedAndNotPutIn() throws IOException {
        save("a.txt", "a");
        assertThat(protect()).isZero();
        Path in = Files.createDirectories(temp.resolve("in/.versions")).getParent();
        Files.writeString(in.resolve("b.txt"), "b");
        Files.writeString(in.resolve("Thumbs.db"), "x");
        Files.writeString(in.resolve("~$b.docx"), "x");
        Files.writeString(in.resolve(".versions/b.txt,1"), "older");
        assertThat(run("put", in.toString(), "--into", desk.toString(), "--plan"))
                .isZero();
        assertThat(out)
                .contains("1 new file", "3 left out", "3 are left out as files of programs", ".versions/", "Thumbs.db");
        assertThat(run("put", in.toString(), "--into", desk.toString())).isZero();
        assertThat(desk.resolve("b.txt")).exists();
        assertThat(desk.resolve(".versions")).doesNotExist();
        assertThat(run("put", in.toString(), "--into", desk.toString(), "--hidden"))
                .isZero();
        assertThat(desk.resolve(".versions/b.txt,1")).hasContent("older");
    }
}
