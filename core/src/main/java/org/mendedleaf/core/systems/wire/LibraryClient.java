package org.mendedleaf.core.systems.wire;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.mendedleaf.core.systems.Budget;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Speaks to an office library: files by WebDAV (RFC 4918), their versions by the version-tree report (RFC 3253), places,
 * members and removed items by its own pages.
 */
final class LibraryClient extends OwnPages {

    private static final List<String> FILE = List.of("resourcetype", "getetag", "getcontentlength", "getlastmodified");
    private static final List<String> FILE_OWN =
            List.of("file-id", "history-tag", "checked-out-by", "checked-out-since");
    private static final List<String> VERSION =
            List.of("version-name", "creator-displayname", "getcontentlength", "comment", "creationdate");
    private static final List<String> VERSION_OWN = List.of("version-id", "modified", "sha256", "expires");

    LibraryClient(Http http) {
        super(http, SystemKind.LIBRARY, "/places");
    }

    private static String dav(String place, String path) {
        return "/dav/" + Http.encodePart(place) + "/" + Http.encode(path);
    }

    @Override
    public void files(String place, Map<String, String> known, Consumer<File> each) throws IOException {
        String root = Dav.path(dav(place, ""));
        List<Dav.Resource> resources = propfind(place);
        Budget.Listing listing = http.listing();
        listing.more(resources.size());
        for (Dav.Resource r : resources) {
            listing.onTime();
            String path = Dav.path(r.href());
            if (r.folder() || !path.startsWith(root)) {
                continue;
            }
            String key = r.get("file-id");
            String tag = r.get("history-tag") + "@" + path;
            Optional<List<Point>> points =
                    tag.equals(known.get(key)) ? Optional.empty() : Optional.of(versions(r.href()));
            each.accept(new File(key, path.substring(root.length()), tag, points, out(r)));
        }
        JsonNode removed = http.get(at(place) + "/removed");
        listing.more(removed.size());
        for (JsonNode gone : removed) {
            List<Point> points = new ArrayList<>();
            for (JsonNode p : gone.path("versions")) {
                points.add(SystemJson.point(p));
            }
            String tag = RequestKeys.tag(points);
            String key = gone.path("id").asText();
            each.accept(new File(
                    key,
                    gone.path("path").asText(),
                    tag,
                    tag.equals(known.get(key)) ? Optional.empty() : Optional.of(points)));
        }
    }

    private static Optional<Out> out(Dav.Resource r) throws SystemException {
        String who = r.get("checked-out-by");
        return who.isEmpty()
                ? Optional.empty()
                : Optional.of(new Out(who, SystemJson.moment(Http.JSON.valueToTree(r.get("checked-out-since")))));
    }

    private List<Dav.Resource> propfind(String place) throws IOException {
        Http.Reply reply = http.send(Http.Call.of("PROPFIND", dav(place, ""))
                .with("Depth", "infinity")
                .with("Content-Type", "application/xml; charset=utf-8")
                .with(Http.bytes(Dav.propfind(FILE, FILE_OWN))));
        return Dav.read(reply.body());
    }

    private List<Point> versions(String href) throws IOException {
        Http.Reply reply = http.send(Http.Call.of("REPORT", href)
                .with("Depth", "0")
                .with("Content-Type", "application/xml; charset=utf-8")
                .with(Http.bytes(Dav.versionTree(VERSION, VERSION_OWN))));
        List<Point> points = new ArrayList<>();
        for (Dav.Resource v : Dav.read(reply.body())) {
            Map<String, Object> json = new HashMap<>();
            json.put("id", v.get("version-id"));
            json.put("at", v.get("creationdate"));
            json.put("who", v.get("creator-displayname"));
            json.put("size", Math.max(0, v.size()));
            json.put("modified", v.get("modified"));
            json.put("sha256", v.get("sha256"));
            json.put("label", v.get("version-name"));
            json.put("note", v.get("comment"));
            json.put("expires", v.get("expires"));
            points.add(SystemJson.point(Http.JSON.valueToTree(json)));
        }
        return points;
    }

    @Override
    public void read(String place, String path, String point, Optional<Digest> sha256, OutputStream out)
            throws IOException {
        http.download(at(place) + "/versions/" + Http.encodePart(point), sha256, out);
    }

    @Override
    public String put(String place, Put put) throws IOException {
        folders(place, put.path());
        Http.Reply reply = http.send(RequestKeys.upload(dav(place, put.path()), put));
        return reply.header("X-Version-Id");
    }

    /** WebDAV makes no folder unasked (RFC 4918, 9.7.1). */
    private void folders(String place, String path) throws IOException {
        for (int slash = path.indexOf('/'); slash >= 0; slash = path.indexOf('/', slash + 1)) {
            try {
                http.send(Http.Call.of("MKCOL", dav(place, path.substring(0, slash)))
                        .key(RequestKeys.fresh()));
            } catch (SystemException.Conflict e) {
                // It is there already, which is all that is wanted.
                org.slf4j.LoggerFactory.getLogger(Http.class).trace("{}", e.words());
            }
        }
    }

    @Override
    public void remove(String place, String path, String key) throws IOException {
        http.send(Http.Call.of("DELETE", dav(place, path)).key(key));
    }

    @Override
    public void bringBack(String place, String path, String key) throws IOException {
        String id = "";
        String newest = "";
        for (JsonNode gone : http.get(at(place) + "/removed")) {
            JsonNode versions = gone.path("versions");
            String removed = versions.path(versions.size() - 1).path("at").asText();
            if (gone.path("path").asText().equals(path) && removed.compareTo(newest) > 0) {
                id = gone.path("id").asText();
                newest = removed;
            }
        }
        if (!id.isEmpty()) {
            http.send(Http.Call.of("POST", at(place) + "/removed/" + Http.encodePart(id))
                    .key(key));
            return;
        }
        throw new SystemException.Missing(Words.of("system.nothingRemoved", path));
    }

    @Override
    public void erase(String place, String path, String point, String key) throws IOException {
        http.send(Http.Call.of("DELETE", at(place) + "/versions/" + Http.encodePart(point))
                .key(key));
    }

    @Override
    public void note(String place, String path, String point, String note) throws IOException {
        http.send(Http.Call.of("PATCH", at(place) + "/versions/" + Http.encodePart(point))
                .json(Map.of("note", note)));
    }

    @Override
    public void publish(String place, String path, String point, String note, String key) throws IOException {
        http.send(Http.Call.of("POST", at(place) + "/versions/" + Http.encodePart(point))
                .key(key));
        if (!note.isEmpty()) {
            note(place, path, point, note);
        }
    }

    @Override
    public void checkOut(String place, String path, String key) throws IOException {
        http.send(Http.Call.of("CHECKOUT", dav(place, path)).key(key));
    }

    @Override
    public void endCheckOut(String place, String path, CheckOutEnd end, String key) throws IOException {
        String method = end == CheckOutEnd.CHECK_IN ? "CHECKIN" : "UNCHECKOUT";
        http.send(Http.Call.of(method, dav(place, path)).key(key));
    }
}
