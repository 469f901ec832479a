package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.mendedleaf.core.words.Words;

/** Files with text that somebody wrote for this program. */
public final class TextFile {

    private TextFile() {}

    /**
     * The text in a file, which is UTF-8.
     *
     * @throws IllegalArgumentException with a message for the user, when it is not
     */
    public static String read(Path file) throws IOException {
        try {
            return Files.readString(file);
        } catch (CharacterCodingException e) {
            throw new IllegalArgumentException(Words.of("file.notText", file), e);
        }
    }
}
