package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * What a stand-in remembers: values by key, and what it answered to which request key. The file {@code book.jsonl} has
 * one line for each change, {@code {"put": {key: value}, "drop": [key], "key": request, "answer": {...}}}; the last word
 * on a key counts. A line that was cut off by a crash was not acknowledged and is dropped.
 */
final class Book implements AutoCloseable {

    static final ObjectMapper JSON = new ObjectMapper();

    private static final int ANSWERS = 5000;

    private final FileChannel file;
    private final TreeMap<String, JsonNode> values = new TreeMap<>();
    private final Map<String, Answer> answers = new LinkedHashMap<>();

    Book(Path folder) throws IOException {
        Files.createDirectories(folder);
        Path path = folder.resolve("book.jsonl");
        long good = 0;
        if (Files.exists(path)) {
            try (BufferedReader lines = Files.newBufferedReader(path)) {
                for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                    int bytes = line.getBytes(StandardCharsets.UTF_8).length + 1;
                    // Without its line end it was not acknowledged.
                    if (good + bytes > Files.size(path) || !replay(line)) {
                        break;
                    }
                    good += bytes;
                }
            }
        }
        file = FileChannel.open(path, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        file.truncate(good).position(good);
    }

    private boolean replay(String line) {
        JsonNode change;
        try {
            change = JSON.readTree(line);
        } catch (IOException e) {
            return false;
        }
        apply(change);
        return true;
    }

    private void apply(JsonNode change) {
        change.path("put").properties().forEach(e -> values.put(e.getKey(), e.getValue()));
        change.path("drop").forEach(k -> values.remove(k.asText()));
        if (change.has("key")) {
            JsonNode a = change.path("answer");
            answers.put(change.path("key").asText(), new Answer(a.path("status").asInt(), a.path("body")));
            if (answers.size() > ANSWERS) {
                answers.remove(answers.keySet().iterator().next());
            }
        }
    }

    /** An answer without bytes of a file. */
    record Answer(int status, JsonNode body, Map<String, String> headers) {
        Answer(int status, JsonNode body) {
            this(status, body, Map.of());
        }

        static Answer of(int status) {
            return new Answer(status, JSON.createObjectNode());
        }

        static Answer error(int status, String code, String detail) {
            return new Answer(status, JSON.createObjectNode().put("error", code).put("detail", detail));
        }
    }

    /** Several changes that count together. */
    static final class Change {
        private final ObjectNode line = JSON.createObjectNode();

        Change put(String key, JsonNode value) {
            line.withObject("/put").set(key, value);
            return this;
        }

        Change drop(String key) {
            ArrayNode list = line.withArray("/drop");
            list.add(key);
            return this;
        }

        boolean isEmpty() {
            return line.isEmpty();
        }
    }

    Change change() {
        return new Change();
    }

    /** What was answered to a request with this key. */
    synchronized Optional<Answer> answered(String key) {
        return Optional.ofNullable(answers.get(key));
    }

    /** Brings changes to disk, with the answer by which a repetition is known. */
    synchronized void commit(Change change, @Nullable String key, Answer answer) throws IOException {
        if (key != null) {
            change.line.put("key", key);
            change.line.putObject("answer").put("status", answer.status()).set("body", answer.body());
        }
        if (change.isEmpty()) {
            return;
        }
        byte[] bytes = (JSON.writeValueAsString(change.line) + "\n").getBytes(StandardCharsets.UTF_8);
        ByteBuffer buffer = ByteBuffer.wrap(bytes);
        while (buffer.hasRemaining()) {
            file.write(buffer);
        }
        apply(change.line);
    }

    synchronized @Nullable JsonNode get(String key) {
        return values.get(key);
    }

    /** All keys that begin so, with their values, in order; a copy. */
    synchronized SortedMap<String, JsonNode> under(String prefix) {
        return new TreeMap<>(values.subMap(prefix, prefix + Character.MAX_VALUE));
    }

    /** So many from the first key that is greater than {@code after}. */
    synchronized SortedMap<String, JsonNode> page(String prefix, String after, int limit) {
        TreeMap<String, JsonNode> page = new TreeMap<>();
        for (Map.Entry<String, JsonNode> e : values.subMap(
                        after.isEmpty() ? prefix : after, after.isEmpty(), prefix + Character.MAX_VALUE, false)
                .entrySet()) {
            if (page.size() == limit) {
                break;
            }
            page.put(e.getKey(), e.getValue());
        }
        return page;
    }

    @Override
    public synchronized void close() throws IOException {
        file.close();
    }
}
