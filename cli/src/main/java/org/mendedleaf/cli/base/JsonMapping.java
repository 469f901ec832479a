package org.mendedleaf.cli.base;

import com.fasterxml.jackson.databind.ObjectMapper;

/** Writes answers as JSON. It stands alone, so that its library is loaded only when such an answer was asked for. */
public final class JsonMapping {

    /** The mapper of all answers. */
    public static final ObjectMapper JSON = new ObjectMapper();

    private JsonMapping() {}
}
