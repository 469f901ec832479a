package org.mendedleaf.core.systems.wire;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import java.io.IOException;
import java.io.OutputStream;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.systems.BackupTarget;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.vault.Digest;

/** Speaks to a backup drive. */
final class BackupDriveClient extends OwnPages implements BackupTarget {

    BackupDriveClient(Http http) {
        super(http, SystemKind.BACKUP_DRIVE, "/sets");
    }

    private String at(String place, String run) {
        return at(place) + "/runs/" + Http.encodePart(run);
    }

    @Override
    public List<RemoteSnapshot> cuts(String place) throws IOException {
        return SystemJson.cuts(http.list(at(place) + "/runs"));
    }

    @Override
    public List<InTree> tree(String place, String cut) throws IOException {
        return SystemJson.tree(http.list(at(place, cut) + "/tree"));
    }

    @Override
    public void read(String place, String path, String point, Optional<Digest> sha256, OutputStream out)
            throws IOException {
        http.download(at(place, point) + "/files/" + Http.encode(path), sha256, out);
    }

    @Override
    public void eraseCut(String place, String cut) throws IOException {
        http.send(Http.Call.of("DELETE", at(place, cut)).key(RequestKeys.fresh()));
    }

    @Override
    public BackupTarget target() {
        return this;
    }

    @Override
    public Run open(String place, Instant moment) throws IOException {
        JsonNode run = http.send(Http.Call.of("POST", at(place) + "/runs")
                        .key(RequestKeys.fresh())
                        .json(Map.of("at", moment.toString())))
                .json();
        Set<String> have = new HashSet<>();
        run.path("have").forEach(p -> have.add(p.asText()));
        return new Run(run.path("id").asText(), SystemJson.moment(run.path("at")), have);
    }

    @Override
    public Set<String> same(String place, String run, List<InTree> files) throws IOException {
        ArrayNode list = Http.JSON.createArrayNode();
        for (InTree f : files) {
            list.addObject()
                    .put("path", f.path())
                    .put("modified", f.modified().toString())
                    .put("who", f.who())
                    .put("sha256", f.sha256().map(Digest::hex).orElse(""));
        }
        Set<String> missing = new HashSet<>();
        http.send(Http.Call.of("POST", at(place, run) + "/same").json(list))
                .json()
                .path("missing")
                .forEach(p -> missing.add(p.asText()));
        return missing;
    }

    @Override
    public void add(String place, String run, Put put) throws IOException {
        http.send(RequestKeys.upload(at(place, run) + "/files/" + Http.encode(put.path()), put));
    }

    @Override
    public void finish(String place, String run, Map<String, String> skipped) throws IOException {
        http.send(Http.Call.of("POST", at(place, run) + "/finish").json(Map.of("skipped", skipped)));
    }

    @Override
    public void giveUp(String place, String run) throws IOException {
        eraseCut(place, run);
    }

    @Override
    public Map<String, String> skipped(String place, String cut) throws IOException {
        Map<String, String> all = new TreeMap<>();
        http.get(at(place, cut))
                .path("skipped")
                .properties()
                .forEach(e -> all.put(e.getKey(), e.getValue().asText()));
        return all;
    }
}
