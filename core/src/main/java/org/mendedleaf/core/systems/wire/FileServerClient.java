package org.mendedleaf.core.systems.wire;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.vault.Digest;

/** Speaks to a file server with snapshots. */
final class FileServerClient extends OwnPages {

    FileServerClient(Http http) {
        super(http, SystemKind.FILE_SERVER, "/shares");
    }

    private static String cutQuery(String cut) {
        return cut.equals(RemoteSnapshot.LIVE) ? "" : "?snapshot=" + Http.encodePart(cut);
    }

    @Override
    public List<RemoteSnapshot> cuts(String place) throws IOException {
        return SystemJson.cuts(http.list(at(place) + "/snapshots"));
    }

    @Override
    public List<InTree> tree(String place, String cut) throws IOException {
        return SystemJson.tree(http.list(at(place) + "/tree" + cutQuery(cut)));
    }

    @Override
    public void read(String place, String path, String point, Optional<Digest> sha256, OutputStream out)
            throws IOException {
        http.download(at(place) + "/files/" + Http.encode(path) + cutQuery(point), sha256, out);
    }

    @Override
    public String put(String place, Put put) throws IOException {
        http.send(
                conditional(RequestKeys.upload(at(place) + "/files/" + Http.encode(put.path()), put), put.replaces()));
        return "";
    }

    /** A request that the server refuses when the file is not as it was seen last; its tags are digests. */
    private static Http.Call conditional(Http.Call call, Before before) {
        return switch (before.expected()) {
            case ANYTHING -> call;
            case NOTHING -> call.with("If-None-Match", "*");
            case THIS ->
                before.sha256()
                        .map(sha -> call.with("If-Match", '"' + sha.hex() + '"'))
                        .orElse(call);
        };
    }

    @Override
    public void remove(String place, String path, String key) throws IOException {
        remove(place, path, Before.ANYTHING, key);
    }

    @Override
    public void remove(String place, String path, Before before, String key) throws IOException {
        http.send(conditional(
                Http.Call.of("DELETE", at(place) + "/files/" + Http.encode(path))
                        .key(key),
                before));
    }

    @Override
    public RemoteSnapshot snapshot(String place, String label, String key) throws IOException {
        return SystemJson.cut(http.send(
                        Http.Call.of("POST", at(place) + "/snapshots").key(key).json(Map.of("label", label)))
                .json());
    }

    @Override
    public void eraseCut(String place, String cut) throws IOException {
        http.send(Http.Call.of("DELETE", at(place) + "/snapshots/" + Http.encodePart(cut))
                .key(RequestKeys.fresh()));
    }

    @Override
    public boolean takeBack(String place, String cut, String path, String key) throws IOException {
        http.send(Http.Call.of("POST", at(place) + "/takeback").key(key).json(Map.of("snapshot", cut, "path", path)));
        return true;
    }
}
