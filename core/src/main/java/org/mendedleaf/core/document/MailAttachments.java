package org.mendedleaf.core.document;

import jakarta.mail.Address;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/** The files in a message, who sent it and what about. Pictures that belong to its text are none. */
final class MailAttachments {

    private static final int DEEPEST = 20;
    private static final int MOST = 200;

    /** So much of a subject is a note. Characters. */
    private static final int SUBJECT_MOST = 200;

    private final Limits limits;
    private final int wanted;
    private final List<MailMessage.Attachment> found = new ArrayList<>();
    private byte @Nullable [] content;
    private int parts;

    private MailAttachments(Limits limits, int wanted) {
        this.limits = limits;
        this.wanted = wanted;
    }

    static MailMessage read(byte[] bytes, Limits limits) throws IOException {
        MimeMessage message = MailReader.parse(bytes);
        MailAttachments all = new MailAttachments(limits, -1);
        try {
            all.part(message, 0);
            Date sent = message.getSentDate();
            InternetAddress from = from(message);
            String address = from == null || from.getAddress() == null ? "" : from.getAddress();
            String name = from == null || from.getPersonal() == null ? "" : oneLine(from.getPersonal());
            return new MailMessage(
                    name.isEmpty() ? address : name,
                    address,
                    shortened(oneLine(message.getSubject() == null ? "" : message.getSubject())),
                    sent == null ? 0 : sent.getTime(),
                    all.found);
        } catch (MessagingException e) {
            throw new DocumentException(Words.of("document.damaged"), e);
        }
    }

    private static @Nullable InternetAddress from(MimeMessage message) throws MessagingException {
        try {
            Address[] all = message.getFrom();
            return all != null && all.length > 0 && all[0] instanceof InternetAddress a ? a : null;
        } catch (AddressException e) {
            // Who wrote that is not told; the files are there all the same.
            return null;
        }
    }

    private static String oneLine(String text) {
        return text.replaceAll("\\p{Cntrl}+", " ").replaceAll("\\s+", " ").strip();
    }

    private static String shortened(String text) {
        return text.codePointCount(0, text.length()) <= SUBJECT_MOST
                ? text
                : text.substring(0, text.offsetByCodePoints(0, SUBJECT_MOST));
    }

    /** The content of a file in a message by its index. */
    static byte[] content(byte[] bytes, int index, Limits limits) throws IOException {
        MailAttachments all = new MailAttachments(limits, index);
        try {
            all.part(MailReader.parse(bytes), 0);
        } catch (MessagingException e) {
            throw new DocumentException(Words.of("document.damaged"), e);
        }
        byte[] content = all.content;
        if (content == null) {
            throw new DocumentException(Words.of("document.noPart", index));
        }
        return content;
    }

    private void part(Part part, int deep) throws IOException, MessagingException {
        if (deep > DEEPEST) {
            throw new DocumentException(Words.of("document.tooDeep"));
        }
        if (part.isMimeType("multipart/*") && part.getContent() instanceof Multipart all) {
            for (int i = 0; i < all.getCount() && parts < MOST; i++) {
                part(all.getBodyPart(i), deep + 1);
            }
            return;
        }
        int index = parts++;
        String name = MailReader.name(part);
        if (name.isEmpty() || isOfTheText(part) || wanted >= 0 && wanted != index) {
            return;
        }
        long[] left = {limits.unpacked()};
        try (InputStream in = new Parts.Limited(part.getInputStream(), left)) {
            if (wanted >= 0) {
                content = in.readAllBytes();
            } else {
                found.add(new MailMessage.Attachment(
                        index, name, in.transferTo(java.io.OutputStream.nullOutputStream())));
            }
        }
    }

    /** Whether it is a picture that the text shows. */
    private static boolean isOfTheText(Part part) throws MessagingException {
        String[] id = part.getHeader("Content-ID");
        return id != null
                && id.length > 0
                && part.isMimeType("image/*")
                && !Part.ATTACHMENT.equalsIgnoreCase(part.getDisposition());
    }
}
