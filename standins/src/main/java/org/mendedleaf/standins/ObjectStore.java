package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import org.jspecify.annotations.Nullable;

/**
 * An object store: containers with objects by key.
 *
 * <ul>
 *   <li>Versioning of a container is off, on or paused; once on it never goes back to off.
 *   <li>On: each put has its own id; a removal adds a deletion point, which can be taken away; a version can be erased.
 *   <li>Off: there is one content, each put replaces it, a removal removes it.
 *   <li>Paused: what exists stays; puts and removals replace the one content that was put while paused.
 *   <li>Expiry: a version that was replaced goes after so many days, but for the newest so many of them.
 * </ul>
 *
 * <p>The book: {@code container/NAME} and {@code v/NAME/KEY/SEQUENCE}. Contents: {@code contents/ID}.
 */
public final class ObjectStore extends StandIn {

    private static final String SEPARATOR = "\u0001";

    private long sequence;

    /** A store in this folder. */
    public ObjectStore(Path folder, String owner) throws IOException {
        super("object-store", folder, owner);
    }

    private static String container(String name) {
        return "container/" + name;
    }

    private static String versions(String container) {
        return "v" + SEPARATOR + container + SEPARATOR;
    }

    private static String versions(String container, String key) {
        return versions(container) + key + SEPARATOR;
    }

    @Override
    Book.@Nullable Answer handle(Ask ask) throws IOException, Problem {
        String what = ask.part(0);
        if (what.equals("state") && ask.method().equals("GET")) {
            return new Book.Answer(200, state(-1, -1));
        }
        if (!what.equals("containers")) {
            throw Problem.missing(what);
        }
        if (ask.parts() == 1) {
            return new Book.Answer(200, containers());
        }
        String name = SafePath.name(ask.part(1));
        synchronized (this) {
            if (ask.parts() == 2) {
                return container(ask, name);
            }
        }
        Settings settings = settings(name);
        return switch (ask.part(2)) {
            case "versions" -> new Book.Answer(200, list(ask, name, settings));
            case "objects" -> object(ask, name, ask.rest(3), settings);
            default -> throw Problem.missing(ask.part(2));
        };
    }

    private Settings settings(String name) throws Problem {
        JsonNode node = book().get(container(name));
        if (node == null) {
            throw Problem.missing(name);
        }
        return new Settings(node);
    }

    private ArrayNode containers() {
        ArrayNode list = Book.JSON.createArrayNode();
        book().under("container/").forEach((key, settings) -> {
            String name = key.substring("container/".length());
            long used = 0;
            for (JsonNode v : book().under(versions(name)).values()) {
                used += v.path("size").asLong();
            }
            list.addObject()
                    .put("name", name)
                    .put("used", used)
                    .put("total", 0)
                    .put("role", "owner")
                    .set("settings", settings);
        });
        return list;
    }

    private Book.Answer container(Ask ask, String name) throws IOException, Problem {
        JsonNode before = book().get(container(name));
        JsonNode wanted = ask.json();
        if (ask.method().equals("PUT")) {
            if (before != null) {
                throw new Problem(409, "exists", "a container named " + name + " is there already");
            }
            if (name.isBlank() || name.indexOf(':') >= 0) {
                throw Problem.bad("a container needs a name without colon");
            }
            return done(ask, book().change().put(container(name), wanted), Book.Answer.of(201));
        }
        if (!ask.method().equals("PATCH")) {
            throw new Problem(405, "method", ask.method());
        }
        if (before == null) {
            throw Problem.missing(name);
        }
        boolean wasOn = !before.path("versioning").asText("on").equals("off");
        if (wasOn && wanted.path("versioning").asText("").equals("off")) {
            throw new Problem(409, "never-off", "versioning that was on once can be paused, and not be switched off");
        }
        return done(ask, book().change().put(container(name), Settings.merge(before, wanted)), Book.Answer.of(200));
    }

    private ObjectNode list(Ask ask, String name, Settings settings) {
        int limit = ask.query("limit").matches("\\d{1,5}") ? Integer.parseInt(ask.query("limit")) : 1000;
        SortedMap<String, JsonNode> page = book().page(versions(name), ask.query("after"), limit);
        ObjectNode answer = Book.JSON.createObjectNode();
        ArrayNode list = answer.putArray("versions");
        String key = "";
        List<JsonNode> own = List.of();
        for (JsonNode v : page.values()) {
            if (!v.path("key").asText().equals(key)) {
                key = v.path("key").asText();
                own = List.copyOf(book().under(versions(name, key)).values());
            }
            ObjectNode shown = v.deepCopy();
            Instant expires = expires(own, own.indexOf(v), settings);
            if (expires != null) {
                shown.put("expires", expires.toString());
            }
            list.add(shown);
        }
        answer.put("next", page.size() == limit ? page.lastKey() : "");
        return answer;
    }

    /** When a version expires; null when it does not. */
    private static @Nullable Instant expires(List<JsonNode> own, int i, Settings settings) {
        long days = settings.number("expire-days");
        boolean replaced = i < own.size() - 1;
        if (days == 0 || !replaced || own.get(i).path("removal").asBoolean()) {
            return null;
        }
        // Newer contents that were replaced too stand between this one and the current point.
        long newer = 0;
        for (int k = i + 1; k < own.size() - 1; k++) {
            newer += own.get(k).path("removal").asBoolean() ? 0 : 1;
        }
        if (newer < settings.number("expire-keep")) {
            return null;
        }
        return Instant.parse(own.get(i + 1).path("at").asText()).plus(Duration.ofDays(days));
    }

    @Override
    synchronized void tick() throws IOException {
        Instant now = now();
        for (Map.Entry<String, JsonNode> c : book().under("container/").entrySet()) {
            Settings settings = new Settings(c.getValue());
            if (settings.number("expire-days") == 0) {
                continue;
            }
            String name = c.getKey().substring("container/".length());
            Map<String, List<Map.Entry<String, JsonNode>>> byKey = new java.util.LinkedHashMap<>();
            for (Map.Entry<String, JsonNode> v : book().under(versions(name)).entrySet()) {
                byKey.computeIfAbsent(v.getValue().path("key").asText(), k -> new ArrayList<>())
                        .add(v);
            }
            Book.Change change = book().change();
            List<Path> gone = new ArrayList<>();
            for (List<Map.Entry<String, JsonNode>> own : byKey.values()) {
                List<JsonNode> nodes = own.stream().map(Map.Entry::getValue).toList();
                for (int i = 0; i < nodes.size(); i++) {
                    Instant expires = expires(nodes, i, settings);
                    if (expires != null && !expires.isAfter(now)) {
                        change.drop(own.get(i).getKey());
                        gone.add(content(nodes.get(i)));
                    }
                }
            }
            book().commit(change, null, Book.Answer.of(200));
            gone.forEach(StandIn::discard);
        }
    }

    private Path content(JsonNode version) {
        return folder().resolve("contents").resolve(version.path("id").asText());
    }

    private Book.@Nullable Answer object(Ask ask, String container, String key, Settings settings)
            throws IOException, Problem {
        if (key.isEmpty()) {
            throw Problem.bad("an object needs a key");
        }
        switch (ask.method()) {
            case "GET", "HEAD" -> {
                JsonNode v = find(container, key, ask.query("version")).getValue();
                if (v.path("removal").asBoolean()) {
                    throw Problem.missing(key + " was removed");
                }
                ask.file(content(v), v.path("sha256").asText(), "");
                return null;
            }
            case "PUT" -> {
                Ask.Upload upload = ask.upload(folder().resolve("uploads"));
                try {
                    synchronized (this) {
                        return put(ask, container, key, settings, upload);
                    }
                } finally {
                    discard(upload.file());
                }
            }
            case "DELETE" -> {
                synchronized (this) {
                    return delete(ask, container, key, settings);
                }
            }
            case "PATCH" -> {
                synchronized (this) {
                    Map.Entry<String, JsonNode> v = find(container, key, ask.query("version"));
                    ObjectNode changed = v.getValue().deepCopy();
                    changed.put("note", ask.json().path("note").asText(""));
                    return done(ask, book().change().put(v.getKey(), changed), Book.Answer.of(200));
                }
            }
            default -> throw new Problem(405, "method", ask.method());
        }
    }

    private Map.Entry<String, JsonNode> find(String container, String key, String id) throws Problem {
        SortedMap<String, JsonNode> own = book().under(versions(container, key));
        if (id.isEmpty() && !own.isEmpty()) {
            String last = own.lastKey();
            return Map.entry(last, java.util.Objects.requireNonNull(own.get(last)));
        }
        for (Map.Entry<String, JsonNode> e : own.entrySet()) {
            if (e.getValue().path("id").asText().equals(id)) {
                return e;
            }
        }
        throw Problem.missing(key + (id.isEmpty() ? "" : ", version " + id));
    }

    private Book.Answer put(Ask ask, String container, String key, Settings settings, Ask.Upload upload)
            throws IOException, Problem {
        // The same request may have been done while this one was still arriving.
        String request = ask.key();
        if (request != null && book().answered(request).isPresent()) {
            return book().answered(request).get();
        }
        ObjectNode v = point(ask, key);
        v.put("size", upload.size())
                .put("sha256", upload.sha256())
                .put("modified", ask.header("X-Modified").isEmpty() ? now().toString() : ask.header("X-Modified"))
                .put("note", Ask.decode(ask.header("X-Note")));
        Path content = content(v);
        Files.createDirectories(content.getParent());
        Files.move(upload.file(), content, StandardCopyOption.ATOMIC_MOVE);
        return add(
                ask,
                container,
                key,
                settings,
                v,
                Book.JSON.createObjectNode().put("id", v.path("id").asText()));
    }

    private ObjectNode point(Ask ask, String key) {
        sequence = Math.max(sequence + 1, now().toEpochMilli() * 1000);
        return Book.JSON
                .createObjectNode()
                .put("id", Long.toString(sequence, 36))
                .put("sequence", sequence)
                .put("key", key)
                .put("at", now().toString())
                .put("who", ask.who());
    }

    /** Adds a point; without versioning, or while it is paused, in place of the one that has no past to keep. */
    private Book.Answer add(Ask ask, String container, String key, Settings settings, ObjectNode v, ObjectNode body)
            throws IOException {
        String versioning = settings.text("versioning", "on");
        Book.Change change = book().change();
        List<Path> gone = new ArrayList<>();
        if (!versioning.equals("on")) {
            v.put("unkept", true);
            for (Map.Entry<String, JsonNode> e :
                    book().under(versions(container, key)).entrySet()) {
                if (versioning.equals("off") || e.getValue().path("unkept").asBoolean()) {
                    change.drop(e.getKey());
                    gone.add(content(e.getValue()));
                }
            }
        }
        boolean nothingStays = versioning.equals("off") && v.path("removal").asBoolean();
        if (!nothingStays) {
            change.put(
                    versions(container, key)
                            + "%020d".formatted(v.path("sequence").asLong()),
                    v);
        }
        Book.Answer answer = done(ask, change, new Book.Answer(200, body));
        gone.forEach(StandIn::discard);
        return answer;
    }

    private Book.Answer delete(Ask ask, String container, String key, Settings settings) throws IOException, Problem {
        if (!ask.query("version").isEmpty()) {
            Map.Entry<String, JsonNode> v = find(container, key, ask.query("version"));
            Book.Answer answer = done(ask, book().change().drop(v.getKey()), Book.Answer.of(200));
            discard(content(v.getValue()));
            return answer;
        }
        Map.Entry<String, JsonNode> current = find(container, key, "");
        boolean removed = current.getValue().path("removal").asBoolean();
        if (ask.query("removal").equals("true")) {
            if (!removed) {
                throw new Problem(409, "not-removed", key + " is there");
            }
            return done(ask, book().change().drop(current.getKey()), Book.Answer.of(200));
        }
        if (removed) {
            throw Problem.missing(key);
        }
        ObjectNode v = point(ask, key);
        v.put("removal", true).put("size", 0);
        return add(
                ask,
                container,
                key,
                settings,
                v,
                Book.JSON.createObjectNode().put("id", v.path("id").asText()));
    }
}
