package org.mendedleaf.core.intake;

import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UnsupportedEncodingException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Locale;
import java.util.Properties;
import java.util.UUID;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Tells people of a new version: a message each (RFC 5322, with MIME, RFC 2045) as a file in a folder, for their own mail
 * program to send. Nothing leaves this computer by itself.
 *
 * @param from who tells it
 * @param file name of the file
 * @param where it is, as a message
 * @param label of the version
 * @param saved when that was saved
 * @param change what changed against the version before, as a message; may be empty
 * @param note of the version; may be empty
 * @param category it is filed under; may be empty
 */
public record Announcement(
        Person from,
        String file,
        String where,
        String label,
        Instant saved,
        String change,
        String note,
        String category) {

    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyy-MM-dd HHmmss", Locale.ROOT);

    /** What stands for the address of somebody who has none; no such domain can exist (RFC 2606). */
    private static final String NOWHERE = "@unknown.invalid";

    /**
     * Somebody with their address.
     *
     * @param address as in RFC 5322; empty when none is known
     */
    public record Person(String name, String address) {
        /**
         * Checks the address.
         *
         * @throws IllegalArgumentException with a message for the user
         */
        public Person {
            if (!address.isEmpty()) {
                try {
                    new InternetAddress(address, true).validate();
                } catch (MessagingException e) {
                    throw new IllegalArgumentException(Words.of("people.badAddress", address), e);
                }
            }
        }
    }

    /**
     * Writes a message for each.
     *
     * @param outbox folder that they are written into; made when it is not there
     * @return the files
     * @throws IllegalArgumentException with a message for the user, when somebody has no address; then none is written
     */
    public List<Path> write(List<Person> to, Path outbox, Instant now, ZoneId zone) throws IOException {
        for (Person p : to) {
            if (p.address().isEmpty()) {
                throw new IllegalArgumentException(Words.of("people.noAddress", p.name()));
            }
        }
        Access.OWNER.createFolders(outbox);
        List<Path> written = new ArrayList<>();
        for (Person p : to) {
            byte[] message = message(p, now, zone);
            Path beside = Files.createTempFile(outbox, ".message", ".part");
            try {
                Files.write(beside, message);
                written.add(place(
                        beside, outbox, STAMP.format(now.atZone(zone)) + " " + plain(p.name()) + " – " + plain(file)));
            } finally {
                Files.deleteIfExists(beside);
            }
        }
        return written;
    }

    private static Path place(Path beside, Path outbox, String name) throws IOException {
        for (int i = 1; ; i++) {
            Path target = outbox.resolve(name + (i == 1 ? "" : " (" + i + ")") + ".eml");
            try {
                if (Files.exists(target)) {
                    continue;
                }
                return Files.move(beside, target, StandardCopyOption.ATOMIC_MOVE);
            } catch (FileAlreadyExistsException e) {
                org.slf4j.LoggerFactory.getLogger(Announcement.class).trace("the next number then", e);
            }
        }
    }

    /** A name without what no file name holds. */
    private static String plain(String name) {
        String plain = name.replaceAll("[\\p{Cntrl}/\\\\:*?\"<>|]", " ").strip();
        return plain.length() > 80 ? plain.substring(0, 80) : plain;
    }

    private byte[] message(Person to, Instant now, ZoneId zone) {
        try {
            MimeMessage message = new MimeMessage(Session.getInstance(new Properties())) {
                @Override
                protected void updateMessageID() throws MessagingException {
                    setHeader("Message-ID", "<" + UUID.randomUUID() + NOWHERE + ">");
                }
            };
            String own = from.address().isEmpty()
                    ? from.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-") + NOWHERE
                    : from.address();
            message.setFrom(new InternetAddress(own, from.name(), "UTF-8"));
            message.setRecipient(Message.RecipientType.TO, new InternetAddress(to.address(), to.name(), "UTF-8"));
            message.setSubject(Words.of("mail.subject", file, label), "UTF-8");
            message.setSentDate(Date.from(now));
            message.setText(text(to, zone), "UTF-8");
            if (!category.isEmpty()) {
                message.setHeader("Keywords", jakarta.mail.internet.MimeUtility.encodeText(category, "UTF-8", null));
            }
            message.saveChanges();
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            message.writeTo(out);
            return out.toByteArray();
        } catch (MessagingException | UnsupportedEncodingException e) {
            throw new IllegalStateException("a message of plain text can be written", e);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private String text(Person to, ZoneId zone) {
        StringBuilder text = new StringBuilder();
        text.append(Words.of("mail.hello", to.name())).append("\n\n");
        text.append(Words.of("mail.what", from.name(), label, file, Formats.full(saved, zone)))
                .append('\n');
        if (!change.isEmpty()) {
            text.append(Words.of("mail.change", change)).append('\n');
        }
        if (!note.isEmpty()) {
            text.append('\n').append(note).append("\n");
        }
        text.append('\n').append(Words.of("mail.where", where)).append('\n');
        if (!category.isEmpty()) {
            text.append(Words.of("mail.category", category)).append('\n');
        }
        return text.toString();
    }
}
