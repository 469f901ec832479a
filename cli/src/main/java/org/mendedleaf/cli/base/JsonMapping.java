package org.mendedleaf.cli.base;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;

/** Writes answers as JSON. It stands alone, so that its library is loaded only when such an answer was asked for. */
public final class JsonMapping {

    /** The mapper of all answers. */
    public static final ObjectMapper JSON = new ObjectMapper();

    private JsonMapping() {}

    /** Writes a value, indented, as it goes through it: the rows of a long answer are not all in memory. */
    static void write(Object value, Writer out) {
        try {
            JSON.writerWithDefaultPrettyPrinter()
                    .without(JsonGenerator.Feature.AUTO_CLOSE_TARGET)
                    .writeValue(out, value);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
