package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import org.jspecify.annotations.Nullable;

/**
 * A backup drive: sets of runs, with limited room, that can be unplugged. Contents are kept once, by their digest. A run
 * counts when it is finished; one that was interrupted stays open and is gone on with. Runs go when their time is over,
 * or the oldest when room is needed and the set allows it; the newest finished run of a set never goes by itself.
 *
 * <p>The book: {@code drive}, {@code set/NAME}, {@code run/NAME/ID}, {@code entry/NAME/ID/PATH}. Contents: {@code
 * contents/SHA-256}.
 */
public final class BackupDrive extends StandIn {

    private static final String SEPARATOR = "\u0001";

    /** A drive in this folder; its size counts when it is new. */
    public BackupDrive(Path folder, String owner, long totalBytes) throws IOException {
        super("backup-drive", folder, owner);
        if (book().get("drive") == null) {
            ObjectNode drive = Book.JSON.createObjectNode().put("plugged", true).put("total", totalBytes);
            book().commit(book().change().put("drive", drive), null, Book.Answer.of(200));
        }
    }

    private JsonNode drive() {
        return java.util.Objects.requireNonNull(book().get("drive"));
    }

    private static String run(String set, String id) {
        return "run" + SEPARATOR + set + SEPARATOR + id;
    }

    private static String entries(String set, String id) {
        return "entry" + SEPARATOR + set + SEPARATOR + id + SEPARATOR;
    }

    private Path content(String sha256) {
        return folder().resolve("contents").resolve(sha256.substring(0, 2)).resolve(sha256);
    }

    /** Pulls the plug or puts it in. */
    public synchronized void plug(boolean in) throws IOException {
        ObjectNode drive = drive().deepCopy();
        drive.put("plugged", in);
        book().commit(book().change().put("drive", drive), null, Book.Answer.of(200));
    }

    @Override
    void ownKnob(String name, JsonNode json) throws IOException, Problem {
        if (!name.equals("plug")) {
            throw Problem.missing(name);
        }
        plug(json.path("plugged").asBoolean());
    }

    @Override
    Book.@Nullable Answer handle(Ask ask) throws IOException, Problem {
        if (!drive().path("plugged").asBoolean()) {
            throw new Problem(503, "unplugged", "the drive is not plugged in");
        }
        if (ask.part(0).equals("state")) {
            synchronized (this) {
                return new Book.Answer(200, state(used(), drive().path("total").asLong()));
            }
        }
        if (!ask.part(0).equals("sets")) {
            throw Problem.missing(ask.part(0));
        }
        String set = ask.parts() == 1 ? "" : SafePath.name(ask.part(1));
        if (ask.parts() > 2 && ask.part(2).equals("runs") && ask.part(4).equals("files")) {
            return file(ask, set, ask.part(3), ask.rest(5));
        }
        synchronized (this) {
            if (ask.parts() == 1) {
                return new Book.Answer(200, sets());
            }
            if (ask.parts() == 2) {
                return set(ask, set);
            }
            if (!ask.part(2).equals("runs") || book().get("set/" + set) == null) {
                throw Problem.missing(set);
            }
            return ask.parts() == 3 ? runs(ask, set) : run(ask, set, ask.part(3));
        }
    }

    private long used() {
        Set<String> seen = new HashSet<>();
        long used = 0;
        for (JsonNode e : book().under("entry" + SEPARATOR).values()) {
            used += seen.add(e.path("sha256").asText()) ? e.path("size").asLong() : 0;
        }
        return used;
    }

    private ArrayNode sets() {
        ArrayNode list = Book.JSON.createArrayNode();
        book().under("set/").forEach((key, settings) -> {
            String name = key.substring(4);
            ObjectNode shown = list.addObject().put("name", name).put("role", "owner");
            shown.set("settings", settings);
            for (JsonNode run : book().under(run(name, "")).values()) {
                if (!run.path("finished").asBoolean()) {
                    shown.put("unfinished", run.path("at").asText());
                }
            }
        });
        return list;
    }

    private Book.Answer set(Ask ask, String name) throws IOException, Problem {
        JsonNode before = book().get("set/" + name);
        JsonNode wanted = ask.json();
        if (ask.method().equals("PUT")) {
            if (before != null) {
                throw new Problem(409, "exists", "a set named " + name + " is there already");
            }
            if (name.isBlank() || name.indexOf(':') >= 0) {
                throw Problem.bad("a set needs a name without colon");
            }
            return done(ask, book().change().put("set/" + name, wanted), Book.Answer.of(201));
        }
        if (before == null) {
            throw Problem.missing(name);
        }
        return done(ask, book().change().put("set/" + name, Settings.merge(before, wanted)), Book.Answer.of(200));
    }

    private Settings settings(String set) throws Problem {
        JsonNode node = book().get("set/" + set);
        if (node == null) {
            throw Problem.missing(set);
        }
        return new Settings(node);
    }

    private Book.Answer runs(Ask ask, String set) throws IOException, Problem {
        SortedMap<String, JsonNode> all = book().under(run(set, ""));
        if (!ask.method().equals("POST")) {
            ArrayNode list = Book.JSON.createArrayNode();
            String keep = settings(set).text("backup-keep", Settings.UNTIL_FULL);
            String newest = newestFinished(all);
            all.forEach((key, run) -> {
                if (run.path("finished").asBoolean()) {
                    ObjectNode shown = run.deepCopy();
                    Optional<Instant> until =
                            Settings.keptUntil(Instant.parse(run.path("at").asText()), keep);
                    if (until.isPresent() && !key.equals(newest)) {
                        shown.put("expires", until.get().toString());
                    }
                    list.add(shown);
                }
            });
            return new Book.Answer(200, list);
        }
        for (JsonNode run : all.values()) {
            if (!run.path("finished").asBoolean()) {
                return new Book.Answer(200, opened(set, run));
            }
        }
        String at = ask.json().path("at").asText();
        String id = "%013d".formatted(Instant.parse(at).toEpochMilli());
        while (book().get(run(set, id)) != null) {
            id = "%013d".formatted(Long.parseLong(id) + 1);
        }
        ObjectNode run =
                Book.JSON.createObjectNode().put("id", id).put("at", at).put("finished", false);
        return done(ask, book().change().put(run(set, id), run), new Book.Answer(200, opened(set, run)));
    }

    private static String newestFinished(SortedMap<String, JsonNode> runs) {
        String newest = "";
        for (Map.Entry<String, JsonNode> e : runs.entrySet()) {
            newest = e.getValue().path("finished").asBoolean() ? e.getKey() : newest;
        }
        return newest;
    }

    private ObjectNode opened(String set, JsonNode run) {
        ObjectNode shown = run.deepCopy();
        ArrayNode have = shown.putArray("have");
        String prefix = entries(set, run.path("id").asText());
        book().under(prefix).keySet().forEach(k -> have.add(k.substring(prefix.length())));
        return shown;
    }

    private Book.Answer run(Ask ask, String set, String id) throws IOException, Problem {
        JsonNode run = book().get(run(set, id));
        if (run == null) {
            throw Problem.missing("run " + id);
        }
        switch (ask.part(4)) {
            case "tree" -> {
                ArrayNode list = Book.JSON.createArrayNode();
                String prefix = entries(set, id);
                book().under(prefix)
                        .forEach((k, e) ->
                                list.add(((ObjectNode) e.deepCopy()).put("path", k.substring(prefix.length()))));
                return new Book.Answer(200, list);
            }
            case "same" -> {
                ObjectNode answer = Book.JSON.createObjectNode();
                ArrayNode missing = answer.putArray("missing");
                Book.Change change = book().change();
                for (JsonNode f : ask.json()) {
                    String sha = f.path("sha256").asText();
                    if (sha.matches("[0-9a-f]{64}") && Files.exists(content(sha))) {
                        change.put(entries(set, id) + f.path("path").asText(), entry(f, Files.size(content(sha)), sha));
                    } else {
                        missing.add(f.path("path").asText());
                    }
                }
                return done(ask, change, new Book.Answer(200, answer));
            }
            case "finish" -> {
                ObjectNode finished = run.deepCopy();
                finished.put("finished", true);
                JsonNode skipped = ask.json().path("skipped");
                if (!skipped.isEmpty()) {
                    finished.set("skipped", skipped);
                }
                Book.Answer answer = done(ask, book().change().put(run(set, id), finished), Book.Answer.of(200));
                tick();
                return answer;
            }
            case "" -> {
                if (ask.method().equals("GET")) {
                    return new Book.Answer(200, run);
                }
                if (!ask.method().equals("DELETE")) {
                    throw new Problem(405, "method", ask.method());
                }
                drop(set, id);
                return done(ask, book().change(), Book.Answer.of(200));
            }
            default -> throw Problem.missing(ask.part(4));
        }
    }

    private static ObjectNode entry(JsonNode facts, long size, String sha256) {
        return Book.JSON
                .createObjectNode()
                .put("size", size)
                .put("modified", facts.path("modified").asText())
                .put("who", facts.path("who").asText(""))
                .put("sha256", sha256);
    }

    private Book.@Nullable Answer file(Ask ask, String set, String id, String path) throws IOException, Problem {
        JsonNode run = book().get(run(set, id));
        if (run == null) {
            throw Problem.missing("run " + id);
        }
        if (ask.method().equals("GET")) {
            JsonNode entry = book().get(entries(set, id) + path);
            if (entry == null) {
                throw Problem.missing(path);
            }
            ask.file(
                    content(entry.path("sha256").asText()), entry.path("sha256").asText(), "");
            return null;
        }
        if (run.path("finished").asBoolean()) {
            throw new Problem(409, "finished", "the run is finished");
        }
        Ask.Upload upload = ask.upload(folder().resolve("uploads"));
        try {
            synchronized (this) {
                if (!drive().path("plugged").asBoolean()) {
                    throw new Problem(503, "unplugged", "the drive was unplugged");
                }
                room(upload);
                Path content = content(upload.sha256());
                Files.createDirectories(content.getParent());
                Files.move(upload.file(), content, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
                ObjectNode facts = Book.JSON
                        .createObjectNode()
                        .put("modified", ask.header("X-Modified"))
                        .put("who", Ask.decode(ask.header("X-Note")));
                ObjectNode entry = entry(facts, upload.size(), upload.sha256());
                return done(ask, book().change().put(entries(set, id) + path, entry), Book.Answer.of(200));
            }
        } finally {
            discard(upload.file());
        }
    }

    /** Makes room where sets allow it, the oldest runs first. */
    private void room(Ask.Upload upload) throws IOException, Problem {
        long total = drive().path("total").asLong();
        while (!Files.exists(content(upload.sha256())) && used() + upload.size() > total) {
            Optional<String[]> oldest = oldestExpendable();
            if (oldest.isEmpty()) {
                throw new Problem(507, "full", "there is no room for " + upload.size() + " bytes");
            }
            drop(oldest.get()[0], oldest.get()[1]);
        }
    }

    private Optional<String[]> oldestExpendable() {
        String[] oldest = null;
        String at = "";
        for (Map.Entry<String, JsonNode> set : book().under("set/").entrySet()) {
            if (!Settings.isUntilFull(new Settings(set.getValue()).text("backup-keep", Settings.UNTIL_FULL))) {
                continue;
            }
            String name = set.getKey().substring(4);
            SortedMap<String, JsonNode> runs = book().under(run(name, ""));
            String newest = newestFinished(runs);
            for (Map.Entry<String, JsonNode> r : runs.entrySet()) {
                String when = r.getValue().path("at").asText();
                boolean expendable =
                        r.getValue().path("finished").asBoolean() && !r.getKey().equals(newest);
                if (expendable && (oldest == null || when.compareTo(at) < 0)) {
                    oldest = new String[] {name, r.getValue().path("id").asText()};
                    at = when;
                }
            }
        }
        return Optional.ofNullable(oldest);
    }

    private void drop(String set, String id) throws IOException {
        Book.Change change = book().change().drop(run(set, id));
        Set<String> contents = new HashSet<>();
        book().under(entries(set, id)).forEach((k, e) -> {
            change.drop(k);
            contents.add(e.path("sha256").asText());
        });
        book().commit(change, null, Book.Answer.of(200));
        book().under("entry" + SEPARATOR)
                .values()
                .forEach(e -> contents.remove(e.path("sha256").asText()));
        contents.forEach(sha -> discard(content(sha)));
    }

    @Override
    synchronized void tick() throws IOException {
        if (!drive().path("plugged").asBoolean()) {
            return;
        }
        for (Map.Entry<String, JsonNode> set : book().under("set/").entrySet()) {
            String name = set.getKey().substring(4);
            String keep = new Settings(set.getValue()).text("backup-keep", Settings.UNTIL_FULL);
            SortedMap<String, JsonNode> runs = book().under(run(name, ""));
            String newest = newestFinished(runs);
            List<String> over = new ArrayList<>();
            runs.forEach((key, r) -> {
                Optional<Instant> until =
                        Settings.keptUntil(Instant.parse(r.path("at").asText()), keep);
                boolean ended = until.isPresent() && !until.get().isAfter(now());
                if (ended && r.path("finished").asBoolean() && !key.equals(newest)) {
                    over.add(r.path("id").asText());
                }
            });
            for (String id : over) {
                drop(name, id);
            }
        }
    }
}
