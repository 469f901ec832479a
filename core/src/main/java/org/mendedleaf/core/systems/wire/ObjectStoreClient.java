package org.mendedleaf.core.systems.wire;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.mendedleaf.core.systems.Budget;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.vault.Digest;

/** Speaks to an object store. Its versions come in pages, by key and then by time. */
final class ObjectStoreClient extends OwnPages {

    ObjectStoreClient(Http http) {
        super(http, SystemKind.OBJECT_STORE, "/containers");
    }

    private String at(String place, String path) {
        return at(place) + "/objects/" + Http.encode(path);
    }

    @Override
    public void files(String place, Map<String, String> known, Consumer<File> each) throws IOException {
        String after = "";
        String key = "";
        List<Point> points = new ArrayList<>();
        Budget.Listing listing = http.listing();
        while (true) {
            JsonNode page = http.get(at(place) + "/versions?limit=2000&after=" + Http.encodePart(after));
            listing.more(page.path("versions").size());
            for (JsonNode p : page.path("versions")) {
                if (!p.path("key").asText().equals(key)) {
                    hand(key, points, known, each);
                    key = p.path("key").asText();
                    points = new ArrayList<>();
                }
                points.add(SystemJson.point(p));
            }
            String next = page.path("next").asText("");
            if (!next.isEmpty() && next.equals(after)) {
                throw http.noEnd();
            }
            after = next;
            if (after.isEmpty()) {
                hand(key, points, known, each);
                return;
            }
        }
    }

    private static void hand(String key, List<Point> points, Map<String, String> known, Consumer<File> each) {
        if (!points.isEmpty()) {
            String tag = RequestKeys.tag(points);
            each.accept(new File(
                    key, key, tag, tag.equals(known.get(key)) ? Optional.empty() : Optional.of(List.copyOf(points))));
        }
    }

    @Override
    public void read(String place, String path, String point, Optional<Digest> sha256, OutputStream out)
            throws IOException {
        http.download(at(place, path) + "?version=" + Http.encodePart(point), sha256, out);
    }

    @Override
    public String put(String place, Put put) throws IOException {
        return http.send(RequestKeys.upload(at(place, put.path()), put))
                .json()
                .path("id")
                .asText("");
    }

    @Override
    public void remove(String place, String path, String key) throws IOException {
        http.send(Http.Call.of("DELETE", at(place, path)).key(key));
    }

    @Override
    public void bringBack(String place, String path, String key) throws IOException {
        http.send(Http.Call.of("DELETE", at(place, path) + "?removal=true").key(key));
    }

    @Override
    public void erase(String place, String path, String point, String key) throws IOException {
        http.send(Http.Call.of("DELETE", at(place, path) + "?version=" + Http.encodePart(point))
                .key(key));
    }

    @Override
    public void note(String place, String path, String point, String note) throws IOException {
        http.send(Http.Call.of("PATCH", at(place, path) + "?version=" + Http.encodePart(point))
                .json(Map.of("note", note)));
    }
}
