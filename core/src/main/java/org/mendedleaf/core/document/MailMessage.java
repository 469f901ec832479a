package org.mendedleaf.core.document;

import java.util.List;

/**
 * A message with files in it (RFC 5322 and 2045).
 *
 * @param from name of who sent it; the address where there is no name, empty where there is neither
 * @param address of who sent it; empty where there is none
 * @param subject on one line; empty where there is none
 * @param date when it was sent, in milliseconds since 1970; 0 where it does not say
 * @param attachments files in it
 */
public record MailMessage(String from, String address, String subject, long date, List<Attachment> attachments) {

    /** Copies the list. */
    public MailMessage {
        attachments = List.copyOf(attachments);
    }

    /**
     * A file in it.
     *
     * @param index of it among the parts of the message, by which it is asked for
     * @param size bytes
     */
    public record Attachment(int index, String name, long size) {}
}
