package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;

/** Holds what commands answer with {@code --json} against the published schema. */
final class JsonAnswers {

    private static final Path FILE = Path.of("../docs/cli.schema.json");
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final Map<String, JsonSchema> SCHEMAS = new ConcurrentHashMap<>();

    private JsonAnswers() {}

    static JsonNode document() {
        try {
            return JSON.readTree(Files.readString(FILE));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The commands that the schema has answers of. */
    static Set<String> commands() {
        Set<String> all = new TreeSet<>();
        document().get("$defs").fieldNames().forEachRemaining(all::add);
        all.remove("error");
        return all;
    }

    /** All names of values that the schema has. */
    static Set<String> names() {
        Set<String> all = new TreeSet<>();
        document().findValues("properties").forEach(p -> p.fieldNames().forEachRemaining(all::add));
        for (JsonNode def : document().get("$defs")) {
            collect(def, all);
        }
        return all;
    }

    private static void collect(JsonNode schema, Set<String> into) {
        if (schema.path("properties").isObject()) {
            schema.get("properties").fieldNames().forEachRemaining(into::add);
        }
        schema.forEach(below -> collect(below, into));
    }

    private static JsonSchema schema(String name) {
        return SCHEMAS.computeIfAbsent(name, n -> {
            JsonNode def = document().get("$defs").get(n);
            assertThat(def).as("the schema of %s", n).isNotNull();
            return JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                    .getSchema(def);
        });
    }

    /** Every value that was answered fits its command, or is an error in the form of all errors. */
    static void hold(String[] arguments, String out) {
        List<String> given = Arrays.asList(arguments);
        if (!given.contains("--json") || out.isBlank() || given.contains("--help")) {
            return;
        }
        Set<String> known = commands();
        String pair = arguments.length > 1 ? arguments[0] + " " + arguments[1] : "";
        String command = known.contains(pair) ? pair : arguments[0];
        try (JsonParser parser = JSON.createParser(out)) {
            while (parser.nextToken() != null) {
                JsonNode value = JSON.readTree(parser);
                String name = value.has("error") ? "error" : command;
                assertThat(schema(name).validate(value))
                        .as("%s answered %s", String.join(" ", given), value)
                        .isEmpty();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(out, e);
        }
    }
}
