package org.mendedleaf.core.preview;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.apache.tika.Tika;

/** Reads contents as text and as tables, and tells what they are. */
public final class Contents {

    private static final class Detector {
        private static final Tika TIKA = new Tika();
    }

    private Contents() {}

    /** What a content is by its first bytes and its name: a media type as in RFC 6838. */
    public static String mediaType(byte[] head, String name) {
        return Detector.TIKA.detect(head, name);
    }

    /** The content as text, if it is text: UTF-8, UTF-16 with a mark, or, where it has no control bytes, Latin 1. */
    public static Optional<String> text(byte[] bytes) {
        if (startsWith(bytes, 0xFE, 0xFF) || startsWith(bytes, 0xFF, 0xFE)) {
            return decode(bytes, StandardCharsets.UTF_16);
        }
        for (byte b : bytes) {
            boolean control = b >= 0 && b < 32 && b != '\n' && b != '\r' && b != '\t' && b != '\f' && b != 27;
            if (control) {
                return Optional.empty();
            }
        }
        return decode(bytes, StandardCharsets.UTF_8).or(() -> decode(bytes, StandardCharsets.ISO_8859_1));
    }

    private static boolean startsWith(byte[] bytes, int first, int second) {
        return bytes.length >= 2 && (bytes[0] & 0xff) == first && (bytes[1] & 0xff) == second;
    }

    private static Optional<String> decode(byte[] bytes, Charset charset) {
        try {
            return Optional.of(charset.newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes))
                    .toString());
        } catch (CharacterCodingException e) {
            return Optional.empty();
        }
    }
}
