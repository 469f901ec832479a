package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.security.MessageDigest;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * A file server: shares, which are ordinary folders under {@code shares/NAME/live}, and read-only snapshots of them under
 * {@code shares/NAME/snapshots/ID}, made of hard links. Files of the live folder may be changed by anybody; those that
 * come in over the connection are replaced whole, so that no snapshot changes with them.
 *
 * <p>The book: {@code share/NAME} with its settings, {@code snapshot/NAME/ID}, and {@code file/NAME/PATH} with who put it
 * there and its digest as long as size and time agree.
 */
public final class FileServer extends StandIn {

    private final long totalBytes;

    /** A server in this folder with so much room. */
    public FileServer(Path folder, String owner, long totalBytes) throws IOException {
        super("file-server", folder, owner);
        this.totalBytes = totalBytes;
    }

    private Path share(String name) {
        return folder().resolve("shares").resolve(name);
    }

    private Path live(String name) {
        return share(name).resolve("live");
    }

    private Path snapshot(String name, String id) {
        return share(name).resolve("snapshots").resolve(id);
    }

    @Override
    Book.@Nullable Answer handle(Ask ask) throws IOException, Problem {
        if (ask.part(0).equals("state")) {
            return new Book.Answer(200, state(used(), totalBytes));
        }
        if (!ask.part(0).equals("shares")) {
            throw Problem.missing(ask.part(0));
        }
        if (ask.parts() == 1) {
            return new Book.Answer(200, shares());
        }
        String name = SafePath.name(ask.part(1));
        if (ask.parts() == 2) {
            synchronized (this) {
                return share(ask, name);
            }
        }
        if (book().get("share/" + name) == null) {
            throw Problem.missing(name);
        }
        switch (ask.part(2)) {
            case "tree" -> {
                synchronized (this) {
                    return new Book.Answer(200, tree(name, folder(name, ask.query("snapshot"))));
                }
            }
            case "files" -> {
                return file(ask, name, ask.rest(3));
            }
            case "snapshots" -> {
                synchronized (this) {
                    return snapshots(ask, name);
                }
            }
            case "takeback" -> {
                synchronized (this) {
                    return takeBack(ask, name);
                }
            }
            default -> throw Problem.missing(ask.part(2));
        }
    }

    private long used() throws IOException {
        long[] used = {0};
        java.util.Set<Object> seen = new java.util.HashSet<>();
        Path shares = folder().resolve("shares");
        if (Files.isDirectory(shares)) {
            walk(shares, (file, attributes) -> {
                // A content that several snapshots hold takes its room once.
                Object key = attributes.fileKey();
                if (key == null || seen.add(key)) {
                    used[0] += attributes.size();
                }
            });
        }
        return used[0];
    }

    private interface Each {
        void file(Path file, BasicFileAttributes attributes) throws IOException;
    }

    private static void walk(Path root, Each each) throws IOException {
        Files.walkFileTree(root, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                if (attributes.isRegularFile()) {
                    each.file(file, attributes);
                }
                return FileVisitResult.CONTINUE;
            }
        });
    }

    private ArrayNode shares() {
        ArrayNode list = Book.JSON.createArrayNode();
        book().under("share/")
                .forEach((key, settings) -> list.addObject()
                        .put("name", key.substring(6))
                        .put("role", "owner")
                        .set("settings", settings));
        return list;
    }

    private Book.Answer share(Ask ask, String name) throws IOException, Problem {
        JsonNode before = book().get("share/" + name);
        JsonNode wanted = ask.json();
        if (wanted.has("snapshot-keep") && wanted.path("snapshot-keep").asLong() < 1) {
            throw Problem.bad("at least one snapshot is kept");
        }
        if (ask.method().equals("PUT")) {
            if (before != null) {
                throw new Problem(409, "exists", "a share named " + name + " is there already");
            }
            if (name.isBlank() || name.startsWith(".") || name.indexOf(':') >= 0) {
                throw Problem.bad("a share needs a name without colon that begins with no dot");
            }
            Files.createDirectories(live(name));
            return done(ask, book().change().put("share/" + name, wanted), Book.Answer.of(201));
        }
        if (before == null) {
            throw Problem.missing(name);
        }
        Book.Answer answer =
                done(ask, book().change().put("share/" + name, Settings.merge(before, wanted)), Book.Answer.of(200));
        limit(name);
        return answer;
    }

    private Path folder(String name, String snapshot) throws Problem {
        if (snapshot.isEmpty()) {
            return live(name);
        }
        if (book().get("snapshot/" + name + "/" + snapshot) == null) {
            throw Problem.missing("snapshot " + snapshot);
        }
        return snapshot(name, SafePath.name(snapshot));
    }

    private ArrayNode tree(String name, Path root) throws IOException {
        ArrayNode list = Book.JSON.createArrayNode();
        Book.Change change = book().change();
        Map<String, ObjectNode> found = new TreeMap<>();
        walk(root, (file, attributes) -> {
            String path = root.relativize(file).toString();
            found.put(path, facts(name, file, attributes, change));
        });
        book().commit(change, null, Book.Answer.of(200));
        found.forEach((path, facts) -> list.add(facts.deepCopy().put("path", path)));
        return list;
    }

    /** Size, time, digest and who; the digest is computed anew when size or time are not those that were noted. */
    private ObjectNode facts(String name, Path file, BasicFileAttributes attributes, Book.Change change)
            throws IOException {
        String modified = attributes.lastModifiedTime().toInstant().toString();
        String key = "file/" + name + "/" + attributes.fileKey();
        JsonNode known = book().get(key);
        if (known instanceof ObjectNode node
                && node.path("size").asLong() == attributes.size()
                && node.path("modified").asText().equals(modified)) {
            return node;
        }
        ObjectNode facts = Book.JSON
                .createObjectNode()
                .put("size", attributes.size())
                .put("modified", modified)
                .put("who", "")
                .put("sha256", digest(file));
        change.put(key, facts);
        return facts;
    }

    private static String digest(Path file) throws IOException {
        MessageDigest sha = Ask.sha256();
        try (InputStream in = Files.newInputStream(file)) {
            byte[] buffer = new byte[1 << 16];
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                sha.update(buffer, 0, n);
            }
        }
        return HexFormat.of().formatHex(sha.digest());
    }

    private Book.@Nullable Answer file(Ask ask, String name, String path) throws IOException, Problem {
        if (path.isEmpty()) {
            throw Problem.bad("a file needs a name");
        }
        switch (ask.method()) {
            case "GET", "HEAD" -> {
                Path file = SafePath.inside(folder(name, ask.query("snapshot")), path);
                if (!Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
                    throw Problem.missing(path);
                }
                String digest;
                synchronized (this) {
                    Book.Change change = book().change();
                    digest = facts(name, file, Files.readAttributes(file, BasicFileAttributes.class), change)
                            .path("sha256")
                            .asText();
                    book().commit(change, null, Book.Answer.of(200));
                }
                ask.file(file, digest, "");
                return null;
            }
            case "PUT" -> {
                Ask.Upload upload = ask.upload(folder().resolve("uploads"));
                try {
                    synchronized (this) {
                        return put(ask, name, path, upload);
                    }
                } finally {
                    discard(upload.file());
                }
            }
            case "DELETE" -> {
                synchronized (this) {
                    Path file = SafePath.inside(live(name), path);
                    if (!Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
                        throw Problem.missing(path);
                    }
                    asSeen(ask, file, path);
                    Files.delete(file);
                    return done(ask, book().change(), Book.Answer.of(200));
                }
            }
            default -> throw new Problem(405, "method", ask.method());
        }
    }

    /** Refuses what was asked of a file that is not as the asker saw it. */
    private static void asSeen(Ask ask, Path file, String path) throws IOException, Problem {
        String wanted = ask.header("If-Match");
        boolean there = Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS);
        boolean differs = !wanted.isEmpty() && !(there && wanted.equals('"' + digest(file) + '"'));
        if (differs || (there && ask.header("If-None-Match").equals("*"))) {
            throw new Problem(412, "changed", path + " is not as it was");
        }
    }

    private Book.Answer put(Ask ask, String name, String path, Ask.Upload upload) throws IOException, Problem {
        if (used() + upload.size() > totalBytes) {
            throw new Problem(507, "full", "there is no room for " + upload.size() + " bytes");
        }
        Path file = SafePath.inside(live(name), path);
        if (Files.isDirectory(file, LinkOption.NOFOLLOW_LINKS)) {
            throw new Problem(409, "folder", path + " is a folder");
        }
        asSeen(ask, file, path);
        try {
            Files.createDirectories(file.getParent());
        } catch (java.nio.file.FileAlreadyExistsException e) {
            throw new Problem(409, "file", "a file is where a folder should be: " + path);
        }
        Instant modified = ask.header("X-Modified").isEmpty() ? now() : Instant.parse(ask.header("X-Modified"));
        Files.setLastModifiedTime(upload.file(), FileTime.from(modified));
        Files.move(upload.file(), file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        BasicFileAttributes attributes = Files.readAttributes(file, BasicFileAttributes.class);
        ObjectNode facts = Book.JSON
                .createObjectNode()
                .put("size", upload.size())
                .put("modified", attributes.lastModifiedTime().toInstant().toString())
                .put("who", ask.who())
                .put("sha256", upload.sha256());
        return done(ask, book().change().put("file/" + name + "/" + attributes.fileKey(), facts), Book.Answer.of(200));
    }

    private Book.Answer snapshots(Ask ask, String name) throws IOException, Problem {
        if (ask.method().equals("POST")) {
            ObjectNode node = take(name, ask.json().path("label").asText(""), now());
            Book.Answer answer = new Book.Answer(200, node);
            done(ask, book().change(), answer);
            limit(name);
            return answer;
        }
        if (ask.method().equals("DELETE")) {
            String id = ask.part(3);
            if (book().get("snapshot/" + name + "/" + id) == null) {
                throw Problem.missing("snapshot " + id);
            }
            erase(name, id);
            return done(ask, book().change(), Book.Answer.of(200));
        }
        ArrayNode list = Book.JSON.createArrayNode();
        Settings settings = new Settings(java.util.Objects.requireNonNull(book().get("share/" + name)));
        var all = book().under("snapshot/" + name + "/");
        Optional<Duration> every = Settings.every(settings.text("snapshot-every", "hand"));
        int i = 0;
        for (JsonNode s : all.values()) {
            ObjectNode shown = s.deepCopy();
            if (every.isPresent()) {
                // The oldest goes when as many have come as are kept.
                long rounds = Math.max(1, settings.number("snapshot-keep") - all.size() + i + 1);
                Instant last = Instant.parse(java.util.Objects.requireNonNull(all.get(all.lastKey()))
                        .path("at")
                        .asText());
                shown.put("expires", last.plus(every.get().multipliedBy(rounds)).toString());
            }
            list.add(shown);
            i++;
        }
        return new Book.Answer(200, list);
    }

    private ObjectNode take(String name, String label, Instant at) throws IOException {
        String id = "%013d".formatted(at.toEpochMilli());
        while (book().get("snapshot/" + name + "/" + id) != null) {
            id = "%013d".formatted(Long.parseLong(id) + 1);
        }
        Path to = snapshot(name, id);
        Path from = live(name);
        walk(from, (file, attributes) -> {
            Path link = to.resolve(from.relativize(file).toString());
            Files.createDirectories(link.getParent());
            Files.createLink(link, file);
        });
        Files.createDirectories(to);
        ObjectNode node = Book.JSON
                .createObjectNode()
                .put("id", id)
                .put("at", at.toString())
                .put("label", label);
        book().commit(book().change().put("snapshot/" + name + "/" + id, node), null, Book.Answer.of(200));
        return node;
    }

    private void erase(String name, String id) throws IOException {
        book().commit(book().change().drop("snapshot/" + name + "/" + id), null, Book.Answer.of(200));
        Path root = snapshot(name, id);
        if (!Files.isDirectory(root)) {
            return;
        }
        Files.walkFileTree(root, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.delete(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path dir, @Nullable IOException e) throws IOException {
                Files.delete(dir);
                return FileVisitResult.CONTINUE;
            }
        });
    }

    private void limit(String name) throws IOException {
        Settings settings = new Settings(java.util.Objects.requireNonNull(book().get("share/" + name)));
        long keep = Math.max(1, settings.number("snapshot-keep"));
        var all = book().under("snapshot/" + name + "/");
        for (String key :
                all.keySet().stream().limit(Math.max(0, all.size() - keep)).toList()) {
            erase(name, key.substring(key.lastIndexOf('/') + 1));
        }
    }

    @Override
    synchronized void tick() throws IOException {
        for (Map.Entry<String, JsonNode> share : book().under("share/").entrySet()) {
            String name = share.getKey().substring(6);
            Optional<Duration> every = Settings.every(new Settings(share.getValue()).text("snapshot-every", "hand"));
            if (every.isEmpty()) {
                continue;
            }
            var all = book().under("snapshot/" + name + "/");
            Instant last = all.isEmpty()
                    ? Instant.EPOCH
                    : Instant.parse(java.util.Objects.requireNonNull(all.get(all.lastKey()))
                            .path("at")
                            .asText());
            if (!last.plus(every.get()).isAfter(now())) {
                take(name, "", now());
                limit(name);
            }
        }
    }

    private Book.Answer takeBack(Ask ask, String name) throws IOException, Problem {
        JsonNode wanted = ask.json();
        String path = wanted.path("path").asText();
        Path from = SafePath.inside(folder(name, wanted.path("snapshot").asText()), path);
        Path to = SafePath.inside(live(name), path);
        if (Files.isDirectory(from, LinkOption.NOFOLLOW_LINKS)) {
            walk(
                    from,
                    (file, attributes) ->
                            link(file, to.resolve(from.relativize(file).toString())));
        } else if (Files.isRegularFile(from, LinkOption.NOFOLLOW_LINKS)) {
            link(from, to);
        } else {
            throw Problem.missing(path);
        }
        return done(ask, book().change(), Book.Answer.of(200));
    }

    private static void link(Path from, Path to) throws IOException {
        Files.createDirectories(to.getParent());
        Path beside = to.resolveSibling("." + to.getFileName() + ".back");
        Files.deleteIfExists(beside);
        Files.createLink(beside, from);
        // Two names of one file: renaming one over the other would do nothing at all.
        Files.deleteIfExists(to);
        Files.move(beside, to, StandardCopyOption.ATOMIC_MOVE);
    }
}
