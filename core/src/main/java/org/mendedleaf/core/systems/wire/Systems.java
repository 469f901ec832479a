package org.mendedleaf.core.systems.wire;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.Clock;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.systems.SystemOpener;
import org.mendedleaf.core.words.Words;

/** Opens connections to systems. */
public final class Systems {

    /** These methods, for those who know no protocols. */
    public static final SystemOpener OPENER = new SystemOpener() {
        @Override
        public void checkAddress(String address) {
            Systems.address(address);
        }

        @Override
        public SystemKind kindOf(String name, Endpoint at, Retry retry) throws IOException {
            return Systems.kindOf(name, at, retry);
        }

        @Override
        public OutsideSystem open(String name, SystemKind kind, Endpoint at, Retry retry, Clock clock) {
            return Systems.open(name, kind, at, retry, clock);
        }
    };

    private Systems() {}

    /**
     * The address of a system, checked.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static URI address(String text) {
        try {
            URI uri = new URI(text.endsWith("/") ? text.substring(0, text.length() - 1) : text);
            boolean http = "http".equals(uri.getScheme()) || "https".equals(uri.getScheme());
            if (http && uri.getHost() != null) {
                return uri;
            }
            throw new IllegalArgumentException(Words.of("system.badAddress", text));
        } catch (URISyntaxException e) {
            throw new IllegalArgumentException(Words.of("system.badAddress", text), e);
        }
    }

    /** A connection to a system of a known kind. Nothing is sent yet. */
    public static OutsideSystem open(String name, SystemKind kind, Endpoint at, Retry retry, Clock clock) {
        URI uri = address(at.address());
        Http http = new Http(name, at, retry);
        return switch (kind) {
            case LIBRARY -> new LibraryClient(http);
            case OBJECT_STORE -> new ObjectStoreClient(http);
            case FILE_SERVER -> new FileServerClient(http);
            case BACKUP_DRIVE -> new BackupDriveClient(http);
            case WEBDAV -> new WebDavClient(http, uri.getPath(), clock);
        };
    }

    private static SystemKind kind(String told) throws SystemException {
        try {
            return SystemKind.parse(told);
        } catch (IllegalArgumentException e) {
            throw new SystemException.Unable(String.valueOf(e.getMessage()));
        }
    }

    /** Asks a system of what kind it is; one that answers WebDAV only is taken for a plain server. */
    public static SystemKind kindOf(String name, Endpoint at, Retry retry) throws IOException {
        Http http = new Http(name, at, retry);
        try {
            JsonNode state = http.get("/state");
            if (state.has("kind")) {
                return kind(state.path("kind").asText());
            }
        } catch (SystemException.Missing | SystemException.Garbled e) {
            org.slf4j.LoggerFactory.getLogger(Systems.class).debug("{} has no page of its own", name, e);
        }
        http.send(Http.Call.of("PROPFIND", "/")
                .with("Depth", "0")
                .with("Content-Type", "application/xml; charset=utf-8")
                .with(Http.bytes(Dav.propfind(java.util.List.of("resourcetype"), java.util.List.of()))));
        return SystemKind.WEBDAV;
    }
}
