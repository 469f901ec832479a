package org.mendedleaf.sample;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.Base64;
import java.util.List;
import java.util.Locale;

/** Messages with attachments, as a mail program saves them (RFC 5322, RFC 2046). */
final class Mails {

    private Mails() {}

    /** A file that goes with a message. */
    record Attachment(String name, String type, byte[] content) {}

    static byte[] mail(String from, String to, String subject, Instant sent, List<String> text, List<Attachment> with) {
        String date =
                DateTimeFormatter.RFC_1123_DATE_TIME.withLocale(Locale.ROOT).format(sent.atZone(Office.ZONE));
        StringBuilder mail = new StringBuilder();
        line(mail, "From: " + from + " <" + from.toLowerCase(Locale.ROOT).replace(' ', '.') + "@orchard.example>");
        line(mail, "To: " + to + " <" + to.toLowerCase(Locale.ROOT).replace(' ', '.') + "@orchard.example>");
        line(mail, "Subject: " + subject);
        line(mail, "Date: " + date);
        line(mail, "MIME-Version: 1.0");
        line(mail, "Content-Type: multipart/mixed; boundary=\"part\"");
        line(mail, "");
        line(mail, "--part");
        line(mail, "Content-Type: text/plain; charset=utf-8");
        line(mail, "Content-Transfer-Encoding: 8bit");
        line(mail, "");
        text.forEach(l -> line(mail, l));
        for (Attachment each : with) {
            line(mail, "--part");
            line(mail, "Content-Type: " + each.type() + "; name=\"" + each.name() + "\"");
            line(mail, "Content-Disposition: attachment; filename=\"" + each.name() + "\"");
            line(mail, "Content-Transfer-Encoding: base64");
            line(mail, "");
            line(mail, Base64.getMimeEncoder().encodeToString(each.content()));
        }
        line(mail, "--part--");
        return mail.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static void line(StringBuilder mail, String text) {
        mail.append(text).append("\r\n");
    }
}
