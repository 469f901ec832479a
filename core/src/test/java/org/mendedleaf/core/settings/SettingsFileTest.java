package org.mendedleaf.core.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.math.BigInteger;
import java.nio.file.Files;
import java.nio.file.Path;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SettingsFileTest {

    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    private static final int DEPTH = 3;

    @TempDir
    Path temp;

    @Property(tries = 40)
    void whatStandsInTheFileIsReadAsAnyOtherProgramReadsIt(@ForAll("settings") JsonNode settings) throws IOException {
        Path folder = Files.createTempDirectory("settings");
        Path file = folder.resolve("settings.json");
        Files.write(file, new ObjectMapper().writerWithDefaultPrettyPrinter().writeValueAsBytes(settings));
        try {
            assertThat(new SettingsFile(folder).read())
                    .isEqualTo(new ObjectMapper().readTree(Files.readAllBytes(file)));
        } finally {
            Files.delete(file);
            Files.delete(folder);
        }
    }

    @Provide
    Arbitrary<JsonNode> settings() {
        return object(DEPTH);
    }

    private static Arbitrary<JsonNode> object(int depth) {
        return Arbitraries.maps(Arbitraries.strings().ofMaxLength(5), value(depth - 1))
                .ofMaxSize(4)
                .map(entries -> {
                    ObjectNode object = NODES.objectNode();
                    entries.forEach(object::set);
                    return object;
                });
    }

    private static Arbitrary<JsonNode> value(int depth) {
        Arbitrary<JsonNode> plain = Arbitraries.oneOf(
                Arbitraries.strings().ofMaxLength(8).map(NODES::textNode),
                Arbitraries.integers().map(NODES::numberNode),
                Arbitraries.longs().map(NODES::numberNode),
                Arbitraries.longs()
                        .map(l -> NODES.numberNode(BigInteger.valueOf(l).shiftLeft(64))),
                Arbitraries.doubles().map(NODES::numberNode),
                Arbitraries.of(true, false).map(NODES::booleanNode),
                Arbitraries.just(NODES.nullNode()));
        if (depth == 0) {
            return plain;
        }
        Arbitrary<JsonNode> list = value(depth - 1)
                .list()
                .ofMaxSize(3)
                .map(all -> NODES.arrayNode().addAll(all));
        return Arbitraries.oneOf(plain, list, object(depth));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"", " ", "7", "[]", "null", "{", "{\"a\"", "{\"a\": [1, 2", "{\"a\": }", "{a: 1}", "{\"a\": tru}"
            })
    void whatIsNoSettingsIsRefusedInWordsAndStays(String text) throws IOException {
        Path file = Files.writeString(temp.resolve("settings.json"), text);
        SettingsFile settings = new SettingsFile(temp);
        assertThatThrownBy(settings::read).isInstanceOf(IOException.class).hasMessageContaining(file.toString());
        assertThatThrownBy(() ->
                        settings.write(NODES.objectNode(), NODES.objectNode().put("who", "Ada")))
                .isInstanceOf(IOException.class)
                .hasMessageContaining(file.toString());
        assertThat(file).hasContent(text);
    }
}
