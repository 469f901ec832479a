package org.mendedleaf.core.settings;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Set;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.words.Words;
import org.slf4j.LoggerFactory;

/**
 * The file in which settings stand. Each start of the program reads it, and few write it: it is read token by token, since to
 * load the classes that map objects takes longer than all the rest of a short command.
 */
final class SettingsFile {

    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

    /** A lock on a file holds off other processes only. */
    private static final Object WRITING = new Object();

    private final Path folder;
    private final Path file;

    SettingsFile(Path folder) {
        this.folder = folder;
        this.file = folder.resolve("settings.json");
    }

    /**
     * Reads the settings; where there is no file, those of somebody new.
     *
     * @throws IOException with a message for the user when the file cannot be read, or what stands there are no settings
     */
    ObjectNode read() throws IOException {
        try (JsonParser tokens = new JsonFactory().createParser(Files.readAllBytes(file))) {
            if (tokens.nextToken() == JsonToken.START_OBJECT) {
                return object(tokens);
            }
        } catch (NoSuchFileException e) {
            return NODES.objectNode();
        } catch (JacksonException e) {
            String where = e.getLocation() == null
                    ? ""
                    : Words.of("health.line", e.getLocation().getLineNr()) + ": ";
            throw new IOException(Words.of("home.damaged", file, where + e.getOriginalMessage()), e);
        }
        throw new IOException(Words.of("home.damaged", file, ""));
    }

    private static ObjectNode object(JsonParser tokens) throws IOException {
        ObjectNode all = NODES.objectNode();
        for (String name = tokens.nextFieldName(); name != null; name = tokens.nextFieldName()) {
            tokens.nextToken();
            all.set(name, value(tokens));
        }
        return all;
    }

    private static JsonNode value(JsonParser tokens) throws IOException {
        return switch (tokens.currentToken()) {
            case START_OBJECT -> object(tokens);
            case START_ARRAY -> {
                ArrayNode all = NODES.arrayNode();
                while (tokens.nextToken() != JsonToken.END_ARRAY) {
                    all.add(value(tokens));
                }
                yield all;
            }
            case VALUE_TRUE, VALUE_FALSE -> NODES.booleanNode(tokens.getBooleanValue());
            case VALUE_NUMBER_INT ->
                switch (tokens.getNumberType()) {
                    case INT -> NODES.numberNode(tokens.getIntValue());
                    case LONG -> NODES.numberNode(tokens.getLongValue());
                    default -> NODES.numberNode(tokens.getBigIntegerValue());
                };
            case VALUE_NUMBER_FLOAT -> NODES.numberNode(tokens.getDoubleValue());
            case VALUE_NULL -> NODES.nullNode();
            default -> NODES.textNode(tokens.getText());
        };
    }

    /**
     * Writes what changed, whole or not at all; nobody else on this computer may read it. What other programs wrote meanwhile
     * stays.
     *
     * @param stored as the settings were when they were read or written last
     * @param now as they shall be
     * @return as they are now, with what others wrote
     * @throws IOException with a message for the user, also when what stands there cannot be read any more: then it stays
     */
    ObjectNode write(ObjectNode stored, ObjectNode now) throws IOException {
        Access.OWNER.createFolders(folder);
        synchronized (WRITING) {
            try (FileChannel channel = Access.OWNER.open(
                            folder.resolve("settings.lock"),
                            Set.of(StandardOpenOption.CREATE, StandardOpenOption.WRITE));
                    FileLock lock = channel.lock()) {
                ObjectNode merged = SettingsMerge.merge(stored, now, read());
                replace(new ObjectMapper().writerWithDefaultPrettyPrinter().writeValueAsBytes(merged));
                LoggerFactory.getLogger(SettingsFile.class).trace("written under {}", lock);
                return merged;
            }
        }
    }

    private void replace(byte[] bytes) throws IOException {
        Path beside = folder.resolve("settings.json.new");
        Files.deleteIfExists(beside);
        try (FileChannel out =
                Access.OWNER.open(beside, Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE))) {
            Durable.write(out, ByteBuffer.wrap(bytes));
            out.force(true);
        }
        Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE);
        // Made by an earlier version, the folder may be open to others.
        Access.OWNER.tighten(folder);
    }
}
