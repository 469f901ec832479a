package org.mendedleaf.core.systems.wire;

import java.io.IOException;
import java.io.OutputStream;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.systems.Budget;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Speaks to any WebDAV server (RFC 4918). The folder at its address is its one place. It keeps nothing but what is there
 * now, so that a file is known to have changed by its ETag only. Folders are asked for one by one, since many servers refuse to list
 * a whole tree.
 */
final class WebDavClient implements OutsideSystem {

    private static final List<String> ASKED = List.of("resourcetype", "getetag", "getcontentlength", "getlastmodified");

    private final Http http;
    private final String basePath;
    private final Clock clock;

    WebDavClient(Http http, String basePath, Clock clock) {
        this.http = http;
        this.basePath = basePath.endsWith("/") ? basePath : basePath + "/";
        this.clock = clock;
    }

    @Override
    public SystemKind kind() {
        return SystemKind.WEBDAV;
    }

    @Override
    public State state() throws IOException {
        list("");
        return new State(clock.instant(), -1, -1);
    }

    /** The one place is the folder at the address. */
    @Override
    public List<OutsidePlace> places() throws IOException {
        String path = basePath.substring(0, basePath.length() - 1);
        String last = path.substring(path.lastIndexOf('/') + 1).replace(':', '-');
        return List.of(new OutsidePlace(
                last.isEmpty() ? "files" : last, kind().standardSettings(), -1, -1, Role.OWNER, Optional.empty()));
    }

    private record Found(String path, Dav.Resource resource) {}

    /** What a folder holds; the folder itself is left out. */
    private List<Found> list(String folder) throws IOException {
        String at = folder.isEmpty() ? "/" : "/" + Http.encode(folder) + "/";
        Http.Reply reply = http.send(Http.Call.of("PROPFIND", at)
                .with("Depth", "1")
                .with("Content-Type", "application/xml; charset=utf-8")
                .with(Http.bytes(Dav.propfind(ASKED, List.of()))));
        List<Found> found = new ArrayList<>();
        for (Dav.Resource r : Dav.read(reply.body())) {
            String path = Dav.path(r.href());
            if (!path.startsWith(basePath)) {
                throw new SystemException.Garbled(Words.of("system.garbled", path));
            }
            path = path.substring(basePath.length());
            path = path.endsWith("/") ? path.substring(0, path.length() - 1) : path;
            boolean inside = folder.isEmpty() ? !path.isEmpty() : path.startsWith(folder + "/");
            if (inside
                    && !path.substring(folder.isEmpty() ? 0 : folder.length() + 1)
                            .contains("/")) {
                found.add(new Found(path, r));
            }
        }
        return found;
    }

    @Override
    public void create(String place, PlaceSettings settings) throws IOException {
        throw new SystemException.Unable(Words.of("system.unable", Words.of("system.kind." + kind().text())));
    }

    @Override
    public void configure(String place, PlaceSettings settings) {
        // It has no settings.
    }

    @Override
    public List<RemoteSnapshot> cuts(String place) {
        return List.of();
    }

    @Override
    public List<InTree> tree(String place, String cut) throws IOException {
        List<InTree> files = new ArrayList<>();
        Deque<String> folders = new ArrayDeque<>(List.of(""));
        Set<String> seen = new HashSet<>();
        Budget.Listing listing = http.listing();
        while (!folders.isEmpty()) {
            String folder = folders.pop();
            if (!seen.add(folder)) {
                continue;
            }
            List<Found> inside = list(folder);
            listing.more(inside.size());
            for (Found f : inside) {
                if (f.resource().folder() && http.isTooDeep(f.path())) {
                    // Named as a gap by whoever takes the paths.
                    files.add(new InTree(f.path() + "/", 0, Instant.EPOCH, "", Optional.empty(), ""));
                } else if (f.resource().folder()) {
                    folders.push(f.path());
                } else {
                    Dav.Resource r = f.resource();
                    files.add(new InTree(f.path(), r.size(), r.modified(), "", Optional.empty(), tag(r)));
                }
            }
        }
        return files;
    }

    private static String at(String path) {
        return "/" + Http.encode(path);
    }

    @Override
    public void read(String place, String path, String point, Optional<Digest> sha256, OutputStream out)
            throws IOException {
        http.download(at(path), sha256, out);
    }

    /** The same content under the same name twice is the same as once: no key is needed. */
    @Override
    public String put(String place, Put put) throws IOException {
        for (int slash = put.path().indexOf('/'); slash >= 0; slash = put.path().indexOf('/', slash + 1)) {
            String folder = put.path().substring(0, slash);
            try {
                http.send(Http.Call.of("MKCOL", at(folder)));
            } catch (SystemException.Conflict | SystemException.Garbled e) {
                // Servers answer 405 or 409 for a folder that is there; one that is not shows at the PUT.
                org.slf4j.LoggerFactory.getLogger(Http.class).trace("{}", e.words());
            }
        }
        http.send(conditional(Http.Call.of("PUT", at(put.path())).with(put.bytes()), put.path(), put.replaces()));
        return "";
    }

    /**
     * A request that the server refuses when the file is not as it was seen last: by its entity tag (RFC 9110, 13.1). A weak
     * tag cannot be asked for, and some servers have none; then the file is looked at right before, which leaves the moment
     * between the two requests open.
     */
    private Http.Call conditional(Http.Call call, String path, Before before) throws IOException {
        if (before.expected() == Before.Expected.ANYTHING) {
            return call;
        }
        if (before.expected() == Before.Expected.NOTHING) {
            return call.with("If-None-Match", "*");
        }
        String tag = before.tag();
        if (tag.startsWith("\"") && tag.lastIndexOf('"') > 0) {
            return call.with("If-Match", tag.substring(0, tag.lastIndexOf('"') + 1));
        }
        if (!tag.equals(tagNow(path))) {
            throw new SystemException.Conflict(Words.of("system.conflict", http.system(), path));
        }
        return call;
    }

    /** What a file is told apart by as it is now; empty when there is none. */
    private String tagNow(String path) throws IOException {
        int slash = path.lastIndexOf('/');
        return list(slash < 0 ? "" : path.substring(0, slash)).stream()
                .filter(f -> f.path().equals(path) && !f.resource().folder())
                .map(f -> tag(f.resource()))
                .findFirst()
                .orElse("");
    }

    private static String tag(Dav.Resource r) {
        return r.get("getetag").isEmpty() ? r.size() + "/" + r.modified() : r.get("getetag") + "/" + r.size();
    }

    @Override
    public void remove(String place, String path, String key) throws IOException {
        remove(place, path, Before.ANYTHING, key);
    }

    @Override
    public void remove(String place, String path, Before before, String key) throws IOException {
        try {
            http.send(conditional(Http.Call.of("DELETE", at(path)), path, before));
        } catch (SystemException.Missing e) {
            // A repetition finds what it did itself.
            return;
        }
    }
}
