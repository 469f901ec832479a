package org.mendedleaf.core.document;

import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeUtility;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UnsupportedEncodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;
import java.util.zip.CRC32;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Messages (RFC 5322 and 2045): header, body and attachments, which are members that can be read. */
final class MailReader {

    private static final List<String> SHOWN = List.of("From", "To", "Cc", "Date", "Subject");

    private final Limits limits;
    private final List<Block> body = new ArrayList<>();
    private final List<Block> attachments = new ArrayList<>();
    private int depth;

    private MailReader(Limits limits) {
        this.limits = limits;
    }

    static MimeMessage parse(byte[] content) throws IOException {
        try {
            return new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(content));
        } catch (MessagingException e) {
            throw new DocumentException(Words.of("document.damaged"), e);
        }
    }

    static Document read(byte[] content, Limits limits) throws IOException {
        MimeMessage message = parse(content);
        MailReader reader = new MailReader(limits);
        try {
            List<Block> header = new ArrayList<>();
            for (String name : SHOWN) {
                String[] values = message.getHeader(name);
                if (values != null) {
                    String value = decoded(String.join(", ", values));
                    header.add(Block.of(Style.FACT, 0, name + "\t" + value));
                }
            }
            reader.part(message);
            return new Document.Prose(
                    Form.MAIL,
                    List.of(
                            new Section(Words.of("document.mail.header"), header),
                            new Section(Words.of("document.mail.body"), reader.body),
                            new Section(Words.of("document.mail.attachments"), reader.attachments)),
                    false);
        } catch (MessagingException e) {
            throw new DocumentException(Words.of("document.damaged"), e);
        }
    }

    private static String decoded(String header) {
        try {
            return MimeUtility.decodeText(MimeUtility.unfold(header));
        } catch (UnsupportedEncodingException e) {
            return header;
        }
    }

    private void part(Part part) throws IOException, MessagingException {
        if (++depth > 20) {
            throw new DocumentException(Words.of("document.tooDeep"));
        }
        String name = name(part);
        if (part.isMimeType("multipart/alternative") && part.getContent() instanceof Multipart all) {
            alternative(all);
        } else if (part.getContent() instanceof Multipart all) {
            for (int i = 0; i < Math.min(all.getCount(), limits.pages()); i++) {
                part(all.getBodyPart(i));
            }
        } else if (!name.isEmpty() || !part.isMimeType("text/*")) {
            byte[] bytes = bytes(part);
            CRC32 crc = new CRC32();
            crc.update(bytes);
            String called = name.isEmpty() ? part.getContentType().replaceAll(";.*", "") : name;
            attachments.add(new Block(
                    Style.ITEM,
                    0,
                    called + "\t" + Formats.size(bytes.length),
                    called + "#" + Long.toHexString(crc.getValue())));
        } else {
            text(part);
        }
        depth--;
    }

    /** Of the same thing in several forms, the plain one. */
    private void alternative(Multipart all) throws IOException, MessagingException {
        BodyPart best = all.getBodyPart(0);
        for (int i = 0; i < all.getCount(); i++) {
            if (all.getBodyPart(i).isMimeType("text/plain")) {
                best = all.getBodyPart(i);
            }
        }
        part(best);
    }

    private void text(Part part) throws IOException, MessagingException {
        Object content = part.getContent();
        String text = content instanceof String s ? s : new String(bytes(part), StandardCharsets.UTF_8);
        if (part.isMimeType("text/html")) {
            text = Markup.text(text);
        }
        for (String line : text.split("\\R", -1)) {
            boolean quoted = line.startsWith(">");
            if (!line.isBlank() && body.size() < limits.rows()) {
                body.add(Block.of(quoted ? Style.QUOTE : Style.TEXT, quoted ? 1 : 0, line.strip()));
            }
        }
    }

    static String name(Part part) throws MessagingException {
        String name = part.getFileName();
        return name == null ? "" : decoded(name);
    }

    private byte[] bytes(Part part) throws IOException, MessagingException {
        long[] left = {limits.unpacked()};
        try (InputStream in = new Parts.Limited(part.getInputStream(), left)) {
            return in.readAllBytes();
        }
    }

    /** The content of an attachment by its name. */
    static byte[] attachment(byte[] content, String name, Limits limits) throws IOException {
        try {
            byte[] found = find(parse(content), name, new MailReader(limits), 0);
            if (found != null) {
                return found;
            }
        } catch (MessagingException e) {
            throw new DocumentException(Words.of("document.damaged"), e);
        }
        throw new DocumentException(Words.of("document.noPart", name));
    }

    private static byte @org.jspecify.annotations.Nullable [] find(Part part, String name, MailReader reader, int deep)
            throws IOException, MessagingException {
        if (deep > 20) {
            throw new DocumentException(Words.of("document.tooDeep"));
        }
        if (part.getContent() instanceof Multipart all) {
            for (int i = 0; i < all.getCount(); i++) {
                byte[] found = find(all.getBodyPart(i), name, reader, deep + 1);
                if (found != null) {
                    return found;
                }
            }
            return null;
        }
        return name(part).equals(name) ? reader.bytes(part) : null;
    }
}
