package org.mendedleaf.core.intake;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.MailMessage;

/**
 * The files in the newest messages of a folder. Each message is read once, in the process that reads documents. What is in it is written
 * to a temporary file when it is asked for.
 */
final class MailFolder {

    private static final int REMEMBERED = 500;

    /** What the header of a message with files has in it. */
    private static final Pattern FILES = Pattern.compile("name\\*?\\d*\\*?=|attachment");

    private static final int HEAD = 1 << 16;

    private static final Map<MessageFiles.Message, MailMessage> READ = lately();
    private static final Map<Attached, Path> WRITTEN = lately();

    private record Attached(MessageFiles.Message message, int index) {}

    private MailFolder() {}

    private static <K, V> Map<K, V> lately() {
        return new LinkedHashMap<>(16, 0.75f, true) {
            private static final long serialVersionUID = 1;

            @Override
            protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
                return size() > REMEMBERED;
            }
        };
    }

    /** The files in the newest messages of a folder, or of a file with many messages. */
    static List<Arrivals.Arrival> look(Path folder, Instant now) throws IOException {
        List<Arrivals.Arrival> found = new ArrayList<>();
        for (MessageFiles.Message m : MessageFiles.newest(folder)) {
            MailMessage read = read(m);
            Instant changed = m.changed().toInstant();
            Instant sent = read.date() > 0 ? Instant.ofEpochMilli(read.date()) : changed;
            for (MailMessage.Attachment a : read.attachments()) {
                Arrivals.Mail mail =
                        new Arrivals.Mail(a.name(), read.from(), read.address(), read.subject(), m, a.index());
                found.add(new Arrivals.Arrival(
                        m.file(), a.size(), sent.isAfter(now) ? changed : sent, false, Optional.of(mail)));
            }
        }
        return found;
    }

    private static MailMessage read(MessageFiles.Message m) throws IOException {
        synchronized (READ) {
            @Nullable MailMessage known = READ.get(m);
            if (known != null) {
                return known;
            }
        }
        MailMessage read = new MailMessage("", "", "", 0, List.of());
        try {
            byte[] bytes = m.bytes();
            if (mayHaveFiles(bytes)) {
                read = DocumentProcess.shared().mail(bytes);
            }
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            // A damaged message brings nothing, nor does one that was moved while we looked.
            org.slf4j.LoggerFactory.getLogger(MailFolder.class).debug("{} cannot be read", m.file(), e);
        }
        synchronized (READ) {
            READ.put(m, read);
        }
        return read;
    }

    /** A message that is only text needs not be read. */
    private static boolean mayHaveFiles(byte[] bytes) {
        String head = new String(bytes, 0, Math.min(bytes.length, HEAD), StandardCharsets.ISO_8859_1);
        return FILES.matcher(head.toLowerCase(Locale.ROOT)).find();
    }

    /** A temporary file with a file of a message, with the time at which that was sent. */
    static Path write(Arrivals.Mail mail, Instant sent) throws IOException {
        Attached key = new Attached(mail.message(), mail.index());
        synchronized (WRITTEN) {
            @Nullable Path known = WRITTEN.get(key);
            if (known != null && Files.exists(known)) {
                return known;
            }
        }
        byte[] content = DocumentProcess.shared().attachment(mail.message().bytes(), mail.index());
        Path file = TemporaryFiles.folder().resolve(safe(mail.name()));
        Files.write(file, content);
        Files.setLastModifiedTime(file, FileTime.from(sent));
        synchronized (WRITTEN) {
            WRITTEN.put(key, file);
        }
        return file;
    }

    /** A name that is one in any folder. */
    private static String safe(String name) {
        String plain = name.replaceAll("[\\\\/:*?\"<>|\\p{Cntrl}]", "_").strip();
        return plain.isEmpty() || plain.equals(".") || plain.equals("..") ? "attachment" : plain;
    }
}
