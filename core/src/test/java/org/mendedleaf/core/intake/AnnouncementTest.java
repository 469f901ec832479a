package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Properties;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class AnnouncementTest {

    private static final Instant NOW = Instant.parse("2026-11-20T09:45:00Z");

    @TempDir
    Path temp;

    private static Announcement announcement(String file, String note) {
        return new Announcement(
                new Announcement.Person("Inès", ""),
                file,
                "Front desk › Lease",
                "4",
                NOW,
                "3 paragraphs",
                note,
                "Leases");
    }

    private MimeMessage read(Path file) throws Exception {
        try (InputStream in = Files.newInputStream(file)) {
            return new MimeMessage(Session.getInstance(new Properties()), in);
        }
    }

    @Test
    void eachMemberGetsAMessageThatAMailProgramReads() throws Exception {
        List<Announcement.Person> to = List.of(
                new Announcement.Person("Tomás", "tomas@orchard.example"),
                new Announcement.Person("Adele", "adele@orchard.example"));
        List<Path> written = announcement("Prés d’en bas.odt", "signed, at last – ünï")
                .write(to, temp.resolve("outbox"), NOW, ZoneOffset.UTC);
        assertThat(written).hasSize(2);
        if (Files.getFileStore(temp).supportsFileAttributeView("posix")) {
            for (Path path : List.of(temp.resolve("outbox"), written.get(0))) {
                assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(path)))
                        .as("who may read what is told: %s", path)
                        .endsWith("------");
            }
        }
        assertThat(written.get(0).getFileName()).hasToString("2026-11-20 094500 Tomás – Prés d’en bas.odt.eml");
        MimeMessage m = read(written.get(0));
        InternetAddress recipient = (InternetAddress) m.getAllRecipients()[0];
        assertThat(recipient.getAddress()).isEqualTo("tomas@orchard.example");
        assertThat(recipient.getPersonal()).isEqualTo("Tomás");
        assertThat(((InternetAddress) m.getFrom()[0]).getPersonal()).isEqualTo("Inès");
        assertThat(m.getSubject()).isEqualTo("Prés d’en bas.odt: version 4");
        assertThat(m.getSentDate().toInstant()).isEqualTo(NOW);
        assertThat(m.getMessageID()).isNotBlank();
        assertThat((String) m.getContent())
                .contains("Hello Tomás,")
                .contains("Inès put in version 4")
                .contains("What changed: 3 paragraphs.")
                .contains("signed, at last – ünï")
                .contains("Front desk › Lease")
                .contains("Filed under: Leases.");
        for (String line : Files.readAllLines(written.get(0))) {
            assertThat(line).matches("\\p{ASCII}*").hasSizeLessThanOrEqualTo(998);
        }
    }

    @Test
    void aNoteCannotSmuggleInAHeader() throws Exception {
        List<Path> written = announcement("a\r\nBcc: x@y.example\r\n.odt", "")
                .write(
                        List.of(new Announcement.Person("T", "t@orchard.example")),
                        temp.resolve("outbox"),
                        NOW,
                        ZoneOffset.UTC);
        assertThat(read(written.get(0)).getAllRecipients()).hasSize(1);
        assertThat(read(written.get(0)).getHeader("Bcc")).isNull();
    }

    @Test
    void twoOfOneNameStandBesideEachOther() throws Exception {
        List<Announcement.Person> to = List.of(new Announcement.Person("T", "t@orchard.example"));
        announcement("a.odt", "").write(to, temp, NOW, ZoneOffset.UTC);
        announcement("a.odt", "").write(to, temp, NOW, ZoneOffset.UTC);
        assertThat(temp).isDirectoryContaining("glob:**a.odt.eml").isDirectoryContaining("glob:**a.odt (2).eml");
    }

    @Test
    void withoutAnAddressNothingIsWritten() {
        List<Announcement.Person> to =
                List.of(new Announcement.Person("T", "t@orchard.example"), new Announcement.Person("Jory", ""));
        assertThatThrownBy(() -> announcement("a", "").write(to, temp.resolve("out"), NOW, ZoneOffset.UTC))
                .hasMessageContaining("No mail address is known of Jory");
        assertThat(temp.resolve("out")).doesNotExist();
        assertThatThrownBy(() -> new Announcement.Person("x", "no address")).hasMessageContaining("no mail address");
    }
}
