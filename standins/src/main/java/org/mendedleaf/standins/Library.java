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
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * An office library: places with members and roles; files with whole or draft numbering, limits, notes and check-out;
 * removed files that can be brought back for so many days; a quota. Files are reached by WebDAV ({@link LibraryDav}).
 *
 * <p>The book: {@code place/NAME} with settings and owner, {@code file/NAME/ID}, {@code folder/NAME/PATH}. Contents:
 * {@code contents/ID} of a version.
 */
public final class Library extends StandIn {

    private final LibraryDav dav = new LibraryDav(this);
    private long counter;

    /** A library in this folder. */
    public Library(Path folder, String owner) throws IOException {
        super("library", folder, owner);
        counter = Instant.now().toEpochMilli() * 1000;
    }

    synchronized String freshId() {
        return Long.toString(++counter, 36);
    }

    @Override
    Book.@Nullable Answer handle(Ask ask) throws IOException, Problem {
        switch (ask.part(0)) {
            case "state" -> {
                return new Book.Answer(200, state(used(""), 0));
            }
            case "dav" -> {
                return dav.handle(ask);
            }
            case "places" -> {
                synchronized (this) {
                    return places(ask);
                }
            }
            default -> throw Problem.missing(ask.part(0));
        }
    }

    private Book.@Nullable Answer places(Ask ask) throws IOException, Problem {
        if (ask.parts() == 1) {
            return new Book.Answer(200, list(ask.who()));
        }
        String name = SafePath.name(ask.part(1));
        if (ask.parts() == 2) {
            return place(ask, name);
        }
        String role = role(name, ask.who());
        switch (ask.part(2)) {
            case "removed" -> {
                if (ask.method().equals("POST")) {
                    needs(role, "editor");
                    return bringBack(ask, name, ask.part(3));
                }
                return new Book.Answer(200, removed(name, role));
            }
            case "versions" -> {
                return version(ask, name, ask.part(3), role);
            }
            default -> throw Problem.missing(ask.part(2));
        }
    }

    private ArrayNode list(String who) {
        ArrayNode list = Book.JSON.createArrayNode();
        book().under("place/").forEach((key, place) -> {
            String name = key.substring(6);
            String role = role(place, who);
            if (!role.isEmpty()) {
                list.addObject()
                        .put("name", name)
                        .put("role", role)
                        .put("used", used(name))
                        .put("total", new Settings(place).number("quota-mb") * 1_000_000)
                        .set("settings", place);
            }
        });
        return list;
    }

    /** Bytes of all versions of a place, or of all places. */
    long used(String place) {
        long used = 0;
        for (JsonNode f :
                book().under("file/" + (place.isEmpty() ? "" : place + "/")).values()) {
            for (JsonNode v : f.path("versions")) {
                used += v.path("size").asLong();
            }
        }
        return used;
    }

    private static String role(JsonNode place, String who) {
        if (place.path("owner").asText().equals(who)) {
            return "owner";
        }
        for (JsonNode m : place.path("members")) {
            if (m.path("who").asText().equals(who)) {
                return m.path("role").asText();
            }
        }
        return "";
    }

    /** What somebody may do in a place; who may do nothing does not learn that it is there. */
    String role(String place, String who) throws Problem {
        JsonNode node = book().get("place/" + place);
        String role = node == null ? "" : role(node, who);
        if (role.isEmpty()) {
            throw Problem.missing(place);
        }
        return role;
    }

    static void needs(String role, String least) throws Problem {
        List<String> order = List.of("reader", "editor", "owner");
        if (order.indexOf(role) < order.indexOf(least)) {
            throw new Problem(403, "role", "a " + role + " may not do that; it takes an " + least);
        }
    }

    Settings settings(String place) {
        return new Settings(java.util.Objects.requireNonNull(book().get("place/" + place)));
    }

    boolean seesDrafts(String place, String role) {
        return switch (settings(place).text("drafts-seen-by", "editors")) {
            case "everybody" -> true;
            case "owner" -> role.equals("owner");
            default -> !role.equals("reader");
        };
    }

    private Book.Answer place(Ask ask, String name) throws IOException, Problem {
        JsonNode before = book().get("place/" + name);
        JsonNode wanted = ask.json();
        if (wanted.path("versioning").asText("").equals("paused")) {
            throw Problem.bad("versioning here is on or off; it cannot be paused");
        }
        if (ask.method().equals("PUT")) {
            if (before != null) {
                throw new Problem(409, "exists", "a place named " + name + " is there already");
            }
            if (name.isBlank() || name.indexOf(':') >= 0) {
                throw Problem.bad("a place needs a name without colon");
            }
            ObjectNode place = wanted.deepCopy();
            place.put("owner", ask.who());
            tokens(wanted);
            return done(ask, book().change().put("place/" + name, place), Book.Answer.of(201));
        }
        needs(role(name, ask.who()), "owner");
        tokens(wanted);
        ObjectNode merged = Settings.merge(java.util.Objects.requireNonNull(before), wanted);
        Book.Change change = book().change().put("place/" + name, merged);
        List<String> gone = new java.util.ArrayList<>();
        for (Map.Entry<String, JsonNode> f : book().under("file/" + name + "/").entrySet()) {
            LibraryFile file = LibraryFile.copyOf(f.getValue());
            List<String> over = file.limit(new Settings(merged));
            if (!over.isEmpty()) {
                change.put(f.getKey(), file.node());
                gone.addAll(over);
            }
        }
        Book.Answer answer = done(ask, change, Book.Answer.of(200));
        gone.forEach(id -> discard(content(id)));
        return answer;
    }

    /** Each member has a token of their own. */
    private void tokens(JsonNode wanted) {
        for (JsonNode m : wanted.path("members")) {
            token(m.path("who").asText());
        }
    }

    Path content(String version) {
        return folder().resolve("contents").resolve(version);
    }

    Optional<LibraryFile> find(String place, String path) {
        for (JsonNode f : book().under("file/" + place + "/").values()) {
            if (!f.has("removed") && f.path("path").asText().equals(path)) {
                return Optional.of(LibraryFile.copyOf(f));
            }
        }
        return Optional.empty();
    }

    static String key(String place, LibraryFile file) {
        return "file/" + place + "/" + file.id();
    }

    /** Puts a content in as the next version, by the rules of the place. */
    Book.Answer put(Ask ask, String place, String path, Ask.Upload upload) throws IOException, Problem {
        String request = ask.key();
        if (request != null && book().answered(request).isPresent()) {
            return book().answered(request).get();
        }
        Settings settings = settings(place);
        long quota = settings.number("quota-mb") * 1_000_000;
        if (quota > 0 && used(place) + upload.size() > quota) {
            throw new Problem(
                    507, "quota", "the quota of " + place + " leaves no room for " + upload.size() + " bytes");
        }
        Optional<LibraryFile> there = find(place, path);
        if (there.isPresent()) {
            mayChange(there.get(), settings, ask.who());
        }
        LibraryFile file = there.orElseGet(() -> LibraryFile.fresh(freshId(), path));
        ObjectNode v = Book.JSON
                .createObjectNode()
                .put("id", freshId())
                .put("at", now().toString())
                .put("who", ask.who())
                .put("size", upload.size())
                .put("sha256", upload.sha256())
                .put("modified", ask.header("X-Modified").isEmpty() ? now().toString() : ask.header("X-Modified"))
                .put("note", Ask.decode(ask.header("X-Note")));
        file.number(v, settings.text("numbering", "whole").equals("drafts"));
        Path content = content(v.path("id").asText());
        Files.createDirectories(content.getParent());
        Files.move(upload.file(), content, StandardCopyOption.ATOMIC_MOVE);
        List<String> gone = new java.util.ArrayList<>();
        if (settings.text("versioning", "on").equals("off")) {
            file.versions().forEach(old -> gone.add(old.path("id").asText()));
            file.versions().removeAll();
        }
        file.versions().add(v);
        gone.addAll(file.limit(settings));
        ObjectNode body = Book.JSON.createObjectNode().put("id", v.path("id").asText());
        Book.Answer answer = new Book.Answer(
                there.isPresent() ? 200 : 201,
                body,
                Map.of(
                        "X-Version-Id",
                        v.path("id").asText(),
                        "ETag",
                        '"' + v.path("sha256").asText() + '"'));
        done(ask, book().change().put(key(place, file), file.node()), answer);
        gone.forEach(id -> discard(content(id)));
        return answer;
    }

    static void mayChange(LibraryFile file, Settings settings, String who) throws Problem {
        String out = file.checkedOutBy();
        if (!out.isEmpty() && !out.equals(who)) {
            throw new Problem(423, "checked-out", out + " has " + file.path() + " checked out");
        }
        if (out.isEmpty() && settings.text("check-out", "free").equals("needed")) {
            throw new Problem(409, "check-out-needed", file.path() + " must be checked out first");
        }
    }

    Book.Answer remove(Ask ask, String place, LibraryFile file) throws IOException {
        file.node().put("removed", now().toString()).put("removedBy", ask.who());
        file.node().remove("out");
        return done(ask, book().change().put(key(place, file), file.node()), Book.Answer.of(204));
    }

    private Instant endOfRemoved(String place, JsonNode file) {
        Instant removed = Instant.parse(file.path("removed").asText());
        return removed.plus(Duration.ofDays(settings(place).number("removed-days")));
    }

    private ArrayNode removed(String place, String role) {
        ArrayNode list = Book.JSON.createArrayNode();
        for (JsonNode node : book().under("file/" + place + "/").values()) {
            LibraryFile file = LibraryFile.copyOf(node);
            if (!file.isRemoved()) {
                continue;
            }
            String expires = endOfRemoved(place, node).toString();
            ObjectNode shown = list.addObject().put("id", file.id()).put("path", file.path());
            ArrayNode versions = shown.putArray("versions");
            for (JsonNode v : file.visible(seesDrafts(place, role))) {
                ObjectNode copy = v.deepCopy();
                versions.add(copy.put("label", LibraryFile.label(v)).put("expires", expires));
            }
            versions.addObject()
                    .put(
                            "id",
                            "removed-" + file.id() + "-" + node.path("removed").asText())
                    .put("removal", true)
                    .put("at", node.path("removed").asText())
                    .put("who", node.path("removedBy").asText())
                    .put("expires", expires);
        }
        return list;
    }

    private Book.Answer bringBack(Ask ask, String place, String id) throws IOException, Problem {
        JsonNode node = book().get("file/" + place + "/" + id);
        if (node == null || !node.has("removed")) {
            throw Problem.missing("removed file " + id);
        }
        LibraryFile file = LibraryFile.copyOf(node);
        if (find(place, file.path()).isPresent()) {
            throw new Problem(409, "exists", "another file has the name " + file.path() + " now");
        }
        file.node().remove(List.of("removed", "removedBy"));
        return done(ask, book().change().put(key(place, file), file.node()), Book.Answer.of(200));
    }

    private Book.@Nullable Answer version(Ask ask, String place, String id, String role) throws IOException, Problem {
        for (JsonNode node : book().under("file/" + place + "/").values()) {
            LibraryFile file = LibraryFile.copyOf(node);
            List<JsonNode> seen = file.visible(seesDrafts(place, role));
            for (JsonNode v : seen) {
                if (v.path("id").asText().equals(id)) {
                    return version(ask, place, file, v, role);
                }
            }
        }
        throw Problem.missing("version " + id);
    }

    private Book.@Nullable Answer version(Ask ask, String place, LibraryFile file, JsonNode v, String role)
            throws IOException, Problem {
        String id = v.path("id").asText();
        int index = 0;
        while (!file.versions().get(index).path("id").asText().equals(id)) {
            index++;
        }
        switch (ask.method()) {
            case "GET" -> {
                ask.file(content(id), v.path("sha256").asText(), "");
                return null;
            }
            case "DELETE" -> {
                needs(role, "owner");
                if (file.versions().size() == 1) {
                    throw new Problem(409, "last", "this is the only version; remove the file instead");
                }
                file.versions().remove(index);
                Book.Answer answer = done(ask, book().change().put(key(place, file), file.node()), Book.Answer.of(200));
                discard(content(id));
                return answer;
            }
            case "PATCH" -> {
                needs(role, "editor");
                ((ObjectNode) file.versions().get(index))
                        .put("note", ask.json().path("note").asText(""));
                return done(ask, book().change().put(key(place, file), file.node()), Book.Answer.of(200));
            }
            case "POST" -> {
                needs(role, "editor");
                return publish(ask, place, file, index);
            }
            default -> throw new Problem(405, "method", ask.method());
        }
    }

    /** The newest draft becomes the next whole number. */
    private Book.Answer publish(Ask ask, String place, LibraryFile file, int index) throws IOException, Problem {
        ObjectNode v = (ObjectNode) file.versions().get(index);
        if (!LibraryFile.isDraft(v) || index != file.versions().size() - 1) {
            throw new Problem(409, "no-draft", "only the newest draft can be published");
        }
        v.put("major", v.path("major").asLong() + 1).put("minor", 0);
        List<String> gone = file.limit(settings(place));
        Book.Answer answer = done(ask, book().change().put(key(place, file), file.node()), Book.Answer.of(200));
        gone.forEach(id -> discard(content(id)));
        return answer;
    }

    @Override
    synchronized void tick() throws IOException {
        Book.Change change = book().change();
        List<String> gone = new java.util.ArrayList<>();
        for (String place : book().under("place/").keySet()) {
            String name = place.substring(6);
            book().under("file/" + name + "/").forEach((key, f) -> {
                if (f.has("removed") && !endOfRemoved(name, f).isAfter(now())) {
                    change.drop(key);
                    f.path("versions").forEach(v -> gone.add(v.path("id").asText()));
                }
            });
        }
        book().commit(change, null, Book.Answer.of(200));
        gone.forEach(id -> discard(content(id)));
    }
}
