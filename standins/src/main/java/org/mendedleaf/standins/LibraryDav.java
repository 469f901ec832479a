package org.mendedleaf.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * The WebDAV side of the library (RFC 4918, class 1), with the version-tree report and check-out in place of the
 * versioning extension (RFC 3253). Properties of its own stand in the namespace {@code urn:office-library}.
 */
final class LibraryDav {

    private static final String METHODS = "OPTIONS, PROPFIND, PROPPATCH, GET, HEAD, PUT, DELETE, MKCOL, MOVE, COPY,"
            + " REPORT, CHECKOUT, CHECKIN, UNCHECKOUT";

    private final Library library;

    LibraryDav(Library library) {
        this.library = library;
    }

    Book.@Nullable Answer handle(Ask ask) throws IOException, Problem {
        if (ask.method().equals("OPTIONS")) {
            ask.header("DAV", "1, version-control, checkout-in-place");
            ask.header("Allow", METHODS);
            return Book.Answer.of(200);
        }
        String place = ask.part(1);
        String role = library.role(place, ask.who());
        String path = ask.rest(2);
        if (ask.method().equals("PUT")) {
            return put(ask, place, path, role);
        }
        synchronized (library) {
            return switch (ask.method()) {
                case "PROPFIND" -> propfind(ask, place, path, role);
                case "REPORT" -> report(ask, place, path, role);
                case "GET", "HEAD" -> get(ask, place, path, role);
                case "DELETE" -> delete(ask, place, path, role);
                case "MKCOL" -> makeFolder(ask, place, path, role);
                case "MOVE", "COPY" -> moveOrCopy(ask, place, path, role);
                case "PROPPATCH" -> proppatch(ask, place, path, role);
                case "CHECKOUT", "CHECKIN", "UNCHECKOUT" -> checkOut(ask, place, path, role);
                default -> throw new Problem(405, "method", ask.method());
            };
        }
    }

    private Book.Answer put(Ask ask, String place, String path, String role) throws IOException, Problem {
        Library.needs(role, "editor");
        synchronized (library) {
            if (path.isEmpty() || isFolder(place, path)) {
                throw new Problem(405, "folder", path + " is a folder");
            }
            if (!isFolder(place, parent(path))) {
                throw new Problem(409, "no-folder", "there is no folder " + parent(path));
            }
        }
        Ask.Upload upload = ask.upload(library.folder().resolve("uploads"));
        try {
            synchronized (library) {
                Optional<LibraryFile> there = library.find(place, path);
                String wanted = ask.header("If-Match");
                boolean differs = !wanted.isEmpty()
                        && !wanted.equals("*")
                        && there.map(f -> !wanted.equals(etag(last(f, true)))).orElse(true);
                if (differs || (ask.header("If-None-Match").equals("*") && there.isPresent())) {
                    throw new Problem(412, "changed", path + " is not as it was");
                }
                return library.put(ask, place, path, upload);
            }
        } finally {
            StandIn.discard(upload.file());
        }
    }

    private static String parent(String path) {
        return path.contains("/") ? path.substring(0, path.lastIndexOf('/')) : "";
    }

    private boolean isFolder(String place, String path) {
        return path.isEmpty() || folders(place).contains(path);
    }

    /** Folders that were made, and those that files are in. */
    private Set<String> folders(String place) {
        Set<String> folders = new TreeSet<>();
        String prefix = "folder/" + place + "/";
        library.book().under(prefix).keySet().forEach(k -> folders.add(k.substring(prefix.length())));
        for (JsonNode f : library.book().under("file/" + place + "/").values()) {
            String at = f.has("removed") ? "" : parent(f.path("path").asText());
            for (; !at.isEmpty(); at = parent(at)) {
                folders.add(at);
            }
        }
        return folders;
    }

    private static String etag(JsonNode version) {
        return '"' + version.path("sha256").asText() + '"';
    }

    private static JsonNode last(LibraryFile file, boolean drafts) {
        List<JsonNode> seen = file.visible(drafts);
        return seen.get(seen.size() - 1);
    }

    /** A file as somebody sees it; without a version that they may see it is not there for them. */
    private LibraryFile file(String place, String path, String role) throws Problem {
        return library.find(place, path)
                .filter(f -> !f.visible(library.seesDrafts(place, role)).isEmpty())
                .orElseThrow(() -> Problem.missing(path));
    }

    private static String httpDate(String instant) {
        return DateTimeFormatter.RFC_1123_DATE_TIME.format(
                Instant.parse(instant).atOffset(ZoneOffset.UTC));
    }

    private Book.@Nullable Answer get(Ask ask, String place, String path, String role) throws IOException, Problem {
        LibraryFile file = file(place, path, role);
        JsonNode v = last(file, library.seesDrafts(place, role));
        ask.file(
                library.content(v.path("id").asText()),
                v.path("sha256").asText(),
                httpDate(v.path("modified").asText()));
        return null;
    }

    private Book.Answer delete(Ask ask, String place, String path, String role) throws IOException, Problem {
        Library.needs(role, "editor");
        if (path.isEmpty()) {
            throw new Problem(403, "place", "a place is not removed so");
        }
        if (!isFolder(place, path)) {
            LibraryFile file = file(place, path, role);
            String out = file.checkedOutBy();
            if (!out.isEmpty() && !out.equals(ask.who())) {
                throw new Problem(423, "checked-out", out + " has " + path + " checked out");
            }
            return library.remove(ask, place, file);
        }
        for (LibraryFile file : below(place, path)) {
            Book.Change change = library.book().change();
            file.node().put("removed", library.now().toString()).put("removedBy", ask.who());
            library.book().commit(change.put(Library.key(place, file), file.node()), null, Book.Answer.of(204));
        }
        Book.Change change = library.book().change();
        for (String folder : folders(place)) {
            if (folder.equals(path) || folder.startsWith(path + "/")) {
                change.drop("folder/" + place + "/" + folder);
            }
        }
        return library.done(ask, change, Book.Answer.of(204));
    }

    private List<LibraryFile> below(String place, String folder) {
        List<LibraryFile> files = new ArrayList<>();
        for (JsonNode f : library.book().under("file/" + place + "/").values()) {
            if (!f.has("removed") && f.path("path").asText().startsWith(folder + "/")) {
                files.add(LibraryFile.copyOf(f));
            }
        }
        return files;
    }

    private Book.Answer makeFolder(Ask ask, String place, String path, String role) throws IOException, Problem {
        Library.needs(role, "editor");
        if (isFolder(place, path) || library.find(place, path).isPresent()) {
            throw new Problem(409, "exists", path + " is there already");
        }
        if (!isFolder(place, parent(path))) {
            throw new Problem(409, "no-folder", "there is no folder " + parent(path));
        }
        ObjectNode node = Book.JSON.createObjectNode().put("at", library.now().toString());
        return library.done(
                ask, library.book().change().put("folder/" + place + "/" + path, node), Book.Answer.of(201));
    }

    private Book.Answer moveOrCopy(Ask ask, String place, String path, String role) throws IOException, Problem {
        Library.needs(role, "editor");
        String target = destination(ask, place);
        boolean overwrite = !ask.header("Overwrite").equals("F");
        if (!isFolder(place, parent(target))) {
            throw new Problem(409, "no-folder", "there is no folder " + parent(target));
        }
        Optional<LibraryFile> there = library.find(place, target);
        if (there.isPresent() && !overwrite) {
            throw new Problem(412, "exists", target + " is there already");
        }
        if (isFolder(place, path)) {
            return moveFolder(ask, place, path, target);
        }
        LibraryFile file = file(place, path, role);
        Library.mayChange(file, new Settings(Book.JSON.createObjectNode()), ask.who());
        Book.Change change = library.book().change();
        if (there.isPresent()) {
            LibraryFile old = there.get();
            old.node().put("removed", library.now().toString()).put("removedBy", ask.who());
            change.put(Library.key(place, old), old.node());
        }
        if (ask.method().equals("MOVE")) {
            file.node().put("path", target);
            change.put(Library.key(place, file), file.node());
        } else {
            LibraryFile copy = LibraryFile.fresh(library.freshId(), target);
            ObjectNode v = last(file, true).deepCopy();
            String id = library.freshId();
            Files.copy(library.content(v.path("id").asText()), library.content(id));
            v.put("id", id).put("at", library.now().toString()).put("major", 1).put("minor", 0);
            copy.versions().add(v);
            change.put(Library.key(place, copy), copy.node());
        }
        return library.done(ask, change, Book.Answer.of(there.isPresent() ? 204 : 201));
    }

    private Book.Answer moveFolder(Ask ask, String place, String path, String target) throws IOException, Problem {
        if (ask.method().equals("COPY") || (target + "/").startsWith(path + "/") || isFolder(place, target)) {
            throw new Problem(409, "folder", "a folder is moved to where nothing is, and not copied");
        }
        Book.Change change = library.book().change();
        for (LibraryFile file : below(place, path)) {
            file.node().put("path", target + file.path().substring(path.length()));
            change.put(Library.key(place, file), file.node());
        }
        for (String folder : folders(place)) {
            if (folder.equals(path) || folder.startsWith(path + "/")) {
                change.drop("folder/" + place + "/" + folder);
                change.put(
                        "folder/" + place + "/" + target + folder.substring(path.length()),
                        Book.JSON.createObjectNode());
            }
        }
        return library.done(ask, change, Book.Answer.of(201));
    }

    private static String destination(Ask ask, String place) throws Problem {
        String text = ask.header("Destination");
        int scheme = text.indexOf("://");
        String path = scheme < 0 ? text : text.substring(Math.max(text.indexOf('/', scheme + 3), 0));
        String prefix = "/dav/" + place + "/";
        String decoded = Ask.decode(path);
        if (!decoded.startsWith(prefix) || decoded.contains("/../") || decoded.contains("//")) {
            throw Problem.bad("a destination outside of the place");
        }
        String target = decoded.substring(prefix.length());
        return target.endsWith("/") ? target.substring(0, target.length() - 1) : target;
    }

    private Book.Answer checkOut(Ask ask, String place, String path, String role) throws IOException, Problem {
        Library.needs(role, "editor");
        LibraryFile file = file(place, path, role);
        String out = file.checkedOutBy();
        boolean takes = ask.method().equals("CHECKOUT");
        boolean mine = out.equals(ask.who());
        if (takes && !out.isEmpty() && !mine) {
            throw new Problem(423, "checked-out", out + " has " + path + " checked out");
        }
        if (!takes && out.isEmpty()) {
            throw new Problem(409, "not-checked-out", path + " is not checked out");
        }
        if (!takes && !mine) {
            Library.needs(role, "owner");
        }
        if (takes) {
            file.node().put("out", ask.who()).put("outSince", library.now().toString());
        } else {
            file.node().remove(List.of("out", "outSince"));
        }
        return library.done(
                ask, library.book().change().put(Library.key(place, file), file.node()), Book.Answer.of(200));
    }

    private Book.@Nullable Answer propfind(Ask ask, String place, String path, String role)
            throws IOException, Problem {
        String depth = ask.header("Depth").isEmpty() ? "infinity" : ask.header("Depth");
        ask.body();
        StringBuilder xml = start();
        boolean drafts = library.seesDrafts(place, role);
        if (!isFolder(place, path)) {
            file(xml, place, file(place, path, role), drafts);
        } else {
            folder(xml, place, path);
            if (!depth.equals("0")) {
                boolean deep = depth.equals("infinity");
                for (String f : folders(place)) {
                    if (inside(/* folder= */ path, f, deep)) {
                        folder(xml, place, f);
                    }
                }
                for (JsonNode node : library.book().under("file/" + place + "/").values()) {
                    LibraryFile f = LibraryFile.copyOf(node);
                    if (!f.isRemoved()
                            && inside(path, f.path(), deep)
                            && !f.visible(drafts).isEmpty()) {
                        file(xml, place, f, drafts);
                    }
                }
            }
        }
        return multi(ask, xml);
    }

    private static boolean inside(String folder, String path, boolean deep) {
        boolean below = folder.isEmpty() ? !path.isEmpty() : path.startsWith(folder + "/");
        return below && (deep || parent(path).equals(folder));
    }

    private static StringBuilder start() {
        return new StringBuilder("<?xml version=\"1.0\" encoding=\"utf-8\"?>\n<D:multistatus xmlns:D=\"DAV:\""
                + " xmlns:L=\"urn:office-library\">");
    }

    private static Book.@Nullable Answer multi(Ask ask, StringBuilder xml) throws IOException {
        byte[] bytes = xml.append("</D:multistatus>").toString().getBytes(StandardCharsets.UTF_8);
        ask.answer(207, "application/xml; charset=utf-8", bytes);
        return null;
    }

    private static String href(String place, String path) {
        StringBuilder href = new StringBuilder("/dav");
        for (String part : (place + (path.isEmpty() ? "" : "/" + path)).split("/")) {
            href.append('/')
                    .append(URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20"));
        }
        return href.toString();
    }

    private static String escape(String text) {
        StringBuilder out = new StringBuilder(text.length());
        text.codePoints().forEach(c -> {
            switch (c) {
                case '<' -> out.append("&lt;");
                case '>' -> out.append("&gt;");
                case '&' -> out.append("&amp;");
                case '"' -> out.append("&quot;");
                // XML has no way to write these at all.
                default -> out.appendCodePoint(c < 32 && c != '\n' && c != '\t' ? 0xFFFD : c);
            }
        });
        return out.toString();
    }

    private static void response(StringBuilder xml, String href, Map<String, String> properties) {
        xml.append("<D:response><D:href>").append(href).append("</D:href><D:propstat><D:prop>");
        properties.forEach((name, value) -> {
            String element = name.contains(":") ? name : "D:" + name;
            boolean raw = name.equals("resourcetype");
            xml.append('<').append(element).append('>');
            xml.append(raw ? value : escape(value));
            xml.append("</").append(element).append('>');
        });
        xml.append("</D:prop><D:status>HTTP/1.1 200 OK</D:status></D:propstat></D:response>");
    }

    private static void folder(StringBuilder xml, String place, String path) {
        Map<String, String> p = new LinkedHashMap<>();
        p.put("resourcetype", "<D:collection/>");
        p.put("displayname", path.isEmpty() ? place : path.substring(path.lastIndexOf('/') + 1));
        response(xml, href(place, path) + "/", p);
    }

    private static void file(StringBuilder xml, String place, LibraryFile file, boolean drafts) {
        JsonNode v = last(file, drafts);
        Map<String, String> p = new LinkedHashMap<>();
        p.put("resourcetype", "");
        p.put("displayname", file.path().substring(file.path().lastIndexOf('/') + 1));
        p.put("getcontentlength", v.path("size").asText());
        p.put("getlastmodified", httpDate(v.path("modified").asText()));
        p.put("getetag", etag(v));
        p.put("L:file-id", file.id());
        p.put("L:history-tag", file.historyTag() + (drafts ? "" : "-p"));
        if (!file.checkedOutBy().isEmpty()) {
            p.put("L:checked-out-by", file.checkedOutBy());
            p.put("L:checked-out-since", file.node().path("outSince").asText());
        }
        response(xml, href(place, file.path()), p);
    }

    private Book.@Nullable Answer report(Ask ask, String place, String path, String role) throws IOException, Problem {
        String asked = new String(ask.body(), StandardCharsets.UTF_8);
        if (!asked.contains("version-tree")) {
            throw new Problem(403, "supported-report", "the only report is version-tree");
        }
        LibraryFile file = file(place, path, role);
        StringBuilder xml = start();
        for (JsonNode v : file.visible(library.seesDrafts(place, role))) {
            Map<String, String> p = new LinkedHashMap<>();
            p.put("version-name", LibraryFile.label(v));
            p.put("creator-displayname", v.path("who").asText());
            p.put("creationdate", v.path("at").asText());
            p.put("getcontentlength", v.path("size").asText());
            p.put("comment", v.path("note").asText());
            p.put("L:version-id", v.path("id").asText());
            p.put("L:modified", v.path("modified").asText());
            p.put("L:sha256", v.path("sha256").asText());
            response(
                    xml,
                    "/places/"
                            + URLEncoder.encode(place, StandardCharsets.UTF_8).replace("+", "%20") + "/versions/"
                            + v.path("id").asText(),
                    p);
        }
        return multi(ask, xml);
    }

    /** Takes a new comment for the newest version; other properties are not kept. */
    private Book.@Nullable Answer proppatch(Ask ask, String place, String path, String role)
            throws IOException, Problem {
        Library.needs(role, "editor");
        LibraryFile file = file(place, path, role);
        String body = new String(ask.body(), StandardCharsets.UTF_8);
        java.util.regex.Matcher comment =
                java.util.regex.Pattern.compile("<(?:\\w+:)?comment>([^<]*)</").matcher(body);
        if (!comment.find()) {
            throw new Problem(403, "property", "only the comment can be set");
        }
        String note = comment.group(1).replace("&lt;", "<").replace("&gt;", ">").replace("&amp;", "&");
        ((ObjectNode) file.versions().get(file.versions().size() - 1)).put("note", note);
        library.book()
                .commit(library.book().change().put(Library.key(place, file), file.node()), null, Book.Answer.of(207));
        StringBuilder xml = start();
        response(xml, href(place, path), Map.of("comment", ""));
        return multi(ask, xml);
    }
}
